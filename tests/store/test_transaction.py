"""What a transaction takes, and what it refuses."""

from pathlib import Path

import pytest

from newknot.store.errors import RecordMissing
from newknot.store.manifest import Label
from newknot.store.records import new_id
from newknot.store.sealed_file import SECRETS
from newknot.store.vault import Vault
from tests.conftest import CHEAP, PASSPHRASE


def test_a_record_keeps_its_kind(tmp_path: Path) -> None:
    vault = Vault.create(
        tmp_path / "a.vault", passphrase=PASSPHRASE, parameters=CHEAP, state_folder=tmp_path / "s"
    )
    record_id = new_id()
    with vault.transaction() as tx:
        tx.put(Label.LOGIN, record_id, b"card")
        tx.put(Label.LOGIN, record_id, b"secret", part=SECRETS)
        for label in (Label.POLICY, Label.WAIVER):
            with pytest.raises(RecordMissing):
                tx.put(label, record_id, b"another kind")
            with pytest.raises(RecordMissing):
                tx.remove(label, record_id)
        tx.remove(Label.LOGIN, record_id)
        with pytest.raises(RecordMissing):
            tx.remove(Label.LOGIN, record_id)
    assert vault.ids(Label.LOGIN) == []
    vault.close()
