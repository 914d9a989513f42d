"""JSON documents as they lie inside a seal."""

import json
from collections.abc import Callable, Collection
from datetime import date, datetime
from typing import Any, TypeVar

_T = TypeVar("_T")
_V = TypeVar("_V")


_READER = json.JSONDecoder()


def packed(document: dict[str, Any]) -> bytes:
    """The document in UTF-8, without blanks."""
    return json.dumps(document, ensure_ascii=False, separators=(",", ":")).encode("utf-8")


def unpacked(text: bytes) -> dict[str, Any]:
    """The document of `packed`."""
    written = text.decode("utf-8")
    document: dict[str, Any]
    document, end = _READER.raw_decode(written)
    if end != len(written):
        raise json.JSONDecodeError("Extra data", written, end)
    return document


def moment(value: str | None) -> datetime | None:
    """An aware datetime of its ISO form."""
    return None if value is None else datetime.fromisoformat(value)


def day(value: str | None) -> date | None:
    """A date of its ISO form."""
    return None if value is None else date.fromisoformat(value)


def iso(value: date | datetime | None) -> str | None:
    """The ISO form, or None."""
    return None if value is None else value.isoformat()


def column(rows: Collection[_T], value: Callable[[_T], _V]) -> list[_V]:
    """The value of each row, in a list that is as long as it becomes from the beginning.

    One that grows is cut out of what is free again and again, and all that is free beside it is
    overwritten each time where memory that is let go is (as `run serve` sets it): in a large vault
    that takes seconds.
    """
    found: list[Any] = [None] * len(rows)
    for at, row in enumerate(rows):
        found[at] = value(row)
    return found
