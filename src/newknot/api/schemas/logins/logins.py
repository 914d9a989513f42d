"""Shapes of logins."""

from datetime import date, datetime
from typing import Literal

from pydantic import Field, SecretStr

from newknot.api.schemas.base import Shape
from newknot.core.login import Importance, SecondFactor
from newknot.core.rotation.due import Due


class FieldShape(Shape):
    """A further plain field."""

    name: str
    value: str


class SecretFieldIn(Shape):
    """A further secret field; value None keeps the one there is."""

    name: str
    value: SecretStr | None = None


class SecretIn(Shape):
    """Exactly one of: a text of one's own, a draw, a loose end."""

    own: SecretStr | None = None
    draw_id: str | None = None
    loose_end_id: str | None = None


class LoginIn(Shape):
    """A login as the form gives it; secret or code_key None leaves the present one."""

    title: str
    user_name: str = ""
    address: str = ""
    notes: str = ""
    fields: list[FieldShape] = Field(default_factory=list)
    secret_fields: list[SecretFieldIn] = Field(default_factory=list)
    folder: str = ""
    owner: str = ""
    tags: list[str] = Field(default_factory=list)
    importance: Importance = Importance.NORMAL
    expires_on: date | None = None
    resets_by: str | None = None
    second_factor: SecondFactor = SecondFactor.NONE
    code_key: SecretStr | None = None
    driven: bool = False
    driven_at: list[str] = Field(default_factory=list)
    secret: SecretIn | None = None
    revision: str | None = None
    """That which was seen: with it, what was changed meanwhile is not saved over."""


class LoginRow(Shape):
    """A login in a list: never a secret, nor notes."""

    login_id: str
    title: str
    user_name: str
    address: str
    domain: str
    folder: str
    owner: str
    tags: list[str]
    importance: Importance
    expires_on: date | None
    expires_answered: bool
    has_secret: bool
    secret_since_at: datetime
    deleted_at: datetime | None
    guess_number_log10: float | None
    rotation_id: str | None
    second_factor: SecondFactor
    driven: bool
    due_on: date | None
    due: Due | None


class EarlierRow(Shape):
    """An earlier secret in the history, without its text. parted: another copy of the vault had it,
    and it lost against the current one.
    """

    earlier_id: str
    since_at: datetime
    until_at: datetime
    used: bool
    parted: bool
    field: str
    made: Literal["drawn", "own", "imported"]
    entropy_bits: float | None


class OtherTextOut(Shape):
    """A text that another copy of the vault had, and that lost against the current one."""

    text_id: str
    field: str
    text: str
    is_apart: bool


class SettleTextIn(Shape):
    """Whether this text takes the place of the current one."""

    take: bool


class LoginSheet(LoginRow):
    """Everything of a login but its secrets."""

    notes: str
    fields: list[FieldShape]
    secret_field_names: list[str]
    resets_by: str | None
    driven_at: list[str]
    created_at: datetime
    changed_at: datetime
    made: Literal["drawn", "own", "imported"]
    entropy_bits: float | None
    history: list[EarlierRow]
    history_is_damaged: bool
    other_texts: list[OtherTextOut]
    revision: str


class LoginList(Shape):
    """Logins outside the bin, and ids of those that cannot be read."""

    logins: list[LoginRow]
    damaged: list[str]


class Emptied(Shape):
    """How many logins were deleted for good."""

    deleted_count: int


class RevealIn(Shape):
    """What the secret is wanted for: each has its own safeguard."""

    purpose: Literal["reveal", "copy"]


class FieldRevealIn(RevealIn):
    """Which secret field is meant, and what for."""

    name: str
