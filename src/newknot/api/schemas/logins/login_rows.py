"""Shapes of the list of logins in parts."""

from pydantic import Field

from newknot.api.schemas.base import Shape
from newknot.api.schemas.logins.logins import LoginRow
from newknot.core.audit import FindingKind
from newknot.usecases.logins.login_rows import Order


class LoginRowsIn(Shape):
    """Which logins, in which order, and so many lines from a place on."""

    search: str = Field(default="", max_length=1_000)
    folder: str | None = None
    order: Order = "site"
    offset: int = Field(default=0, ge=0)
    limit: int = Field(default=60, ge=1, le=200)


class LoginListLine(Shape):
    """A login with the kinds of its findings, or the head of several at one site. place: of the
    login among those found.
    """

    login: LoginRow | None
    kinds: list[FindingKind]
    in_group: bool
    place: int | None
    site: str
    site_count: int


class LoginRowsOut(Shape):
    """A part of the lines: `lines_total` in all, with `found` logins of `logins_count`. damaged:
    how many cannot be read.
    """

    lines_total: int
    found: int
    logins_count: int
    damaged_count: int
    folders: dict[str, int]
    rows: list[LoginListLine]


class FindIn(Shape):
    """What was typed."""

    typed: str = Field(max_length=1_000)
    limit: int = Field(default=9, ge=1, le=50)


class FoundLogin(Shape):
    """A login that fits. rotation_id: of the one that is open."""

    login_id: str
    title: str
    user_name: str
    domain: str
    has_secret: bool
    rotation_id: str | None


class HabitsOut(Shape):
    """The folders there are, and the user names most often used, the first first."""

    folders: list[str]
    user_names: list[str]


class TypedLogin(Shape):
    """A login as far as it is typed."""

    title: str = Field(default="", max_length=10_000)
    user_name: str = Field(default="", max_length=10_000)
    address: str = Field(default="", max_length=10_000)


class KnownLoginOut(Shape):
    """same: the login that is the typed one already. address, user_names: of its title or site,
    where these are not typed yet.
    """

    same: FoundLogin | None
    address: str
    user_names: list[str]
