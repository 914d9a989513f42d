"""The vault file: durable, sealed, and noticing every change that was not its own."""

import os
import shutil
import stat
from pathlib import Path

import pytest

from newknot.crypto import WrongPassphrase
from newknot.store.copies import write_copy
from newknot.store.errors import (
    DiskFull,
    RecordMissing,
    VaultDamaged,
    VaultExists,
    VaultMissing,
    VaultReadOnly,
)
from newknot.store.manifest import Label
from newknot.store.slots import SlotKind
from newknot.store.vault import HISTORY, SECRETS, Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE, new_vault, reopened
from tests.store.samples import put, raw
from tests.support.vectors import examples


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


@pytest.mark.parametrize("change", examples("vaults_damaged.json"))
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
    write_copy(vault, tmp_path / "copy.vault")
    put(vault, b"new", record_id)
    vault.close()
    shutil.copy(tmp_path / "copy.vault", tmp_path / "own.vault")
    connection = raw(tmp_path)
    connection.execute("UPDATE slots SET salt = randomblob(16) WHERE slot_copy = 2")
    connection.close()
    vault = reopened(tmp_path)
    # Nothing is mended in it either before it is answered.
    assert vault.is_older_copy and vault.mended == []
    assert vault.get(Label.LOGIN, record_id) == b"old"
    with pytest.raises(VaultReadOnly):
        put(vault, b"newer", record_id)
    vault.accept_older_copy()
    vault.close()
    vault = reopened(tmp_path)
    assert not vault.is_older_copy
    put(vault, b"newer", record_id)
    vault.close()


def test_a_vault_that_could_not_be_made_leaves_no_file(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def failing(*_: object) -> None:
        raise DiskFull()

    monkeypatch.setattr("newknot.store.vault.write_slot", failing)
    with pytest.raises(DiskFull):
        new_vault(tmp_path)
    assert not list(tmp_path.glob("own.vault*"))


def test_a_vault_is_made_although_its_anchor_cannot_be_written(tmp_path: Path) -> None:
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


def test_a_former_key_slot_is_nowhere_in_the_file_nor_its_log(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    former = vault.slots[SlotKind.PASSPHRASE]
    with vault.new_recovery(bytes(32), parameters=CHEAP):
        pass
    sheet = vault.slots[SlotKind.RECOVERY]
    with vault.new_passphrase("eight lamps over dry gravel", parameters=CHEAP):
        pass
    with vault.new_recovery(None, parameters=None):
        pass
    for slot in (former, sheet):
        for path in tmp_path.glob("own.vault*"):
            assert slot.sealed_key[12:44] not in path.read_bytes(), path.name
    vault.close()


def test_a_record_made_anew_goes_on_beyond_its_former_revisions(vault: Vault) -> None:
    """Else an older seal of the same id, part and revision could be put in its place."""
    record_id = put(vault, b"{}")
    for _ in range(3):
        put(vault, b"{}", record_id)
    key = (bytes.fromhex(record_id), 1)
    last = vault.entries()[key].revision
    with vault.transaction() as tx:
        tx.remove(Label.LOGIN, record_id)
    put(vault, b"{}", record_id)
    assert vault.entries()[key].revision > last


def test_only_what_says_nothing_of_secrets_leaves_the_count_of_contents(vault: Vault) -> None:
    login = put(vault, b"card")
    seen = vault.changes_of_contents
    for label in (Label.SETTINGS, Label.TAKEN_OUT):
        with vault.transaction() as tx:
            tx.put(label, new_id(), b"{}")
    assert vault.changes_of_contents == seen
    with vault.transaction() as tx:
        tx.remove(Label.LOGIN, login, noted=False)
    assert vault.changes_of_contents == seen + 1
