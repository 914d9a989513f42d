"""The content of a bundle as JSON: every record of a vault that a merge looks at, in its documents.

{"format": "newknot bundle 1", "vault_id": …, "made_at": …, "records": {LABEL: {id: {part:
document}}}, "removed": {id: {part: {unit: stamp}, "secrets": ids}}}
"""

import json
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime

from newknot.core.errors import NewKnotError
from newknot.core.merging.merge import (
    CARD,
    HISTORY,
    LOGIN,
    MERGED_LABELS,
    ROTATION,
    SECRETS,
    Contents,
    Parts,
)

FORMAT = "newknot bundle 1"
RECORDS_MOST, DEPTH_MOST = 500_000, 12
_HALF_PAIR = re.compile(rb"\\u[dD][89a-fA-F]")
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
        if _HALF_PAIR.search(text):
            json.dumps(document, ensure_ascii=False).encode("utf-8")
    except UnicodeEncodeError:
        raise BundleContentRefused(reason="holds half of a character pair") from None
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
    for record_id, gone in removed.items():
        if not _is_gone(gone):
            raise BundleContentRefused(reason="has a removal that is not understood")
        found.removed[_checked_id(record_id)] = gone
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
        if not (
            _are_stamps(document.get("stamps", {}))
            and _is_count(document.get("edition", 0))
            and _are_orders(document.get("orders", {}))
        ):
            raise BundleContentRefused(reason="holds a record whose stamps are not understood")
        found[part] = document
    if label == LOGIN and not _is_login(found):
        raise BundleContentRefused(reason="holds a login that is not understood")
    if label == ROTATION and not _is_rotation(found):
        raise BundleContentRefused(reason="holds a rotation that is not understood")
    return found


def _is_login(parts: Parts) -> bool:
    card, held = parts[CARD], parts.get(SECRETS, {})
    earlier = parts.get(HISTORY, {"earlier": []}).get("earlier")
    return (
        _is_list(card.get("fields", []), lambda e: _are_texts(e, 2, 2))
        and _is_list(card.get("tags", []), lambda e: isinstance(e, str))
        and all(
            isinstance(card.get(name), str) for name in ("title", "secret_since_at", "created_at")
        )
        and isinstance(card.get("has_secret"), bool)
        and all(
            isinstance(held.get(name, ""), str) for name in ("secret_id", "code_key", "code_key_id")
        )
        and isinstance(held.get("secret"), str)
        and _is_list(held.get("fields"), lambda e: _are_texts(e, 2, 3))
        and _is_list(held.get("backup_codes", []), lambda e: isinstance(e, list))
        and _is_list(earlier, _is_earlier)
    )


def _is_earlier(entry: object) -> bool:
    return (
        isinstance(entry, list)
        and len(entry) in (7, 8)
        and all(isinstance(entry[i], str) for i in (0, 1, 3, 4, 6))
    )


def _is_rotation(parts: Parts) -> bool:
    held = [parts.get(SECRETS, {}).get(name) for name in ("staged", "former")]
    return isinstance(parts[CARD].get("login_id"), str) and all(
        one is None
        or (
            isinstance(one, dict)
            and all(isinstance(one.get(name), str) for name in ("secret", "since_at"))
            and isinstance(one.get("secret_id", ""), str)
        )
        for one in held
    )


def _is_gone(gone: object) -> bool:
    return (
        isinstance(gone, dict)
        and set(gone) <= {CARD, SECRETS, HISTORY, "secrets"}
        and _is_list(gone.get("secrets"), lambda e: isinstance(e, str))
        and all(_are_stamps(stamps) for part, stamps in gone.items() if part != "secrets")
    )


def _are_stamps(stamps: object) -> bool:
    return isinstance(stamps, dict) and all(
        isinstance(s, list) and len(s) == 2 and _is_count(s[0]) and isinstance(s[1], str)
        for s in stamps.values()
    )


def _are_orders(orders: object) -> bool:
    return isinstance(orders, dict) and all(
        _is_list(order, lambda e: isinstance(e, str)) for order in orders.values()
    )


def _is_count(value: object) -> bool:
    return isinstance(value, int) and not isinstance(value, bool) and value >= 0


def _is_list(value: object, is_entry: Callable[[object], bool]) -> bool:
    return isinstance(value, list) and all(map(is_entry, value))


def _are_texts(entry: object, least: int, most: int) -> bool:
    return (
        isinstance(entry, list)
        and least <= len(entry) <= most
        and all(isinstance(one, str) for one in entry)
    )


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
