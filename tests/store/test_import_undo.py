"""What came in last: kept over a lock, emptied once undone; a damaged record undoes nothing."""

from pathlib import Path

from newknot.store.import_undo import BroughtIn, Taken, get_brought_in, put_brought_in
from newknot.store.vault import Label, Vault
from tests.conftest import new_vault, reopened


def test_it_outlives_a_lock_and_the_next_takes_its_place(tmp_path: Path) -> None:
    first = BroughtIn(("a" * 32,), (Taken("b" * 32, "", "c", 3, {"1": {"title": "x"}}, True),))
    vault = new_vault(tmp_path)
    assert get_brought_in(vault) == BroughtIn()
    with vault.transaction() as tx:
        put_brought_in(tx, vault, first)
    vault.close()
    vault = reopened(tmp_path)
    assert get_brought_in(vault) == first
    with vault.transaction() as tx:
        put_brought_in(tx, vault, BroughtIn())
    assert get_brought_in(vault) == BroughtIn() and len(vault.ids(Label.IMPORT_UNDO)) == 1
    vault.close()


def test_one_that_is_damaged_undoes_nothing(vault: Vault) -> None:
    with vault.transaction() as tx:
        put_brought_in(tx, vault, BroughtIn(("a" * 32,)))
    vault.connection.execute("UPDATE records SET sealed = zeroblob(length(sealed))")
    assert get_brought_in(vault) == BroughtIn()
