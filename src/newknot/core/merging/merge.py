"""Two copies of one vault that went separate ways, merged: each change since they parted is kept.

The result is a join: the order of merging does not matter, and merging twice changes nothing (a
state-based replicated data type: M. Shapiro et al., 2011). Of one unit changed on both sides the
greater stamp counts: what was changed more often, and of as many changes the later by the copies'
clocks, where these are believed. Nothing rests on a clock: what gives way is kept. A secret that
lost so is kept in the history, as one that may have served, unless the other copy knew it and left
it behind. A text that lost so is kept beside the other until it is settled. What was deleted for
good in one copy goes in another that holds nothing that was not known when it was; else it is kept
and asked about. So is a login for which the other copy began, or went on with, a rotation.
"""

import json
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from newknot.core.backup_codes import id_of_codes, text_of_codes
from newknot.core.login import (
    BACKUP_CODES_FIELD,
    CODE_KEY_FIELD,
    BackupCode,
    unnamed_secret_id,
)
from newknot.core.merging.stamps import (
    EDITION,
    NO_STAMP,
    STAMPS,
    Document,
    Stamp,
    Why,
    believed,
    change_of,
    place_of_entry,
    put_together,
    units,
    why,
)
from newknot.core.merging.texts import (
    ALL_NOTED,
    APART,
    apart,
    entries_of,
    is_noted,
    is_text,
    joined_texts,
    lost_in,
    text_id,
)
from newknot.core.merging.texts import (
    seen as seen_texts,
)
from newknot.core.secret import Secret

CARD, SECRETS, HISTORY = "1", "2", "3"
LOGIN, ROTATION = "LOGIN", "ROTATION"
MERGED_LABELS = frozenset(
    ("LOGIN", "POLICY", "ROTATION", "LOOSE_END", "WAIVER", "CAMPAIGN", "OWN_DETAILS")
)
SINGLE_LABELS = frozenset(("OWN_DETAILS",))
"""Of these a vault has one record, whatever its id."""
JOINED_LABELS = frozenset(("POLICY", "OWN_DETAILS"))
"""Of these each unit moves by itself, as of logins; the others move as a whole."""
PARTED = "parted"
"""The eighth part of an entry of a history that no copy put there: its secret lost in a merge."""

Parts = dict[str, Document]
"""Part of a record -> its document."""
Gone = dict[str, Any]
"""What is known of a record that was deleted for good: part -> unit -> stamp, under `secrets` and
`texts` the ids of what it held and left behind, and under `also` what other copies knew that
deleted it without this knowledge.
"""


@dataclass(slots=True)
class Contents:
    """records: label -> id -> parts. removed: ids that were deleted for good -> what they were.
    unread: ids of records that are there and cannot be read. written_ms: since 1970, the copy's
    last write or a moment after it, by its own clock; None where that is not known.
    """

    records: dict[str, dict[str, Parts]] = field(default_factory=dict)
    removed: dict[str, Gone] = field(default_factory=dict)
    unread: set[str] = field(default_factory=set)
    written_ms: int | None = field(default=None, compare=False)


@dataclass(slots=True)
class Merge:
    """The joined contents, and what of ours is added, changed or removed by it, as (label, id).

    parted: logins whose secret, or a text, was changed on both sides. secrets_taken: of those the
    logins with two secrets -> why the one that is taken counts for more. asked: logins deleted on
    one side and changed on the other; they are kept, those in the bin stay there.
    """

    contents: Contents
    added: list[tuple[str, str]]
    changed: list[tuple[str, str]]
    removed: list[tuple[str, str]]
    parted: list[str]
    asked: list[str]
    secrets_taken: dict[str, Why] = field(default_factory=dict)


