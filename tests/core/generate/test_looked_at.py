"""What choosing among draws costs, against the best that a chooser can do."""

import itertools

import pytest

from newknot.core.generate.looked_at import LookedAt, bits_after_choice


def test_the_first_draw_costs_nothing_and_whole_draws_cost_their_number() -> None:
    looked = LookedAt(parts=6)
    assert [looked.possible, looked.whole().possible, looked.whole().whole().possible] == [1, 2, 3]


@pytest.mark.parametrize("acts", [[1], [2], [1, 1], [3, 1], [2, 2, 1]])
def test_redraws_of_some_are_the_ends_that_they_can_lead_to(acts: list[int]) -> None:
    parts = 4
    looked = LookedAt(parts)
    for count in acts:
        looked = looked.some(count)
    ends = {
        places
        for places in itertools.product(range(len(acts) + 1), repeat=parts)
        if sum(places) <= sum(acts)
    }
    assert looked.possible == len(ends)
    assert looked.whole().possible == len(ends) + 1


def test_no_taste_makes_a_text_likelier_than_the_bits_say() -> None:
    # Two parts of four texts each; the chooser redraws the second once unless it is liked.
    size, liked = 16, 0
    ends: dict[tuple[int, int], int] = {}
    for a, b, c in itertools.product(range(4), repeat=3):
        end = (a, b if b == liked else c)
        ends[end] = ends.get(end, 0) + 1
    likeliest = max(ends.values()) / 4**3
    looked = LookedAt(parts=2).some(1)
    assert likeliest <= looked.possible / size
    assert bits_after_choice(size, looked) == 2.32


def test_bits_never_fall_below_nothing() -> None:
    assert bits_after_choice(2, LookedAt(3).whole().whole().whole()) == 0
