"""A vault put back to an earlier day: what it says is as it was then, and no secret is lost.

Logins made since then go to the bin, newer secrets of those that stay to their history. A secret
that a rotation handed out, and that no login knows any more, becomes a loose end; loose ends stay.
A text that was changed since is kept beside that of then, as after a merge. What the earlier copy
cannot read is left as it is now.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

from newknot.core.merging.merge import (
    CARD,
    HISTORY,
    LOGIN,
    MERGED_LABELS,
    ROTATION,
    SECRETS,
    SINGLE_LABELS,
    Contents,
    Parts,
    held_entries,
    secret_ids,
)
from newknot.core.merging.stamps import NO_STAMP, STAMPS, place_of_entry, units, unstamped
from newknot.core.merging.texts import (
    APART,
    KEPT,
    entries_of,
    is_text,
    joined_texts,
    text_id,
    text_of,
)

LOOSE_END = "LOOSE_END"
BACK, GONE, DIFFERS, MADE = "back", "gone", "differs", "made"
HANDED_OUT = "hand_out"
_STAY = frozenset((LOOSE_END,))


@dataclass(frozen=True, slots=True)
class RestoredRecord:
    """One record that a restore changes. what: back, gone, differs, made. of_login_id: the login
    that it is, or is of. kept_secrets, kept_texts: how many newer ones go to its history.
    """

    label: str
    record_id: str
    what: str
    of_login_id: str = ""
    kept_secrets: int = 0
    kept_texts: int = 0


@dataclass(slots=True)
class Restore:
    """What is written (label -> id -> parts), what is removed, and each record that changes."""

    written: dict[str, dict[str, Parts]] = field(default_factory=dict)
    removed: list[tuple[str, str]] = field(default_factory=list)
    changes: list[RestoredRecord] = field(default_factory=list)


def restored(ours: Contents, then: Contents, *, now: str, new_id: Callable[[], str]) -> Restore:
    """What restoring `then` over `ours` does. now: the moment, in ISO form."""
    out = Restore()
    # Logins first: what a rotation held is looked for in them.
    for label in sorted(MERGED_LABELS, key=lambda one: (one != LOGIN, one)):
        mine, theirs = ours.records.get(label, {}), then.records.get(label, {})
        if label in SINGLE_LABELS and mine and theirs:
            theirs = {min(mine): theirs[min(theirs)]}
        for record_id in sorted(mine.keys() | theirs.keys()):
            a, b = mine.get(record_id), theirs.get(record_id)
            if b is not None:
                _as_then(out, label, record_id, a, b, now)
            elif a is not None and record_id not in then.unread and label not in _STAY:
                _made_since(out, label, record_id, a, now)
    _keep_handed_out(out, ours, now, new_id)
    return out


def _as_then(out: Restore, label: str, record_id: str, a: Parts | None, b: Parts, now: str) -> None:
    secrets = texts = 0
    if label == LOGIN and a is not None:
        b, secrets = _with_newer(record_id, a, b, now)
        b, texts = _with_texts(a, b)
    if a is not None and plain(a) == plain(b):
        return
    out.written.setdefault(label, {})[record_id] = b
    what = BACK if a is None else DIFFERS
    login_id = _login_of(label, record_id, b)
    out.changes.append(RestoredRecord(label, record_id, what, login_id, secrets, texts))


def _made_since(out: Restore, label: str, record_id: str, a: Parts, now: str) -> None:
    of_login_id = _login_of(label, record_id, a)
    if label != LOGIN:
        out.removed.append((label, record_id))
    elif a[CARD]["deleted_at"] is None:
        binned = {**a, CARD: {**a[CARD], "deleted_at": now}}
        out.written.setdefault(label, {})[record_id] = binned
    else:
        return
    out.changes.append(RestoredRecord(label, record_id, GONE, of_login_id))


def _with_newer(login_id: str, a: Parts, b: Parts, now: str) -> tuple[Parts, int]:
    """The login of then with every secret in its history that is only known now, and how many."""
    known = secret_ids(login_id, b)
    earlier = b.get(HISTORY, {"earlier": []})["earlier"]
    since = a.get(HISTORY, {"earlier": []})["earlier"]
    newer = [entry for entry in since if entry[0] not in known]
    replaced = [
        [*entry[:4], max(entry[3], now), *entry[5:7]]
        for secret_id, entry in held_entries(login_id, a)
        if secret_id not in known
    ]
    if not newer and not replaced:
        return b, 0
    together = {entry[0]: entry for entry in (*earlier, *newer, *replaced)}
    history = sorted(together.values(), key=place_of_entry)
    return {**b, HISTORY: {**b.get(HISTORY, {}), "earlier": history}}, len(replaced)


def _with_texts(a: Parts, b: Parts) -> tuple[Parts, int]:
    """The login of then with every text beside it that is only known now, and how many gave way."""
    stamps, then = a[CARD].get(STAMPS, {}), units(b[CARD])
    replaced = [
        [text_id(unit, stamps.get(unit, NO_STAMP)), unit, text_of(unit, value), KEPT]
        for unit, value in units(a[CARD]).items()
        if is_text(unit) and then.get(unit) != value and text_of(unit, value)
    ]
    # Going back settles what stood apart since.
    since = [[*e[:3], KEPT if e[3] == APART else e[3]] for e in entries_of(a.get(HISTORY))]
    together = {e[0]: e for e in (*since, *replaced, *entries_of(b.get(HISTORY)))}
    if not together:
        return b, 0
    texts = joined_texts(together.values())
    return {**b, HISTORY: {"earlier": [], **b.get(HISTORY, {}), "texts": texts}}, len(replaced)


def _keep_handed_out(out: Restore, ours: Contents, now: str, new_id: Callable[[], str]) -> None:
    """A loose end for each secret that a rotation of ours handed out and that is then nowhere."""
    logins = {**ours.records.get(LOGIN, {}), **out.written.get(LOGIN, {})}
    changed = {one.record_id for one in out.changes if one.label == ROTATION}
    written = out.written.get(ROTATION, {})
    for record_id in sorted(changed & ours.records.get(ROTATION, {}).keys()):
        parts = ours.records[ROTATION][record_id]
        if not _was_handed_out(parts):
            continue
        login = logins.get(parts[CARD]["login_id"], {})
        known = {*_texts(login), *_held_by(written.get(record_id, {}))}
        staged = parts.get(SECRETS, {}).get("staged")
        if staged is None or not staged["secret"] or staged["secret"] in known:
            continue
        card = {
            "handed_out_at": now,
            "address": login.get(CARD, {}).get("address", ""),
            "length": len(staged["secret"]),
        }
        sealed = {"secret": staged["secret"], "origin": staged["origin"]}
        loose_end_id = new_id()
        out.written.setdefault(LOOSE_END, {})[loose_end_id] = {CARD: card, SECRETS: sealed}
        login_id = parts[CARD]["login_id"]
        out.changes.append(RestoredRecord(LOOSE_END, loose_end_id, MADE, login_id))


def _texts(login: Mapping[str, Any]) -> Iterator[str]:
    yield login.get(SECRETS, {}).get("secret", "")
    yield from (entry[1] for entry in login.get(HISTORY, {}).get("earlier", ()))


def _held_by(rotation: Parts) -> Iterator[str]:
    """What a rotation is known to hold for good: one that says it handed nothing out lets go."""
    if rotation and _was_handed_out(rotation):
        document = rotation.get(SECRETS, {})
        held = (document.get("staged"), document.get("former"))
        yield from (one["secret"] for one in held if one is not None)


def _was_handed_out(rotation: Parts) -> bool:
    return HANDED_OUT in (step[0] for step in rotation[CARD]["steps"])


def _login_of(label: str, record_id: str, parts: Parts) -> str:
    return record_id if label == LOGIN else str(parts.get(CARD, {}).get("login_id", ""))


def plain(parts: Parts) -> dict[str, Any]:
    """A record as the user knows it: an empty history is none."""
    found = {part: unstamped(document) for part, document in parts.items()}
    return {part: one for part, one in found.items() if one != {"earlier": []}}
