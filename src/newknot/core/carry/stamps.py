"""Stamps: at which edition each unit of a document was last changed, so that copies can merge.

An edition counts the changes of one document (a Lamport clock: L. Lamport, 1978): a later change
has a greater one, whatever any wall clock says. What was there at the start has no stamp.
"""

from collections.abc import Mapping
from typing import Any

Document = dict[str, Any]

EDITION, STAMPS = "edition", "stamps"
_KEYED = "earlier"
"""A list whose entries are units of their own, by their first element."""
_WITH = {"origin": "secret"}
"""What belongs to another unit and changes with it."""


def units(document: Mapping[str, Any]) -> dict[str, Any]:
    """The document cut into what can change by itself."""
    found: dict[str, Any] = {}
    for key, value in document.items():
        if key == _KEYED:
            found |= {f"{_KEYED}/{entry[0]}": entry for entry in value}
        elif key not in (EDITION, STAMPS) and key not in _WITH:
            also = [document[k] for k, of in _WITH.items() if of == key and k in document]
            found[key] = [value, *also] if also else value
    return found


def put_together(found: Mapping[str, Any], *, edition: int, stamps: Mapping[str, int]) -> Document:
    """The document of its units."""
    document: Document = {}
    keyed: list[Any] = []
    for key, value in found.items():
        also = [k for k, of in _WITH.items() if of == key]
        if key.startswith(f"{_KEYED}/"):
            keyed.append(value)
        elif also and isinstance(value, list):
            document[key] = value[0]
            document |= dict(zip(also, value[1:], strict=True))
        else:
            document[key] = value
    if keyed or not document:
        document[_KEYED] = sorted(keyed, key=lambda entry: (entry[4], entry[0]))
    if edition:
        document |= {EDITION: edition, STAMPS: dict(sorted(stamps.items()))}
    return document


def stamped(former: Document | None, fresh: Document) -> Document:
    """The new document with stamps, given the one that it replaces; one that brings its own stamps
    keeps them.
    """
    if STAMPS in fresh or former is None:
        return fresh
    before, after = units(former), units(fresh)
    changed = {k for k in before.keys() | after.keys() if before.get(k) != after.get(k)}
    edition = former.get(EDITION, 0) + bool(changed)
    if not edition:
        return fresh
    stamps = {**former.get(STAMPS, {}), **dict.fromkeys(changed, edition)}
    return {**fresh, EDITION: edition, STAMPS: stamps}


def unstamped(document: Document | None) -> Document | None:
    """The document as the user knows it."""
    if document is None:
        return None
    return {k: v for k, v in document.items() if k not in (EDITION, STAMPS)}
