"""Two windows at one record: the second to save is told, and nothing is overwritten in silence."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from hashlib import sha256

from newknot.core.safeguards import Safeguards
from newknot.store.manifest import Label
from newknot.store.records import id_bytes
from newknot.store.vault import CARD, SECRETS, Vault
from newknot.usecases.errors import ChangedMeanwhile


def revision_of(vault: Vault, record_id: str | None) -> str:
    """Which writing of a record is there now; empty where there is none. Its history is another
    matter: what goes there is never saved over.
    """
    if record_id is None:
        return ""
    entries = (vault.entry((id_bytes(record_id), part)) for part in (CARD, SECRETS))
    return ".".join(str(entry.revision) for entry in entries if entry is not None)


def revision_of_one(vault: Vault, label: Label) -> str:
    """The same of a kind of which a vault has one record."""
    return revision_of(vault, next(iter(vault.ids(label)), None))


def revision_of_settings(held: Safeguards) -> str:
    """Of what may be set of the safeguards: a backup in between changes nothing of it."""
    told = replace(held, last_backup_at=None, first_hour_over=False)
    return sha256(repr(told).encode()).hexdigest()[:16]


@contextmanager
def unless_changed(vault: Vault, now: Callable[[], str], revision: str | None) -> Iterator[None]:
    """One transaction for what is saved over what was seen. revision: that which was seen; None
    asks nothing. Raises `ChangedMeanwhile`.
    """
    with vault.transaction():
        if revision is not None and revision != now():
            raise ChangedMeanwhile()
        yield
