"""A vault: created, unlocked, written to in transactions of sealed records, and closed."""

import secrets
import sqlite3
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager, suppress
from pathlib import Path

from newknot.crypto import (
    KdfParameters,
    Slot,
    SlotDamaged,
    VaultKeys,
    WrongPassphrase,
    fingerprint,
    fingerprints,
    make_slot,
    new_vault_key,
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
    translated,
)
from newknot.store.errors import VaultDamaged, VaultExists, VaultMissing, VaultReadOnly
from newknot.store.manifest import Entry, Key, Label, Manifest, Staged
from newknot.store.records import ID_BYTES, new_id
from newknot.store.sealed_file import CARD, HISTORY, SECRETS, SealedFile
from newknot.store.slots import SlotKind, mend_slots, remove_slot, usable_slot, write_slot
from newknot.store.transaction import STEP_BYTES, Transaction

__all__ = ["CARD", "HISTORY", "SECRETS", "Label", "Transaction", "Vault", "new_id"]

INSERT_VAULT = "INSERT INTO vault (singleton, vault_id) VALUES (1, ?)"
_SELECT_VAULT = "SELECT vault_id FROM vault WHERE singleton = 1"


_QUIET = frozenset((Label.TAKEN_OUT, Label.SETTINGS))
"""What says nothing of logins and secrets: notes of what was looked at, settings, drafts."""


