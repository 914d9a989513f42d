"""JSON documents as they lie inside a seal."""

import json
from datetime import date, datetime
from typing import Any


def packed(document: dict[str, Any]) -> bytes:
    """The document in UTF-8, without blanks."""
    return json.dumps(document, ensure_ascii=False, separators=(",", ":")).encode("utf-8")


def unpacked(text: bytes) -> dict[str, Any]:
    """The document of `packed`."""
    document: dict[str, Any] = json.loads(text.decode("utf-8"))
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
