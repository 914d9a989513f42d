"""Sealed copies of a vault's file: written, read through to the last record, and looked into."""

import sqlite3
from collections.abc import Callable, Container
from contextlib import closing
from pathlib import Path

from newknot.core.errors import NewKnotError
from newknot.store.database import connect, require_schema, translated
from newknot.store.errors import RecordDamaged, VaultDamaged
from newknot.store.manifest import Key, Label
from newknot.store.record_json import unpacked
from newknot.store.sealed_file import SealedFile
from newknot.store.slots import SlotKind, slot_copies
from newknot.store.vault import Vault

_VAULT_ID = "SELECT vault_id FROM vault WHERE singleton = 1"


class CopyFaulty(Exception):
    """A copy that would not give everything back: in which part (in words), of which record."""

    def __init__(self, part: str, record_id: str = "") -> None:
        super().__init__(part)
        self.part = part
        self.record_id = record_id


def write_copy(vault: Vault, path: Path) -> None:
    """A copy of the file by SQLite's own backup, as sealed as the vault itself. On an error nothing
    is left of it.

    Raises `DiskFull`, `VaultFolderRefused`, `VaultDamaged`.
    """
    try:
        target = connect(path)
        try:
            if vault.path.exists():
                # A connection of its own: the vault goes on reading and writing beside it.
                with closing(connect(vault.path)) as source:
                    source.backup(target)
            else:
                with vault.lock:
                    vault.connection.backup(target)
            target.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
            target.execute("PRAGMA journal_mode = DELETE").fetchall()
        finally:
            target.close()
    except sqlite3.DatabaseError as error:
        remove_copy(path)
        raise translated(error) from None
    except BaseException:
        remove_copy(path)
        raise


def remove_copy(path: Path) -> None:
    """The copy is gone, with all that SQLite keeps beside it."""
    for ending in ("", "-wal", "-shm", "-journal"):
        path.with_name(path.name + ending).unlink(missing_ok=True)


def unreadable_of(vault: SealedFile) -> frozenset[Key]:
    """The parts of records that cannot be read, told by reading all of them."""
    found = {key for key, _ in vault.damaged}
    for key, entry in vault.entries().items():
        with vault.lock:
            # What was changed meanwhile is read as whoever changed it left it.
            if vault.entry(key) is not entry:
                continue
            try:
                unpacked(vault.opened(key, entry))
            except (RecordDamaged, ValueError):
                found.add(key)
    return frozenset(found)


def require_whole_copy(
    vault: Vault,
    path: Path,
    *,
    least_counter: int,
    but_for: Container[Key] = (),
    step: Callable[[], object] = lambda: None,
) -> None:
    """Reads a copy through: every record decrypted and decoded, the manifest whole, both copies of
    each key slot byte for byte those by which the vault is entered.

    It holds nothing of the vault up. least_counter: the vault's change counter before copying.
    but_for: what need not be read, because the vault itself has lost it.
    step is called for each record, and may raise to stop. Raises `CopyFaulty`.
    """
    try:
        with closing(_only_read(path)) as connection:
            require_schema(connection)
            _require_slots(vault, connection)
            copy = SealedFile(connection, vault.vault_key, vault.vault_id)
            copy.load()
            if copy.counter < least_counter:
                raise CopyFaulty("its manifest, which is older")
            for key, label in copy.damaged:
                if key not in but_for:
                    raise CopyFaulty(_kind(label), key[0].hex())
            for key, entry in copy.manifest.entries.items():
                step()
                if key in but_for:
                    continue
                try:
                    unpacked(copy.opened(key, entry))
                except (RecordDamaged, ValueError):
                    raise CopyFaulty(_kind(entry.label), key[0].hex()) from None
    except VaultDamaged as error:
        raise CopyFaulty(str(error.data["part"])) from None
    except sqlite3.DatabaseError:
        raise CopyFaulty("the file as a database") from None


def opened_copy(vault: Vault, path: Path) -> SealedFile | None:
    """A copy of this vault, to be read; None where this vault's key does not open it whole."""
    try:
        connection = connect(path)
    except NewKnotError:
        return None
    try:
        copy = SealedFile(connection, vault.vault_key, vault.vault_id)
        copy.load()
    except (VaultDamaged, sqlite3.DatabaseError):
        connection.close()
        return None
    return copy


def vault_id_of(path: Path) -> bytes | None:
    """Which vault a file is of; None where it does not say."""
    try:
        with closing(_only_read(path)) as found:
            row = found.execute(_VAULT_ID).fetchone()
    except sqlite3.Error:
        return None
    return bytes(row[0]) if row is not None else None


def vault_version_of(path: Path) -> int | None:
    """Of which version of the format a vault's file is; None where it is none."""
    try:
        with closing(_only_read(path)) as found:
            (version,) = found.execute("PRAGMA user_version").fetchone()
            found.execute(_VAULT_ID).fetchone()
    except sqlite3.Error:
        return None
    return int(version) or None


def _only_read(path: Path) -> sqlite3.Connection:
    """A connection that leaves the file, and all beside it, as they are."""
    return sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro&immutable=1", uri=True)


def _require_slots(vault: Vault, connection: sqlite3.Connection) -> None:
    for kind in SlotKind:
        found = slot_copies(connection, kind)
        slot = vault.slots.get(kind)
        if found != ([] if slot is None else [slot, slot]):
            raise CopyFaulty(f"a key slot ({kind.says})")


def _kind(label: Label | None) -> str:
    return "a record" if label is None else label.name.lower().replace("_", " ")