class Vault(SealedFile):
    """An unlocked vault.

    slots: the ways to its key as they were read whole or written since; a kind that has none, or
    none that is whole, is missing. mended: kinds of which one copy was damaged, and was written
    anew from the other.
    """

    def __init__(
        self,
        path: Path,
        connection: sqlite3.Connection,
        vault_key: bytes,
        vault_id: bytes,
        anchor: Anchor,
    ) -> None:
        super().__init__(connection, vault_key, vault_id)
        self.path = path
        self._anchor = anchor
        self._transaction: Transaction | None = None
        self._quiet_writes = 0
        self.is_older_copy = False
        self.slots: dict[SlotKind, Slot] = {}
        self.mended: list[SlotKind] = []

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
        vault = Vault(path, connect(path), vault_key, vault_id, Anchor(state_folder, vault_id))
        vault._begin()
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
            vault = Vault(path, connection, vault_key, vault_id, Anchor(state_folder, vault_id))
            vault._begin()
        except SlotDamaged:
            connection.close()
            raise VaultDamaged(part="both copies of its key slot") from None
        except sqlite3.DatabaseError as error:
            connection.close()
            raise translated(error) from None
        except BaseException:
            connection.close()
            raise
        return vault

    def _begin(self) -> None:
        self.load()
        counter, head_tag = self.manifest.counter, self.manifest.head_tag
        if self._anchor.standing(counter=counter, head_tag=head_tag) is Standing.OLDER:
            self.is_older_copy = True
        else:
            with suppress(OSError):
                self._anchor.write(counter=counter, head_tag=head_tag)
        for kind in SlotKind:
            with suppress(SlotDamaged, WrongPassphrase):
                slot = self.slots[kind] = usable_slot(self.connection, kind, self.vault_id)
                if not self.is_older_copy and mend_slots(self.connection, kind, slot):
                    self.mended.append(kind)

    def proves(self, passphrase: str) -> bool:
        """Whether the passphrase is the vault's own."""
        return self._opens_slot(SlotKind.PASSPHRASE, passphrase)

    def recovers(self, key: bytes) -> bool:
        """Whether the recovery key opens this vault."""
        return self._opens_slot(SlotKind.RECOVERY, key.hex())

    def _opens_slot(self, kind: SlotKind, text: str) -> bool:
        slot = self.slots.get(kind)
        try:
            return slot is not None and (
                open_slot(slot, passphrase=text, vault_id=self.vault_id) == self.vault_key
            )
        except WrongPassphrase:
            return False

    @contextmanager
    def new_passphrase(
        self, passphrase: str, *, parameters: KdfParameters
    ) -> Iterator["Transaction"]:
        """Writes both copies of the slot anew, in one transaction with the writes of the block;
        the former slot is overwritten and leaves the write-ahead log too.
        """
        slot = _new_slot(self.vault_key, passphrase, self.vault_id, parameters)
        with self._rewritten() as tx:
            write_slot(self.connection, slot, SlotKind.PASSPHRASE)
            yield tx
        self.slots[SlotKind.PASSPHRASE] = slot

    @contextmanager
    def new_recovery(
        self, key: bytes | None, *, parameters: KdfParameters | None
    ) -> Iterator["Transaction"]:
        """The same of the recovery slot; without a key there is none afterwards."""
        slot = None
        if key is not None and parameters is not None:
            slot = _new_slot(self.vault_key, key.hex(), self.vault_id, parameters)
        with self._rewritten() as tx:
            remove_slot(self.connection, SlotKind.RECOVERY)
            if slot is not None:
                write_slot(self.connection, slot, SlotKind.RECOVERY)
            yield tx
        self.slots.pop(SlotKind.RECOVERY, None)
        if slot is not None:
            self.slots[SlotKind.RECOVERY] = slot

    @contextmanager
    def _rewritten(self) -> Iterator["Transaction"]:
        with self.lock:
            with self.transaction() as tx:
                yield tx
            self.connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()

    def fingerprint(self, purpose: str, *parts: str) -> bytes:
        """A keyed fingerprint that only this vault's key gives."""
        return fingerprint(self.keys.fingerprints, purpose, *parts)

    def fingerprints(self, purpose: str, texts: Iterable[str]) -> dict[str, bytes]:
        """The `fingerprint` of each text."""
        return fingerprints(self.keys.fingerprints, purpose, texts)

    def close(self) -> None:
        """Closes the file and drops every key."""
        self.forget()

    def accept_older_copy(self) -> None:
        """The user's answer that this older file is the one to go on with."""
        with self.lock:
            self.is_older_copy = False
            self._anchor.write(counter=self.manifest.counter, head_tag=self.manifest.head_tag)

    @property
    def changes_of_contents(self) -> int:
        """The change counter without what changes nothing of logins and secrets."""
        return self.counter - self._quiet_writes

    @contextmanager
    def transaction(self) -> Iterator["Transaction"]:
        """All writes of the block become durable together, or none. Nests into the outer one."""
        with self.lock:
            if self._transaction is not None:
                yield self._transaction
                return
            if self.is_older_copy:
                raise VaultReadOnly()
            staged, under_way = None, Transaction(self)
            try:
                with transaction(self.connection):
                    self._transaction, self.pending = under_way, under_way.changes
                    yield under_way
                    if under_way.changes:
                        staged = self.manifest.write(
                            self.connection, under_way.changes, secrets.token_bytes
                        )
            finally:
                self._transaction = self.pending = None
            if staged is not None:
                changes, entries = under_way.changes, self.manifest.entries
                moved = {k: e for k, e in changes.items() if e is None or not _has(entries, k[0])}
                written = self._written(changes)
                came_or_went = {label for label, _ in self._written(moved)}
                self._settled(staged)
                # What was written anew, or is gone, is damaged no more.
                self.damaged = [one for one in self.damaged if one[0] not in changes]
                self.change_log.note(self.counter, written)
                changed = {label for label, _ in written}
                self.changed_at.update(dict.fromkeys(changed, self.counter))
                self.came_or_went_at.update(dict.fromkeys(came_or_went, self.counter))
                is_quiet = all(one and one.label in _QUIET for one in changes.values())
                self._quiet_writes += is_quiet
                self.kept.update(under_way.decoded)

    def _written(self, changes: Mapping[Key, Entry | None]) -> set[tuple[Label, bytes]]:
        """Kinds and ids of what was written; of what was removed, as it was."""
        entries = self.manifest.entries
        found = ((key[0], entry or entries.get(key)) for key, entry in changes.items())
        return {(entry.label, record_id) for record_id, entry in found if entry is not None}

    def _settled(self, staged: Staged) -> None:
        self.manifest.settle(staged)
        # The change is durable already: a state folder that takes no more must not deny it.
        with suppress(OSError):
            self._anchor.write(counter=self.manifest.counter, head_tag=self.manifest.head_tag)


def _has(entries: Mapping[Key, Entry], record_id: bytes) -> bool:
    return any((record_id, part) in entries for part in STEP_BYTES)


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
