"""A login on its way in or out of an open format: what every format has to keep."""

from dataclasses import dataclass, replace
from datetime import date, datetime

from newknot.core.login import BackupCode, Importance, PlainField, SecondFactor, SecretField
from newknot.core.secret import Secret

NOTHING = Secret("")
FURTHER_ADDRESS, FURTHER_COLLECTION = "further address", "further collection"
"""Names of fields for what a format, or a login here, has no place of its own for."""


@dataclass(frozen=True, slots=True)
class PortableLogin:
    """code_key: an `otpauth:` address or a bare key, empty where there is none. second_factor None:
    as the key says. collections: further ones than the folder, which is the first.
    """

    title: str
    user_name: str = ""
    address: str = ""
    secret: Secret = NOTHING
    notes: str = ""
    folder: str = ""
    tags: tuple[str, ...] = ()
    fields: tuple[PlainField, ...] = ()
    secret_fields: tuple[SecretField, ...] = ()
    code_key: Secret = NOTHING
    owner: str = ""
    importance: Importance = Importance.NORMAL
    expires_on: date | None = None
    created_at: datetime | None = None
    changed_at: datetime | None = None
    secret_since_at: datetime | None = None
    second_factor: SecondFactor | None = None
    driven: bool = False
    backup_codes: tuple[BackupCode, ...] = ()
    collections: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadLogin:
    """A login as read: its line or place in the file (from 1), or the reason why it is none.

    left: what of it could not be placed, in words.
    """

    line: int
    reason: str
    login: PortableLogin
    left: tuple[str, ...] = ()


def with_names_apart(fields: tuple[SecretField, ...]) -> tuple[SecretField, ...]:
    """Secret fields under names that differ: a login keeps one value under each."""
    seen: dict[str, int] = {}
    out: list[SecretField] = []
    for field in fields:
        seen[field.name] = seen.get(field.name, 0) + 1
        number = seen[field.name]
        out.append(field if number == 1 else replace(field, name=f"{field.name} {number}"))
    return tuple(out)
