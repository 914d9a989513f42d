"""Stamps: at which edition each unit of a document was last changed, so that copies can merge.

An edition counts the changes of one document (a Lamport clock: L. Lamport, 1978): a later change
has a greater one, whatever any wall clock says. A tag drawn for each change tells apart those that
two copies made at one edition: it begins with the time of its copy's clock, and a time that the
copy's last write does not reach is not believed. What was there at the start has no stamp.
"""

from collections.abc import Mapping
from enum import StrEnum
from hashlib import sha256
from typing import Any

Document = dict[str, Any]
Stamp = list[Any]
"""[edition, tag]; compared in that order."""

EDITION, STAMPS, ORDERS = "edition", "stamps", "orders"
NO_STAMP: Stamp = [0, ""]
TIME_DIGITS, CHANCE_DIGITS = 12, 12
"""A tag: hexadecimal digits of the milliseconds since 1970, then of chance. Tags from before they
bore a time have the second part alone.
"""
CLOCKS_DIFFER_MS = 300_000
"""By so much the clocks of two devices may well differ."""
_NO_TIME = "0" * TIME_DIGITS
BELONGS_TO = {
    "origin": "secret",
    "secret_id": "secret",
    "code_key_id": "code_key",
    "expires_set_at": "expires_on",
}
"""What changes with another unit."""
_WITH_OTHERS = frozenset(BELONGS_TO.values())
_BY_FIRST = ("earlier", "fields", "texts")
"""Lists whose entries are units of their own, by their first element."""
_AS_ONE = ("backup_codes",)
"""Lists of which one side's set holds, never a mixture; within it each entry moves by itself."""
_BY_VALUE = ("tags", "domains")
_BY_DIGEST = ("lines", *_AS_ONE)
"""By their value, which is not to stay among the stamps when it goes."""
_LISTS = (*_BY_FIRST, *_BY_VALUE, *_BY_DIGEST)
_ORDERED = ("fields", *_BY_VALUE, *_BY_DIGEST)
"""Of these the order is a unit too; where a merge added entries that it does not have, the order
itself is in the document as well, under `orders`.
"""


def units(document: Mapping[str, Any]) -> dict[str, Any]:
    """The document cut into what can change by itself."""
    found: dict[str, Any] = {}
    for key, value in document.items():
        if key in _LISTS and isinstance(value, list):
            names = _names(key, value)
            found |= {f"{key}/{name}": entry for name, entry in zip(names, value, strict=True)}
            found[key] = document.get(ORDERS, {}).get(key, names) if key in _ORDERED else []
        elif key in _WITH_OTHERS:
            also = {k: document[k] for k, of in BELONGS_TO.items() if of == key and k in document}
            found[key] = {key: value, **also}
        elif key not in (EDITION, STAMPS, ORDERS, *BELONGS_TO):
            found[key] = value
    return found


def put_together(
    found: Mapping[str, Any], *, edition: int, stamps: Mapping[str, Stamp]
) -> Document:
    """The document of its units."""
    document: Document = {}
    for key, value in found.items():
        name, _, rest = key.partition("/")
        if name in _LISTS and rest:
            continue
        if name in _LISTS:
            document[name] = []
        elif key in _WITH_OTHERS:
            document |= value
        else:
            document[key] = value
    for name in _LISTS:
        if name in document:
            entries = {k[len(name) + 1 :]: v for k, v in found.items() if k.startswith(f"{name}/")}
            document[name] = _in_order(name, entries, found[name])
    orders = {
        name: found[name] for name in _ORDERED if _order_of(document, name) != found.get(name)
    }
    if orders:
        document[ORDERS] = orders
    if edition:
        document |= {EDITION: edition, STAMPS: dict(sorted(stamps.items()))}
    return document


def stamped(former: Document | None, fresh: Document, *, tag: str) -> Document:
    """The new document with stamps, given the one that it replaces. tag: drawn for this change."""
    if former is None:
        return fresh
    orders = {
        name: order
        for name, order in former.get(ORDERS, {}).items()
        if _order_of(former, name) == _order_of(fresh, name)
    }
    if orders:
        fresh = {**fresh, ORDERS: orders}
    before, after = units(former), units(fresh)
    changed = {k for k in before.keys() | after.keys() if before.get(k) != after.get(k)}
    edition = former.get(EDITION, 0) + bool(changed)
    if not edition:
        return fresh
    stamps = {**former.get(STAMPS, {}), **{key: [edition, tag] for key in changed}}
    return {**fresh, EDITION: edition, STAMPS: stamps}


