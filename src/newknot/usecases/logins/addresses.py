"""Whose address it is: the logins at its site, else those whose site it only resembles."""

from dataclasses import dataclass

from newknot.core.address import domain_of, site_of, spelled
from newknot.core.address.likeness import Resembling, resembling
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins


@dataclass(frozen=True, slots=True)
class AddressSeen:
    """host: as it is read; logins: of its site; resembles: sites that it is not, each with its
    logins; is_kept_out: whether nothing is offered to be saved for it.
    """

    host: str
    domain: str
    logins: tuple[LoginCard, ...]
    resembles: tuple[tuple[Resembling, tuple[LoginCard, ...]], ...]
    is_kept_out: bool


def see_address(vault: Vault, address: str) -> AddressSeen:
    """What is known of any address. Raises `FieldInvalid` where it is none."""
    site = site_of(address)
    if site is None:
        raise FieldInvalid("address", "is empty")
    by_domain: dict[str, list[LoginCard]] = {}
    for card in list_logins(vault)[0]:
        by_domain.setdefault(domain_of(card.address), []).append(card)
    by_domain.pop("", None)
    return AddressSeen(
        spelled(site.host),
        site.domain,
        tuple(by_domain.get(site.domain, ())),
        tuple((one, tuple(by_domain[one.domain])) for one in resembling(site, by_domain.keys())),
        site.domain in get_safeguards(vault).kept_out,
    )


def keep_out(vault: Vault, address: str, *, kept_out: bool) -> str:
    """Puts the site of an address on the list of places that are kept out, or takes it off.

    Answers its domain. Raises `FieldInvalid` where the address is none.
    """
    site = site_of(address)
    if site is None:
        raise FieldInvalid("address", "is empty")
    with vault.transaction() as tx:
        put_safeguards(tx, vault, get_safeguards(vault).with_place(site.domain, kept_out=kept_out))
    return site.domain
