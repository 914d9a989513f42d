"""The manifest: which records there are, sealed, so that a changed or missing one is noticed.

Entries lie in 64 buckets by the first 6 bits of the record id. The head holds the change
counter and each bucket's revision and tag.
"""

import sqlite3
import struct
from collections.abc import Callable
from dataclasses import dataclass
from enum import IntEnum

from newknot.crypto import SealBroken, associated_data, open_sealed, seal
from newknot.store.errors import VaultDamaged

BUCKETS = 64
FORMAT = "newknot vault 1"
_ENTRY = struct.Struct(">16sHHQ16s")
_HEAD = struct.Struct(">Q")
_HEAD_BUCKET = struct.Struct(">Q16s")

_UPSERT_BUCKET = """
INSERT INTO manifest (bucket, revision, sealed) VALUES (?, ?, ?)
ON CONFLICT (bucket) DO UPDATE SET revision = excluded.revision, sealed = excluded.sealed
"""
_SELECT_BUCKETS = "SELECT bucket, revision, sealed FROM manifest ORDER BY bucket"
_UPSERT_HEAD = """
INSERT INTO head (singleton, revision, sealed) VALUES (1, ?, ?)
ON CONFLICT (singleton) DO UPDATE SET revision = excluded.revision, sealed = excluded.sealed
"""
_SELECT_HEAD = "SELECT revision, sealed FROM head WHERE singleton = 1"


class Label(IntEnum):
    """What a record is. The numbers are part of the file format."""

    SETTINGS = 1
    LOGIN = 2
    POLICY = 3
    ROTATION = 4
    LOOSE_END = 5
    CHECK = 6
    OWN_DETAILS = 7
    KEPT_MEASURES = 8
    PASSPHRASES = 9
    WAIVER = 10
    NOTICES = 11
    CAMPAIGN = 12
    MAILS = 13
    RECOVERY = 14
    REMOVED = 15
    TAKEN_OUT = 16
    BUNDLE_KEY = 17
    IMPORT_UNDO = 18


_LABELS = {label.value: label for label in Label}


@dataclass(frozen=True, slots=True)
class Entry:
    """One record as the manifest knows it."""

    label: Label
    revision: int
    tag: bytes


Key = tuple[bytes, int]
"""(record id, part)."""


def bucket_of(record_id: bytes) -> int:
    """The bucket of a record id."""
    return record_id[0] >> 2


class Manifest:
    """All entries in memory, and their sealed form in the file. Not safe for two threads."""

    def __init__(self, key: bytes, vault_id: bytes) -> None:
        self._key = key
        self._vault_id = vault_id
        self.entries: dict[Key, Entry] = {}
        self.counter = 0
        self.head_tag = b""
        self._buckets: list[dict[Key, Entry]] = [{} for _ in range(BUCKETS)]
        self._bucket_marks = [(0, bytes(16))] * BUCKETS

    def is_current(self, connection: sqlite3.Connection) -> bool:
        """Whether the file is as it was when this was read."""
        row = connection.execute(_SELECT_HEAD).fetchone()
        return row is not None and row[0] == self.counter

    def load(self, connection: sqlite3.Connection) -> None:
        """Reads and verifies head and buckets. Raises `VaultDamaged` naming the part."""
        row = connection.execute(_SELECT_HEAD).fetchone()
        if row is None:
            raise VaultDamaged(part="its head")
        revision, sealed = row
        try:
            body = open_sealed(self._key, sealed, bound_to=self._bound("head", 0, revision))
        except SealBroken:
            raise VaultDamaged(part="its head") from None
        (self.counter,) = _HEAD.unpack_from(body)
        if self.counter != revision or len(body) != _HEAD.size + BUCKETS * _HEAD_BUCKET.size:
            raise VaultDamaged(part="its head")
        self.head_tag = sealed[-16:]
        self.entries.clear()
        for held in self._buckets:
            held.clear()
        self._bucket_marks = [
            _HEAD_BUCKET.unpack_from(body, _HEAD.size + i * _HEAD_BUCKET.size)
            for i in range(BUCKETS)
        ]
        rows = {bucket: (rev, text) for bucket, rev, text in connection.execute(_SELECT_BUCKETS)}
        for bucket in range(BUCKETS):
            self._load_bucket(bucket, rows.get(bucket))

    def _load_bucket(self, bucket: int, row: tuple[int, bytes] | None) -> None:
        part = f"part {bucket + 1} of {BUCKETS} of its manifest"
        wanted_revision, wanted_tag = self._bucket_marks[bucket]
        if row is None:
            if wanted_revision:
                raise VaultDamaged(part=part)
            return
        revision, sealed = row
        if (revision, sealed[-16:]) != (wanted_revision, wanted_tag):
            raise VaultDamaged(part=part)
        try:
            bound = self._bound("bucket", bucket, revision)
            body = open_sealed(self._key, sealed, bound_to=bound)
        except SealBroken:
            raise VaultDamaged(part=part) from None
        held = self._buckets[bucket]
        for record_id, label, record_part, rev, tag in _ENTRY.iter_unpack(body):
            held[record_id, record_part] = Entry(_LABELS[label], rev, tag)
        self.entries.update(held)

    def write(
        self,
        connection: sqlite3.Connection,
        changes: dict[Key, Entry | None],
        random_bytes: Callable[[int], bytes],
    ) -> "Staged":
        """Writes head and touched buckets within the caller's transaction.

        Memory follows only when the caller has committed and calls `settle` with the result.
        """
        touched: dict[int, dict[Key, Entry]] = {}
        for key, entry in changes.items():
            bucket = touched.setdefault(bucket_of(key[0]), dict(self._buckets[bucket_of(key[0])]))
            if entry is None:
                bucket.pop(key, None)
            else:
                bucket[key] = entry
        marks = list(self._bucket_marks)
        for number, bucket in touched.items():
            revision = marks[number][0] + 1
            body = b"".join(
                _ENTRY.pack(record_id, e.label, part, e.revision, e.tag)
                for (record_id, part), e in sorted(bucket.items())
            )
            bound = self._bound("bucket", number, revision)
            sealed = seal(self._key, body, bound_to=bound, step=1024, random_bytes=random_bytes)
            connection.execute(_UPSERT_BUCKET, (number, revision, sealed))
            marks[number] = (revision, sealed[-16:])
        counter = self.counter + 1
        head = _HEAD.pack(counter) + b"".join(_HEAD_BUCKET.pack(*mark) for mark in marks)
        bound = self._bound("head", 0, counter)
        sealed = seal(self._key, head, bound_to=bound, step=1024, random_bytes=random_bytes)
        connection.execute(_UPSERT_HEAD, (counter, sealed))
        return Staged(changes, touched, marks, counter, sealed[-16:])

    def settle(self, staged: "Staged") -> None:
        """Takes over what `write` put into a transaction that has since been committed."""
        for key, entry in staged.changes.items():
            if entry is None:
                self.entries.pop(key, None)
            else:
                self.entries[key] = entry
        for number, bucket in staged.buckets.items():
            self._buckets[number] = bucket
        self._bucket_marks = staged.marks
        self.counter = staged.counter
        self.head_tag = staged.head_tag

    def _bound(self, table: str, number: int, revision: int) -> bytes:
        return associated_data(FORMAT, self._vault_id, table, number, 0, revision)


@dataclass(frozen=True, slots=True)
class Staged:
    """What a manifest write will be once it is committed."""

    changes: dict[Key, Entry | None]
    buckets: dict[int, dict[Key, Entry]]
    marks: list[tuple[int, bytes]]
    counter: int
    head_tag: bytes
