"""Key presses and taps, counted by hand."""

import pytest

from newknot.core.generate.typing_effort import key_presses, phone_taps


@pytest.mark.parametrize(
    ("text", "presses", "taps"),
    [
        ("Мои 5", 6, 7),
        ("", 0, 0),
        ("abc", 3, 3),
        ("Abc", 4, 4),
        ("ABc", 4, 5),
        ("a1b", 3, 5),
        ("a 1 b", 5, 7),
        ("a#b", 4, 6),
        ("1#", 3, 4),
        ("#1", 3, 5),
        ("A!B", 4, 7),
        ("The goat.", 10, 11),
    ],
)
def test_the_counts_of_a_text(text: str, presses: int, taps: int) -> None:
    assert (key_presses(text), phone_taps(text)) == (presses, taps)
