"""What lets two copies of a vault merge is noted as records change and go."""

from dataclasses import replace
from pathlib import Path

from newknot.core.loose_end import LooseEnd
from newknot.core.merging.stamps import time_of
from newknot.core.secret import Secret
from newknot.store.change_stamps import get_removed, new_tag
from newknot.store.loose_ends import list_loose_ends, put_loose_end, remove_loose_end
from newknot.store.manifest import Label
from newknot.store.vault import Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE
from tests.store.samples import AT, OWN


def test_what_is_removed_is_noted_by_its_stamps_and_what_does_not_merge_is_not(
    tmp_path: Path,
) -> None:
    vault = Vault.create(
        tmp_path / "a.vault",
        passphrase=PASSPHRASE,
        parameters=CHEAP,
        state_folder=tmp_path / "state",
    )
    one = LooseEnd(new_id(), AT, "", 12)
    with vault.transaction() as tx:
        put_loose_end(tx, one, Secret("rope"), OWN)
        put_loose_end(tx, replace(one, address="lumen.example"), Secret("rope"), OWN)
        tx.put(Label.NOTICES, new_id(), b"{}")
    assert [e.address for e in list_loose_ends(vault)] == ["lumen.example"]
    with vault.transaction() as tx:
        remove_loose_end(tx, one.loose_end_id)
        tx.remove(Label.NOTICES, vault.ids(Label.NOTICES)[0])
    gone = get_removed(vault)
    assert list(gone) == [one.loose_end_id]
    assert gone[one.loose_end_id]["1"]["address"][0] == 1
    assert "lumen.example" not in str(gone) and "rope" not in str(gone)
    # A clock that went back makes no change look earlier than the one before it.
    former = new_tag(vault, {})
    vault.wall_s = lambda: 0.0
    assert time_of(new_tag(vault, {})) < time_of(former)
    assert time_of(new_tag(vault, {"address": [1, former]})) == time_of(former)
    vault.close()
