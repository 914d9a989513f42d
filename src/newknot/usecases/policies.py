"""The library of site policies: which one holds at a login's site."""

from datetime import datetime

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import checked_text
from newknot.core.policy import LOOK_ALIKES, STANDARD_CLASSES, NamedPolicy, SitePolicy
from newknot.store.policies import get_policy, list_policies, put_policy, remove_policy
from newknot.store.vault import Vault, new_id

__all__ = ["get_policy", "list_policies"]

DOMAINS_LIMIT = 50


def default_policy() -> SitePolicy:
    """What is drawn to where nothing is known of the site: all four classes, none forced."""
    return SitePolicy.from_dict(
        {
            "min_length": 4,
            "max_length": 128,
            "classes": [
                {"name": name, "characters": characters}
                for name, characters in STANDARD_CLASSES.items()
            ],
            "excluded": LOOK_ALIKES,
        }
    )


class NamedPolicies:
    """The library, asked by address."""

    def __init__(self, policies: list[NamedPolicy]) -> None:
        self._by_domain = {domain: named for named in policies for domain in named.domains}

    def of(self, address: str) -> NamedPolicy | None:
        """The policy of an address's site, or None where none is known."""
        try:
            site = site_of(address)
        except FieldInvalid:
            return None
        return None if site is None else self._by_domain.get(site.domain)


def policy_for(vault: Vault, address: str) -> NamedPolicy | None:
    """The policy of an address's site, or None where none is known."""
    return NamedPolicies(list_policies(vault)).of(address)


def save_policy(
    vault: Vault,
    *,
    policy_id: str | None,
    name: str,
    domains: tuple[str, ...],
    policy: SitePolicy,
    source: str,
    now: datetime,
) -> NamedPolicy:
    """A policy, new or changed. Raises `FieldInvalid` where a site has one already."""
    if len(domains) > DOMAINS_LIMIT:
        raise FieldInvalid("domains", f"are more than {DOMAINS_LIMIT}")
    sites: list[str] = []
    for i, domain in enumerate(domains):
        try:
            site = site_of(checked_text(domain, field=f"domains.{i}", needed=True))
        except FieldInvalid as error:
            raise FieldInvalid(f"domains.{i}", str(error.data["reason"])) from None
        assert site is not None
        sites.append(site.domain)
    with vault.transaction() as tx:
        if policy_id is not None:
            get_policy(vault, policy_id)
        for other in list_policies(vault):
            shared = set(other.domains) & set(sites)
            if other.policy_id != policy_id and shared:
                raise FieldInvalid("domains", f"{shared.pop()} has the policy {other.name}")
        named = NamedPolicy(
            policy_id or new_id(),
            checked_text(name, field="name", needed=True),
            tuple(dict.fromkeys(sites)),
            policy,
            source,
            now,
        )
        put_policy(tx, named)
    return named


def delete_policy(vault: Vault, policy_id: str) -> None:
    """Deletes a policy; logins of its sites are drawn to the default again."""
    with vault.transaction() as tx:
        remove_policy(tx, policy_id)
