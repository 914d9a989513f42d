"""What is due, and what stalls, on the days around."""

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest

from newknot.core.login import renewed
from newknot.core.rotation import OPEN_STATES, Rotation, RotationState
from newknot.core.rotation.due import Due, due_on, how_due, is_stalled, own_day
from tests.core.rotation.test_change_mail import CARD

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


def test_a_day_is_answered_by_a_newer_secret() -> None:
    card = replace(CARD, created_at=NOW - timedelta(days=60), expires_on=TODAY)
    for since, set_at, is_left in (
        *((0, -1, False), (0, 0, True), (0, 1, True)),
        # Not known when: what is of the day answers it, but for what came with the login.
        *((0, None, False), (-1, None, True), (-60, None, True)),
    ):
        at = None if set_at is None else NOW + timedelta(days=set_at)
        one = replace(card, secret_since_at=NOW + timedelta(days=since), expires_set_at=at)
        assert own_day(one) == (TODAY if is_left else None)
    # A day that waits for a first secret is of that one.
    waiting = replace(card, has_secret=False, expires_set_at=NOW - timedelta(days=1))
    assert own_day(renewed(waiting, NOW)) == TODAY
    assert own_day(renewed(renewed(waiting, NOW), NOW + timedelta(days=1))) is None


@pytest.mark.parametrize("state", list(RotationState))
def test_open_ones_stall_after_three_days(state: RotationState) -> None:
    for days, stalled in ((2, False), (4, state in OPEN_STATES)):
        at = NOW - timedelta(days=days)
        assert is_stalled(Rotation("r", "l", state, at, at, ()), NOW) is stalled
