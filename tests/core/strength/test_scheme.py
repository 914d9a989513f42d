"""Parts that people put together hang together; what is drawn does not."""

import pytest

from newknot.core.strength import SegmentKind, measure


def test_parts_that_hang_together_are_worth_less_than_each_for_itself() -> None:
    by_hand, drawn = measure("lantern-77-Harbour-78"), measure("kq8Wz!pL2mvT")
    phrase = measure("gravel mitten oven pillar copper")
    assert by_hand.scheme_log10 > 1
    assert drawn.scheme_log10 == phrase.scheme_log10 == 0
    # What falls at once is left as it is, and numbers that go on cost little.
    assert measure("Lisbon4").scheme_log10 == 0
    onward = measure("lantern 1 harbour 2 gravel 3").segments
    assert [s.cost_log10 < 1 for s in onward if s.kind is SegmentKind.DIGITS] == [True] * 3


def test_no_more_is_taken_off_for_the_sixth_further_part() -> None:
    parts = [measure("lantern-77-harbour_78." + "gravel+4;oven=81!kettle"[:n]) for n in (0, 23)]
    assert len(parts[1].segments) > len(parts[0].segments) >= 8
    assert 1 < parts[0].scheme_log10 <= parts[1].scheme_log10 < 12


def test_a_repetition_and_small_words_hang_together_with_the_rest() -> None:
    assert measure("lantern7lantern-harbour").scheme_log10 > 1
    apart, joined = measure("lantern.harbour"), measure("lanternoftheharbour")
    assert joined.scheme_log10 > apart.scheme_log10
    # What is drawn and written twice is chance twice.
    assert measure("kqvzwxjrkqvzwxjr").scheme_log10 == 0


@pytest.mark.parametrize(
    "text",
    [
        "Lisbon4719!",
        "lantern47",
        "k9#harbour",
        "kqvzwxjr",
        "in-the-attic",
        "7up!kettle",
        "rgb(4,7,9)",
    ],
)
def test_what_is_written_twice_is_worth_no_less_than_once(text: str) -> None:
    once = measure(text).guess_number_log10
    for twice in (text + text, f"{text}-{text}"):
        assert once <= measure(twice).guess_number_log10 < once + 5
