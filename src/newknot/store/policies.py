"""Site policies as sealed records."""

from contextlib import suppress
from datetime import datetime
from functools import partial

from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import CARD, Transaction, Vault


def put_policy(tx: Transaction, named: NamedPolicy) -> None:
    """Writes a policy."""
    document = {
        "name": named.name,
        "domains": list(named.domains),
        "policy": named.policy.to_dict(),
        "source": named.source,
        "changed_at": iso(named.changed_at),
        "offers_second_factor": named.offers_second_factor,
    }
    tx.put(Label.POLICY, named.policy_id, packed(document), decoded=named)


def get_policy(vault: Vault, policy_id: str) -> NamedPolicy:
    """One policy. Raises `RecordMissing`, `RecordDamaged`."""
    return vault.decoded(Label.POLICY, policy_id, CARD, partial(_policy_of, policy_id))


def _policy_of(policy_id: str, text: bytes) -> NamedPolicy:
    d = unpacked(text)
    return NamedPolicy(
        policy_id,
        d["name"],
        tuple(d["domains"]),
        SitePolicy.from_dict(d["policy"]),
        d["source"],
        datetime.fromisoformat(d["changed_at"]),
        d.get("offers_second_factor", False),
    )


def list_policies(vault: Vault) -> list[NamedPolicy]:
    """All readable policies by name."""
    found: list[NamedPolicy] = []
    for policy_id in vault.ids(Label.POLICY):
        with suppress(RecordDamaged):
            found.append(get_policy(vault, policy_id))
    return sorted(found, key=lambda named: (named.name.casefold(), named.policy_id))


def remove_policy(tx: Transaction, policy_id: str) -> None:
    """Deletes a policy. Raises `RecordMissing`."""
    tx.remove(Label.POLICY, policy_id)
