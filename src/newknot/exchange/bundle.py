"""The content of a bundle as JSON: every record of a vault that a merge looks at, in its documents.

{"format": "newknot bundle 1", "vault_id": …, "made_at": …, "records": {LABEL: {id: {part:
document}}}, "removed": {id: {part: {unit: stamp}, "secrets": ids}}}
"""

import json
import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from pydantic import ValidationError

from newknot.core.errors import NewKnotError
from newknot.core.merging.merge import CARD, Contents, Parts
from newknot.exchange.bundle_models import PARTS, Bundle, where

FORMAT = "newknot bundle 1"
RECORDS_MOST, DEPTH_MOST = 500_000, 12
_HALF_PAIR = re.compile(rb"\\u[dD][89a-fA-F]")


class BundleContentRefused(NewKnotError):
    """A bundle that opened and does not hold what it should. data: reason."""


@dataclass(frozen=True, slots=True)
class BundleContent:
    """Of which vault, when, and what."""

    vault_id: str
    made_at: datetime
    contents: Contents


def write_content(contents: Contents, *, vault_id: str, made_at: datetime) -> bytes:
    """The content as UTF-8 JSON."""
    document = {
        "format": FORMAT,
        "vault_id": vault_id,
        "made_at": made_at.isoformat(),
        "records": contents.records,
        "removed": contents.removed,
    }
    return json.dumps(document, ensure_ascii=False, separators=(",", ":")).encode("utf-8")


def read_content(text: bytes) -> BundleContent:
    """The content, every record's type and bounds looked at. Raises `BundleContentRefused`."""
    try:
        document = json.loads(text)
        if _HALF_PAIR.search(text):
            json.dumps(document, ensure_ascii=False).encode("utf-8")
    except UnicodeEncodeError:
        raise BundleContentRefused(reason="holds half of a character pair") from None
    except (ValueError, RecursionError):
        raise BundleContentRefused(reason="is not JSON") from None
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise BundleContentRefused(reason=f"is not of the form “{FORMAT}”")
    if sum(len(held) for held in _dicts(document.get("records"))) > RECORDS_MOST:
        raise BundleContentRefused(reason=f"holds more than {RECORDS_MOST:,} records")
    try:
        bundle = Bundle.model_validate(document)
    except (ValidationError, RecursionError) as error:
        place = where(error) if isinstance(error, ValidationError) else "its depth"
        raise BundleContentRefused(reason=f"is not understood at {place}") from None
    made_at = datetime.fromisoformat(bundle.made_at)
    written_ms = round(made_at.timestamp() * 1000)
    found = Contents(removed=document["removed"], written_ms=written_ms)
    for label, held in document["records"].items():
        for record_id, parts in held.items():
            _require_understood(label, record_id, parts)
        found.records[label] = held
    return BundleContent(bundle.vault_id, made_at, found)


def _require_understood(label: str, record_id: str, parts: Parts) -> None:
    known = PARTS[label]
    if CARD not in parts or not set(parts) <= {"1", "2", "3"}:
        raise BundleContentRefused(
            reason=f"holds {label.lower()} {record_id[:8]} without its parts"
        )
    for part, document in parts.items():
        if _deep(document) > DEPTH_MOST:
            raise BundleContentRefused(reason=f"is nested too deep in {label.lower()}")
        if part not in known:
            continue
        try:
            known[part].model_validate(document)
        except ValidationError as error:
            at = f"{label.lower()} {record_id[:8]}, {where(error)}"
            raise BundleContentRefused(reason=f"holds what is not understood: {at}") from None


def _dicts(value: object) -> list[dict[str, object]]:
    return (
        [one for one in value.values() if isinstance(one, dict)] if isinstance(value, dict) else []
    )


def _deep(value: object, depth: int = 0) -> int:
    if depth > DEPTH_MOST:
        return depth
    below = (
        value.values() if isinstance(value, Mapping) else value if isinstance(value, list) else ()
    )
    return max((_deep(one, depth + 1) for one in below), default=depth)
