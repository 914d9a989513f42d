"""What the open formats have no place for, counted for the vault as it is; and what is damaged."""

import re
from dataclasses import dataclass

from newknot.core.login import LoginCard
from newknot.core.rotation import OPEN_STATES
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_history, get_secrets, list_cards
from newknot.store.loose_ends import list_loose_ends
from newknot.store.own_details import get_own_details
from newknot.store.policies import list_policies
from newknot.store.rotations import list_rotations
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers

_FORMULA = re.compile(r"[=+\-@|%\t\r]")


@dataclass(frozen=True, slots=True)
class Losses:
    """Counts of what neither CSV nor the exchange format carries. histories, resets,
    driven_at: of logins.

    formula_secrets: secrets that a spreadsheet would take for a formula. damaged: titles, or ids
    where not even the title can be read, of logins that no file can have.
    """

    histories: int
    resets: int
    in_bin: int
    waivers: int
    policies: int
    open_rotations: int
    loose_ends: int
    own_details: int
    driven_at: int
    formula_secrets: int
    damaged: tuple[str, ...]


def losses_of(vault: Vault) -> Losses:
    """Counted now."""
    cards, unreadable = list_cards(vault)
    live = [card for card in cards if card.deleted_at is None]
    damaged = list(unreadable)
    histories = formulas = 0
    for card in live:
        try:
            held = get_secrets(vault, card.login_id)
            texts = [held.secret.reveal(), *(one.value.reveal() for one in held.fields)]
            formulas += sum(bool(_FORMULA.match(text)) for text in texts)
            histories += bool(get_history(vault, card.login_id))
        except RecordDamaged:
            damaged.append(_name(card))
    return Losses(
        histories=histories,
        resets=sum(card.resets_by is not None for card in live),
        in_bin=len(cards) - len(live),
        waivers=len(list_waivers(vault)),
        policies=len(list_policies(vault)),
        open_rotations=sum(one.state in OPEN_STATES for one in list_rotations(vault)),
        loose_ends=len(list_loose_ends(vault)),
        own_details=len(get_own_details(vault).lines),
        driven_at=sum(bool(card.driven_at) for card in live),
        formula_secrets=formulas,
        damaged=tuple(sorted(damaged, key=str.casefold)),
    )


def _name(card: LoginCard) -> str:
    return f"{card.title} ({card.user_name})" if card.user_name else card.title
