"""A vault: created, unlocked, read, and written to in transactions of sealed records."""

import secrets
import sqlite3
from collections.abc import Callable, Collection, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from threading import RLock
from typing import Any, TypeVar

from newknot.crypto import (
    KdfParameters,
    SealBroken,
    Slot,
    SlotDamaged,
    VaultKeys,
    WrongPassphrase,
    associated_data,
    fingerprint,
    make_slot,
    new_vault_key,
    open_sealed,
    open_slot,
)
from newknot.store.anchor import Anchor, Standing
from newknot.store.database import (
    connect,
    keep_before_migration,
    migrate,
    require_begun,
    require_schema,
    transaction,
)
from newknot.store.errors import (
    RecordDamaged,
    RecordMissing,
    VaultDamaged,
    VaultExists,
    VaultMissing,
    VaultReadOnly,
)
from newknot.store.manifest import FORMAT, Entry, Key, Label, Manifest, Staged
from newknot.store.records import ID_BYTES, id_bytes, new_id, read_record, read_tags
from newknot.store.slots import SlotKind, remove_slot, usable_slot, write_slot
from newknot.store.transaction import CARD, HISTORY, SECRETS, Transaction

__all__ = ["CARD", "HISTORY", "SECRETS", "Transaction", "Vault", "new_id"]

Decoded = TypeVar("Decoded")
INSERT_VAULT = "INSERT INTO vault (singleton, vault_id) VALUES (1, ?)"
_SELECT_VAULT = "SELECT vault_id FROM vault WHERE singleton = 1"


