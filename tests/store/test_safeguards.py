"""There is one record of safeguards, whatever is written how often."""

from newknot.core.safeguards import Act, ProofRule, Safeguards
from newknot.store import safeguards
from newknot.store.manifest import Label
from newknot.store.vault import Vault
from tests.store.samples import AT


def test_defaults_until_written_then_what_was_written(vault: Vault) -> None:
    assert safeguards.get_safeguards(vault) == Safeguards()
    rules = dict.fromkeys(Act, ProofRule.MINUTES)
    guards = Safeguards(60, 0, False, 9, rules, corpus_used=False, last_backup_at=AT)
    for one in (Safeguards(), guards):
        with vault.transaction() as tx:
            safeguards.put_safeguards(tx, vault, one)
    assert safeguards.get_safeguards(vault) == guards
    assert len(vault.ids(Label.SETTINGS)) == 1


def test_where_they_are_damaged_the_strictest_hold(vault: Vault) -> None:
    with vault.transaction() as tx:
        safeguards.put_safeguards(tx, vault, Safeguards())
    vault.connection.execute("UPDATE records SET sealed = randomblob(1052)")
    held = safeguards.get_safeguards(vault)
    assert set(held.proof_before.values()) == {ProofRule.EACH}
