"""Backups kept by a rule, against a day-by-day simulation."""

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.errors import FieldInvalid
from newknot.core.keeping_rule import KeepingRule
from newknot.core.keeping_rule import kept as stays_of

START = datetime(2026, 1, 1, 3, tzinfo=UTC)


def kept(made: Iterable[datetime], rule: KeepingRule) -> set[datetime]:
    """Those that stay, made in the order of their times."""
    newest_first = sorted(set(made), reverse=True)
    stay = stays_of(newest_first, rule) if newest_first else []
    return {at for at, stays in zip(newest_first, stay, strict=True) if stays}


def test_a_daily_backup_for_two_years_leaves_days_weeks_and_months() -> None:
    there: set[datetime] = set()
    for day in range(730):
        there = kept({*there, START + timedelta(days=day)}, KeepingRule(7, 5, 12))
        assert START + timedelta(days=day) in there
    last = START + timedelta(days=729)
    assert {last - timedelta(days=n) for n in range(7)} <= there
    assert len({at.isocalendar()[:2] for at in there}) >= 5
    assert len({(at.year, at.month) for at in there}) == 12
    assert len(there) <= 7 + 5 + 12


@given(st.sets(st.integers(0, 900)), st.integers(1, 9), st.integers(1, 9), st.integers(1, 9))
def test_the_rule_keeps_the_newest_of_each_period_and_asked_again_the_same(
    hours: set[int], daily: int, weekly: int, monthly: int
) -> None:
    made = {START + timedelta(hours=5 * h) for h in hours}
    rule = KeepingRule(daily, weekly, monthly)
    found = kept(made, rule)
    assert found <= made and kept(found, rule) == found
    for day in sorted({at.date() for at in made}, reverse=True)[:daily]:
        assert max(at for at in made if at.date() == day) in found


def test_a_rule_keeps_one_at_least() -> None:
    with pytest.raises(FieldInvalid):
        KeepingRule(0, 5, 12)


def test_all_of_the_newest_day_are_kept_and_older_ones_of_a_day_are_not() -> None:
    newest = [START + timedelta(days=9, hours=h) for h in (0, 5, 20)]
    older = [START + timedelta(days=5, hours=h) for h in (0, 5)]
    assert kept([*newest, *older], KeepingRule(2, 1, 1)) == {*newest, older[-1]}
    assert START + timedelta(days=8) not in kept(
        [*newest, START + timedelta(days=8)], KeepingRule(1, 1, 1)
    )


def test_a_week_and_a_month_are_of_their_year() -> None:
    both = {START + timedelta(days=9), START + timedelta(days=9 - 364)}
    assert all(kept(both, KeepingRule(1, *more)) == both for more in ((2, 1), (1, 2)))
    monday = datetime(2026, 11, 30, 9, tzinfo=UTC)
    three = [monday + timedelta(days=n) for n in (-1, 0, 2)]
    assert kept(three, KeepingRule(1, 2, 1)) == {three[0], three[2]}


def test_a_clock_that_ran_ahead_or_back_lets_nothing_go_that_it_would_not() -> None:
    rule = KeepingRule(7, 1, 1)
    days = [START + timedelta(days=n) for n in range(6)]
    ahead, back = START + timedelta(days=2000), START - timedelta(days=2000)
    for wrong in (ahead, back):
        assert stays_of([days[5], wrong, *days[4::-1]], rule) == [True] * 7
        assert stays_of([wrong, *days[::-1]], rule) == [True] * 7
    twice = [days[5], ahead + timedelta(hours=1), ahead]
    assert stays_of(twice, rule) == [True, True, False]