class Why(StrEnum):
    """For what one of two changes that never met counts for more."""

    MORE_OFTEN = "more_often"
    LATER = "later"
    CLOCK_AHEAD = "clock_ahead"
    """The other was made while its copy's clock ran ahead."""
    CHANCE = "chance"
    """Both at one time, or at none that is known."""


def why(taken: Stamp, kept: Stamp) -> Why:
    """Why the greater of two stamps is the greater."""
    if taken[0] > kept[0]:
        return Why.MORE_OFTEN
    if time_of(taken[1]) > time_of(kept[1]):
        return Why.CLOCK_AHEAD if kept[1].startswith(_NO_TIME) else Why.LATER
    return Why.CHANCE


def time_of(tag: str) -> str:
    """The time of a tag, to be compared; empty where it has none or one that is not believed."""
    time = tag[:TIME_DIGITS] if len(tag) == TIME_DIGITS + CHANCE_DIGITS else ""
    return "" if time == _NO_TIME else time


def change_of(stamp: Stamp) -> tuple[Any, str]:
    """Which change a stamp is of, whether its time is believed or not."""
    return stamp[0], str(stamp[1])[-CHANCE_DIGITS:]


def believed(document: Document, written_ms: int | None, *, known: Mapping[str, Stamp]) -> Document:
    """The document of a copy that was last written then: a change that bears a later time was made
    while a clock ran ahead, and stands before others of its edition. None: not known when. known:
    stamps of the other copy; what both have needs no belief.
    """
    stamps = document.get(STAMPS)
    if written_ms is None or not stamps:
        return document
    last = f"{written_ms + CLOCKS_DIFFER_MS:0{TIME_DIGITS}x}"
    ahead = {
        unit: [edition, _NO_TIME + tag[TIME_DIGITS:]]
        for unit, (edition, tag) in stamps.items()
        if time_of(tag) > last and known.get(unit) != [edition, tag]
    }
    return {**document, STAMPS: {**stamps, **ahead}} if ahead else document


def risen(fresh: Document, known: Mapping[str, Stamp], *, tag: str) -> Document:
    """The document of a record that was deleted for good and is put back: changed after all that
    was known of it.
    """
    edition = 1 + max((stamp[0] for stamp in known.values()), default=0)
    return {**fresh, EDITION: edition, STAMPS: {unit: [edition, tag] for unit in units(fresh)}}


def unstamped(document: Document | None) -> Document | None:
    """The document as the user knows it."""
    if document is None:
        return None
    return {k: v for k, v in document.items() if k not in (EDITION, STAMPS, ORDERS)}


def place_of_entry(entry: list[Any]) -> tuple[str, str]:
    """What the entries of a history are ordered by: when they ended, or, where the clock ran back,
    the ninth part, which says after what they came.
    """
    return str(entry[8] if len(entry) > 8 else entry[4]), str(entry[0])


def _order_of(document: Mapping[str, Any], name: str) -> list[str] | None:
    entries = document.get(name)
    return _names(name, entries) if isinstance(entries, list) else None


def _names(key: str, entries: list[Any]) -> list[str]:
    by_first = key in (*_BY_FIRST, *_AS_ONE)
    plain = [str(entry[0] if by_first else entry) for entry in entries]
    if key in _BY_DIGEST:
        plain = [sha256(value.encode("utf-8")).hexdigest()[:16] for value in plain]
    # A name that comes again is another unit than the first.
    times = [plain[:i].count(name) for i, name in enumerate(plain)] if _repeat(plain) else []
    return [f"{n}\0{times[i]}" if times and times[i] else n for i, n in enumerate(plain)]


def _repeat(names: list[str]) -> bool:
    return len(set(names)) < len(names)


def _in_order(name: str, entries: Mapping[str, Any], order: list[str]) -> list[Any]:
    if name == "earlier":
        return sorted(entries.values(), key=place_of_entry)
    if name in _AS_ONE:
        return [entries[one] for one in order if one in entries]
    places = {one: i for i, one in enumerate(order)}
    return [entries[one] for one in sorted(entries, key=lambda n: (places.get(n, len(places)), n))]
