"""A login: what the account holder keeps for one account at one site."""

from dataclasses import dataclass, replace
from datetime import date, datetime
from enum import StrEnum
from hashlib import sha256
from typing import Literal

from newknot.core.errors import FieldInvalid
from newknot.core.secret import Secret

TEXT_LIMIT = 1_000
NOTES_LIMIT = 20_000
SECRET_LIMIT = 10_000
FIELDS_LIMIT = 50
TAGS_LIMIT = 50
ORIGINS_LIMIT = 10
BIN_DAYS = 30
CODE_KEY_FIELD = "key of its codes"
"""As the history names the key of a second factor."""
BACKUP_CODES_FIELD = "backup codes"
"""As the history names a set of them."""


class Importance(StrEnum):
    """How much hangs on a login, in the user's own judgement."""

    LOW = "low"
    NORMAL = "normal"
    HIGH = "high"
    CRITICAL = "critical"


class SecondFactor(StrEnum):
    """Where the second factor of a login is: none recorded, its code key here (and, once the site
    accepted a code of it, in force), or elsewhere.
    """

    NONE = "none"
    SETTING_UP = "setting_up"
    HERE = "here"
    ELSEWHERE = "elsewhere"

    @property
    def has_codes(self) -> bool:
        """Whether codes are made here."""
        return self in (SecondFactor.SETTING_UP, SecondFactor.HERE)


@dataclass(frozen=True, slots=True)
class PlainField:
    """A further field that may be shown in the sheet at once."""

    name: str
    value: str


@dataclass(frozen=True, slots=True)
class SecretField:
    """A further field that leaves the vault only by its own call. secret_id: as in
    `LoginSecrets`.
    """

    name: str
    value: Secret
    secret_id: str = ""


@dataclass(frozen=True, slots=True)
class Origin:
    """How a secret came to be. `drawn` has exact bits; `own` was chosen and has none."""

    kind: Literal["drawn", "own", "imported"]
    entropy_bits: float | None = None


@dataclass(frozen=True, slots=True)
class LoginCard:
    """Everything of a login that is not secret. `*_at` are aware UTC, `*_on` a calendar day.

    driven: whether New Knot may fill the forms of its site; driven_at: further origins of that site
    where it may (other sub-domains or ports). parted_at: since when two copies of the
    vault had different secrets for it; None once it was changed anew. texts_apart: names of its
    texts that two copies changed, and that are not settled. expires_set_at: when the day was set;
    None where there is none, and for one that an earlier program set.
    """

    login_id: str
    title: str
    user_name: str
    address: str
    notes: str
    fields: tuple[PlainField, ...]
    secret_field_names: tuple[str, ...]
    folder: str
    owner: str
    tags: tuple[str, ...]
    importance: Importance
    expires_on: date | None
    resets_by: str | None
    created_at: datetime
    changed_at: datetime
    secret_since_at: datetime
    has_secret: bool
    deleted_at: datetime | None = None
    second_factor: SecondFactor = SecondFactor.NONE
    driven: bool = False
    driven_at: tuple[str, ...] = ()
    parted_at: datetime | None = None
    texts_apart: tuple[str, ...] = ()
    expires_set_at: datetime | None = None


def renewed(card: LoginCard, now: datetime, *, has_secret: bool = True) -> LoginCard:
    """The card with another secret from now on. A day that was set while it had none is of its
    first one.
    """
    is_first = not card.has_secret and card.expires_on is not None
    set_at = now if is_first else card.expires_set_at
    return replace(
        card, has_secret=has_secret, secret_since_at=now, parted_at=None, expires_set_at=set_at
    )


@dataclass(frozen=True, slots=True)
class BackupCode:
    """A code that opens the account once without its second factor. used_at None: not yet."""

    code: Secret
    used_at: datetime | None = None


@dataclass(frozen=True, slots=True)
class LoginSecrets:
    """The secret part of a login, sealed apart from its card.

    code_key: an `otpauth://totp/` address, empty where the codes are not made here. secret_id,
    code_key_id: drawn with each new secret and borne by its entry in the history, so that copies of
    a vault know what was known; empty only where there is none.
    """

    secret: Secret
    origin: Origin
    fields: tuple[SecretField, ...] = ()
    code_key: Secret = Secret("")  # noqa: RUF009 - immutable
    backup_codes: tuple[BackupCode, ...] = ()
    secret_id: str = ""
    code_key_id: str = ""


@dataclass(frozen=True, slots=True)
class EarlierSecret:
    """A secret that a login had, or that was staged for it and never used.

    field: the name of the further field that it was in; empty for the login's own secret. parted:
    from another copy of the vault, and lost against what is current; until a new secret settles it.
    placed_at: where it stands in the order, if the clock ran back and `until_at` does not say it.
    """

    earlier_id: str
    secret: Secret
    origin: Origin
    since_at: datetime
    until_at: datetime
    used: bool
    field: str = ""
    parted: bool = False
    placed_at: datetime | None = None

    @property
    def place(self) -> tuple[datetime, str]:
        """What the history is ordered by."""
        return self.placed_at or self.until_at, self.earlier_id


def unnamed_secret_id(login_id: str, name: str, text: str) -> str:
    """The id of a secret from before secrets had one: the same in every copy."""
    return sha256(f"{login_id}/{name}/{text}".encode()).hexdigest()[:32]


def checked_text(value: str, *, field: str, limit: int = TEXT_LIMIT, needed: bool = False) -> str:
    """The value, stripped, if it is storable text within the limit; else `FieldInvalid`."""
    text = value.strip()
    if needed and not text:
        raise FieldInvalid(field, "is empty")
    return checked_secret_text(text, field=field, limit=limit)


def checked_secret_text(value: str, *, field: str, limit: int = SECRET_LIMIT) -> str:
    """The value unchanged (a secret's blanks count), if it is storable; else `FieldInvalid`."""
    if len(value) > limit:
        raise FieldInvalid(field, f"is longer than {limit:,} characters")
    try:
        value.encode("utf-8")
    except UnicodeEncodeError:
        raise FieldInvalid(field, "holds half of a character pair") from None
    return value
