"""Shapes of second factors."""

from datetime import datetime

from pydantic import SecretStr

from newknot.api.schemas.base import Shape
from newknot.core.login import SecondFactor


class CodeOut(Shape):
    """A code, for how many more seconds it is taken, and the one that follows it."""

    code: str
    valid_s: int
    next_code: str


class CodeKeyIn(Shape):
    """The key of a login's codes: Base32, or an otpauth address."""

    code_key: SecretStr


class SecondFactorOut(Shape):
    """Where a login's second factor stands now."""

    second_factor: SecondFactor


class BackupCodesIn(Shape):
    """Backup codes as the site gives them: one a line, or between commas."""

    text: SecretStr


class BackupCodeOut(Shape):
    """A backup code; used_at null: not yet."""

    code: str
    used_at: datetime | None


class StrikeIn(Shape):
    """Whether a backup code is used."""

    used: bool
