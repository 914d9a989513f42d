"""Cords between logins as the API shapes them."""

from newknot.api.schemas.base import Shape
from newknot.core.audit.reach import CordKind


class KnotOut(Shape):
    """A login that some cord holds, and how many others fall with it."""

    login_id: str
    title: str
    user_name: str
    importance: str
    reach: int


class GroupOut(Shape):
    """Logins that share a secret, or have similar ones."""

    kind: CordKind
    login_ids: list[str]


class ResetOut(Shape):
    """The mailbox `by` can reset `of`; is_guess: told by the addresses, not by the user."""

    by: str
    of: str
    is_guess: bool


class ReachMap(Shape):
    """All cords of the vault, knots by reach."""

    knots: list[KnotOut]
    groups: list[GroupOut]
    resets: list[ResetOut]


class FallOfLogin(Shape):
    """A login that falls, by what cord, and after which login: null where after the one asked."""

    login_id: str
    title: str
    by: CordKind
    after_title: str | None
