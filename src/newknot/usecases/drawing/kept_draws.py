"""The ring of draws over a lock: written once as it comes, there again after it. And the word list
that was chosen.
"""

from contextlib import suppress

from newknot.core.errors import NewKnotError
from newknot.core.generate.phrases.word_list import word_list
from newknot.store.kept_draws import (
    get_chosen_list,
    get_kept_draws,
    put_chosen_list,
    put_kept_draws,
)
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


def choose_list(vault: Vault, language: str, size: int) -> None:
    """Remembers the word list for the next passphrase. Raises `FieldInvalid`."""
    word_list(size, language)
    if get_chosen_list(vault) != (language, size):
        with vault.transaction() as tx:
            put_chosen_list(tx, vault, language, size)


def empty_kept_draws(vault: Vault, ring: DrawRing) -> None:
    """Lets them go for good, on disk too."""
    with vault.transaction() as tx:
        put_kept_draws(tx, vault, [])
    ring.clear()
