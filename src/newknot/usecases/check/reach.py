"""What falls with a login, by the groups of the last check and the mailboxes as they are now."""

from functools import partial
from typing import NamedTuple

from newknot.core.audit.changed_since import groups_left
from newknot.core.audit.mailboxes import Reset, resets
from newknot.core.audit.reach import Fall, Group, Reach
from newknot.core.login import LoginCard
from newknot.store.checks import get_check
from newknot.store.logins import Cards, cards_written_since
from newknot.store.manifest import Label
from newknot.store.vault import Vault
from newknot.usecases.check.alike_since import alike_since
from newknot.usecases.logins.logins import list_logins


def reset_by(vault: Vault) -> list[Reset]:
    """Which mailbox resets which login, as they are now."""
    found: _Resets = vault.renewed("who resets whom", (Label.LOGIN,), partial(_resets, vault))
    return found.resets


class _Resets(NamedTuple):
    """Who resets whom, what of each login that rests on, and the cards that it was made of."""

    resets: list[Reset]
    of: dict[str, tuple[str, str, str | None]]
    cards: Cards


def _resets(vault: Vault, former: _Resets | None) -> _Resets:
    """As before where no name, address or mailbox is another."""
    logins, damaged = list_logins(vault)
    cards = Cards(logins, damaged, vault.counter)
    written = cards_written_since(vault, former.cards if former is not None else None)
    if former is not None and written is not None:
        now = {one: _asked(card) for one, card in written.items() if card and not card.deleted_at}
        if all(former.of.get(one) == now.get(one) for one in written):
            return _Resets(former.resets, former.of, cards)
    return _Resets(resets(logins), {card.login_id: _asked(card) for card in logins}, cards)


def _asked(card: LoginCard) -> tuple[str, str, str | None]:
    return card.user_name, card.address, card.resets_by


def cords(vault: Vault) -> tuple[tuple[Group, ...], list[Reset]]:
    """The groups that share or resemble a secret, and who resets whom; logins that stand alone
    are in neither.
    """
    labels = (Label.LOGIN, Label.CHECK, Label.POLICY)
    groups = vault.once("groups left", labels, partial(_groups, vault))
    return groups, reset_by(vault)


def _groups(vault: Vault) -> tuple[Group, ...]:
    result = get_check(vault)
    if result is None:
        return ()
    cards = {card.login_id: card for card in list_logins(vault)[0]}
    return groups_left(result, cards, alike_since(vault))


def falls_with(vault: Vault, login_id: str) -> list[Fall]:
    """All that falls if this login falls, nearest first."""
    groups, links = cords(vault)
    return Reach(groups, links).falls_with(login_id)
