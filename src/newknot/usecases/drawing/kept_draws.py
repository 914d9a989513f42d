"""The ring of draws over a lock: written once as it comes, there again after it."""

from contextlib import suppress

from newknot.core.errors import NewKnotError
from newknot.store.kept_draws import get_kept_draws, put_kept_draws
from newknot.store.vault import Vault
from newknot.usecases.drawing.draw_ring import DrawRing


def keep_draws(vault: Vault, ring: DrawRing) -> None:
    """Writes the ring where it has changed; a lock waits for nothing: what cannot be kept goes."""
    if not ring.changed:
        return
    with suppress(NewKnotError, OSError), vault.transaction() as tx:
        put_kept_draws(tx, vault, ring.documents())


def bring_draws_back(vault: Vault, ring: DrawRing) -> None:
    """Those of before the lock, into an empty ring: one that goes on keeps its own. What another
    version wrote otherwise keeps no vault shut.
    """
    if ring.listed():
        return
    with suppress(KeyError, TypeError, ValueError):
        ring.fill(get_kept_draws(vault))


def empty_kept_draws(vault: Vault, ring: DrawRing) -> None:
    """Lets them go for good, on disk too."""
    with vault.transaction() as tx:
        put_kept_draws(tx, vault, [])
    ring.clear()
