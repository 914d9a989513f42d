"""What a number in doubt is said to be."""

from itertools import pairwise

from newknot.core.strength.guesses import DOUBTS, beside_doubt


def test_what_is_in_doubt_is_within_reach_and_keeps_its_order() -> None:
    numbers = [n / 1000 for n in range(20_000)]
    said = [beside_doubt(n) for n in numbers]
    assert all(a < b for a, b in pairwise(said))
    for reached, doubt in DOUBTS:
        assert beside_doubt(reached + doubt - 0.001) < reached < beside_doubt(reached + doubt)
    assert sum(one != n for one, n in zip(said, numbers, strict=True)) == 1_898
