"""The library of site policies: which one holds at a login's site."""

import re
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.generate import RandomSource, relaxation_offered
from newknot.core.login import checked_text
from newknot.core.policy import LOOK_ALIKES, STANDARD_CLASSES, NamedPolicy, SitePolicy
from newknot.exchange.policies_json import PolicyEntry
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_secrets, list_cards
from newknot.store.policies import get_policy, list_policies, put_policy, remove_policy
from newknot.store.vault import Vault, new_id
from newknot.usecases.drawing.drawing import best_length
from newknot.usecases.drawing.space_shelf import SpaceShelf

__all__ = ["get_policy", "list_policies"]

DOMAINS_LIMIT = 50
EXAMPLE_LENGTH = 32
_PLAIN = re.compile(r"https?://((?:[a-z0-9-]+\.)*[a-z][a-z0-9-]*)(?:[:/?#]|\Z)")


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

    def __init__(self, policies: Sequence[NamedPolicy]) -> None:
        self._by_domain = {domain: named for named in policies for domain in named.domains}
        self._ends = tuple(self._by_domain)

    def of(self, address: str) -> NamedPolicy | None:
        """The policy of an address's site, or None where none is known."""
        # Of ten thousand most are of no site that has one: where nothing is to be spelled
        # otherwise, the letters of the host tell.
        plain = _PLAIN.match(address)
        if plain and not plain[1].endswith(self._ends):
            return None
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
    offers_second_factor: bool = False,
) -> NamedPolicy:
    """A policy, new or changed. Raises `FieldInvalid` where a site has one already."""
    sites = _sites_of(domains)
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
            sites,
            policy,
            source,
            now,
            offers_second_factor,
        )
        put_policy(tx, named)
    return named


def _sites_of(domains: Sequence[str]) -> tuple[str, ...]:
    """The sites that are named, each once. Raises `FieldInvalid`."""
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
    return tuple(dict.fromkeys(sites))


@dataclass(frozen=True, slots=True)
class PoliciesBrought:
    """Names of what came from a file: new, already there the same, and differing from what is; and
    of the last, where they were left as they are, (the policy here, the entry).
    """

    added: tuple[str, ...]
    same: tuple[str, ...]
    differing: tuple[str, ...]
    parted: tuple[tuple[NamedPolicy, PolicyEntry], ...] = ()


def bring_policies(
    vault: Vault, entries: Sequence[PolicyEntry], *, replaces: bool, now: datetime
) -> PoliciesBrought:
    """Takes the entries of a file in, all together or none.

    An entry belongs to the policy that has one of its sites, or its name where it has no site.
    What differs is left as it is, unless `replaces`. Raises `FieldInvalid` naming the entry.
    """
    found: dict[str, list[str]] = {"added": [], "same": [], "differing": []}
    parted: list[tuple[NamedPolicy, PolicyEntry]] = []
    with vault.transaction():
        for entry in entries:
            try:
                _bring(vault, entry, found, parted, replaces=replaces, now=now)
            except FieldInvalid as error:
                field = f"{entry.at}.{error.data['field']}".lstrip(".")
                raise FieldInvalid(field, str(error.data["reason"])) from None
    return PoliciesBrought(
        tuple(found["added"]), tuple(found["same"]), tuple(found["differing"]), tuple(parted)
    )


def _bring(
    vault: Vault,
    entry: PolicyEntry,
    found: dict[str, list[str]],
    parted: list[tuple[NamedPolicy, PolicyEntry]],
    *,
    replaces: bool,
    now: datetime,
) -> None:
    known = _known_as(list_policies(vault), entry)
    if known is not None:
        there = entry.policy, entry.offers_second_factor, set(_sites_of(entry.domains))
        # How both are called does not count.
        if there == (known.policy, known.offers_second_factor, set(known.domains)):
            found["same"].append(entry.name)
            return
        found["differing"].append(entry.name)
        if not replaces:
            parted.append((known, entry))
            return
    else:
        found["added"].append(entry.name)
    then = entry.changed_at
    save_policy(
        vault,
        policy_id=None if known is None else known.policy_id,
        name=entry.name,
        domains=entry.domains,
        policy=entry.policy,
        source=entry.source,
        # No policy was learnt in the future.
        now=then if then is not None and then < now else now,
        offers_second_factor=entry.offers_second_factor,
    )


def _known_as(policies: Sequence[NamedPolicy], entry: PolicyEntry) -> NamedPolicy | None:
    named = NamedPolicies(list(policies))
    for domain in entry.domains:
        known = named.of(domain)
        if known is not None:
            return known
    if entry.domains:
        return None
    return next((p for p in policies if p.name == entry.name and not p.domains), None)


@dataclass(frozen=True, slots=True)
class PolicyWorth:
    """What the site takes at its greatest length: an example that guards nothing, and its bits."""

    length: int
    example: str
    entropy_bits: float
    is_exact: bool


def worth_of(policy: SitePolicy, shelf: SpaceShelf, random: RandomSource) -> PolicyWorth:
    """An example at the greatest length (at most 32). Raises the errors of `PasswordSpace`."""
    length = best_length(policy, wished=EXAMPLE_LENGTH)
    space = shelf.password(policy, length)
    low, high = space.size_bounds
    with relaxation_offered(policy, length):
        return PolicyWorth(length, space.draw(random), space.entropy_bits, low == high)


def logins_under(vault: Vault, named: NamedPolicy) -> list[tuple[str, str, bool]]:
    """(login id, title, whether its present secret breaks a rule) for each login of its sites."""
    policies = NamedPolicies([named])
    found: list[tuple[str, str, bool]] = []
    for card in list_cards(vault)[0]:
        if card.deleted_at is not None or policies.of(card.address) is None:
            continue
        with suppress(RecordDamaged):
            text = get_secrets(vault, card.login_id).secret.reveal()
            broken = bool(text) and bool(named.policy.violations(text))
            found.append((card.login_id, card.title, broken))
    return sorted(found, key=lambda one: one[1].casefold())


def delete_policy(vault: Vault, policy_id: str) -> None:
    """Deletes a policy; logins of its sites are drawn to the default again."""
    with vault.transaction() as tx:
        remove_policy(tx, policy_id)
