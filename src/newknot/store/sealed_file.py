"""One open vault file: its connection, keys and manifest, and its records as they are sealed."""

import sqlite3
import time
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from threading import RLock
from typing import Any, TypeVar

from newknot.crypto import (
    ReadyKey,
    SealBroken,
    VaultKeys,
    associated_data,
    open_sealed,
    ready_key,
)
from newknot.store.change_log import ChangeLog
from newknot.store.database import translated
from newknot.store.errors import RecordDamaged, RecordMissing, VaultDamaged
from newknot.store.manifest import FORMAT, Entry, Key, Label, Manifest
from newknot.store.records import id_bytes, read_part, read_record, read_tags

CARD, SECRETS, HISTORY = 1, 2, 3
"""Parts of a record: what lists may open, the secrets, and the earlier secrets."""
AT_ONCE_LEAST = 100
"""Records that are asked for in one statement rather than each in its own."""
Decoded = TypeVar("Decoded")
Kept = tuple[Entry, Any]
"""The entry of a record part, and what was made of it."""


class SealedFile:
    """What reading and writing share. Safe for threads: one lock serialises the one connection.

    damaged: records that are not what the manifest says; they are never half-read. pending: what
    the transaction under way has changed so far. changed_at: the change counter when a record of a
    kind was last written here. came_or_went_at: when one was last added or removed. wall_s: seconds
    since 1970.
    """

    def __init__(self, connection: sqlite3.Connection, vault_key: bytes, vault_id: bytes) -> None:
        self.connection = connection
        self.vault_key = vault_key
        self.vault_id = vault_id
        self._bound_to_kind = {
            label: associated_data(FORMAT, vault_id, label.name) for label in Label
        }
        self.keys = VaultKeys.of(vault_key, vault_id=vault_id)
        self._records_key: ReadyKey | None = ready_key(self.keys.records)
        self.manifest = Manifest(self.keys.manifest, vault_id)
        self.lock = RLock()
        self.pending: dict[Key, Entry | None] | None = None
        self.kept: dict[Key, Kept] = {}
        self.changed_at: dict[Label, int] = {}
        self.came_or_went_at: dict[Label, int] = {}
        self.change_log = ChangeLog()
        self._derived: dict[str, tuple[tuple[int, ...], Any]] = {}
        self.damaged: list[tuple[Key, Label | None]] = []
        self.wall_s: Callable[[], float] = time.time

    def load(self) -> None:
        """Reads the manifest and holds every record's revision and tag against it.

        Raises `VaultDamaged`.
        """
        self.manifest.load(self.connection)
        rows = {(rid, part): (rev, tag) for rid, part, rev, tag in read_tags(self.connection)}
        entries = self.manifest.entries
        for key, entry in entries.items():
            if rows.get(key) != (entry.revision, entry.tag):
                self.damaged.append((key, entry.label))
        self.damaged.extend((key, None) for key in rows.keys() - entries.keys())
        self.change_log.begin(self.counter)

    def catch_up(self) -> None:
        """Reads it again where it was written to since by another connection of this process."""
        with self.lock:
            if self.manifest.is_current(self.connection):
                return
            self.damaged.clear()
            self.kept.clear()
            self._derived.clear()
            self.load()

    def forget(self) -> None:
        """Closes the file and drops every key."""
        with self.lock:
            self.connection.close()
            self.manifest.entries.clear()
            self.kept.clear()
            self._derived.clear()
            self.keys = VaultKeys(b"", b"", b"")
            self._records_key = None
            self.vault_key = b""

    @property
    def counter(self) -> int:
        """How many changes were ever committed."""
        return self.manifest.counter

    def written_since(self, labels: Collection[Label], counter: int) -> set[str] | None:
        """Ids of records of these kinds that were written or removed after that counter; None where
        it is not known, or a transaction is under way.
        """
        with self.lock:
            return None if self.pending is not None else self.change_log.since(labels, counter)

    def entries(self) -> dict[Key, Entry]:
        """Every record part that the manifest knows."""
        with self.lock:
            return dict(self.manifest.entries)

    def entry(self, key: Key) -> Entry | None:
        """An entry as the transaction under way leaves it."""
        if self.pending is not None and key in self.pending:
            return self.pending[key]
        return self.manifest.entries.get(key)

    def bound(self, label: Label, key: Key, revision: int) -> bytes:
        """What a record part is sealed to: vault, kind, id, part and revision."""
        return self._bound_to_kind[label] + associated_data(key[0], key[1], revision)

    def ids(self, label: Label) -> list[str]:
        """Ids (hex) of all records of a kind, damaged ones included."""
        return [one.hex() for one in self._ids(label)]

    def _ids(self, label: Label) -> list[bytes]:
        """Of one length, they stand in the order of their hexadecimal forms."""
        with self.lock:
            known = self.manifest.entries
            if any(one is None or key not in known for key, one in (self.pending or {}).items()):
                return self._ids_now()[label]
            at = (max(self.came_or_went_at.values(), default=0),)
            return self._held("ids", at, lambda _: self._ids_now())[label]

    def _ids_now(self) -> dict[Label, list[bytes]]:
        found: dict[Label, set[bytes]] = {label: set() for label in Label}
        for key, entry in {**self.manifest.entries, **(self.pending or {})}.items():
            if entry is not None:
                found[entry.label].add(key[0])
        return {label: sorted(ids) for label, ids in found.items()}

    def once(self, name: str, labels: Collection[Label], make: Callable[[], Decoded]) -> Decoded:
        """What `make` gives: kept while no record of these kinds changes, made each time within a
        transaction, and gone at the lock. Whoever takes it does not change it.
        """
        return self.renewed(name, labels, lambda _: make())

    def renewed(
        self, name: str, labels: Collection[Label], make: Callable[[Decoded | None], Decoded]
    ) -> Decoded:
        """The same, made of what it was before, or of None, so that only what changed is done."""
        with self.lock:
            if self.pending is not None:
                return make(None)
            at = tuple(self.changed_at.get(label, 0) for label in labels)
            return self._held(name, at, make)

    def _held(
        self, name: str, at: tuple[int, ...], make: Callable[[Decoded | None], Decoded]
    ) -> Decoded:
        held = self._derived.get(name)
        if held is None or held[0] != at:
            held = self._derived[name] = (at, make(None if held is None else held[1]))
        found: Decoded = held[1]
        return found

    def decoded_all(
        self, label: Label, part: int, decode: Callable[[str, bytes], Decoded]
    ) -> tuple[list[Decoded], list[str]]:
        """This part of every record of a kind, as `decoded` gives it; ids of damaged ones."""
        found: list[Decoded] = []
        damaged: list[str] = []
        with self.lock:
            ids = self._ids(label)
            rows = self._rows(ids, part)
            for raw in ids:
                key = (raw, part)
                held, entry = self.kept.get(key), self.entry(key)
                if held is not None and held[0] is entry:
                    found.append(held[1])
                    continue
                record_id, row = raw.hex(), rows.pop(raw, None)
                try:
                    if entry is None or row is None:
                        text = self.get(label, record_id, part)
                    else:
                        text = self._open_row(key, entry, row)
                    one = decode(record_id, text)
                except (RecordDamaged, RecordMissing):
                    damaged.append(record_id)
                else:
                    self._keep(key, entry, one)
                    found.append(one)
        return found, damaged

    def _keep(self, key: Key, entry: Entry | None, decoded: object) -> None:
        if entry is not None:
            self.kept[key] = (entry, decoded)

    def _rows(self, ids: Sequence[bytes], part: int) -> dict[bytes, tuple[int, bytes]]:
        """This part of the records as they lie in the file, at once where many are to be read."""
        unread = {one for one in ids if (one, part) not in self.kept}
        if len(unread) < AT_ONCE_LEAST:
            return {}
        try:
            rows = read_part(self.connection, part)
            return {one: (revision, sealed) for one, revision, sealed in rows if one in unread}
        except sqlite3.DatabaseError:
            # Where a page is damaged, one by one tells which records it holds.
            return {}

    def texts(
        self, label: Label, part: int, record_ids: Sequence[str]
    ) -> Iterator[tuple[str, bytes | None]]:
        """This part of each of these records; None of those that are damaged or have none."""
        rows = self._rows([id_bytes(one) for one in record_ids], part)
        for record_id in record_ids:
            with self.lock:
                key = (id_bytes(record_id), part)
                entry, row = self.entry(key), rows.pop(key[0], None)
                try:
                    # What was written since it was read is read again.
                    if entry is None or (entry.label, entry.revision) != (label, row and row[0]):
                        text = self.get(label, record_id, part)
                    else:
                        text = self._open_row(key, entry, row)
                except (RecordDamaged, RecordMissing):
                    yield record_id, None
                    continue
            yield record_id, text

    def get(self, label: Label, record_id: str, part: int = CARD) -> bytes:
        """The text of one part of a record. Raises `RecordMissing`, `RecordDamaged`."""
        with self.lock:
            key = (id_bytes(record_id), part)
            entry = self.entry(key)
            if entry is None or entry.label is not label:
                raise RecordMissing()
            return self.opened(key, entry)

    def opened(self, key: Key, entry: Entry) -> bytes:
        """The text that an entry of the manifest stands for. Raises `RecordDamaged`."""
        try:
            row = read_record(self.connection, *key)
        except sqlite3.DatabaseError as error:
            meant = translated(error)
            if isinstance(meant, VaultDamaged):
                raise RecordDamaged(record_id=key[0].hex()) from None
            raise meant from None
        return self._open_row(key, entry, row)

    def _open_row(self, key: Key, entry: Entry, row: tuple[int, bytes] | None) -> bytes:
        if row is None or (row[0], row[1][-16:]) != (entry.revision, entry.tag):
            raise RecordDamaged(record_id=key[0].hex())
        try:
            bound = self.bound(entry.label, key, entry.revision)
            key_of = self._records_key or self.keys.records
            return open_sealed(key_of, row[1], bound_to=bound)
        except SealBroken:
            raise RecordDamaged(record_id=key[0].hex()) from None

    def decoded(
        self,
        label: Label,
        record_id: str,
        part: int,
        decode: Callable[[bytes], Decoded],
    ) -> Decoded:
        """What `decode` makes of a part; kept in memory while the vault is open, for this revision.

        Raises `RecordMissing`, `RecordDamaged`.
        """
        with self.lock:
            key = (id_bytes(record_id), part)
            entry = self.entry(key)
            held = self.kept.get(key)
            if held is not None and held[0] is entry and held[0].label is label:
                found: Decoded = held[1]
                return found
            found = decode(self.get(label, record_id, part))
            self._keep(key, entry, found)
            return found

    def revisions(self, labels: Collection[Label]) -> dict[Label, dict[str, tuple[int, int]]]:
        """Of all records of these kinds, by id (hex): revisions of card and secrets; 0: none."""
        with self.lock:
            found: dict[Label, dict[str, tuple[int, int]]] = {label: {} for label in labels}
            for (record_id, part), entry in self.manifest.entries.items():
                if part == CARD and entry.label in found:
                    found[entry.label][record_id.hex()] = self._revisions(record_id, entry)
            return found

    def revisions_of(self, label: Label, record_ids: Iterable[str]) -> dict[str, tuple[int, int]]:
        """The same of those records alone; without those that are not there."""
        with self.lock:
            entries = self.manifest.entries
            found: dict[str, tuple[int, int]] = {}
            for record_id in record_ids:
                raw = id_bytes(record_id)
                entry = entries.get((raw, CARD))
                if entry is not None and entry.label is label:
                    found[record_id] = self._revisions(raw, entry)
            return found

    def _revisions(self, raw: bytes, card: Entry) -> tuple[int, int]:
        secrets = self.manifest.entries.get((raw, SECRETS))
        return card.revision, secrets.revision if secrets else 0
