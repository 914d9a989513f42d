"""Second factors: the key of a login's codes, its set-up until one is accepted, backup codes."""

import re
from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime

from newknot.core.errors import FieldInvalid
from newknot.core.login import BackupCode, LoginCard, SecondFactor, checked_secret_text
from newknot.core.second_factor import Code, CodeKey
from newknot.core.secret import Secret
from newknot.outside.pictures import read_codes
from newknot.store.logins import get_secrets, put_card, put_secrets
from newknot.store.vault import Vault
from newknot.usecases.errors import NothingHeld, PictureWithoutKey
from newknot.usecases.logins.logins import live_card
from newknot.usecases.logins.superseding import codes_superseded, with_code_key

BACKUP_CODES_MOST = 50
BACKUP_CODE_LENGTH_MOST = 100
_BREAKS = re.compile(r"[\n,;]+")


def set_up(vault: Vault, login_id: str, key: Secret, *, now: datetime) -> LoginCard:
    """Keeps a key, as sites give it; it is in force once the site accepted a code of it.

    A key that was there goes to the history. Raises `FieldInvalid` where this is none.
    """
    code_key = Secret(CodeKey.read(key.reveal()).address)
    with vault.transaction() as tx:
        former = live_card(vault, login_id)
        held = get_secrets(vault, login_id)
        secrets = with_code_key(tx, vault, login_id, held, code_key, former.changed_at, now)
        card = replace(former, second_factor=SecondFactor.SETTING_UP, changed_at=now)
        put_card(tx, card)
        put_secrets(tx, login_id, secrets)
    return card


def set_up_by_picture(vault: Vault, login_id: str, picture: bytes, *, now: datetime) -> LoginCard:
    """The same, of the QR picture that a site shows. Raises `PictureRefused`, `PictureWithoutKey`
    where no code of it holds an `otpauth:` address.
    """
    for text in read_codes(picture):
        if text.lower().startswith("otpauth:"):
            return set_up(vault, login_id, Secret(text), now=now)
    raise PictureWithoutKey()


def site_accepted(vault: Vault, login_id: str, *, now: datetime) -> LoginCard:
    """Ends the set-up: the site took a code of the key. Raises `NothingHeld` without a key."""
    with vault.transaction() as tx:
        card = live_card(vault, login_id)
        if not len(get_secrets(vault, login_id).code_key):
            raise NothingHeld()
        card = replace(card, second_factor=SecondFactor.HERE, changed_at=now)
        put_card(tx, card)
    return card


def current_code(vault: Vault, login_id: str, *, now: datetime) -> Code:
    """The code of this moment. Raises `NothingHeld` where no key is recorded."""
    live_card(vault, login_id)
    key = get_secrets(vault, login_id).code_key
    if not len(key):
        raise NothingHeld()
    return CodeKey.read(key.reveal()).code(now)


def keep_backup_codes(vault: Vault, login_id: str, text: Secret, *, now: datetime) -> int:
    """Keeps the backup codes of a text, one a line or between commas, in place of those there were:
    one that was there and used stays struck off, and another set goes to the history. Answers how
    many. Raises `FieldInvalid`.
    """
    codes = _split(text.reveal())
    with vault.transaction() as tx:
        card = live_card(vault, login_id)
        held = get_secrets(vault, login_id)
        used = {one.code: one.used_at for one in held.backup_codes}
        kept = tuple(BackupCode(Secret(c), used.get(Secret(c))) for c in codes)
        codes_superseded(tx, vault, card, held, kept, now=now)
        put_secrets(tx, login_id, replace(held, backup_codes=kept))
    return len(kept)


def backup_codes(vault: Vault, login_id: str) -> Sequence[BackupCode]:
    """The backup codes as they were given."""
    live_card(vault, login_id)
    return get_secrets(vault, login_id).backup_codes


def strike_off(vault: Vault, login_id: str, place: int, *, used: bool, now: datetime) -> None:
    """Notes that a backup code was used, or was not after all. Raises `NothingHeld`."""
    with vault.transaction() as tx:
        live_card(vault, login_id)
        held = get_secrets(vault, login_id)
        if not 0 <= place < len(held.backup_codes):
            raise NothingHeld()
        codes = list(held.backup_codes)
        codes[place] = replace(codes[place], used_at=now if used else None)
        put_secrets(tx, login_id, replace(held, backup_codes=tuple(codes)))


def _split(text: str) -> list[str]:
    checked_secret_text(text, field="backup_codes")
    codes = list(dict.fromkeys(c.strip() for c in _BREAKS.split(text) if c.strip()))
    if len(codes) > BACKUP_CODES_MOST:
        raise FieldInvalid("backup_codes", f"are more than {BACKUP_CODES_MOST}")
    if any(len(c) > BACKUP_CODE_LENGTH_MOST for c in codes):
        raise FieldInvalid(
            "backup_codes", f"hold one longer than {BACKUP_CODE_LENGTH_MOST} characters"
        )
    return codes
