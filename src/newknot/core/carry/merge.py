"""Two copies of one vault that went separate ways, merged: each change since they parted is kept.

The result is a join: the order of merging does not matter, and merging twice changes nothing (a
state-based replicated data type: M. Shapiro et al., 2011). Of one unit changed on both sides the
greater stamp counts, and equal stamps are told apart by content alone: no clock is trusted. Two
secrets of one login are both kept. What was deleted for good in one copy and changed in another is
kept and asked about, two copies at a time: there the order of three can matter.
"""

import json
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from hashlib import sha256
from typing import Any

from newknot.core.carry.stamps import EDITION, STAMPS, Document, put_together, units

CARD, SECRETS, HISTORY = "1", "2", "3"
LOGIN, ROTATION = "LOGIN", "ROTATION"
MERGED_LABELS = frozenset(
    ("LOGIN", "POLICY", "ROTATION", "LOOSE_END", "WAIVER", "CAMPAIGN", "OWN_DETAILS")
)
SINGLE_LABELS = frozenset(("OWN_DETAILS",))
"""Of these a vault has one record, whatever its id."""

Parts = dict[str, Document]
"""Part of a record -> its document."""


@dataclass(slots=True)
class Contents:
    """records: label -> id -> parts. removed: ids that were deleted for good -> editions then."""

    records: dict[str, dict[str, Parts]] = field(default_factory=dict)
    removed: dict[str, int] = field(default_factory=dict)


@dataclass(slots=True)
class Merge:
    """The joined contents, and what of ours is added, changed or removed by it, as (label, id).

    parted: logins whose secret was changed on both sides. asked: logins deleted on one side and
    changed on the other; they are kept, those in the bin stay there.
    """

    contents: Contents
    added: list[tuple[str, str]]
    changed: list[tuple[str, str]]
    removed: list[tuple[str, str]]
    parted: list[str]
    asked: list[str]


def merged(ours: Contents, theirs: Contents) -> Merge:
    """The join of both, and what it changes of ours."""
    out = Merge(Contents(), [], [], [], [], [])
    for label in sorted(ours.records.keys() | theirs.records.keys()):
        mine, others = ours.records.get(label, {}), theirs.records.get(label, {})
        if label in SINGLE_LABELS and mine and others:
            # Both under one id, the same from either side.
            one = min(*mine, *others)
            mine, others = {one: _only(mine)}, {one: _only(others)}
        joined: dict[str, Parts] = {}
        for record_id in sorted(mine.keys() | others.keys()):
            found = _one(out, label, record_id, mine, others, ours, theirs)
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
            editions = (c.removed.get(record_id, 0) for c in (ours, theirs))
            out.contents.removed[record_id] = max(editions)
    return out


def edition_of(parts: Parts) -> int:
    """How often a record was changed, in all its parts."""
    return sum(document.get(EDITION, 0) for document in parts.values())


def _one(
    out: Merge,
    label: str,
    record_id: str,
    mine: Mapping[str, Parts],
    others: Mapping[str, Parts],
    ours: Contents,
    theirs: Contents,
) -> Parts | None:
    a, b = mine.get(record_id), others.get(record_id)
    if a is not None and b is not None:
        if a == b:
            return a
        return _login(out, record_id, a, b) if label == LOGIN else _whole(a, b)
    left = a if a is not None else b
    assert left is not None
    gone_at = (theirs if a is not None else ours).removed.get(record_id)
    if gone_at is None:
        return left
    if edition_of(left) <= gone_at:
        return None
    if label == LOGIN:
        out.asked.append(record_id)
    return left


