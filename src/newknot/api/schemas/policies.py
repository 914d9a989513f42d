"""Shapes of site policies."""

from datetime import datetime

from newknot.api.schemas.base import Shape


class ConflictOut(Shape):
    """Rules that contradict one another."""

    rules: list[str]
    says: str


class PolicyIn(Shape):
    """A policy with its name and sites."""

    name: str
    domains: list[str]
    policy: dict[str, object]


class PolicyOut(Shape):
    """A policy of the library; usable: whether draws can be made to it, else why not."""

    policy_id: str
    name: str
    domains: list[str]
    policy: dict[str, object]
    source: str
    changed_at: datetime
    conflict: ConflictOut | None
    not_counted: str | None


class PolicyList(Shape):
    """The library, and what is drawn to where no site is known."""

    policies: list[PolicyOut]
    default: dict[str, object]
    look_alikes: str
