"""A leap of the calendar's clock is told by the one that counts seconds, while that is the same."""

from datetime import timedelta
from pathlib import Path

import pytest

from newknot.usecases.vault.clock_watch import ClockWatch
from tests.conftest import HandClock

DAY_S = 86_400


@pytest.mark.parametrize(
    ("passed_s", "counted_s", "leapt"),
    [
        *((60, 60, False), (360, 60, False), (361, 60, True), (-240, 60, False), (-241, 60, True)),
        # The machine was started anew: its count begins at nought.
        *((31 * DAY_S, -9, False), (31 * DAY_S + 1, -9, True), (-300, -9, False), (-301, -9, True)),
    ],
)
def test_what_both_clocks_counted_tells_a_leap(
    tmp_path: Path, passed_s: int, counted_s: int, leapt: bool
) -> None:
    clock, kept = HandClock(), tmp_path / "clock.json"
    ClockWatch(clock, kept).look()
    clock.at += timedelta(seconds=passed_s)
    clock.boot += counted_s
    watch = ClockWatch(clock, kept)
    watch.look()
    assert (watch.leap is not None) is leapt
    for passed in (DAY_S - 1, 1):
        # It is believed again after a day, and no sooner.
        assert (watch.leap is not None) is leapt
        clock.pass_s(passed)
        watch.look()
    assert watch.leap is None
