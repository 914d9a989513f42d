"""Counts against listing, ranks one for one, draws by chi-square, and bounds where it is large."""

import itertools
import math
import random
from collections import Counter
from typing import Any

import pytest

from newknot.core.generate import PasswordSpace
from newknot.core.generate.characters.layered import LayeredSpace
from newknot.core.generate.characters.order_free import OrderFreeSpace
from newknot.core.generate.characters.password_space import (
    LengthRefused,
    SpaceEmpty,
    SpaceTooCostly,
)
from newknot.core.policy import STANDARD_CLASSES, SitePolicy


class Seeded:
    def __init__(self, seed: int) -> None:
        self._random = random.Random(seed)

    def randbelow(self, n: int, /) -> int:
        return self._random.randrange(n)


def made(length: int, classes: list[dict[str, Any]], **rules: Any) -> SitePolicy:
    document = {"min_length": length, "max_length": length, "classes": classes, **rules}
    return SitePolicy.from_dict(document)


def any_policy(chance: random.Random) -> dict[str, Any]:
    """A small policy of any rules, whose strings can all be listed."""
    pools = chance.sample(
        ["abc", "ABC", "123", "def", "-_", "aA", "bBcC", "zyx"], chance.randint(1, 3)
    )
    classes: list[dict[str, Any]] = []
    seen: set[str] = set()
    for i, pool in enumerate(pools):
        characters = "".join(c for c in pool if c not in seen)
        seen |= set(pool)
        if characters:
            one = {"name": str(i), "characters": characters, "minimum": chance.choice([0, 0, 1, 2])}
            most = chance.choice([None, None, 1, 2, 3])
            classes.append(one if most is None else {**one, "maximum": most})
    length = chance.randint(1, 4)
    alphabet = sorted(seen)
    words = ["".join(chance.choices("abcABC123-", k=chance.randint(1, 3))) for _ in range(2)]
    optional: dict[str, tuple[float, Any]] = {
        "min_classes": (0.3, chance.randint(0, 3)),
        "max_identical_run": (0.35, chance.randint(1, 3)),
        "max_sequence_run": (0.35, chance.randint(1, 3)),
        "first_from": (0.25, "".join(chance.sample(alphabet, chance.randint(0, len(alphabet))))),
        "last_from": (0.25, "".join(chance.sample(alphabet, chance.randint(0, len(alphabet))))),
        "distinct": (0.15, True),
        "max_uses": (0.2, chance.randint(1, 3)),
        "forbidden": (0.35, words),
        "excluded": (0.2, chance.choice(["a", "1b", "-"])),
        "keeps_first": (0.2, chance.randint(1, 4)),
        "folds_case": (0.3, True),
    }
    rules = {name: value for name, (odds, value) in optional.items() if chance.random() < odds}
    return {"min_length": length, "max_length": length, "classes": classes, **rules}


def listed(policy: SitePolicy) -> tuple[set[str], set[str]]:
    """(every allowed string, every form that the site keeps of one)."""
    length = policy.min_length
    alphabet = "".join(c.characters for c in policy.usable_classes())
    texts = ("".join(t) for t in itertools.product(alphabet, repeat=length))
    allowed = {text for text in texts if not policy.violations(text)}
    cut = {text[: policy.keeps_first or length] for text in allowed}
    return allowed, {text.lower() for text in cut} if policy.folds_case else cut


@pytest.mark.parametrize("seed", range(2))
def test_every_count_is_that_of_listing_and_every_allowed_string_is_drawn(seed: int) -> None:
    chance = random.Random(seed)
    for _ in range(110):
        policy = SitePolicy.from_dict(any_policy(chance))
        length = policy.min_length
        allowed, kept = listed(policy)
        space = PasswordSpace(policy, length)
        assert space.size_bounds == (len(kept), len(kept)), policy
        if not kept:
            with pytest.raises(SpaceEmpty):
                space.draw(Seeded(seed))
            continue
        drawn = [space.draw(Seeded(seed + i)) for i in range(20)]
        assert set(drawn) <= allowed, policy