class Vault:
    """An unlocked vault. Safe for threads: one lock serialises the one connection.

    `damaged` lists records that are not what the manifest says; they are never half-read.
    """

    def __init__(
        self, connection: sqlite3.Connection, vault_key: bytes, vault_id: bytes, anchor: Anchor
    ) -> None:
        self._connection = connection
        self._keys = VaultKeys.of(vault_key, vault_id=vault_id)
        self._vault_key = vault_key
        self.vault_id = vault_id
        self._anchor = anchor
        self._lock = RLock()
        self._manifest = Manifest(self._keys.manifest, vault_id)
        self._pending: Transaction | None = None
        self._decoded: dict[Key, tuple[tuple[int, bytes], Any]] = {}
        self.is_older_copy = False
        self.damaged: list[tuple[Key, Label | None]] = []

    @staticmethod
    def create(
        path: Path, *, passphrase: str, parameters: KdfParameters, state_folder: Path
    ) -> "Vault":
        """A new, empty vault file: whole, or not there at all.

        Raises `VaultExists` and leaves any file there as it is.
        """
        if path.exists():
            raise VaultExists()
        building = path.with_name(path.name + ".new")
        for leftover in building.parent.glob(building.name + "*"):
            leftover.unlink()
        vault_id = secrets.token_bytes(ID_BYTES)
        vault_key = new_vault_key(secrets.token_bytes)
        slot = _new_slot(vault_key, passphrase, vault_id, parameters)
        connection = connect(building)
        try:
            migrate(connection)
            with transaction(connection):
                connection.execute(INSERT_VAULT, (vault_id,))
                write_slot(connection, slot, SlotKind.PASSPHRASE)
                manifest = Manifest(VaultKeys.of(vault_key, vault_id=vault_id).manifest, vault_id)
                manifest.write(connection, {}, secrets.token_bytes)
        except BaseException:
            connection.close()
            building.unlink(missing_ok=True)
            raise
        connection.close()
        building.replace(path)
        vault = Vault(connect(path), vault_key, vault_id, Anchor(state_folder, vault_id))
        vault._load()
        return vault

    @staticmethod
    def unlock(path: Path, *, passphrase: str, state_folder: Path) -> "Vault":
        """Opens a vault file with its passphrase.

        Raises `VaultMissing`, `WrongPassphrase`, `VaultDamaged`, `VaultNewer`.
        """
        return Vault._opened(path, passphrase, SlotKind.PASSPHRASE, state_folder)

    @staticmethod
    def recover(path: Path, *, key: bytes, state_folder: Path) -> "Vault":
        """Opens a vault file with its recovery key. Raises as `unlock` does."""
        return Vault._opened(path, key.hex(), SlotKind.RECOVERY, state_folder)

    @staticmethod
    def _opened(path: Path, text: str, kind: SlotKind, state_folder: Path) -> "Vault":
        if not path.exists():
            raise VaultMissing()
        connection = connect(path)
        try:
            require_begun(connection)
            keep_before_migration(connection, path)
            migrate(connection)
            require_schema(connection)
            vault_id = _vault_id(connection)
            slot = usable_slot(connection, kind, vault_id)
            vault_key = open_slot(slot, passphrase=text, vault_id=vault_id)
            vault = Vault(connection, vault_key, vault_id, Anchor(state_folder, vault_id))
            vault._load()
        except SlotDamaged:
            connection.close()
            raise VaultDamaged(part="both copies of its key slot") from None
        except sqlite3.DatabaseError:
            connection.close()
            raise VaultDamaged(part="the file as a database") from None
        except BaseException:
            connection.close()
            raise
        return vault

    def proves(self, passphrase: str) -> bool:
        """Whether the passphrase is the vault's own."""
        return self._opens_slot(SlotKind.PASSPHRASE, passphrase)

    def recovers(self, key: bytes) -> bool:
        """Whether the recovery key opens this vault."""
        return self._opens_slot(SlotKind.RECOVERY, key.hex())

    def _opens_slot(self, kind: SlotKind, text: str) -> bool:
        try:
            with self._lock:
                slot = usable_slot(self._connection, kind, self.vault_id)
            return open_slot(slot, passphrase=text, vault_id=self.vault_id) == self._vault_key
        except WrongPassphrase:
            return False

    @contextmanager
    def new_passphrase(
        self, passphrase: str, *, parameters: KdfParameters
    ) -> Iterator["Transaction"]:
        """Writes both copies of the slot anew, in one transaction with the writes of the block;
        the former slot is overwritten and leaves the write-ahead log too.
        """
        slot = _new_slot(self._vault_key, passphrase, self.vault_id, parameters)
        with self._rewritten() as tx:
            write_slot(self._connection, slot, SlotKind.PASSPHRASE)
            yield tx

    @contextmanager
    def new_recovery(
        self, key: bytes | None, *, parameters: KdfParameters | None
    ) -> Iterator["Transaction"]:
        """The same of the recovery slot; without a key there is none afterwards."""
        slot = None
        if key is not None and parameters is not None:
            slot = _new_slot(self._vault_key, key.hex(), self.vault_id, parameters)
        with self._rewritten() as tx:
            remove_slot(self._connection, SlotKind.RECOVERY)
            if slot is not None:
                write_slot(self._connection, slot, SlotKind.RECOVERY)
            yield tx

    @contextmanager
    def _rewritten(self) -> Iterator["Transaction"]:
        with self._lock:
            with self.transaction() as tx:
                yield tx
            self._connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()

    def fingerprint(self, purpose: str, *parts: str) -> bytes:
        """A keyed fingerprint that only this vault's key gives."""
        return fingerprint(self._keys.fingerprints, purpose, *parts)

    def close(self) -> None:
        """Closes the file and drops every key."""
        with self._lock:
            self._connection.close()
            self._manifest.entries.clear()
            self._decoded.clear()
            self._keys = VaultKeys(b"", b"", b"")
            self._vault_key = b""

    def accept_older_copy(self) -> None:
        """The user's answer that this older file is the one to go on with."""
        with self._lock:
            self.is_older_copy = False
            self._anchor.write(counter=self._manifest.counter, head_tag=self._manifest.head_tag)

    @property
    def counter(self) -> int:
        """How many changes were ever committed."""
        return self._manifest.counter

    def entries(self) -> dict[Key, Entry]:
        """Every record part that the manifest knows."""
        with self._lock:
            return dict(self._manifest.entries)

    def ids(self, label: Label) -> list[str]:
        """Ids (hex) of all records of a kind, damaged ones included."""
        with self._lock:
            entries: dict[Key, Entry | None] = {**self._manifest.entries}
            if self._pending is not None:
                entries.update(self._pending.changes)
            found = {k[0] for k, e in entries.items() if e is not None and e.label is label}
        return sorted(record_id.hex() for record_id in found)

    def get(self, label: Label, record_id: str, part: int = CARD) -> bytes:
        """The text of one part of a record. Raises `RecordMissing`, `RecordDamaged`."""
        with self._lock:
            key = (id_bytes(record_id), part)
            entry = self._entry(key)
            if entry is None or entry.label is not label:
                raise RecordMissing()
            try:
                row = read_record(self._connection, *key)
            except sqlite3.DatabaseError:
                raise RecordDamaged(record_id=record_id) from None
            if row is None or (row[0], row[1][-16:]) != (entry.revision, entry.tag):
                raise RecordDamaged(record_id=record_id)
            try:
                return open_sealed(
                    self._keys.records, row[1], bound_to=self._bound(label, key, entry.revision)
                )
            except SealBroken:
                raise RecordDamaged(record_id=record_id) from None

    def decoded(
        self, label: Label, record_id: str, part: int, decode: Callable[[bytes], Decoded]
    ) -> Decoded:
        """What `decode` makes of a part; kept in memory while the vault is open, for this revision.

        Raises `RecordMissing`, `RecordDamaged`.
        """
        with self._lock:
            key = (id_bytes(record_id), part)
            entry = self._entry(key)
            held = self._decoded.get(key)
            if held is not None and entry is not None and held[0] == (entry.revision, entry.tag):
                found: Decoded = held[1]
                return found
            found = decode(self.get(label, record_id, part))
            if entry is not None and self._pending is None:
                self._decoded[key] = ((entry.revision, entry.tag), found)
            return found

    def revisions(self, labels: Collection[Label]) -> dict[Label, dict[str, tuple[int, int]]]:
        """Of all records of these kinds, by id (hex): revisions of card and secrets; 0: none."""
        with self._lock:
            entries = self._manifest.entries
            found: dict[Label, dict[str, tuple[int, int]]] = {label: {} for label in labels}
            for (record_id, part), entry in entries.items():
                if part == CARD and entry.label in found:
                    secrets = entries.get((record_id, SECRETS))
                    revisions = entry.revision, secrets.revision if secrets else 0
                    found[entry.label][record_id.hex()] = revisions
            return found

    @contextmanager
    def transaction(self) -> Iterator["Transaction"]:
        """All writes of the block become durable together, or none. Nests into the outer one."""
        with self._lock:
            if self._pending is not None:
                yield self._pending
                return
            if self.is_older_copy:
                raise VaultReadOnly()
            staged, pending = None, Transaction(self)
            try:
                with transaction(self._connection):
                    self._pending = pending
                    yield pending
                    if pending.changes:
                        staged = self._manifest.write(
                            self._connection, pending.changes, secrets.token_bytes
                        )
            finally:
                self._pending = None
            if staged is not None:
                self._settled(staged)
                self._decoded.update(pending.decoded)

    def backup_to(self, path: Path) -> int:
        """A copy of the file by SQLite's own backup, as sealed as the vault itself.

        Answers the change counter of the copy.
        """
        target = connect(path)
        try:
            with self._lock:
                self._connection.backup(target)
                counter = self.counter
            target.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
            target.execute("PRAGMA journal_mode = DELETE").fetchall()
        finally:
            target.close()
        return counter

    def opens(self, path: Path, *, counter: int) -> bool:
        """Whether a copy opens with this vault's key, at that counter, every record whole."""
        copy = self.opened_copy(path)
        if copy is None:
            return False
        try:
            return not copy.damaged and copy.counter == counter
        finally:
            copy.close()

    def opened_copy(self, path: Path) -> "Vault | None":
        """A copy of this vault, to be read; None where this vault's key does not open it whole."""
        try:
            connection = connect(path)
        except VaultDamaged:
            return None
        try:
            copy = Vault(connection, self._vault_key, self.vault_id, self._anchor)
            copy._manifest.load(connection)
            copy._find_damage()
        except (VaultDamaged, sqlite3.DatabaseError):
            connection.close()
            return None
        return copy

    def _entry(self, key: Key) -> Entry | None:
        """An entry as the transaction under way leaves it."""
        if self._pending is not None and key in self._pending.changes:
            return self._pending.changes[key]
        return self._manifest.entries.get(key)

    def _load(self) -> None:
        self._manifest.load(self._connection)
        self._find_damage()
        counter, head_tag = self._manifest.counter, self._manifest.head_tag
        if self._anchor.standing(counter=counter, head_tag=head_tag) is Standing.OLDER:
            self.is_older_copy = True
        else:
            with suppress(OSError):
                self._anchor.write(counter=counter, head_tag=head_tag)

    def _find_damage(self) -> None:
        rows = {(rid, part): (rev, tag) for rid, part, rev, tag in read_tags(self._connection)}
        entries = self._manifest.entries
        for key, entry in entries.items():
            if rows.get(key) != (entry.revision, entry.tag):
                self.damaged.append((key, entry.label))
        self.damaged.extend((key, None) for key in rows.keys() - entries.keys())

    def _settled(self, staged: Staged) -> None:
        self._manifest.settle(staged)
        # The change is durable already: a state folder that takes no more must not deny it.
        with suppress(OSError):
            self._anchor.write(counter=self._manifest.counter, head_tag=self._manifest.head_tag)

    def _bound(self, label: Label, key: Key, revision: int) -> bytes:
        return associated_data(FORMAT, self.vault_id, label.name, key[0], key[1], revision)


def _new_slot(
    vault_key: bytes, passphrase: str, vault_id: bytes, parameters: KdfParameters
) -> Slot:
    return make_slot(
        vault_key,
        passphrase=passphrase,
        vault_id=vault_id,
        parameters=parameters,
        random_bytes=secrets.token_bytes,
    )


def _vault_id(connection: sqlite3.Connection) -> bytes:
    row = connection.execute(_SELECT_VAULT).fetchone()
    if row is None:
        raise VaultDamaged(part="its first row")
    return bytes(row[0])
