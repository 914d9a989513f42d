"""The order in which things happened, whatever the clock said when they did."""

from collections.abc import Iterable
from datetime import datetime, timedelta

STEP = timedelta(microseconds=1)


def place_after(at: datetime, others: Iterable[datetime]) -> datetime | None:
    """Where something that happened at a time stands after others that happened before it; None
    where its own time says so.
    """
    latest = max(others, default=None)
    return None if latest is None or at > latest else latest + STEP
