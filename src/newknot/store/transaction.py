"""Writes of one transaction: sealed, stamped and noted, waiting for their commit."""

import secrets
from collections.abc import Iterable
from typing import Any

from newknot.core.merging.merge import Gone
from newknot.crypto import seal
from newknot.store.change_stamps import with_removed, with_stamps
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Entry, Key, Label
from newknot.store.record_json import packed, unpacked
from newknot.store.records import id_bytes, new_id, remove_record, write_record
from newknot.store.sealed_file import CARD, HISTORY, SECRETS, Kept, SealedFile

STEP_BYTES = {CARD: 1024, SECRETS: 512, HISTORY: 512}
"""What the parts of a record are padded to, inside the seal."""


class Transaction:
    """Writes that wait for their commit."""

    def __init__(self, file: SealedFile) -> None:
        self._file = file
        self.changes: dict[Key, Entry | None] = {}
        self.decoded: dict[Key, Kept] = {}

    def document(self, label: Label, record_id: str, part: int) -> dict[str, Any] | None:
        """A part as it lies there now, with its stamps; None where there is none to be read."""
        try:
            return unpacked(self._file.get(label, record_id, part))
        except (RecordMissing, RecordDamaged, ValueError):
            return None

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
        text = with_stamps(self._file, label, record_id, part, text)
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
        file, key = self._file, (id_bytes(record_id), part)
        former = file.entry(key)
        if former is not None and former.label is not label:
            raise RecordMissing()
        # Made anew, it goes on beyond whatever a record of this id and part ever had.
        revision = former.revision + 1 if former is not None else file.counter + 1
        sealed = seal(
            file.keys.records,
            text,
            bound_to=file.bound(label, key, revision),
            step=STEP_BYTES[part],
            random_bytes=secrets.token_bytes,
        )
        write_record(file.connection, *key, revision, sealed)
        self.changes[key] = entry = Entry(label, revision, sealed[-16:])
        if decoded is not None:
            self.decoded[key] = (entry, decoded)

    def remove(self, label: Label, record_id: str, *, noted: bool = True) -> None:
        """Deletes a record with all its parts, and notes that it is gone for good, so that a merge
        with another copy does not bring it back; where it is not noted, it may come back. Raises
        `RecordMissing`.
        """
        raw = id_bytes(record_id)
        parts = [
            part
            for part in STEP_BYTES
            if (entry := self._file.entry((raw, part))) is not None and entry.label is label
        ]
        if not parts:
            raise RecordMissing()
        if noted and (removed := with_removed(self._file, label, record_id)) is not None:
            self.put_removed(removed)
        for part in parts:
            remove_record(self._file.connection, raw, part)
            self.changes[raw, part] = None

    def remove_unknown(self, keys: Iterable[Key]) -> None:
        """Deletes what lies in the file and is no record: the manifest does not know it."""
        for key in keys:
            remove_record(self._file.connection, *key)
            self.changes[key] = None

    def put_removed(self, removed: dict[str, Gone]) -> None:
        """Writes the one record of what is gone for good."""
        ids = self._file.ids(Label.REMOVED)
        record_id = ids[0] if ids else new_id()
        self.put(Label.REMOVED, record_id, packed({"removed": removed}))