def _login(out: Merge, login_id: str, a: Parts, b: Parts) -> Parts:
    joined = {part: _join(a.get(part), b.get(part)) for part in sorted(a.keys() | b.keys())}
    winner, loser = (a, b) if _rank_of(a, "secret") >= _rank_of(b, "secret") else (b, a)
    card, secrets = joined[CARD], joined[SECRETS]
    for name in ("secret_since_at", "has_secret"):
        card[name] = winner[CARD][name]
    lost, since = loser[SECRETS], loser[CARD]["secret_since_at"]
    with_lost = _with_earlier(login_id, joined, lost["secret"], lost["origin"], since)
    if with_lost is not joined:
        joined = with_lost
        moments = [p[CARD].get("parted_at") for p in (a, b)]
        moments += [p[CARD]["secret_since_at"] for p in (a, b)]
        card["parted_at"] = max(m for m in moments if m)
        # By the secrets' own stamps, so that it is the same in whatever order copies come together.
        stamps = [p[SECRETS].get(STAMPS, {}).get("secret", 0) for p in (a, b)]
        stamp = max(1, *stamps, card.get(STAMPS, {}).get("parted_at", 0))
        card[EDITION] = max(stamp, card.get(EDITION, 0))
        card[STAMPS] = dict(sorted({**card.get(STAMPS, {}), "parted_at": stamp}.items()))
        out.parted.append(login_id)
    card["secret_field_names"] = [name for name, _ in secrets["fields"]]
    if card.get("deleted_at") and _both_changed(a[CARD], b[CARD]):
        out.asked.append(login_id)
    return joined


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
        for side in sides:
            other = side.get(record_id, parts)
            if other is not parts and other != parts:
                held = [other.get(SECRETS, {}).get(name) for name in ("staged", "former")]
                for one in filter(None, held):
                    logins[login_id] = _with_earlier(
                        login_id, logins[login_id], one["secret"], one["origin"], one["since_at"]
                    )


def _with_earlier(login_id: str, parts: Parts, text: str, origin: object, since_at: str) -> Parts:
    """The login with one more secret that may have served, unless it has it anyway."""
    history = parts.get(HISTORY, {"earlier": []})
    served = {e[1] for e in history["earlier"] if not e[6]}
    if not text or text == parts[SECRETS]["secret"] or text in served:
        return parts
    entry = [_id_of(login_id, text), text, origin, since_at, since_at, True, ""]
    earlier = sorted((*history["earlier"], entry), key=lambda e: (e[4], e[0]))
    return {**parts, HISTORY: {**history, "earlier": earlier}}


def _join(a: Document | None, b: Document | None) -> Document:
    """Each unit by the greater stamp; what is there before what is not; then by content."""
    if a is None or b is None or a == b:
        found = a if a is not None else b
        assert found is not None
        return dict(found)
    values_a, values_b = units(a), units(b)
    stamps_a, stamps_b = a.get(STAMPS, {}), b.get(STAMPS, {})
    joined: dict[str, Any] = {}
    for key in sorted(values_a.keys() | values_b.keys()):
        sides = ((values_a, stamps_a), (values_b, stamps_b))
        values, _ = max(sides, key=lambda s: _rank(s[0], s[1], key))
        if key in values:
            joined[key] = values[key]
    stamps = {
        key: max(stamps_a.get(key, 0), stamps_b.get(key, 0))
        for key in stamps_a.keys() | stamps_b.keys()
    }
    edition = max(a.get(EDITION, 0), b.get(EDITION, 0))
    return put_together(joined, edition=edition, stamps=stamps)


def _whole(a: Parts, b: Parts) -> Parts:
    """A record that moves as one: that which was changed more often, then by content."""
    rank: Callable[[Parts], tuple[int, str]] = lambda parts: (edition_of(parts), _digest(parts))  # noqa: E731
    return max(a, b, key=rank)


def _rank_of(parts: Parts, unit: str) -> tuple[int, bool, str]:
    document = parts[SECRETS]
    return _rank(units(document), document.get(STAMPS, {}), unit)


def _rank(values: Mapping[str, Any], stamps: Mapping[str, int], key: str) -> tuple[int, bool, str]:
    return stamps.get(key, 0), key in values, _digest(values.get(key))


def _both_changed(a: Document, b: Document) -> bool:
    """Whether each side has a unit that the other does not have as new."""
    stamps_a, stamps_b = a.get(STAMPS, {}), b.get(STAMPS, {})
    values_a, values_b = units(a), units(b)
    keys = values_a.keys() | values_b.keys()
    differing = [k for k in keys if values_a.get(k) != values_b.get(k)]
    return any(
        stamps_a.get(k, 0) >= stamps_b.get(k, 0) and stamps_a.get(k) for k in differing
    ) and any(stamps_b.get(k, 0) >= stamps_a.get(k, 0) and stamps_b.get(k) for k in differing)


def _only(records: Mapping[str, Parts]) -> Parts:
    return records[min(records)]


def _digest(value: object) -> str:
    text = json.dumps(value, sort_keys=True, ensure_ascii=True, separators=(",", ":"))
    return sha256(text.encode("ascii")).hexdigest()


def _id_of(login_id: str, text: str) -> str:
    """The id of a secret that lost: the same from either side."""
    return sha256(f"{login_id}/{text}".encode()).hexdigest()[:32]
