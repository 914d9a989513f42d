"""What a campaign can be made of: the logins of a finding, a group, a site, or what falls with one.

Each choice is named by what it is made of, so that it can be asked for again.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum

from newknot.core.address import domain_of
from newknot.core.audit.finding import Finding, wants_secret
from newknot.core.audit.reach import CordKind, Group, Reach
from newknot.core.login import LoginCard
from newknot.core.login_search import folded
from newknot.store.vault import Vault
from newknot.usecases.check.reach import cords, falls_with
from newknot.usecases.logins.logins import list_logins

Findings = Mapping[str, Iterable[Finding]]
_SAYS = {CordKind.SAME: "same secret as", CordKind.SIMILAR: "secret like"}


class Way(StrEnum):
    """By what the logins are chosen."""

    FINDING = "finding"
    GROUP = "group"
    SITE = "site"
    REACH = "reach"


@dataclass(frozen=True, slots=True)
class Choice:
    """choice_id: within its way. label: a title, domain or kind of finding. count: logins."""

    choice_id: str
    label: str
    count: int


def choices(vault: Vault, way: Way, findings: Findings, *, typed: str = "") -> list[Choice]:
    """All that there are, the largest first; typed: words that the label holds."""
    cards = {card.login_id: card for card in list_logins(vault)[0] if card.has_secret}
    found = _WAYS[way](vault, cards, findings)
    words = folded(typed).split()
    fitting = [one for one in found if all(word in folded(one.label) for word in words)]
    return sorted(fitting, key=lambda one: (-one.count, folded(one.label), one.choice_id))


def logins_of(vault: Vault, way: Way, choice_id: str, findings: Findings) -> list[LoginCard]:
    """The logins of a choice that have a secret to rotate; none where it is there no more."""
    cards = {card.login_id: card for card in list_logins(vault)[0] if card.has_secret}
    wanted: Iterable[str] = ()
    match way:
        case Way.FINDING:
            wanted = _by_kind(findings).get(choice_id, ())
        case Way.GROUP:
            group = _by_group(vault).get(choice_id)
            wanted = group.login_ids if group is not None else ()
        case Way.SITE:
            wanted = _by_site(cards).get(choice_id, ())
        case Way.REACH if choice_id in cards:
            wanted = (choice_id, *(fall.login_id for fall in falls_with(vault, choice_id)))
    chosen = set(wanted)
    return [card for login_id, card in cards.items() if login_id in chosen]


def _by_kind(findings: Findings) -> dict[str, list[str]]:
    by: dict[str, list[str]] = {}
    for login_id, of in findings.items():
        for kind in {finding.kind for finding in of if wants_secret(finding)}:
            by.setdefault(kind.value, []).append(login_id)
    return by


def _by_group(vault: Vault) -> dict[str, Group]:
    return {f"{group.kind.value} {group.login_ids[0]}": group for group in cords(vault)[0]}


def _by_site(cards: Mapping[str, LoginCard]) -> dict[str, list[str]]:
    by: dict[str, list[str]] = {}
    for login_id, card in cards.items():
        if domain := domain_of(card.address):
            by.setdefault(domain, []).append(login_id)
    return by


def _kinds(vault: Vault, cards: Mapping[str, LoginCard], findings: Findings) -> list[Choice]:
    return [
        Choice(kind, kind.replace("_", " "), count)
        for kind, of in _by_kind(findings).items()
        if (count := _held(of, cards))
    ]


def _groups(vault: Vault, cards: Mapping[str, LoginCard], findings: Findings) -> list[Choice]:
    return [
        Choice(name, f"{_SAYS[group.kind]} {min(titles)}", len(titles))
        for name, group in _by_group(vault).items()
        if (titles := [cards[one].title for one in group.login_ids if one in cards])
    ]


def _sites(vault: Vault, cards: Mapping[str, LoginCard], findings: Findings) -> list[Choice]:
    return [Choice(site, site, len(of)) for site, of in _by_site(cards).items()]


def _reaches(vault: Vault, cards: Mapping[str, LoginCard], findings: Findings) -> list[Choice]:
    counts = Reach(*cords(vault)).counts()
    return [
        Choice(
            login_id, ", ".join(filter(None, (card.title, card.user_name))), counts[login_id] + 1
        )
        for login_id, card in cards.items()
        if counts.get(login_id)
    ]


def _held(of: Iterable[str], cards: Mapping[str, LoginCard]) -> int:
    return sum(login_id in cards for login_id in of)


_WAYS: Mapping[Way, Callable[[Vault, Mapping[str, LoginCard], Findings], list[Choice]]] = {
    Way.FINDING: _kinds,
    Way.GROUP: _groups,
    Way.SITE: _sites,
    Way.REACH: _reaches,
}
