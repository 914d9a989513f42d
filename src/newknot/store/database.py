"""One SQLite file: how it is opened, migrated, checked, and written to."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path

from newknot.core.errors import NewKnotError
from newknot.store.errors import (
    DiskFailed,
    DiskFull,
    VaultDamaged,
    VaultFolderRefused,
    VaultLocked,
    VaultNewer,
)

_SCHEMA = """
SELECT type, name, tbl_name, sql FROM sqlite_schema
WHERE name NOT LIKE 'sqlite_%' ORDER BY type, name
"""


def migrations() -> list[str]:
    """The migration scripts in order; number n brings a file from version n - 1 to n."""
    folder = files("newknot.store").joinpath("migrations")
    names = sorted(entry.name for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return [folder.joinpath(name).read_text("utf-8") for name in names]


def connect(path: Path) -> sqlite3.Connection:
    """A connection with the pragmas every vault wants. The file is created 0600 where missing.

    Raises `VaultDamaged` where the file is no database.
    """
    if not path.exists():
        create_private(path)
    connection = sqlite3.connect(path, isolation_level=None, check_same_thread=False, timeout=5)
    try:
        for pragma in (
            "PRAGMA journal_mode = WAL",
            "PRAGMA synchronous = FULL",
            "PRAGMA temp_store = MEMORY",
            "PRAGMA secure_delete = ON",
            "PRAGMA foreign_keys = ON",
            "PRAGMA trusted_schema = OFF",
            "PRAGMA cell_size_check = ON",
        ):
            connection.execute(pragma).fetchall()
        connection.execute("SELECT count(*) FROM sqlite_schema").fetchall()
    except sqlite3.DatabaseError as error:
        connection.close()
        raise translated(error) from None
    return connection


def create_private(path: Path) -> None:
    """An empty file that only its owner may read. Raises `VaultFolderRefused`."""
    try:
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        os.close(os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
    except OSError as error:
        raise VaultFolderRefused(reason=error.strerror or "cannot be written") from None


def keep_before_migration(connection: sqlite3.Connection, path: Path) -> Path | None:
    """A sealed copy beside the file, looked through, before it is brought to a newer version; None
    where it is of the newest already. One that was made before is left as it is.

    Raises `VaultFolderRefused`, `VaultDamaged`, `DiskFull`.
    """
    (version,) = connection.execute("PRAGMA user_version").fetchone()
    if not 0 < version < len(migrations()):
        return None
    kept = path.with_name(f"{path.name}.version-{version}")
    if kept.exists():
        return kept
    create_private(kept)
    target = sqlite3.connect(kept, isolation_level=None)
    try:
        connection.backup(target)
        (found,) = target.execute("PRAGMA integrity_check(1)").fetchone()
        if found != "ok":
            raise VaultDamaged(part="the file as a database")
    except BaseException as error:
        target.close()
        kept.unlink(missing_ok=True)
        if isinstance(error, sqlite3.DatabaseError):
            raise translated(error) from None
        raise
    target.execute("PRAGMA journal_mode = DELETE").fetchall()
    target.close()
    return kept


def migrate(connection: sqlite3.Connection, scripts: list[str] | None = None) -> None:
    """Brings the file to the newest version, each step with its number in one transaction.

    Raises `VaultNewer` where the file is beyond the scripts known here.
    """
    known = migrations() if scripts is None else scripts
    (version,) = connection.execute("PRAGMA user_version").fetchone()
    if version > len(known):
        raise VaultNewer(version=version)
    for number in range(version + 1, len(known) + 1):
        with transaction(connection):
            for statement in _statements(known[number - 1]):
                connection.execute(statement)
            connection.execute(f"PRAGMA user_version = {number:d}")


def _statements(script: str) -> Iterator[str]:
    pending = ""
    for line in script.splitlines(keepends=True):
        pending += line
        if sqlite3.complete_statement(pending):
            yield pending
            pending = ""
    if pending.strip():
        raise AssertionError("a migration ends within a statement")


def require_begun(connection: sqlite3.Connection) -> None:
    """Raises `VaultDamaged` where no migration ever ran: nothing is written to such a file."""
    if connection.execute("PRAGMA user_version").fetchone() == (0,):
        raise VaultDamaged(part="all of it: the file is empty")


def require_schema(connection: sqlite3.Connection) -> None:
    """Raises `VaultDamaged` unless the schema is just what the migrations make."""
    model = sqlite3.connect(":memory:", isolation_level=None)
    try:
        migrate(model)
        expected = model.execute(_SCHEMA).fetchall()
    finally:
        model.close()
    try:
        if connection.execute(_SCHEMA).fetchall() != expected:
            raise VaultDamaged(part="its schema")
    except sqlite3.DatabaseError as error:
        raise translated(error) from None


@contextmanager
def transaction(connection: sqlite3.Connection) -> Iterator[None]:
    """The only way to write: all of the block, or nothing. Raises `DiskFull`, `VaultDamaged`."""
    try:
        connection.execute("BEGIN IMMEDIATE")
        try:
            yield
            connection.execute("COMMIT")
        except BaseException:
            if connection.in_transaction:
                connection.execute("ROLLBACK")
            raise
    except sqlite3.DatabaseError as error:
        raise translated(error) from None


_DISK_SAYS = {
    sqlite3.SQLITE_IOERR: "it answered with an input or output error",
    sqlite3.SQLITE_TOOBIG: "what was to be written is too large for it",
    sqlite3.SQLITE_BUSY: "another program holds the file",
    sqlite3.SQLITE_LOCKED: "another program holds the file",
    sqlite3.SQLITE_NOMEM: "there was no memory left for it",
    sqlite3.SQLITE_PROTOCOL: "another program holds the file",
    sqlite3.SQLITE_INTERRUPT: "it was interrupted",
}
_NOT_WRITTEN = (sqlite3.SQLITE_READONLY, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_PERM)


def translated(error: sqlite3.DatabaseError) -> NewKnotError:
    """What an error of SQLite means to whoever holds a vault: damage is said only of damage."""
    code = getattr(error, "sqlite_errorcode", None)
    if code is None:
        # The module's own: the connection was closed under a call, by a lock.
        return VaultLocked()
    # The extended codes say more than is asked here (SQLite, result codes).
    primary = code & 0xFF
    if primary == sqlite3.SQLITE_FULL:
        return DiskFull()
    if code == sqlite3.SQLITE_READONLY_DBMOVED:
        return VaultFolderRefused(reason="the file was moved or replaced while it was open")
    if primary in _NOT_WRITTEN:
        return VaultFolderRefused(reason="the file cannot be written")
    if primary in _DISK_SAYS:
        return DiskFailed(reason=_DISK_SAYS[primary])
    return VaultDamaged(part="the file as a database")
