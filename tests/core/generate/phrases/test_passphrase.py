"""Passphrases of the shipped lists: their sizes by hand, and bits never rounded up."""

import random
from typing import Any

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate import PassphraseShape, PassphraseSpace
from newknot.core.generate.bits import floor_log2
from newknot.core.policy import STANDARD_CLASSES, SitePolicy


class Source:
    def __init__(self, seed: int) -> None:
        self.randbelow = random.Random(seed).randrange


@pytest.mark.parametrize(
    ("shape", "size"),
    [
        (PassphraseShape(6), 7776**6),
        (PassphraseShape(3, "", "first"), 7776**3),
        (PassphraseShape(4, "-", list_size=4096), 2**48),
        (PassphraseShape(4, "digit"), 7776**4 * 10**3),
        (PassphraseShape(4, "symbol", "one"), 7776**4 * 32**3 * 4),
        (PassphraseShape(5, " ", "one", "digit"), 7776**5 * 5 * 10 * 6),
    ],
)
def test_a_shape_has_its_exact_count(shape: PassphraseShape, size: int) -> None:
    space = PassphraseSpace(shape)
    assert space.size == size
    assert space.entropy_bits == floor_log2(size)
    drawn = space.draw(Source(5))
    assert len(drawn.words) == shape.words
    assert all(word in drawn.text.lower() for word in drawn.words)


def test_words_to_a_policy_keep_every_rule_and_state_the_smaller_count() -> None:
    rows = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]
    policy = SitePolicy.from_dict(
        {"min_length": 8, "max_length": 30, "classes": rows, "excluded": "l0O",
         "max_identical_run": 1, "max_sequence_run": 2, "forbidden": ["art"], "min_classes": 3}
    )  # fmt: skip
    space = PassphraseSpace(PassphraseShape(4, "-", "first", "digit"), policy)
    assert 0 < space.size < 7776**4 * 50
    source = Source(9)
    for _ in range(200):
        assert policy.violations(space.draw(source).text) == ()


@pytest.mark.parametrize(
    "wrong",
    [
        {"words": 0}, {"words": 21}, {"separator": "a"}, {"capitals": "all"},
        {"addition": "letter"}, {"list_size": 12},
    ],
)  # fmt: skip
def test_a_shape_that_is_none_is_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(FieldInvalid):
        PassphraseShape(**wrong)


@pytest.mark.parametrize("kept", [{2: "abbey"}, {0: "notaword"}])
def test_a_kept_word_must_be_one(kept: dict[int, str]) -> None:
    with pytest.raises(FieldInvalid):
        PassphraseSpace(PassphraseShape(2), kept=kept)


def test_a_random_capital_word_is_refused_where_case_counts_for_nothing() -> None:
    rows = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]
    policy = SitePolicy.from_dict(
        {"min_length": 1, "max_length": 60, "classes": rows, "folds_case": True}
    )
    with pytest.raises(FieldInvalid):
        PassphraseSpace(PassphraseShape(2, "-", "one"), policy)


@pytest.mark.parametrize(
    "count", [1, 2, 3, 94**20, 715420250885, 2**200 - 1, 2**200, 2**200 + 1, 7776**7]
)
def test_bits_are_never_rounded_up(count: int) -> None:
    hundredths = round(floor_log2(count) * 100)
    assert 2**hundredths <= count**100 < 2 ** (hundredths + 1)
