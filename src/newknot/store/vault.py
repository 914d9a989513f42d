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
    seal,
)
from newknot.crypto.slot import whole
from newknot.store.anchor import Anchor, Standing
from newknot.store.database import connect, migrate, require_begun, require_schema, transaction
from newknot.store.errors import (
    RecordDamaged,
    RecordMissing,
    VaultDamaged,
    VaultExists,
    VaultMissing,
    VaultReadOnly,
)
from newknot.store.manifest import FORMAT, Entry, Key, Label, Manifest, Staged
from newknot.store.records import read_record, read_tags, remove_record, write_record
from newknot.store.slots import read_slots, write_slot

ID_BYTES = 16
CARD, SECRETS, HISTORY = 1, 2, 3
"""Parts of a record: what lists may open, the secrets, and the earlier secrets."""
_STEP_BYTES = {CARD: 1024, SECRETS: 512, HISTORY: 512}
Decoded = TypeVar("Decoded")
_INSERT_VAULT = "INSERT INTO vault (singleton, vault_id) VALUES (1, ?)"
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
                connection.execute(_INSERT_VAULT, (vault_id,))
                write_slot(connection, slot)
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
        if not path.exists():
            raise VaultMissing()
        connection = connect(path)
        try:
            require_begun(connection)
            migrate(connection)
            require_schema(connection)
            vault_id = _vault_id(connection)
            vault_key = open_slot(
                _usable_slot(connection, vault_id), passphrase=passphrase, vault_id=vault_id
            )
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
        with self._lock:
            slot = _usable_slot(self._connection, self.vault_id)
        try:
            return open_slot(slot, passphrase=passphrase, vault_id=self.vault_id) == self._vault_key
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
        with self._lock:
            with self.transaction() as tx:
                write_slot(self._connection, slot)
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
            key = (_id_bytes(record_id), part)
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
            key = (_id_bytes(record_id), part)
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
        connection = connect(path)
        try:
            copy = Vault(connection, self._vault_key, self.vault_id, self._anchor)
            copy._manifest.load(connection)
            copy._find_damage()
            return not copy.damaged and copy.counter == counter
        except (VaultDamaged, sqlite3.DatabaseError):
            return False
        finally:
            connection.close()

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


class Transaction:
    """Writes that wait for their commit."""

    def __init__(self, vault: Vault) -> None:
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
        vault, key = self._vault, (_id_bytes(record_id), part)
        former = vault._entry(key)
        if former is not None and former.label is not label:
            raise RecordMissing()
        revision = former.revision + 1 if former is not None else vault.counter + 1
        sealed = seal(
            vault._keys.records,
            text,
            bound_to=vault._bound(label, key, revision),
            step=_STEP_BYTES[part],
            random_bytes=secrets.token_bytes,
        )
        write_record(vault._connection, *key, revision, sealed)
        self.changes[key] = Entry(label, revision, sealed[-16:])
        if decoded is not None:
            self.decoded[key] = ((revision, sealed[-16:]), decoded)

    def remove(self, label: Label, record_id: str) -> None:
        """Deletes a record with all its parts. Raises `RecordMissing`."""
        raw = _id_bytes(record_id)
        found = False
        for part in _STEP_BYTES:
            entry = self._vault._entry((raw, part))
            if entry is not None and entry.label is label:
                remove_record(self._vault._connection, raw, part)
                self.changes[raw, part] = None
                found = True
        if not found:
            raise RecordMissing()


def new_id() -> str:
    """A random record id of 128 bits, in hex."""
    return secrets.token_hex(ID_BYTES)


def _id_bytes(record_id: str) -> bytes:
    try:
        raw = bytes.fromhex(record_id)
    except ValueError:
        raise RecordMissing() from None
    if len(raw) != ID_BYTES:
        raise RecordMissing()
    return raw


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


def _usable_slot(connection: sqlite3.Connection, vault_id: bytes) -> Slot:
    """The first whole copy of the slot. Raises `SlotDamaged` where neither is."""
    for slot in read_slots(connection):
        if whole(slot, vault_id=vault_id):
            return slot
    raise SlotDamaged()
