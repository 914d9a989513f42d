"""Shapes of the check."""

from newknot.api.schemas.base import Shape


class ProgressOut(Shape):
    """How far the check under way is."""

    running: bool
    done: int
    total: int
