"""A secret is superseded: what served until now, or was staged and never used, is kept."""

from dataclasses import replace
from datetime import datetime

from newknot.core.backup_codes import id_of_codes, text_of_codes
from newknot.core.login import (
    BACKUP_CODES_FIELD,
    CODE_KEY_FIELD,
    BackupCode,
    EarlierSecret,
    LoginCard,
    LoginSecrets,
    Origin,
    SecretField,
)
from newknot.core.place_in_time import place_after
from newknot.core.secret import Secret
from newknot.store.logins import get_history, put_history
from newknot.store.vault import Transaction, Vault, new_id

OWN = Origin("own")


def superseded(
    tx: Transaction,
    vault: Vault,
    login_id: str,
    secret: Secret,
    origin: Origin,
    *,
    secret_id: str,
    since_at: datetime,
    until_at: datetime,
    used: bool = True,
    field: str = "",
) -> None:
    """Puts a secret at the end of its login's history, in place of one under its id; an empty one
    is nothing to keep.
    """
    if not len(secret):
        return
    earlier_id = secret_id or new_id()
    kept = [one for one in get_history(vault, login_id) if one.earlier_id != earlier_id]
    placed_at = place_after(until_at, (one.place[0] for one in kept))
    earlier = EarlierSecret(
        earlier_id, secret, origin, since_at, until_at, used, field, placed_at=placed_at
    )
    put_history(tx, login_id, (*kept, earlier))


def fields_superseded(
    tx: Transaction,
    vault: Vault,
    login_id: str,
    former: tuple[SecretField, ...],
    fields: tuple[SecretField, ...],
    *,
    since_at: datetime,
    until_at: datetime,
    used: bool = True,
) -> None:
    """The same of each secret field whose value is no longer under its name."""
    for one in former:
        if one not in fields:
            superseded(
                tx,
                vault,
                login_id,
                one.value,
                OWN,
                secret_id=one.secret_id,
                since_at=since_at,
                until_at=until_at,
                used=used,
                field=one.name,
            )


def with_code_key(
    tx: Transaction,
    vault: Vault,
    login_id: str,
    held: LoginSecrets,
    code_key: Secret,
    since_at: datetime,
    now: datetime,
) -> LoginSecrets:
    """The secrets with this key of its codes; another one that was there goes to the history."""
    if held.code_key == code_key:
        return held
    superseded(
        tx,
        vault,
        login_id,
        held.code_key,
        OWN,
        secret_id=held.code_key_id,
        since_at=since_at,
        until_at=now,
        field=CODE_KEY_FIELD,
    )
    return replace(held, code_key=code_key, code_key_id=new_id() if len(code_key) else "")


def codes_superseded(
    tx: Transaction,
    vault: Vault,
    card: LoginCard,
    held: LoginSecrets,
    codes: tuple[BackupCode, ...],
    *,
    now: datetime,
) -> None:
    """The same of a set of backup codes that another takes the place of, with what was struck off;
    the same codes in another order, or marked otherwise, are no other set.
    """
    if {one.code for one in held.backup_codes} == {one.code for one in codes}:
        return
    superseded(
        tx,
        vault,
        card.login_id,
        Secret(text_of_codes(held.backup_codes)),
        OWN,
        secret_id=id_of_codes(card.login_id, held.backup_codes),
        since_at=min(card.changed_at, now),
        until_at=now,
        field=BACKUP_CODES_FIELD,
    )


def settle_parted(tx: Transaction, vault: Vault, login_id: str, now: datetime) -> None:
    """A new secret is there: which of two copies' secrets holds is no question any more, and the
    other may have served until now.
    """
    history = get_history(vault, login_id)
    if any(one.parted for one in history):
        put_history(tx, login_id, tuple(_settled(one, now) for one in history))


def _settled(one: EarlierSecret, now: datetime) -> EarlierSecret:
    return replace(one, parted=False, until_at=max(one.since_at, now)) if one.parted else one
