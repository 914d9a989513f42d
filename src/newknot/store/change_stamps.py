"""What lets two copies of a vault merge: stamps on what changes, and a note of what is gone."""

import secrets
from collections.abc import Mapping
from contextlib import suppress
from typing import Any

from newknot.core.merging.merge import MERGED_LABELS, Gone, Parts, edition_of, gone_of
from newknot.core.merging.stamps import (
    CHANCE_DIGITS,
    STAMPS,
    TIME_DIGITS,
    Stamp,
    stamped,
    time_of,
)
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.sealed_file import CARD, HISTORY, SECRETS, SealedFile

PARTS = (CARD, SECRETS, HISTORY)


def with_stamps(file: SealedFile, label: Label, record_id: str, part: int, text: bytes) -> bytes:
    """The text of a part with stamps on what it changes; as it is where it is new, the part before
    it cannot be read, or either is no document.
    """
    if label.name not in MERGED_LABELS:
        return text
    try:
        before, fresh = unpacked(file.get(label, record_id, part)), unpacked(text)
    except (RecordDamaged, RecordMissing, ValueError):
        return text
    return packed(stamped(before, fresh, tag=new_tag(file, before.get(STAMPS, {}))))


def new_tag(file: SealedFile, former: Mapping[str, Stamp]) -> str:
    """A tag for one change: its time, then what chance says. Of two copies' changes of one edition
    the later is so the greater; a time that lies before what was changed is none.
    """
    before = max((time_of(tag) for _, tag in former.values()), default="")
    time = max(f"{round(file.wall_s() * 1000):0{TIME_DIGITS}x}", before)
    return time + secrets.token_hex(CHANCE_DIGITS // 2)


def with_removed(file: SealedFile, label: Label, record_id: str) -> dict[str, Gone] | None:
    """All that is gone for good, this record too, so that no merge brings it back; None where its
    kind is never merged.
    """
    if label.name not in MERGED_LABELS:
        return None
    parts = _parts_that_can_be_read(file, label, record_id)
    login = None
    if label is Label.ROTATION and str(CARD) in parts:
        login = _parts_that_can_be_read(file, Label.LOGIN, parts[str(CARD)]["login_id"])
    return {**get_removed(file), record_id: gone_of(record_id, parts, login=login)}


def editions_of(file: SealedFile, label: Label, record_id: str) -> int:
    """How often a record was changed since it was made, in all its parts that can be read."""
    return edition_of(_parts_that_can_be_read(file, label, record_id))


def _parts_that_can_be_read(file: SealedFile, label: Label, record_id: str) -> Parts:
    parts: Parts = {}
    for part in PARTS:
        with suppress(RecordDamaged, RecordMissing, ValueError):
            parts[str(part)] = unpacked(file.get(label, record_id, part))
    return parts


def get_removed(file: SealedFile) -> dict[str, Gone]:
    """Ids of records that are gone for good, with what is to be known of them."""
    ids = file.ids(Label.REMOVED)
    try:
        found: dict[str, Any] = unpacked(file.get(Label.REMOVED, ids[0])) if ids else {}
    except RecordDamaged:
        return {}
    known: dict[str, Gone] = found.get("removed", {})
    return known
