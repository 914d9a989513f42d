"""Migrations and transactions."""

import sqlite3
from pathlib import Path

import pytest

from newknot.core.own_details import OwnDetails
from newknot.store.database import (
    connect,
    keep_before_migration,
    migrate,
    migrations,
    require_schema,
    transaction,
    translated,
)
from newknot.store.errors import (
    DiskFailed,
    DiskFull,
    VaultDamaged,
    VaultFolderRefused,
    VaultLocked,
    VaultNewer,
)
from newknot.store.own_details import put_own_details
from newknot.store.vault import Label, Vault


def test_every_version_reaches_one_schema(tmp_path: Path) -> None:
    for start in range(len(migrations()) + 1):
        connection = connect(tmp_path / f"{start}.vault")
        migrate(connection, migrations()[:start])
        migrate(connection)
        require_schema(connection)
        connection.close()


def test_a_migration_that_fails_half_way_leaves_the_version_before(tmp_path: Path) -> None:
    connection = connect(tmp_path / "a.vault")
    migrate(connection)
    broken = [
        *migrations(),
        "CREATE TABLE extra (x) STRICT;\nCREATE TABLE bad (x INTEGER) STRICT;\nNO;",
    ]
    with pytest.raises(VaultDamaged):
        migrate(connection, broken)
    require_schema(connection)
    assert connection.execute("PRAGMA user_version").fetchone() == (len(migrations()),)
    connection.close()


def test_a_later_version_is_not_touched(tmp_path: Path) -> None:
    connection = connect(tmp_path / "a.vault")
    migrate(connection)
    connection.execute("PRAGMA user_version = 99")
    with pytest.raises(VaultNewer):
        migrate(connection)
    connection.close()


def test_a_transaction_is_whole_or_nothing(tmp_path: Path) -> None:
    connection = connect(tmp_path / "a.vault")
    connection.execute("CREATE TABLE t (x)")
    with pytest.raises(KeyError), transaction(connection):
        connection.execute("INSERT INTO t VALUES (1)")
        raise KeyError
    assert connection.execute("SELECT count(*) FROM t").fetchone() == (0,)
    other = sqlite3.connect(tmp_path / "a.vault", timeout=0)
    # Nobody else writes from its beginning on, so that it never fails half-way for another.
    with transaction(connection), pytest.raises(sqlite3.OperationalError, match="locked"):
        other.execute("BEGIN IMMEDIATE")
    other.close()
    connection.close()


def test_a_full_disk_changes_nothing_and_says_so(tmp_path: Path) -> None:
    connection = connect(tmp_path / "a.vault")
    connection.execute("CREATE TABLE t (x)")
    pages = connection.execute("PRAGMA page_count").fetchone()[0]
    connection.execute(f"PRAGMA max_page_count = {pages}")
    with pytest.raises(Exception, match="disk_full"), transaction(connection):
        connection.execute("INSERT INTO t VALUES (randomblob(100000))")
    assert connection.execute("SELECT count(*) FROM t").fetchone() == (0,)
    connection.close()


def test_a_folder_that_takes_no_file_is_named(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("")
    with pytest.raises(VaultFolderRefused):
        connect(tmp_path / "file" / "a.vault")
    with pytest.raises((VaultDamaged, sqlite3.OperationalError)):
        connect(tmp_path)


def test_a_copy_is_kept_before_a_file_is_brought_to_a_newer_version(tmp_path: Path) -> None:
    path = tmp_path / "a.vault"
    connection = connect(path)
    migrate(connection, migrations()[:1])
    kept = keep_before_migration(connection, path)
    assert kept == tmp_path / "a.vault.version-1" and kept.stat().st_mode & 0o777 == 0o600
    migrate(connection)
    require_schema(connection)
    assert keep_before_migration(connection, path) is None
    connection.close()
    former = connect(kept)
    assert former.execute("PRAGMA user_version").fetchone() == (1,)
    assert keep_before_migration(former, path) == kept
    former.close()


def test_a_copy_that_is_no_database_is_not_kept(tmp_path: Path) -> None:
    path = tmp_path / "a.vault"
    connection = connect(path)
    migrate(connection, migrations()[:1])
    connection.execute("CREATE INDEX other ON records (part)")
    connection.execute("PRAGMA writable_schema = 1")
    connection.execute("UPDATE sqlite_schema SET rootpage = 2 WHERE name = 'other'")
    connection.execute("PRAGMA writable_schema = RESET")
    with pytest.raises(VaultDamaged):
        keep_before_migration(connection, path)
    assert not list(tmp_path.glob("*.version-*"))
    connection.close()


def test_the_settings_that_durability_and_overwriting_rest_on(tmp_path: Path) -> None:
    connection = connect(tmp_path / "own.vault")
    wanted = {
        "journal_mode": "wal", "synchronous": 2, "secure_delete": 1, "temp_store": 2,
        "trusted_schema": 0, "cell_size_check": 1, "foreign_keys": 1,
    }  # fmt: skip
    assert {n: connection.execute(f"PRAGMA {n}").fetchone()[0] for n in wanted} == wanted
    connection.close()


def test_what_is_deleted_is_overwritten_in_the_file(tmp_path: Path) -> None:
    path, marker = tmp_path / "own.vault", b"velvet-lantern" * 20
    connection = connect(path)
    connection.execute("CREATE TABLE kept (id INTEGER PRIMARY KEY, sealed BLOB)")
    connection.executemany("INSERT INTO kept VALUES (?, ?)", [(n, marker) for n in range(30)])
    connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
    assert marker in path.read_bytes()
    connection.execute("DELETE FROM kept WHERE id > 0")
    connection.execute("UPDATE kept SET sealed = zeroblob(10)")
    connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
    connection.close()
    assert marker[:40] not in path.read_bytes()


def failing(code: int) -> sqlite3.OperationalError:
    error = sqlite3.OperationalError("x")
    error.sqlite_errorcode = code
    return error


MEANS: dict[type[Exception], str] = {
    DiskFull: "FULL",
    VaultFolderRefused: "READONLY READONLY_DBMOVED READONLY_DIRECTORY CANTOPEN_ISDIR",
    DiskFailed: "IOERR_WRITE IOERR_SHORT_READ BUSY_SNAPSHOT TOOBIG NOMEM",
    VaultDamaged: "CORRUPT CORRUPT_VTAB NOTADB",
}


@pytest.mark.parametrize(("means", "codes"), MEANS.items())
def test_each_error_is_told_as_what_it_is(means: type[Exception], codes: str) -> None:
    for code in codes.split():
        found = translated(failing(getattr(sqlite3, f"SQLITE_{code}")))
        assert type(found) is means, code
        moved = "was moved or replaced" in str(found.data.get("reason"))
        assert moved is (code == "READONLY_DBMOVED")


def test_a_call_that_meets_a_closed_file_meets_a_locked_vault(vault: Vault) -> None:
    with vault.transaction() as tx:
        put_own_details(tx, vault, OwnDetails(("Quist",)))
    vault.connection.close()
    (record_id,) = vault.ids(Label.OWN_DETAILS)
    with pytest.raises(VaultLocked):
        vault.get(Label.OWN_DETAILS, record_id)
    with pytest.raises(VaultLocked), vault.transaction():
        pass
