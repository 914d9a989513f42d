"""The brake on guesses: three are free, then each wrong one waits twice as long, up to a minute."""

from pathlib import Path

import pytest

from newknot.usecases.errors import TooManyGuesses
from newknot.usecases.vault.guessing import GuessBrake


def waits(brake: GuessBrake, at: float) -> int:
    """Seconds to the next try; 0 where it may be made now."""
    try:
        brake.check(at)
    except TooManyGuesses as error:
        return int(str(error.data["retry_after_s"]))
    return 0


def test_each_wrong_guess_waits_longer_and_never_beyond_a_minute() -> None:
    brake, at, seen = GuessBrake(), 1000.0, []
    for _ in range(12):
        brake.wrong(at)
        seen.append(waits(brake, at))
        at += 120
    assert seen == [0, 0, 2, 3, 5, 9, 17, 33, 61, 61, 61, 61]


def test_the_wait_ends_when_it_is_over_and_a_right_one_begins_anew() -> None:
    brake = GuessBrake()
    for _ in range(5):
        brake.wrong(0.0)
    with pytest.raises(TooManyGuesses):
        brake.check(3.99)
    brake.check(4.0)
    brake.right()
    brake.wrong(0.0)
    assert waits(brake, 0.0) == 0


def test_the_count_outlives_the_program_and_no_wait_is_longer_than_the_longest(
    tmp_path: Path,
) -> None:
    kept = tmp_path / "state" / "guesses.json"
    brake = GuessBrake(kept)
    for _ in range(9):
        brake.wrong(1_000_000.0)
    again = GuessBrake(kept)
    assert waits(again, 1_000_000.0) == 61 and waits(again, 1_000_061.0) == 0
    # The machine was started anew: its clock begins at nought.
    assert 0 < waits(GuessBrake(kept), 5.0) <= 61
    again.right()
    assert waits(GuessBrake(kept), 1_000_000.0) == 0
    assert kept.stat().st_mode & 0o777 == 0o600
    kept.write_text("{")
    assert waits(GuessBrake(kept), 0.0) == 0
