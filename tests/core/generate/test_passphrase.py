"""The shipped words and their properties."""

import itertools
import re

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate import draw_passphrase
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


def test_bits_are_those_of_the_draw() -> None:
    drawn = draw_passphrase(Last(), words=6)
    assert drawn.words == (WORDS[-1],) * 6
    assert drawn.entropy_bits == 66.0
    with pytest.raises(FieldInvalid):
        draw_passphrase(Last(), words=0)


@pytest.mark.parametrize("count", [1, 2, 3, 94**20, 2**200 - 1, 2**200, 2**200 + 1, 7776**7])
def test_bits_are_never_rounded_up(count: int) -> None:
    hundredths = round(floor_log2(count) * 100)
    assert 2**hundredths <= count**100 < 2 ** (hundredths + 1)
