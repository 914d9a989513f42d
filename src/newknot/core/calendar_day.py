"""The day that it is, as whoever uses this machine says it."""

from datetime import date, datetime


def day_of(at: datetime) -> date:
    """The calendar day of a moment (aware) in the time zone of this machine: a day that its user
    sets, "today" and "since May" are meant so, and the page shows them so.
    """
    try:
        return at.astimezone().date()
    except (OverflowError, ValueError):
        # Of the first or last day that there is, in a zone where it would be another.
        return at.date()
