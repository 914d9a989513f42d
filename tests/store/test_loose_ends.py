"""A loose end comes back as it was put."""

from newknot.core.loose_end import LooseEnd
from newknot.core.secret import Secret
from newknot.store import loose_ends
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, DRAWN, ODD


def test_a_loose_end_and_its_secret(vault: Vault) -> None:
    loose = LooseEnd(new_id(), AT, "https://a.example", 20)
    with vault.transaction() as tx:
        loose_ends.put_loose_end(tx, loose, Secret(ODD), DRAWN)
    assert loose_ends.list_loose_ends(vault) == [loose]
    assert loose_ends.get_loose_secret(vault, loose.loose_end_id) == (Secret(ODD), DRAWN)
