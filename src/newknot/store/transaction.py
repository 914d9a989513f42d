"""Writes of one transaction: sealed, stamped and noted, waiting for their commit."""

import secrets
from typing import TYPE_CHECKING, Any

from newknot.crypto import seal
from newknot.store.errors import RecordMissing
from newknot.store.lineage import note_removed, with_stamps
from newknot.store.manifest import Entry, Key, Label
from newknot.store.records import id_bytes, remove_record, write_record

if TYPE_CHECKING:
    from newknot.store.vault import Vault

CARD, SECRETS, HISTORY = 1, 2, 3
"""Parts of a record: what lists may open, the secrets, and the earlier secrets."""
STEP_BYTES = {CARD: 1024, SECRETS: 512, HISTORY: 512}


class Transaction:
    """Writes that wait for their commit."""

    def __init__(self, vault: "Vault") -> None:
        self._vault = vault
        self.changes: dict[Key, Entry | None] = {}
        self.decoded: dict[Key, tuple[tuple[int, bytes], Any]] = {}

    def put(
        self,
        label: Label,
        record_id: str,
        text: bytes,
        *,
        part: int = CARD,
        decoded: object = None,
    ) -> None:
        """Seals and writes one part of a record, new or over its former revision.

        decoded: what `Vault.decoded` is to give of it from then on.
        """
        text = with_stamps(self._vault, label, record_id, part, text)
        self.put_as_it_is(label, record_id, text, part=part, decoded=decoded)

    def put_as_it_is(
        self,
        label: Label,
        record_id: str,
        text: bytes,
        *,
        part: int = CARD,
        decoded: object = None,
    ) -> None:
        """The same of a text that brings its own stamps, or has none."""
        vault, key = self._vault, (id_bytes(record_id), part)
        former = vault._entry(key)
        if former is not None and former.label is not label:
            raise RecordMissing()
        revision = former.revision + 1 if former is not None else vault.counter + 1
        sealed = seal(
            vault._keys.records,
            text,
            bound_to=vault._bound(label, key, revision),
            step=STEP_BYTES[part],
            random_bytes=secrets.token_bytes,
        )
        write_record(vault._connection, *key, revision, sealed)
        self.changes[key] = Entry(label, revision, sealed[-16:])
        if decoded is not None:
            self.decoded[key] = ((revision, sealed[-16:]), decoded)

    def remove(self, label: Label, record_id: str) -> None:
        """Deletes a record with all its parts, and notes that it is gone for good, so that a merge
        with another copy does not bring it back. Raises `RecordMissing`.
        """
        raw = id_bytes(record_id)
        found = False
        note_removed(self, self._vault, label, record_id)
        for part in STEP_BYTES:
            entry = self._vault._entry((raw, part))
            if entry is not None and entry.label is label:
                remove_record(self._vault._connection, raw, part)
                self.changes[raw, part] = None
                found = True
        if not found:
            raise RecordMissing()
