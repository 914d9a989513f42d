"""What is derived of rotations and never stored: when a secret is due, which rotation stalls."""

from datetime import date, datetime, timedelta
from enum import StrEnum

from newknot.core.calendar_day import day_of
from newknot.core.login import LoginCard
from newknot.core.rotation.machine import OPEN_STATES
from newknot.core.rotation.rotation import Rotation

SOON_DAYS = 14
STALLED_AFTER = timedelta(days=3)


class Due(StrEnum):
    """How near the day is by which a secret is to be changed."""

    SOON = "soon"
    TODAY = "today"
    OVERDUE = "overdue"


def own_day(card: LoginCard) -> date | None:
    """The day that was set for a login's secret; None where a newer secret has answered it.

    Where it is not known when the day was set: one of that day or after it, but for the first
    secret, with which a login is brought in.
    """
    since, on, set_at = card.secret_since_at, card.expires_on, card.expires_set_at
    if on is None:
        return None
    is_newer = since > card.created_at and day_of(since) >= on if set_at is None else since > set_at
    return None if is_newer else on


def due_on(expires_on: date | None, since_at: datetime, max_age_days: int | None) -> date | None:
    """The day: one's own, or the last that the site's greatest age allows; the earlier of both."""
    aged = None if max_age_days is None else day_of(since_at) + timedelta(days=max_age_days)
    days = [day for day in (expires_on, aged) if day is not None]
    return min(days) if days else None


def how_due(day: date | None, today: date) -> Due | None:
    """None where there is no day, or it is more than a fortnight away."""
    if day is None or day - today > timedelta(days=SOON_DAYS):
        return None
    if day == today:
        return Due.TODAY
    return Due.OVERDUE if day < today else Due.SOON


def is_stalled(rotation: Rotation, now: datetime) -> bool:
    """Whether an open rotation has stood still for more than three days."""
    return rotation.state in OPEN_STATES and now - rotation.changed_at > STALLED_AFTER
