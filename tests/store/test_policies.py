"""A policy comes back as it was put."""

from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.store import policies
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, ODD


def test_a_policy_with_its_sites(vault: Vault) -> None:
    policy = SitePolicy.from_dict({"min_length": 4, "max_length": 9, "forbidden": [ODD]})
    named = NamedPolicy(new_id(), ODD, ("a.example",), policy, "typed", AT)
    with vault.transaction() as tx:
        policies.put_policy(tx, named)
    assert policies.list_policies(vault) == [named]
