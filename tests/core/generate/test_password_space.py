"""The count against enumeration, and each string of a small set drawn once a rank."""

import itertools
import random
from collections import Counter
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.generate import PasswordSpace
from newknot.core.generate.password_space import LengthRefused, RuleNotCounted, SpaceEmpty
from newknot.core.policy import STANDARD_CLASSES, SitePolicy


class EveryRank:
    """Gives the integers 0, 1, 2 … in turn, as a random source that is no source of chance."""

    def __init__(self) -> None:
        self.asked = 0
        self.bound = 0

    def randbelow(self, n: int, /) -> int:
        self.bound = n
        self.asked += 1
        return self.asked - 1


class Seeded:
    def __init__(self, seed: int) -> None:
        self._random = random.Random(seed)

    def randbelow(self, n: int, /) -> int:
        return self._random.randrange(n)


def made(length: int, classes: list[dict[str, Any]], **rules: Any) -> SitePolicy:
    document = {"min_length": length, "max_length": length, "classes": classes, **rules}
    return SitePolicy.from_dict(document)


SMALL_CLASSES = st.lists(
    st.tuples(st.integers(1, 3), st.integers(0, 2), st.none() | st.integers(0, 3)),
    min_size=1,
    max_size=3,
)


@settings(max_examples=150, deadline=None)
@given(st.integers(1, 4), SMALL_CLASSES, st.integers(0, 3), st.sampled_from(["", "a", "aq"]))
def test_each_allowed_string_has_one_rank_and_no_other_string_any(
    length: int,
    shapes: list[tuple[int, int, int | None]],
    min_classes: int,
    excluded: str,
) -> None:
    letters = ["abc", "pqr", "xyz"]
    classes = [
        {"name": str(i), "characters": letters[i][:size], "minimum": low, "maximum": high}
        for i, (size, low, high) in enumerate(shapes)
    ]
    policy = made(length, classes, min_classes=min_classes, excluded=excluded)
    alphabet = "".join(str(c["characters"]) for c in classes)
    allowed = {
        "".join(t)
        for t in itertools.product(alphabet, repeat=length)
        if not policy.violations("".join(t))
    }
    space = PasswordSpace(policy, length)
    assert space.size_bounds == (len(allowed), len(allowed))
    if not allowed:
        with pytest.raises(SpaceEmpty):
            space.draw(EveryRank())
        return
    source = EveryRank()
    drawn = [space.draw(source) for _ in range(len(allowed))]
    assert source.bound == len(allowed)
    assert set(drawn) == allowed


def test_draws_are_uniform_by_chi_square() -> None:
    classes = [
        {"name": "a", "characters": "ab", "minimum": 1},
        {"name": "b", "characters": "xyz", "minimum": 1, "maximum": 2},
    ]
    space = PasswordSpace(made(4, classes), 4)
    size = space.size_bounds[0]
    draws = 200 * size
    source = Seeded(1)
    counts = Counter(space.draw(source) for _ in range(draws))
    expected = draws / size
    statistic = sum((c - expected) ** 2 / expected for c in counts.values())
    assert len(counts) == size
    # Mean size - 1, standard deviation sqrt(2 (size - 1)); five of them is beyond chance.
    assert abs(statistic - (size - 1)) < 5 * (2 * (size - 1)) ** 0.5


def test_the_count_of_a_plain_policy_is_a_power() -> None:
    classes = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]
    space = PasswordSpace(made(20, classes), 20)
    assert space.size_bounds == (94**20, 94**20)
    assert space.entropy_bits == 131.09


@pytest.mark.parametrize("length", [0, -1, 19, 21, 10**9, True])
def test_a_length_outside_the_policy_is_refused(length: int) -> None:
    with pytest.raises(LengthRefused):
        PasswordSpace(made(20, [{"name": "a", "characters": "ab"}]), length)


@pytest.mark.parametrize(
    ("rule", "value"), [("max_identical_run", 2), ("forbidden", ["ilse"]), ("keeps_first", 8)]
)
def test_a_rule_that_is_not_counted_is_named_rather_than_ignored(rule: str, value: object) -> None:
    with pytest.raises(RuleNotCounted) as caught:
        PasswordSpace(made(8, [{"name": "a", "characters": "ab"}], **{rule: value}), 8)
    assert caught.value.data == {"field": rule}