def merged(ours: Contents, theirs: Contents) -> Merge:
    """The join of both, and what it changes of ours."""
    out = Merge(Contents(), [], [], [], [], [])
    rotating = _rotating(ours, theirs)
    for label in sorted(ours.records.keys() | theirs.records.keys()):
        mine, others = ours.records.get(label, {}), theirs.records.get(label, {})
        if label in SINGLE_LABELS and mine and others:
            # Both under one id, the same from either side.
            one = min(*mine, *others)
            mine, others = {one: _only(mine)}, {one: _only(others)}
        joined: dict[str, Parts] = {}
        for record_id in sorted(mine.keys() | others.keys()):
            a, b = mine.get(record_id), others.get(record_id)
            if a is not None and b is not None:
                sides = _believed(a, b, ours.written_ms), _believed(b, a, theirs.written_ms)
                found: Parts | None = _of_both(out, label, record_id, *sides)
            else:
                found = _of_one(label, record_id, ours, theirs)
                known_gone = record_id in ours.removed or record_id in theirs.removed
                if label == LOGIN and known_gone and (found or record_id in rotating):
                    found = a if a is not None else b
                    out.asked.append(record_id)
            if found is not None:
                joined[record_id] = found
            elif record_id in mine:
                out.removed.append((label, record_id))
        if label == ROTATION:
            _keep_held(out, joined, (mine, others))
        if label in SINGLE_LABELS:
            gone = ours.records.get(label, {}).keys() - joined.keys()
            out.removed += [(label, record_id) for record_id in gone]
        if joined:
            out.contents.records[label] = joined
    for label, joined in out.contents.records.items():
        for record_id, parts in joined.items():
            known = ours.records.get(label, {}).get(record_id)
            if known is None:
                out.added.append((label, record_id))
            elif known != parts:
                out.changed.append((label, record_id))
    kept = {i for records in out.contents.records.values() for i in records}
    for record_id in ours.removed.keys() | theirs.removed.keys():
        if record_id not in kept:
            notes = [c.removed[record_id] for c in (ours, theirs) if record_id in c.removed]
            out.contents.removed[record_id] = _gone_in_both(*notes) if notes[1:] else notes[0]
    return out


def gone_of(record_id: str, parts: Parts, *, login: Parts | None = None) -> Gone:
    """What is to be known of a record that is deleted for good: stamps and ids, nothing it said.
    login: of a rotation the login, which has in its history what was staged before.
    """
    gone: Gone = {part: document.get(STAMPS, {}) for part, document in parts.items()}
    texts = [ALL_NOTED, *(entry[0] for entry in entries_of(parts.get(HISTORY)))]
    ids = secret_ids(record_id, parts)
    if login is not None and CARD in login and SECRETS in login:
        stamps = login.get(HISTORY, {}).get(STAMPS, {})
        left = {unit.removeprefix("earlier/") for unit in stamps if unit.startswith("earlier/")}
        ids |= secret_ids(parts[CARD]["login_id"], login) | left
    return {**gone, "secrets": sorted(ids), "texts": texts}


def edition_of(parts: Parts) -> int:
    """How often a record was changed, in all its parts."""
    return sum(document.get(EDITION, 0) for document in parts.values())


def _of_both(out: Merge, label: str, record_id: str, a: Parts, b: Parts) -> Parts:
    if a == b:
        return a
    if label in JOINED_LABELS:
        return _parts_joined(a, b)
    return _login(out, record_id, a, b) if label == LOGIN else _whole(a, b)


def _believed(parts: Parts, other: Parts, written_ms: int | None) -> Parts:
    return {
        part: believed(document, written_ms, known=other.get(part, {}).get(STAMPS, {}))
        for part, document in parts.items()
    }


def _of_one(label: str, record_id: str, ours: Contents, theirs: Contents) -> Parts | None:
    """A record that one copy has alone; None where it goes, as deleted for good in the other."""
    a, b = (side.records.get(label, {}).get(record_id) for side in (ours, theirs))
    left = a if a is not None else b
    assert left is not None
    gone = (theirs if a is not None else ours).removed.get(record_id)
    if gone is not None and label in JOINED_LABELS and _differs(left, gone):
        # Nothing tells which of its changes were known: it stays.
        return left
    return left if gone is None or _beyond(record_id, left, gone) else None


def _differs(left: Parts, gone: Gone) -> bool:
    """Whether any of its stamps is none that a copy which deleted it knew."""
    return any(
        stamp != NO_STAMP and not any(_is_same(stamp, one.get(part, {}).get(unit)) for one in notes)
        for notes in [list(_each(gone))]
        for part, document in left.items()
        for unit, stamp in document.get(STAMPS, {}).items()
    )


def _is_same(stamp: Stamp, known: Stamp | None) -> bool:
    return known is not None and change_of(stamp) == change_of(known)


def _rotating(ours: Contents, theirs: Contents) -> set[str]:
    """The logins of the rotations that stay."""
    mine, others = (side.records.get(ROTATION, {}) for side in (ours, theirs))
    return {
        str(parts[CARD].get("login_id"))
        for record_id, parts in (*mine.items(), *others.items())
        if (record_id in mine and record_id in others)
        or _of_one(ROTATION, record_id, ours, theirs) is not None
    }


def _beyond(record_id: str, left: Parts, gone: Gone) -> bool:
    """Whether a copy of a record holds a change or a secret that no copy which deleted it knew."""
    return all(_is_news(record_id, left, one) for one in _each(gone))


