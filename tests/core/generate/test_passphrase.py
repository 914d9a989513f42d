"""The shipped words and their properties."""

import itertools
import random
import re
from typing import Any

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate import PassphraseShape, draw_passphrase
from newknot.core.generate.bits import floor_log2
from newknot.core.shipped import shipped_lines

WORDS = shipped_lines("passphrase_words.txt")


class Last:
    def randbelow(self, n: int, /) -> int:
        return n - 1


def test_the_list_is_2048_plain_words_none_the_start_of_another() -> None:
    assert len(set(WORDS)) == len(WORDS) == 2048
    assert all(re.fullmatch("[a-z]{4,8}", word) for word in WORDS)
    ordered = sorted(WORDS)
    assert not any(b.startswith(a) for a, b in itertools.pairwise(ordered))


def test_no_word_is_one_slip_from_another() -> None:
    seen: set[str] = set()
    for word in WORDS:
        slips = {word[:i] + "*" + word[i + 1 :] for i in range(len(word))}
        assert not slips & seen, word
        seen |= slips


@pytest.mark.parametrize(
    ("shape", "text", "size"),
    [
        (PassphraseShape(2), "youth youth", 2048**2),
        (PassphraseShape(3, "", capitals=True), "YouthYouthYouth", 2048**3),
        (PassphraseShape(2, "-", digit=True), "youth-youth9", 2048**2 * 20),
    ],
)
def test_a_shape_has_its_text_and_its_exact_count(
    shape: PassphraseShape, text: str, size: int
) -> None:
    drawn = draw_passphrase(Last(), shape)
    assert (drawn.text, drawn.size) == (text, size)
    assert drawn.entropy_bits == floor_log2(size)


@pytest.mark.parametrize("wrong", [{"words": 0}, {"words": 21}, {"separator": "a"}])
def test_a_shape_that_is_none_is_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(FieldInvalid):
        PassphraseShape(**wrong)


def test_joined_words_can_be_read_in_one_way_only() -> None:
    # Without a word that starts another, reading from the left never has a choice.
    listed, chance = set(WORDS), random.Random(4)
    for _ in range(300):
        words = chance.sample(WORDS, 4)
        left, read = "".join(words), []
        while left:
            heads = list({left[:i] for i in range(4, 9)} & listed)
            assert len(heads) == 1
            read.append(heads[0])
            left = left[len(heads[0]) :]
        assert read == words


@pytest.mark.parametrize("count", [1, 2, 3, 94**20, 2**200 - 1, 2**200, 2**200 + 1, 7776**7])
def test_bits_are_never_rounded_up(count: int) -> None:
    hundredths = round(floor_log2(count) * 100)
    assert 2**hundredths <= count**100 < 2 ** (hundredths + 1)
