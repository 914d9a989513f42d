"""The first hour of a vault: what it does not have yet, until that is done or dismissed."""

from collections.abc import Collection
from dataclasses import dataclass, replace

from newknot.store.checks import get_check
from newknot.store.corpus import Corpus
from newknot.store.manifest import Label
from newknot.store.recovery import get_recovery
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault


@dataclass(frozen=True, slots=True)
class FirstHour:
    """is_over: dismissed, or all of it is done."""

    has_logins: bool
    has_corpus: bool
    has_recovery_sheet: bool
    has_backup_place: bool
    is_checked: bool
    is_over: bool


def first_hour(vault: Vault, corpora: Collection[Corpus]) -> FirstHour:
    """What there is of it. corpora: those that are open."""
    held = get_safeguards(vault)
    done = (
        bool(vault.ids(Label.LOGIN)),
        bool(corpora),
        get_recovery(vault) is not None,
        bool(held.backup_place),
        get_check(vault) is not None,
    )
    return FirstHour(*done, is_over=held.first_hour_over or all(done))


def end_first_hour(vault: Vault) -> None:
    """Dismisses the list for good."""
    with vault.transaction() as tx:
        put_safeguards(tx, vault, replace(get_safeguards(vault), first_hour_over=True))