def _is_news(record_id: str, left: Parts, gone: Gone) -> bool:
    for part, document in left.items():
        known = gone.get(part, {})
        for unit, stamp in document.get(STAMPS, {}).items():
            if not _is_known(unit, stamp, known.get(unit, NO_STAMP), gone):
                return True
    archived = gone.get(HISTORY, {})
    held = secret_ids(record_id, left) - set(gone["secrets"])
    if any(f"earlier/{secret_id}" not in archived for secret_id in held):
        return True
    if "texts" not in gone:
        return False
    # Of what lost in a merge nothing else may be left.
    seen = {*gone["texts"], *(text_id(u, stamp) for u, stamp in gone.get(CARD, {}).items())}
    return any(entry[0] not in seen for entry in entries_of(left.get(HISTORY)))


def _is_known(unit: str, stamp: Stamp, known: Stamp, gone: Gone) -> bool:
    if stamp == NO_STAMP or change_of(stamp) == change_of(known):
        return True
    if "texts" in gone and (is_text(unit) or (is_noted(unit) and ALL_NOTED in gone["texts"])):
        return text_id(unit, stamp) in gone["texts"]
    # Of one edition there is but one change in each copy: another's was not seen.
    return bool(stamp[0] < known[0])


def _gone_in_both(a: Gone, b: Gone) -> Gone:
    """What either knew when it deleted, but for what another knew as well, with more."""
    most: list[Gone] = []
    # Of two that differ by what they believe of a clock alone each knew the other: one is enough.
    for one in sorted((*_each(a), *_each(b)), key=_text, reverse=True):
        if not any(_knew(other, one) for other in most):
            most = [other for other in most if not _knew(one, other)] + [one]
    first, *also = sorted(most, key=_text)
    return {**first, "also": also} if also else first


_IDS = frozenset(("secrets", "texts"))


def _each(gone: Gone) -> list[Gone]:
    return [{k: v for k, v in gone.items() if k != "also"}, *gone.get("also", ())]


def _knew(more: Gone, less: Gone) -> bool:
    return all(set(less.get(ids, ())) <= set(more.get(ids, ())) for ids in _IDS) and all(
        _is_known(unit, stamp, more.get(part, {}).get(unit, NO_STAMP), more)
        for part in less.keys() - _IDS
        for unit, stamp in less[part].items()
    )


def stamps_of_gone(gone: Gone, part: str) -> dict[str, Stamp]:
    """The greatest stamps that are known of a part of what is gone."""
    known: dict[str, Stamp] = {}
    for one in _each(gone):
        known = _greatest(known, one.get(part, {}))
    return known


def _login(out: Merge, login_id: str, a: Parts, b: Parts) -> Parts:
    joined = _parts_joined(a, b)
    card = joined[CARD]
    _keep_texts(joined, a, b)
    loser, winner = sorted(
        (a, b), key=lambda parts: (*_rank_of(parts), parts[CARD]["secret_since_at"])
    )
    for name in ("secret_since_at", "has_secret"):
        card[name] = winner[CARD][name]
    kept = {secret_id for secret_id, _ in held_entries(login_id, joined)}
    lost = [
        (secret_id, entry)
        for side, other in ((a, b), (b, a))
        for secret_id, entry in held_entries(login_id, side)
        if secret_id not in kept and not _let_go(secret_id, side, other)
    ]
    joined = _with_parted(joined, lost)
    _say_parted(joined)
    mine = _parted(a)
    texts = entries_of(joined.get(HISTORY))
    kept_apart = {e[0] for e in seen_texts(texts, card) if e[3] == APART}
    known_apart = {e[0] for e in entries_of(a.get(HISTORY))}
    two_secrets = not _parted(joined).keys() <= mine.keys()
    if two_secrets or not kept_apart <= known_apart:
        out.parted.append(login_id)
    if two_secrets and winner[SECRETS]["secret"] != loser[SECRETS]["secret"]:
        out.secrets_taken[login_id] = why(_rank_of(winner)[0], _rank_of(loser)[0])
    card["secret_field_names"] = [entry[0] for entry in joined[SECRETS]["fields"]]
    if card.get("deleted_at") and _both_changed(a[CARD], b[CARD]):
        out.asked.append(login_id)
    return joined


