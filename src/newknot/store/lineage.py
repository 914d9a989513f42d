"""What lets two copies of a vault merge: stamps on what changes, and a note of what is gone."""

import secrets
from contextlib import suppress
from typing import TYPE_CHECKING, Any

from newknot.core.carry.merge import MERGED_LABELS, Gone, Parts, edition_of, gone_of
from newknot.core.carry.stamps import stamped
from newknot.store.documents import packed, unpacked
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.records import new_id

if TYPE_CHECKING:
    from newknot.store.vault import Transaction, Vault

PARTS = (1, 2, 3)
TAG_BYTES = 6


def with_stamps(vault: "Vault", label: Label, record_id: str, part: int, text: bytes) -> bytes:
    """The text of a part with stamps on what it changes; as it is where it is new, the part before
    it cannot be read, or either is no document.
    """
    if label.name not in MERGED_LABELS:
        return text
    try:
        before, fresh = unpacked(vault.get(label, record_id, part)), unpacked(text)
    except (RecordDamaged, RecordMissing, ValueError):
        return text
    return packed(stamped(before, fresh, tag=new_tag()))


def new_tag() -> str:
    """A tag for one change."""
    return secrets.token_hex(TAG_BYTES)


def note_removed(tx: "Transaction", vault: "Vault", label: Label, record_id: str) -> None:
    """Notes that a record is gone for good, so that no merge brings it back."""
    if label.name not in MERGED_LABELS:
        return
    gone = gone_of(record_id, _parts_that_can_be_read(vault, label, record_id))
    put_removed(tx, vault, {**get_removed(vault), record_id: gone})


def editions_of(vault: "Vault", label: Label, record_id: str) -> int:
    """How often a record was changed since it was made, in all its parts that can be read."""
    return edition_of(_parts_that_can_be_read(vault, label, record_id))


def _parts_that_can_be_read(vault: "Vault", label: Label, record_id: str) -> Parts:
    parts: Parts = {}
    for part in PARTS:
        with suppress(RecordDamaged, RecordMissing, ValueError):
            parts[str(part)] = unpacked(vault.get(label, record_id, part))
    return parts


def get_removed(vault: "Vault") -> dict[str, Gone]:
    """Ids of records that are gone for good, with what is to be known of them."""
    ids = vault.ids(Label.REMOVED)
    try:
        found: dict[str, Any] = unpacked(vault.get(Label.REMOVED, ids[0])) if ids else {}
    except RecordDamaged:
        return {}
    known: dict[str, Gone] = found.get("removed", {})
    return known


def put_removed(tx: "Transaction", vault: "Vault", removed: dict[str, Gone]) -> None:
    """Writes the one record of them."""
    ids = vault.ids(Label.REMOVED)
    tx.put(Label.REMOVED, ids[0] if ids else new_id(), packed({"removed": removed}))
