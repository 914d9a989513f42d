"""What is due, and what stalls, on the days around."""

from datetime import UTC, date, datetime, timedelta

import pytest

from newknot.core.rotation import OPEN_STATES, Rotation, RotationState
from newknot.core.rotation.due import Due, due_on, how_due, is_stalled

TODAY = date(2026, 11, 25)
NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)


@pytest.mark.parametrize(
    ("days", "due"),
    [(-400, Due.OVERDUE), (-1, Due.OVERDUE), (0, Due.TODAY), (1, Due.SOON), (14, Due.SOON)],
)
def test_the_days_around(days: int, due: Due) -> None:
    assert how_due(TODAY + timedelta(days=days), TODAY) is due


def test_later_or_never_is_not_due() -> None:
    assert how_due(TODAY + timedelta(days=15), TODAY) is None
    assert how_due(None, TODAY) is None


def test_the_earlier_of_ones_own_day_and_the_sites_age_counts() -> None:
    since = NOW - timedelta(days=60)
    assert due_on(None, since, None) is None
    assert due_on(None, since, 90) == TODAY + timedelta(days=30)
    assert due_on(TODAY, since, 90) == TODAY
    assert due_on(date(2027, 6, 1), since, 90) == TODAY + timedelta(days=30)


@pytest.mark.parametrize("state", list(RotationState))
def test_open_ones_stall_after_three_days(state: RotationState) -> None:
    for days, stalled in ((2, False), (4, state in OPEN_STATES)):
        at = NOW - timedelta(days=days)
        assert is_stalled(Rotation("r", "l", state, at, at, ()), NOW) is stalled