def _keep_texts(joined: Parts, a: Parts, b: Parts) -> None:
    """Texts that lost without having been seen are kept beside those that count."""
    found = [
        *entries_of(a.get(HISTORY)),
        *entries_of(b.get(HISTORY)),
        *lost_in(a, b, card=CARD, history=HISTORY),
        *lost_in(b, a, card=CARD, history=HISTORY),
    ]
    if found:
        texts = joined_texts(found)
        joined[HISTORY] = {"earlier": [], **joined.get(HISTORY, {}), "texts": texts}
        joined[CARD]["texts_apart"] = apart(texts, joined[CARD])


def _keep_held(
    out: Merge, joined: Mapping[str, Parts], sides: Sequence[Mapping[str, Parts]]
) -> None:
    """The secrets of a rotation that went on differently on the other side, into the history of its
    login: either may be the one that the site has.
    """
    logins = out.contents.records.get(LOGIN, {})
    for record_id, parts in joined.items():
        login_id = parts[CARD]["login_id"]
        if login_id not in logins:
            continue
        others = [side[record_id] for side in sides if record_id in side]
        lost = [
            (_id(login_id, "", one), _entry(login_id, "", one, one["since_at"]))
            for other in others
            if other != parts
            for one in (other.get(SECRETS, {}).get("staged"), other.get(SECRETS, {}).get("former"))
            if one is not None and one["secret"]
        ]
        before = logins[login_id]
        lost = [one for one in lost if not _let_go(one[0], {}, before)]
        if lost:
            logins[login_id] = {**_with_parted(before, lost), CARD: dict(before[CARD])}
            _say_parted(logins[login_id])


def held_entries(login_id: str, parts: Parts) -> Iterator[tuple[str, list[Any]]]:
    """Each secret that a login holds now, by its id, as the entry of the history it would be."""
    document, card = parts[SECRETS], parts[CARD]
    made_at = str(card["created_at"])
    if document["secret"]:
        entry = _entry(login_id, "", document, card["secret_since_at"])
        yield entry[0], entry
    for name, value, *more in document["fields"]:
        one = {"secret": value, "secret_id": more[0] if more else ""}
        entry = _entry(login_id, name, one, made_at)
        yield entry[0], entry
    if document.get("code_key"):
        one = {"secret": document["code_key"], "secret_id": document.get("code_key_id", "")}
        entry = _entry(login_id, CODE_KEY_FIELD, one, made_at)
        yield entry[0], entry
    if document.get("backup_codes"):
        codes = [BackupCode(Secret(c), _moment(used)) for c, used in document["backup_codes"]]
        one = {"secret": text_of_codes(codes), "secret_id": id_of_codes(login_id, codes)}
        # A set that gave way is kept, and asks nothing.
        entry = _entry(login_id, BACKUP_CODES_FIELD, one, made_at)[:-1]
        yield entry[0], entry


def _entry(login_id: str, name: str, one: Mapping[str, Any], since_at: str) -> list[Any]:
    origin = one.get("origin", {"kind": "own", "entropy_bits": None})
    secret_id = one.get("secret_id") or unnamed_secret_id(login_id, name, one["secret"])
    return [secret_id, one["secret"], origin, since_at, since_at, True, name, PARTED]


def _id(login_id: str, name: str, one: Mapping[str, Any]) -> str:
    return str(_entry(login_id, name, one, "")[0])


def secret_ids(record_id: str, parts: Parts) -> set[str]:
    """The ids of every secret that a login holds or held, or a rotation holds; none of others."""
    held = parts.get(SECRETS, {})
    if "fields" not in held:
        both = (held.get("staged"), held.get("former"))
        return {str(one["secret_id"]) for one in both if one and one.get("secret_id")}
    earlier = parts.get(HISTORY, {"earlier": []})["earlier"]
    return {i for i, _ in held_entries(record_id, parts)} | {entry[0] for entry in earlier}


def _earlier(parts: Parts) -> list[list[Any]]:
    found: list[list[Any]] = parts.get(HISTORY, {}).get("earlier", [])
    return found


def _let_go(secret_id: str, holder: Parts, other: Parts) -> bool:
    """Whether the other side knew a secret that the holder has, and deleted it since. What the
    holder itself took out of its history it may have taken back as current: a deletion that is not
    later than that did not know of it.
    """
    unit = f"earlier/{secret_id}"
    stamp = other.get(HISTORY, {}).get(STAMPS, {}).get(unit)
    known = holder.get(HISTORY, {}).get(STAMPS, {}).get(unit, NO_STAMP)
    return (
        stamp is not None
        and bool(stamp[0] > known[0])
        and all(e[0] != secret_id for e in _earlier(other))
    )


