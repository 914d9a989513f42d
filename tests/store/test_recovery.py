"""The recovery slot and what is kept of its sheets."""

from datetime import timedelta
from pathlib import Path

import pytest

from newknot.crypto import WrongPassphrase
from newknot.store.recovery import RecoveryFacts, get_recovery, put_recovery
from newknot.store.vault import Vault
from tests.conftest import CHEAP, PASSPHRASE
from tests.store.samples import AT

KEY, OTHER = bytes(range(16)), bytes(16)


def test_a_vault_opens_by_its_newest_recovery_key_alone(tmp_path: Path) -> None:
    path, state = tmp_path / "a.vault", tmp_path / "state"
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=CHEAP, state_folder=state)
    assert get_recovery(vault) is None and not vault.recovers(KEY)
    facts = RecoveryFacts(AT, 2, 3, AT + timedelta(days=1))
    for key in (OTHER, KEY):
        with vault.new_recovery(key, parameters=CHEAP) as tx:
            put_recovery(tx, vault, facts)
    assert vault.recovers(KEY) and not vault.recovers(OTHER)
    vault.close()
    with pytest.raises(WrongPassphrase):
        Vault.recover(path, key=OTHER, state_folder=state)
    vault = Vault.recover(path, key=KEY, state_folder=state)
    assert get_recovery(vault) == facts
    with vault.new_recovery(None, parameters=None) as tx:
        put_recovery(tx, vault, None)
    assert get_recovery(vault) is None and not vault.recovers(KEY)
    assert vault.proves(PASSPHRASE)
    vault.close()
    for leftover in (path, path.with_name("a.vault-wal")):
        assert not leftover.exists() or KEY.hex().encode() not in leftover.read_bytes()
