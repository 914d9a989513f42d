"""Shapes of the check."""

from newknot.api.schemas.base import Shape


class CheckIn(Shape):
    """whole: whether the answer is to hold every finding."""

    whole: bool = True


class ProgressOut(Shape):
    """How far the check under way is."""

    running: bool
    done: int
    total: int
