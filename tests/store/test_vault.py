"""The vault file: durable, sealed, and noticing every change that was not its own."""

import os
import shutil
import sqlite3
import stat
from pathlib import Path

import pytest

from newknot.crypto import WrongPassphrase
from newknot.store.errors import (
    RecordDamaged,
    RecordMissing,
    VaultDamaged,
    VaultExists,
    VaultMissing,
    VaultReadOnly,
)
from newknot.store.manifest import Label
from newknot.store.vault import HISTORY, SECRETS, Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE, new_vault, reopened


def put(vault: Vault, text: bytes, record_id: str | None = None, part: int = 1) -> str:
    record_id = record_id or new_id()
    with vault.transaction() as tx:
        tx.put(Label.LOGIN, record_id, text, part=part)
    return record_id


def raw(folder: Path) -> sqlite3.Connection:
    return sqlite3.connect(folder / "own.vault", isolation_level=None)


def test_what_is_put_is_there_after_opening_again(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    record_id = put(vault, b"card")
    put(vault, b"secret", record_id, SECRETS)
    put(vault, b"newer", record_id)
    vault.close()
    vault = reopened(tmp_path)
    assert vault.get(Label.LOGIN, record_id) == b"newer"
    assert vault.get(Label.LOGIN, record_id, SECRETS) == b"secret"
    assert vault.ids(Label.LOGIN) == [record_id]
    assert not vault.damaged and not vault.is_older_copy
    vault.close()


def test_a_failed_transaction_leaves_nothing_and_reads_its_own_writes(vault: Vault) -> None:
    kept = put(vault, b"before")
    with pytest.raises(ZeroDivisionError), vault.transaction() as tx:
        tx.put(Label.LOGIN, kept, b"after")
        tx.put(Label.POLICY, new_id(), b"new")
        assert vault.get(Label.LOGIN, kept) == b"after"
        assert len(vault.ids(Label.POLICY)) == 1
        _ = 1 / 0
    assert vault.get(Label.LOGIN, kept) == b"before"
    assert vault.ids(Label.POLICY) == []


def test_removing_takes_all_parts(vault: Vault) -> None:
    record_id = put(vault, b"card")
    put(vault, b"history", record_id, HISTORY)
    with vault.transaction() as tx:
        tx.remove(Label.LOGIN, record_id)
    for part in (1, HISTORY):
        with pytest.raises(RecordMissing):
            vault.get(Label.LOGIN, record_id, part)
    with pytest.raises(RecordMissing), vault.transaction() as tx:
        tx.remove(Label.LOGIN, record_id)


@pytest.mark.parametrize("wrong", ["", "xyz", "00", "0" * 32])
def test_an_id_that_is_none_is_missing(vault: Vault, wrong: str) -> None:
    with pytest.raises(RecordMissing):
        vault.get(Label.LOGIN, wrong)


def test_a_record_under_another_label_is_missing(vault: Vault) -> None:
    record_id = put(vault, b"card")
    with pytest.raises(RecordMissing):
        vault.get(Label.POLICY, record_id)


def test_wrong_passphrase_missing_file_and_a_file_in_the_way(tmp_path: Path) -> None:
    with pytest.raises(VaultMissing):
        reopened(tmp_path)
    assert not (tmp_path / "own.vault").exists()
    new_vault(tmp_path).close()
    before = (tmp_path / "own.vault").read_bytes()
    with pytest.raises(WrongPassphrase):
        reopened(tmp_path, "seven lamps over wet gravel ")
    with pytest.raises(VaultExists):
        new_vault(tmp_path)
    assert (tmp_path / "own.vault").read_bytes() == before


def test_only_the_owner_may_read_the_file(tmp_path: Path) -> None:
    old = os.umask(0)
    try:
        new_vault(tmp_path).close()
    finally:
        os.umask(old)
    assert stat.S_IMODE((tmp_path / "own.vault").stat().st_mode) == 0o600


def test_the_file_shows_neither_text_nor_kind(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    for i in range(20):
        put(vault, f"Gantry Rentals {i} login".encode())
    files = list(tmp_path.glob("own.vault*"))
    assert len(files) >= 2
    for path in files:
        body = path.read_bytes()
        assert b"Gantry" not in body and PASSPHRASE.encode() not in body and b"LOGIN" not in body
    vault.close()


CHANGES = {
    "flipped": (
        "UPDATE records SET sealed = CAST(iif(substr(sealed, 1, 1) = X'00', X'01', X'00') "
        "|| substr(sealed, 2) AS BLOB) WHERE rowid = 1"
    ),
    "cut": "UPDATE records SET sealed = substr(sealed, 1, 40) WHERE rowid = 1",
    "dropped": "DELETE FROM records WHERE rowid = 1",
    "revision": "UPDATE records SET revision = revision + 1 WHERE rowid = 1",
    "swapped": (
        "UPDATE records SET sealed = (SELECT sealed FROM records WHERE rowid = 2) WHERE rowid = 1"
    ),
    "added": (
        "INSERT INTO records (record_id, part, revision, sealed) "
        "VALUES (randomblob(16), 1, 1, randomblob(1052))"
    ),
}


@pytest.mark.parametrize("change", CHANGES.values(), ids=CHANGES.keys())
def test_a_record_changed_from_outside_is_named_and_never_read(tmp_path: Path, change: str) -> None:
    vault = new_vault(tmp_path)
    ids = [put(vault, b"one"), put(vault, b"two"), put(vault, b"three")]
    vault.close()
    connection = raw(tmp_path)
    connection.execute(change)
    connection.close()
    vault = reopened(tmp_path)
    read: list[bytes] = []
    for record_id in ids:
        try:
            read.append(vault.get(Label.LOGIN, record_id))
        except RecordDamaged:
            continue
    if change == CHANGES["added"]:
        assert len(read) == 3 and len(vault.damaged) == 1
    else:
        assert len(set(read)) == 2 and set(read) < {b"one", b"two", b"three"}
    if change != CHANGES["flipped"]:
        assert len(vault.damaged) == 1
    vault.close()


def test_an_older_record_put_back_is_noticed(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    record_id = put(vault, b"old")
    connection = raw(tmp_path)
    old = connection.execute("SELECT revision, sealed FROM records").fetchone()
    put(vault, b"new", record_id)
    vault.close()
    connection.execute("UPDATE records SET revision = ?, sealed = ?", old)
    connection.close()
    vault = reopened(tmp_path)
    with pytest.raises(RecordDamaged):
        vault.get(Label.LOGIN, record_id)
    vault.close()


@pytest.mark.parametrize(
    "change",
    [
        "UPDATE manifest SET sealed = randomblob(length(sealed))",
        "DELETE FROM manifest",
        "UPDATE head SET sealed = randomblob(length(sealed))",
        "UPDATE head SET revision = revision + 1",
        "DELETE FROM head",
        "DELETE FROM vault",
        "UPDATE slots SET checksum = randomblob(16)",
        "UPDATE slots SET memory_kib = 1000000000",
        "CREATE TABLE extra (x)",
        "CREATE TRIGGER t AFTER DELETE ON records BEGIN DELETE FROM slots; END",
    ],
)
def test_a_damaged_vault_says_so_and_is_not_written_to(tmp_path: Path, change: str) -> None:
    vault = new_vault(tmp_path)
    put(vault, b"one")
    vault.close()
    connection = raw(tmp_path)
    connection.execute(change)
    connection.close()
    before = (tmp_path / "own.vault").read_bytes()
    with pytest.raises(VaultDamaged):
        reopened(tmp_path)
    assert (tmp_path / "own.vault").read_bytes() == before


@pytest.mark.parametrize("copy", [1, 2])
def test_one_damaged_copy_of_the_slot_is_no_loss(tmp_path: Path, copy: int) -> None:
    new_vault(tmp_path).close()
    connection = raw(tmp_path)
    connection.execute("UPDATE slots SET salt = randomblob(16) WHERE slot_copy = ?", (copy,))
    connection.close()
    reopened(tmp_path).close()


def test_a_file_that_is_no_database_is_damaged_not_wrong(tmp_path: Path) -> None:
    (tmp_path / "own.vault").write_bytes(os.urandom(9000))
    with pytest.raises(VaultDamaged):
        reopened(tmp_path)
    (tmp_path / "own.vault").write_bytes(b"")
    with pytest.raises(VaultDamaged):
        reopened(tmp_path)
    new = tmp_path / "half"
    new.mkdir()
    new_vault(new).close()
    whole = (new / "own.vault").read_bytes()
    (new / "own.vault").write_bytes(whole[: len(whole) // 2 // 4096 * 4096])
    with pytest.raises(VaultDamaged):
        reopened(new)


def test_a_whole_older_file_is_read_only_until_it_is_answered(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    record_id = put(vault, b"old")
    vault.backup_to(tmp_path / "copy.vault")
    put(vault, b"new", record_id)
    vault.close()
    shutil.copy(tmp_path / "copy.vault", tmp_path / "own.vault")
    vault = reopened(tmp_path)
    assert vault.is_older_copy
    assert vault.get(Label.LOGIN, record_id) == b"old"
    with pytest.raises(VaultReadOnly):
        put(vault, b"newer", record_id)
    vault.accept_older_copy()
    put(vault, b"newer", record_id)
    vault.close()
    vault = reopened(tmp_path)
    assert not vault.is_older_copy
    vault.close()


def test_a_backup_opens_by_the_passphrase_and_a_broken_one_is_not_believed(
    tmp_path: Path, vault: Vault
) -> None:
    record_id = put(vault, b"card")
    folder = tmp_path / "elsewhere"
    folder.mkdir()
    counter = vault.backup_to(folder / "own.vault")
    assert vault.opens(folder / "own.vault", counter=counter)
    assert not vault.opens(folder / "own.vault", counter=counter + 1)
    copy = reopened(folder)
    assert copy.get(Label.LOGIN, record_id) == b"card"
    copy.close()
    connection = raw(folder)
    connection.execute("DELETE FROM records")
    connection.close()
    assert not vault.opens(folder / "own.vault", counter=counter)


def test_a_vault_that_could_not_be_made_leaves_no_file(tmp_path: Path) -> None:
    blocked = tmp_path / "state"
    blocked.write_text("a file where the folder should be")
    vault = Vault.create(
        tmp_path / "own.vault", passphrase=PASSPHRASE, parameters=CHEAP, state_folder=blocked
    )
    assert put(vault, b"durable although the anchor cannot be written")
    vault.close()


def test_the_vault_knows_its_own_passphrase(vault: Vault) -> None:
    assert vault.proves(PASSPHRASE)
    assert not vault.proves(PASSPHRASE + "s")