def _with_parted(parts: Parts, lost: Sequence[tuple[str, list[Any]]]) -> Parts:
    """The login with these in its history, but for what it knew and left behind: that stays as it
    is. What a copy left behind and another took up again since is lost as what that one has.
    """
    by_id = {entry[0]: entry for entry in _earlier(parts)}
    stamps = parts.get(HISTORY, {}).get(STAMPS, {})
    for secret_id, entry in lost:
        known = by_id.get(secret_id)
        if known is None or (_is_parted(known) and f"earlier/{secret_id}" not in stamps):
            known = max(known or entry, entry, key=_text)
        by_id[secret_id] = known
    if not by_id:
        return parts
    earlier = sorted(by_id.values(), key=place_of_entry)
    return {**parts, HISTORY: {**parts.get(HISTORY, {}), "earlier": earlier}}


def _say_parted(parts: Parts) -> None:
    parts[CARD]["parted_at"] = max(_parted(parts).values(), default=None)


def _parted(parts: Parts) -> dict[str, str]:
    """Since when each secret that lost, and is not settled yet, was there."""
    held = parts[SECRETS]
    current = {("", held["secret"]), (CODE_KEY_FIELD, held.get("code_key"))}
    current |= {(entry[0], entry[1]) for entry in held["fields"]}
    return {
        entry[0]: entry[3]
        for entry in parts.get(HISTORY, {"earlier": []})["earlier"]
        if _is_parted(entry) and (entry[6], entry[1]) not in current
    }


def _is_parted(entry: object) -> bool:
    return isinstance(entry, list) and len(entry) > 7 and entry[7] == PARTED


def _parts_joined(a: Parts, b: Parts) -> Parts:
    return {part: _join(a.get(part), b.get(part)) for part in sorted(a.keys() | b.keys())}


def _join(a: Document | None, b: Document | None) -> Document:
    """Each unit by the greater stamp; what is there before what is not; then by content."""
    if a is None or b is None or a == b:
        found = a if a is not None else b
        assert found is not None
        return dict(found)
    values_a, values_b = units(a), units(b)
    stamps_a, stamps_b = a.get(STAMPS, {}), b.get(STAMPS, {})
    sides = ((values_a, stamps_a), (values_b, stamps_b))
    joined: dict[str, Any] = {}
    for key in sorted(values_a.keys() | values_b.keys()):
        values, _ = max(sides, key=lambda s: _rank(s[0], s[1], key))
        if key in values:
            joined[key] = values[key]
    edition = max(a.get(EDITION, 0), b.get(EDITION, 0))
    return put_together(joined, edition=edition, stamps=_greatest(stamps_a, stamps_b))


def _greatest(a: Mapping[str, Stamp], b: Mapping[str, Stamp]) -> dict[str, Stamp]:
    return {
        key: max(a.get(key, NO_STAMP), b.get(key, NO_STAMP)) for key in sorted(a.keys() | b.keys())
    }


def _whole(a: Parts, b: Parts) -> Parts:
    """A record that moves as one: that which was changed more often, then by content."""
    rank: Callable[[Parts], tuple[int, str]] = lambda parts: (edition_of(parts), _text(parts))  # noqa: E731
    return max(a, b, key=rank)


def _rank_of(parts: Parts) -> tuple[Stamp, bool, bool, str]:
    document = parts[SECRETS]
    return _rank(units(document), document.get(STAMPS, {}), "secret")


def _rank(
    values: Mapping[str, Any], stamps: Mapping[str, Stamp], key: str
) -> tuple[Stamp, bool, bool, str]:
    value = values.get(key)
    # What a copy put into a history itself goes before what a merge did.
    own = not (key.startswith("earlier/") and _is_parted(value))
    return stamps.get(key, NO_STAMP), key in values, own, _text(value)


def _both_changed(a: Document, b: Document) -> bool:
    """Whether each side has a unit that the other does not have as new."""
    stamps_a, stamps_b = a.get(STAMPS, {}), b.get(STAMPS, {})
    values_a, values_b = units(a), units(b)
    keys = values_a.keys() | values_b.keys()
    pairs = [
        (stamps_a.get(k, NO_STAMP), stamps_b.get(k, NO_STAMP))
        for k in keys
        if values_a.get(k) != values_b.get(k)
    ]
    return any(x[0] and x[0] >= y[0] for x, y in pairs) and any(
        y[0] and y[0] >= x[0] for x, y in pairs
    )


def _only(records: Mapping[str, Parts]) -> Parts:
    return records[min(records)]


def _moment(text: str | None) -> datetime | None:
    return datetime.fromisoformat(text) if text else None


def _text(value: object) -> str:
    return json.dumps(value, sort_keys=True, ensure_ascii=True, separators=(",", ":"))
