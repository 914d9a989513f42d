"""What two copies of a vault merge, read from one file and written into another."""

from pathlib import Path

from newknot.core.login import LoginSecrets
from newknot.core.merging.merge import merged
from newknot.core.secret import Secret
from newknot.store.logins import get_secrets, put_secrets
from newknot.store.merging import read_contents, write_merge
from newknot.store.vault import Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE
from tests.store.samples import OWN


def made(folder: Path) -> Vault:
    return Vault.create(
        folder / "a.vault", passphrase=PASSPHRASE, parameters=CHEAP, state_folder=folder / "state"
    )


def test_contents_go_from_one_vault_into_another_and_changes_back(tmp_path: Path) -> None:
    here, there = made(tmp_path / "here"), made(tmp_path / "there")
    login_id = new_id()
    with here.transaction() as tx:
        put_secrets(tx, login_id, LoginSecrets(Secret("one"), OWN))
    for way in ((here, there), (there, here)):
        before = read_contents(way[1])
        with way[1].transaction() as tx:
            write_merge(tx, way[1], before, merged(before, read_contents(way[0])))
        assert read_contents(way[1]) == read_contents(way[0])
    assert get_secrets(there, login_id).secret == Secret("one")
    here.close()
    there.close()
