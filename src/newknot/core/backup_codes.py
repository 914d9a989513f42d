"""Backup codes as one text: a code a line, with the moment at which it was struck off."""

from collections.abc import Iterable
from datetime import UTC, datetime

from newknot.core.login import BACKUP_CODES_FIELD, BackupCode, unnamed_secret_id
from newknot.core.secret import Secret

_USED = "\tused "


def text_of_codes(codes: Iterable[BackupCode]) -> str:
    """The codes in their order, each on a line of its own."""
    return "\n".join(
        one.code.reveal() + (f"{_USED}{one.used_at.isoformat()}" if one.used_at is not None else "")
        for one in codes
    )


def codes_of_text(text: str) -> tuple[BackupCode, ...]:
    """What `text_of_codes` made; a moment that is none is as if the code were not struck off."""
    found = (line.strip("\r").partition(_USED) for line in text.split("\n"))
    return tuple(BackupCode(Secret(code), _moment(used)) for code, _, used in found if code.strip())


def id_of_codes(login_id: str, codes: Iterable[BackupCode]) -> str:
    """The id of a set of codes, whatever was struck off: the same in every copy of a vault."""
    return unnamed_secret_id(
        login_id, BACKUP_CODES_FIELD, "\n".join(one.code.reveal() for one in codes)
    )


def _moment(text: str) -> datetime | None:
    try:
        found = datetime.fromisoformat(text.strip())
    except ValueError:
        return None
    return found if found.tzinfo is not None else found.replace(tzinfo=UTC)
