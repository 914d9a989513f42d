"""A vault under a new key: everything is there, and nothing old opens it."""

from pathlib import Path

import pytest

from newknot.core.login import LoginSecrets
from newknot.core.secret import Secret
from newknot.crypto import WrongPassphrase
from newknot.store.errors import VaultDamaged
from newknot.store.logins import put_secrets
from newknot.store.manifest import Label
from newknot.store.merging import read_contents
from newknot.store.rekey import put_in_place, write_under_new_key
from newknot.store.vault import Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE
from tests.store.samples import OWN

FRESH = "orchard velvet lantern quarry"


def made(folder: Path) -> Vault:
    vault = Vault.create(
        folder / "a.vault", passphrase=PASSPHRASE, parameters=CHEAP, state_folder=folder / "state"
    )
    for i in range(20):
        with vault.transaction() as tx:
            put_secrets(tx, new_id(), LoginSecrets(Secret(f"secret {i}"), OWN))
    with vault.transaction() as tx:
        tx.put(Label.KEPT_MEASURES, new_id(), b"{}")
    return vault


def test_all_records_are_there_under_the_new_key_and_no_old_way_opens_it(tmp_path: Path) -> None:
    vault, building = made(tmp_path), tmp_path / "a.vault.new-key"
    with vault.new_recovery(bytes(16), parameters=CHEAP):
        pass
    before, counter, key = read_contents(vault), vault.counter, vault.vault_key
    write_under_new_key(
        vault, building, passphrase=FRESH, parameters=CHEAP, without=(Label.KEPT_MEASURES,)
    )
    assert read_contents(vault) == before
    put_in_place(vault, tmp_path / "a.vault", building)
    path, state = tmp_path / "a.vault", tmp_path / "state"
    with pytest.raises(WrongPassphrase):
        Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
    with pytest.raises(WrongPassphrase):
        Vault.recover(path, key=bytes(16), state_folder=state)
    again = Vault.unlock(path, passphrase=FRESH, state_folder=state)
    assert read_contents(again) == before and not again.damaged and not again.is_older_copy
    assert again.ids(Label.KEPT_MEASURES) == [] and again.counter == counter + 1
    assert again.vault_key != key
    again.close()
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a.vault", "state"]


def test_a_damaged_vault_is_not_sealed_anew(tmp_path: Path) -> None:
    vault = made(tmp_path)
    vault.damaged.append(((bytes(16), 1), Label.LOGIN))
    with pytest.raises(VaultDamaged):
        write_under_new_key(vault, tmp_path / "new", passphrase=FRESH, parameters=CHEAP, without=())
    assert not list(tmp_path.glob("new*"))
    vault.close()


def test_the_log_of_the_former_file_is_not_left_beside_the_new_one(tmp_path: Path) -> None:
    """SQLite would read it into the new file, which it is not of."""
    vault = made(tmp_path)
    building, path = tmp_path / "a.vault.new-key", tmp_path / "a.vault"
    write_under_new_key(vault, building, passphrase=FRESH, parameters=CHEAP, without=())
    held = vault.connection
    for ending in ("-wal", "-shm"):
        assert (tmp_path / f"a.vault{ending}").exists()
    log = (tmp_path / "a.vault-wal").read_bytes()
    put_in_place(vault, path, building)
    (tmp_path / "left").write_bytes(log)
    assert not [p.name for p in tmp_path.glob("a.vault-*")] and not building.exists()
    assert held is vault.connection
    # Left behind by a process that was killed just before.
    fresh = Vault.unlock(path, passphrase=FRESH, state_folder=tmp_path / "state")
    write_under_new_key(fresh, building, passphrase=FRESH, parameters=CHEAP, without=())
    fresh.close()
    (tmp_path / "a.vault-wal").write_bytes(log)
    put_in_place(fresh, path, building)
    Vault.unlock(path, passphrase=FRESH, state_folder=tmp_path / "state").close()
