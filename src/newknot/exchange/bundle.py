"""The content of a bundle as JSON: every record of a vault that a merge looks at, in its documents.

{"format": "newknot bundle 1", "vault_id": …, "made_at": …, "records": {LABEL: {id: {part:
document}}}, "removed": {id: editions}}
"""

import json
import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from newknot.core.carry.merge import CARD, LOGIN, MERGED_LABELS, SECRETS, Contents, Parts
from newknot.core.errors import NewKnotError

FORMAT = "newknot bundle 1"
RECORDS_MOST, DEPTH_MOST = 500_000, 12
_ID = re.compile(r"[0-9a-f]{32}")


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
    """The content, with every shape that merging rests on looked at. Raises
    `BundleContentRefused`.
    """
    try:
        document = json.loads(text)
    except (ValueError, RecursionError):
        raise BundleContentRefused(reason="is not JSON") from None
    if not isinstance(document, Mapping) or document.get("format") != FORMAT:
        raise BundleContentRefused(reason=f"is not of the form “{FORMAT}”")
    records, removed = document.get("records"), document.get("removed")
    if not isinstance(records, Mapping) or not isinstance(removed, Mapping):
        raise BundleContentRefused(reason="has no records")
    found = Contents()
    count = 0
    for label, held in records.items():
        if label not in MERGED_LABELS or not isinstance(held, Mapping):
            raise BundleContentRefused(reason="holds records of a kind that is not known here")
        count += len(held)
        if count > RECORDS_MOST:
            raise BundleContentRefused(reason=f"holds more than {RECORDS_MOST:,} records")
        found.records[label] = {
            _checked_id(record_id): _parts(label, parts) for record_id, parts in held.items()
        }
    for record_id, editions in removed.items():
        if not isinstance(editions, int):
            raise BundleContentRefused(reason="has a removal that is not understood")
        found.removed[_checked_id(record_id)] = editions
    try:
        made_at = datetime.fromisoformat(str(document.get("made_at")))
    except ValueError:
        raise BundleContentRefused(reason="does not say when it was made") from None
    return BundleContent(str(document.get("vault_id", ""))[:64], made_at, found)


def _parts(label: str, parts: object) -> Parts:
    if not isinstance(parts, Mapping) or CARD not in parts or not set(parts) <= {"1", "2", "3"}:
        raise BundleContentRefused(reason="holds a record without its parts")
    found: Parts = {}
    for part, document in parts.items():
        if not isinstance(document, dict) or _deep(document) > DEPTH_MOST:
            raise BundleContentRefused(reason="holds a record that is not understood")
        stamps, edition = document.get("stamps", {}), document.get("edition", 0)
        whole = isinstance(stamps, dict) and all(isinstance(v, int) for v in stamps.values())
        if not whole or not isinstance(edition, int):
            raise BundleContentRefused(reason="holds a record whose stamps are not understood")
        found[part] = document
    if label == LOGIN:
        secrets = found.get(SECRETS, {})
        needed = (
            found[CARD].get("secret_since_at"),
            secrets.get("secret"),
            found[CARD].get("title"),
        )
        earlier = found.get("3", {}).get("earlier", [])
        if (
            not all(isinstance(value, str) for value in needed)
            or not isinstance(secrets.get("fields"), list)
            or not isinstance(earlier, list)
            or not all(isinstance(e, list) and len(e) == 7 for e in earlier)
        ):
            raise BundleContentRefused(reason="holds a login that is not understood")
    return found


def _checked_id(record_id: object) -> str:
    if not isinstance(record_id, str) or not _ID.fullmatch(record_id):
        raise BundleContentRefused(reason="holds a record without its id")
    return record_id


def _deep(value: object, depth: int = 0) -> int:
    if depth > DEPTH_MOST:
        return depth
    below = (
        value.values() if isinstance(value, Mapping) else value if isinstance(value, list) else ()
    )
    return max((_deep(one, depth + 1) for one in below), default=depth)
