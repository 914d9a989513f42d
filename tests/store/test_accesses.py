"""The newest of what was shown or copied, in their order."""

from pathlib import Path

import pytest

from newknot.store import accesses
from newknot.store.accesses import Access, list_accesses, note_access
from newknot.store.taken_out import ClearFile, get_clear_files, put_clear_files
from newknot.store.vault import Vault
from tests.conftest import CHEAP, PASSPHRASE
from tests.store.samples import AT


def test_the_newest_are_kept_beside_the_files_in_the_clear(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(accesses, "KEPT_MOST", 25)
    monkeypatch.setattr(accesses, "NEW_MOST", 10)
    path, state = tmp_path / "a.vault", tmp_path / "state"
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=CHEAP, state_folder=state)
    file = ClearFile(tmp_path / "logins.csv", AT)
    for n in range(60):
        with vault.transaction() as tx:
            note_access(tx, vault, Access(AT, f"no. {n}", "a" * 32))
            if n == 30:
                put_clear_files(tx, vault, [file])
        found = [one.says for one in list_accesses(vault)]
        assert found == [f"no. {i}" for i in range(n + 1)][-len(found) :]
        assert min(n + 1, 16) <= len(found) <= 25
    vault.close()
    again = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
    assert [one.says for one in list_accesses(again)] == found
    assert get_clear_files(again) == [file]
    again.close()