@pytest.mark.parametrize("seed", range(2))
def test_where_kept_forms_are_too_many_to_list_the_bounds_hold(seed: int) -> None:
    chance = random.Random(seed)
    tight = 0
    for _ in range(110):
        document = any_policy(chance)
        document["folds_case"] = chance.random() < 0.5
        document["max_uses"] = chance.choice([None, 1, 2])
        policy = SitePolicy.from_dict({**document, "distinct": False})
        length = policy.min_length
        allowed, kept = listed(policy)
        space = PasswordSpace(policy, length, work_most=5_000)
        low, high = space.size_bounds
        assert low <= len(kept) <= high, policy
        bounded = PasswordSpace(policy, length, work_most=1)
        low, high = bounded.size_bounds
        assert low <= len(kept) <= high, policy
        tight += 0 < low <= high
        try:
            assert bounded.draw(Seeded(seed)) in allowed
        except (SpaceEmpty, SpaceTooCostly):
            assert low == 0
    assert tight > 9


@pytest.mark.parametrize("seed", range(3))
def test_ranks_of_the_automaton_are_the_strings_one_for_one(seed: int) -> None:
    chance = random.Random(seed)
    for _ in range(40):
        document = {**any_policy(chance), "max_uses": None, "distinct": False, "folds_case": False}
        policy = SitePolicy.from_dict(document)
        length, kept = policy.min_length, policy.keeps_first or policy.min_length
        # Of its own, or from what was counted for one character less or more.
        other = length + chance.choice((-1, 0, 1))
        beside = None if other in (0, length) else LayeredSpace(policy, other)
        layered = LayeredSpace(policy, length, kept=kept, beside=beside)
        begun = [layered.unrank(rank) for rank in range(layered.size)]
        whole = [
            layered.finish(text, rank) for text in begun for rank in range(layered.endings(text))
        ]
        alphabet = "".join(c.characters for c in policy.usable_classes())
        texts = ("".join(t) for t in itertools.product(alphabet, repeat=length))
        assert sorted(whole) == sorted(t for t in texts if not policy.violations(t)), policy
        assert len(set(begun)) == len(begun)


@pytest.mark.parametrize("uses", [1, 2])
def test_ranks_under_a_limit_of_uses_are_the_strings_one_for_one(uses: int) -> None:
    classes: list[dict[str, Any]] = [
        {"name": "a", "characters": "abc", "minimum": 1},
        {"name": "b", "characters": "xy"},
    ]
    space = OrderFreeSpace(made(4, classes, max_uses=uses, min_classes=2), 4)
    strings = {space.unrank(rank) for rank in range(space.size)}
    assert len(strings) == space.size
    assert all(max(Counter(text).values()) <= uses for text in strings)
    assert {text[0] for text in strings} == set("abcxy")
    assert sum(first for _, first in space.first_by_class()) == space.size


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


def test_a_site_may_take_more_than_is_drawn() -> None:
    policy = SitePolicy.from_dict({"min_length": 8, "max_length": 4096, "classes": EVERY})
    assert PasswordSpace(policy, 256).size_bounds[0] > 0
    with pytest.raises(LengthRefused):
        PasswordSpace(policy, 257)


@pytest.mark.parametrize("length", [0, -1, 19, 21, 10**9, True])
def test_a_length_outside_the_policy_is_refused(length: int) -> None:
    with pytest.raises(LengthRefused):
        PasswordSpace(made(20, [{"name": "a", "characters": "ab"}]), length)


EVERY = [{"name": n, "characters": c, "minimum": 1} for n, c in STANDARD_CLASSES.items()]
WORDS = [f"{a}{b}ntry" for a in "bcdfghjklm" for b in "aeiou"]


@pytest.mark.parametrize("uses", [1, 2, 3])
@pytest.mark.parametrize(
    "rules",
    [
        {"folds_case": True},
        {"folds_case": True, "max_identical_run": 1, "first_from": "abcABC"},
        {"folds_case": True, "keeps_first": 8, "max_sequence_run": 2, "last_from": "0123456789"},
        {"keeps_first": 8, "max_sequence_run": 2, "forbidden": WORDS[:20]},
        {"keeps_first": 12, "max_identical_run": 1, "last_from": "xyzXYZ"},
    ],
)
def test_limits_of_use_go_with_folded_case_with_a_cut_and_with_neighbours(
    uses: int, rules: dict[str, Any]
) -> None:
    policy = made(16, EVERY, max_uses=uses, **rules)
    space = PasswordSpace(policy, 16)
    low, high = space.size_bounds
    assert 0 < low <= high
    drawn = [space.draw(Seeded(i)) for i in range(20)]
    assert not any(policy.violations(text) for text in drawn) and len(set(drawn)) == 20


