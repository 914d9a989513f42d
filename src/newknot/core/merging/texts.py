"""Texts of a login that two copies of a vault changed apart: none of them is lost.

A change leaves a note of what it left behind, by its stamp alone; so do changes of folder, tags and
the like, by which a copy that deletes the login for good is known to have seen them. A text that
loses in a merge and that the other copy has not left behind is kept beside the one that counts,
until its user settles it, and can still be reached then.
"""

from collections.abc import Collection, Iterator, Mapping
from typing import Any

from newknot.core.merging.stamps import NO_STAMP, STAMPS, Document, Stamp, Why, units, why

APART, KEPT, LEFT = "apart", "kept", "left"
"""What an entry is: lost in a merge and not settled; settled; left behind, and no text any more."""

Entry = list[Any]
"""[id, unit, text or None, what it is]."""

_UNITS = frozenset(("title", "user_name", "address", "notes"))
_FIELD, _TAG = "fields/", "tags/"
_WHERE = frozenset(("folder", "owner", "tags", "importance", "deleted_at"))
_NOTED = _WHERE | {"expires_on", "resets_by", "driven", "driven_at", "second_factor"}
ALL_NOTED = "*"
"""Among the ids of what a login left behind when it was deleted for good: not its texts alone were
noted. Deletions from before that lack it.
"""


def is_text(unit: str) -> bool:
    """Whether a unit of a card is a text that is kept so."""
    return unit in _UNITS or unit.startswith(_FIELD)


def is_noted(unit: str) -> bool:
    """Whether a unit of a card is none, and what was left behind of it is noted all the same."""
    return unit in _NOTED or unit.startswith(_TAG)


def text_id(unit: str, stamp: Stamp) -> str:
    """The id of a text by the change that made it."""
    return f"{unit}:{stamp[0]}.{stamp[1]}"


def text_of(unit: str, value: Any) -> str:
    """The text of a unit: of a field its value."""
    return str(value[1] if unit.startswith(_FIELD) else value)


def entries_of(history: Document | None) -> list[Entry]:
    """The entries that a history has."""
    return list((history or {}).get("texts", ()))


def left_behind(
    before: Document, after: Document, entries: Collection[Entry]
) -> list[Entry] | None:
    """The entries once a card was changed here; None where that changes none of them. What was kept
    beside a text that is changed is settled by it.
    """
    old, new, stamps = units(before), units(after), before.get(STAMPS, {})
    every = old.keys() | new.keys()
    changed = [u for u in every if old.get(u) != new.get(u) and (is_text(u) or is_noted(u))]
    found = {entry[0]: list(entry) for entry in entries}
    for entry in found.values():
        if entry[1] in changed and entry[3] == APART:
            entry[3] = KEPT
    for unit in changed:
        # What was there from the start every copy knows.
        if unit in stamps:
            one = text_id(unit, stamps[unit])
            found.setdefault(one, [one, unit, None, LEFT])
    fresh = _sorted(found)
    return None if fresh == list(entries) else fresh


def lost_in(
    winner: Mapping[str, Document], loser: Mapping[str, Document], *, card: str, history: str
) -> Iterator[Entry]:
    """Of one side what the other counts for more than: texts that it never saw; of the rest that
    they were there.
    """
    stamps = winner[card].get(STAMPS, {})
    others, theirs = units(loser[card]), loser[card].get(STAMPS, {})
    seen = {entry[0] for entry in entries_of(winner.get(history))}
    for unit, stamp in theirs.items():
        if stamp == NO_STAMP or not stamp < stamps.get(unit, NO_STAMP):
            continue
        if is_noted(unit):
            yield [text_id(unit, stamp), unit, None, LEFT]
        if not is_text(unit) or unit not in others:
            continue
        one, text = text_id(unit, stamp), text_of(unit, others[unit])
        if not text:
            yield [one, unit, None, LEFT]
        elif one not in seen:
            yield [one, unit, text, APART]


def joined_texts(sides: Collection[Entry]) -> list[Entry]:
    """The entries of two copies as one: what either settled or left behind is so."""
    found: dict[str, Entry] = {}
    for entry in sides:
        there = found.get(entry[0])
        found[entry[0]] = list(entry if there is None or _rank(entry) > _rank(there) else there)
    return _sorted(found)


def seen(entries: Collection[Entry], card: Document) -> Iterator[Entry]:
    """Those that have a text to be reached, the later change first: what is current, or stands
    apart already by another change, does not stand apart.
    """
    said = {(unit, text_of(unit, value)) for unit, value in units(card).items() if is_text(unit)}
    for entry in sorted(entries, key=_changed, reverse=True):
        if entry[3] == KEPT:
            yield entry
        elif entry[3] == APART and (entry[1], entry[2]) not in said:
            said.add((entry[1], entry[2]))
            yield entry


def _rank(entry: Entry) -> tuple[int, str]:
    return {APART: 0, KEPT: 1, LEFT: 2}[entry[3]], str(entry[2])


def _changed(entry: Entry) -> Stamp:
    """By which change a text was made, to be compared."""
    edition, _, tag = entry[0].rpartition(":")[2].partition(".")
    return [int(edition) if edition.isdigit() else 0, tag]


def why_beside(entry: Entry, card: Document) -> Why:
    """Why a text is kept beside the one that the card has, and not the other way round."""
    return why(card.get(STAMPS, {}).get(entry[1], NO_STAMP), _changed(entry))


def apart(entries: Collection[Entry], card: Document) -> list[str]:
    """The units that stand apart, in words for lists."""
    return sorted(
        {entry[1].removeprefix(_FIELD) for entry in seen(entries, card) if entry[3] == APART}
    )


def _sorted(found: Mapping[str, Entry]) -> list[Entry]:
    return [found[one] for one in sorted(found)]
