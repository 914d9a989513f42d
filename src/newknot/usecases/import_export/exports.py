"""Taking logins out in open formats, secrets in the clear."""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.rotation.due import own_day
from newknot.exchange.portable_login import FURTHER_COLLECTION, PortableLogin
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_card, get_history, get_secrets
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins


@dataclass(frozen=True, slots=True)
class ServedSecret:
    """One secret that a login had, and when; without its text."""

    title: str
    user_name: str
    field: str
    since_at: datetime
    until_at: datetime | None
    used: bool
    made: str
    length: int


def carried_logins(vault: Vault) -> list[PortableLogin]:
    """All logins outside the bin that can be read, by title."""
    found: list[PortableLogin] = []
    for card in list_logins(vault)[0]:
        with suppress(RecordDamaged):
            held = get_secrets(vault, card.login_id)
            found.append(
                PortableLogin(
                    title=card.title,
                    user_name=card.user_name,
                    address=card.address,
                    secret=held.secret,
                    notes=card.notes,
                    folder=card.folder,
                    tags=card.tags,
                    fields=tuple(f for f in card.fields if f.name != FURTHER_COLLECTION),
                    secret_fields=tuple(replace(f, secret_id="") for f in held.fields),
                    code_key=held.code_key,
                    owner=card.owner,
                    importance=card.importance,
                    expires_on=own_day(card),
                    created_at=card.created_at,
                    changed_at=card.changed_at,
                    secret_since_at=card.secret_since_at,
                    second_factor=card.second_factor,
                    driven=card.driven,
                    backup_codes=held.backup_codes,
                    collections=tuple(f.value for f in card.fields if f.name == FURTHER_COLLECTION),
                )
            )
    return found


def served_secrets(vault: Vault) -> Iterator[ServedSecret]:
    """The history of all logins as a table: when each secret served, never what it was."""
    for card in list_logins(vault)[0]:
        with suppress(RecordDamaged):
            held = get_secrets(vault, get_card(vault, card.login_id).login_id)
            for one in get_history(vault, card.login_id):
                yield ServedSecret(
                    card.title,
                    card.user_name,
                    one.field,
                    one.since_at,
                    one.until_at,
                    one.used,
                    one.origin.kind,
                    len(one.secret),
                )
            if len(held.secret):
                yield ServedSecret(
                    card.title,
                    card.user_name,
                    "",
                    card.secret_since_at,
                    None,
                    True,
                    held.origin.kind,
                    len(held.secret),
                )
