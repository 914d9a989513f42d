"""Shapes of histories."""

from newknot.api.schemas.base import Shape


class ComparedOut(Shape):
    """A secret by what it is. earlier_id null: the current one, which the others share with."""

    earlier_id: str | None
    length: int
    guess_number_log10: float
    entropy_bits: float | None
    shared_start: int
    shared_end: int


class PastRetention(Shape):
    """Earlier secrets past their retention."""

    secret_count: int
    login_count: int
