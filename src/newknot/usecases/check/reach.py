"""What falls with a login, by the groups of the last check and the mailboxes as they are now."""

from functools import partial

from newknot.core.audit.mailboxes import Reset, resets
from newknot.core.audit.reach import Fall, Group, Reach
from newknot.core.login import LoginCard
from newknot.store.checks import get_check
from newknot.store.manifest import Label
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins


def reset_by(vault: Vault) -> list[Reset]:
    """Which mailbox resets which login, as they are now."""
    found: tuple[object, list[Reset]] = vault.renewed(
        "who resets whom", (Label.LOGIN,), partial(_resets, vault)
    )
    return found[1]


def _resets(
    vault: Vault, former: tuple[dict[str, LoginCard], list[Reset]] | None
) -> tuple[dict[str, LoginCard], list[Reset]]:
    """The cards that it rests on, and who resets whom: as before where no name, address or mailbox
    is another.
    """
    logins, _ = list_logins(vault)
    cards = {card.login_id: card for card in logins}
    if former is not None and former[0].keys() == cards.keys():
        pairs = ((former[0][one], card) for one, card in cards.items())
        if all(a is b or _asked(a) == _asked(b) for a, b in pairs):
            return cards, former[1]
    return cards, resets(logins)


def _asked(card: LoginCard) -> tuple[str, str, str | None]:
    return card.user_name, card.address, card.resets_by


def cords(vault: Vault) -> tuple[tuple[Group, ...], list[Reset]]:
    """The groups that share or resemble a secret, and who resets whom; logins that stand alone
    are in neither.
    """
    cards, _ = list_logins(vault)
    known = {card.login_id: card for card in cards}
    result = get_check(vault)
    groups: list[Group] = []
    for group in result.groups if result is not None else ():
        # What was renewed since the check is out of its group.
        left = tuple(
            login_id
            for login_id in group.login_ids
            if login_id in known
            and result is not None
            and known[login_id].secret_since_at <= result.checked_at
        )
        if len(left) > 1:
            groups.append(Group(group.kind, left))
    return tuple(groups), reset_by(vault)


def falls_with(vault: Vault, login_id: str) -> list[Fall]:
    """All that falls if this login falls, nearest first."""
    groups, links = cords(vault)
    return Reach(groups, links).falls_with(login_id)
