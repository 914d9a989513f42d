"""Loose ends: a drawn secret is sealed at the moment it leaves the page."""

from datetime import datetime

from newknot.core.login import checked_text
from newknot.core.loose_end import LooseEnd
from newknot.store.loose_ends import (
    get_loose_secret,
    list_loose_ends,
    put_loose_end,
    remove_loose_end,
)
from newknot.store.vault import Vault
from newknot.usecases.drawing.draw_ring import Draw
from newknot.usecases.logins.logins import NewSecret

__all__ = ["dismiss_loose_end", "keep_draw", "list_loose_ends", "loose_secret"]


def keep_draw(vault: Vault, draw: Draw, *, address: str, now: datetime) -> LooseEnd:
    """Seals a draw as a loose end; the same draw again is the same loose end."""
    where = checked_text(address, field="address")
    with vault.transaction() as tx:
        for known in list_loose_ends(vault):
            if known.loose_end_id == draw.draw_id:
                return known
        loose_end = LooseEnd(draw.draw_id, now, where, len(draw.secret))
        put_loose_end(tx, loose_end, draw.secret, draw.facts.origin)
    return loose_end


def loose_secret(vault: Vault, loose_end_id: str) -> NewSecret:
    """The secret of a loose end on its way into a login."""
    secret, origin = get_loose_secret(vault, loose_end_id)
    return NewSecret(secret, origin, loose_end_id)


def dismiss_loose_end(vault: Vault, loose_end_id: str) -> None:
    """Lets a loose end go, on purpose."""
    with vault.transaction() as tx:
        remove_loose_end(tx, loose_end_id)