@pytest.mark.parametrize(
    ("length", "rules"),
    [
        (64, {"forbidden": WORDS}),
        (128, {"forbidden": WORDS, "max_identical_run": 2, "max_sequence_run": 3}),
        (24, {"distinct": True, "max_sequence_run": 3, "first_from": "abcdefghijklmnopqrstuvwxyz"}),
        (256, {"max_identical_run": 2}),
        (20, {"max_sequence_run": 2, "max_identical_run": 1, "min_classes": 4}),
    ],
)
def test_large_policies_have_proven_bounds_and_draws_that_keep_every_rule(
    length: int, rules: dict[str, Any]
) -> None:
    policy = made(length, EVERY, **rules)
    space = PasswordSpace(policy, length)
    low, high = space.size_bounds
    assert low <= high <= 94**length
    if low == 0:
        with pytest.raises(SpaceTooCostly):
            space.draw(Seeded(0))
        return
    drawn = [space.draw(Seeded(i)) for i in range(30)]
    assert not any(policy.violations(text) for text in drawn) and len(set(drawn)) == 30
    assert low > 0 and space.entropy_bits <= math.log2(low) < space.entropy_bits + 0.011


def test_a_site_that_folds_or_cuts_is_worth_what_it_keeps() -> None:
    whole = PasswordSpace(made(20, EVERY), 20)
    cut = PasswordSpace(made(20, EVERY, keeps_first=12), 20)
    folds = PasswordSpace(made(20, EVERY, folds_case=True), 20)
    assert cut.entropy_bits < 12 * 6.56 < folds.entropy_bits < 20 * 6.09 < whole.entropy_bits
    assert folds.size_bounds[0] < 68**20


def test_beginnings_that_nothing_completes_are_not_drawn() -> None:
    few = [{"name": str(i), "characters": c, "minimum": 1} for i, c in enumerate(("ab", "01"))]
    for rules in ({"max_uses": 1, "keeps_first": 2}, {"distinct": True}):
        assert PasswordSpace(made(5, few, **rules), 5).size_bounds == (0, 0)
    both = [*few, {"name": "s", "characters": "-+", "minimum": 1}]
    cut = PasswordSpace(made(3, both, max_uses=2, keeps_first=2), 3)
    drawn = {cut.draw(Seeded(i)) for i in range(300)}
    # Of two kept, one of each of two kinds, in either order: the third kind stands behind.
    kinds = ("ab", "01", "-+")
    pairs = itertools.permutations("ab01-+", 2)
    assert {text[:2] for text in drawn} == {
        a + b for a, b in pairs if not any(a in kind and b in kind for kind in kinds)
    }
    assert not any(made(3, both, max_uses=2).violations(text) for text in drawn)


def test_forbidden_texts_within_others_and_across_case_are_seen() -> None:
    classes = [{"name": "l", "characters": "abAB"}]
    space = PasswordSpace(made(3, classes, forbidden=["ab", "aab", "zz", "bbbb"]), 3)
    texts = ("".join(t) for t in itertools.product("abAB", repeat=3))
    assert space.size_bounds[0] == sum("ab" not in text.lower() for text in texts)


def test_one_character_in_runs_may_be_parted_by_what_is_of_no_other_class() -> None:
    classes: list[dict[str, Any]] = [
        {"name": "digit", "characters": "1", "minimum": 2},
        {"name": "letters", "characters": "aAbB"},
    ]
    policy = made(4, classes, max_uses=3, max_identical_run=1, folds_case=True)
    _, kept = listed(policy)
    assert "1a1b" in kept
    assert PasswordSpace(policy, 4).size_bounds == (len(kept), len(kept))
