"""The properties that the shipped word lists are built to have."""

import itertools
import json
import random
import re
from pathlib import Path

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate.phrases.word_list import LIST_SIZES, word_list
from newknot.core.shipped import shipped_lines

ROOT = Path(__file__).parents[4]
VECTORS = ROOT / "tests" / "vectors"
each_list = pytest.mark.parametrize("size", LIST_SIZES)


@each_list
def test_so_many_plain_short_words_in_order_none_the_start_of_another(size: int) -> None:
    words = word_list(size)
    assert len(set(words)) == len(words) == size
    assert list(words) == sorted(words)
    assert all(re.fullmatch("[a-z]{3,9}", word) for word in words)
    assert not any(b.startswith(a) for a, b in itertools.pairwise(words))


@each_list
def test_no_word_is_one_slip_from_another(size: int) -> None:
    """A letter other, missing, added, or two neighbours swapped."""
    listed = set(word_list(size))
    blotted: set[str] = set()
    for word in listed:
        blots = {f"{word[:i]}*{word[i + 1 :]}" for i in range(len(word))}
        assert not blots & blotted, word
        blotted |= blots
        shorter = {word[:i] + word[i + 1 :] for i in range(len(word))}
        swapped = {word[:i] + word[i + 1] + word[i] + word[i + 2 :] for i in range(len(word) - 1)}
        assert not (shorter | swapped - {word}) & listed, word


@each_list
def test_no_two_sound_alike_and_none_is_spelt_in_two_ways(size: int) -> None:
    listed = set(word_list(size))
    groups = json.loads((VECTORS / "homophones.json").read_text())["groups"]
    assert not [group for group in groups if len(listed.intersection(group)) > 1]
    other = json.loads((VECTORS / "two_spellings.json").read_text())["words"]
    assert not listed.intersection(other)


@each_list
def test_no_names_nothing_denied_and_no_plain_forms_of_one_another(size: int) -> None:
    listed = set(word_list(size))
    assert not listed.intersection(shipped_lines("given_names.txt.gz")[:300])
    for line in (ROOT / "scripts/words/deny_words.txt").read_text("utf-8").splitlines():
        assert not listed.intersection(line.split("#")[0].split())
    for ending in ("s", "es", "ed", "ing", "er", "est"):
        assert not [word for word in listed if word + ending in listed]


def test_the_words_are_common_ones() -> None:
    ranks = {word: rank for rank, word in enumerate(shipped_lines("english_words.txt.gz"))}
    for size, share in ((7776, 0.85), (4096, 0.95)):
        known = [ranks[word] for word in word_list(size) if word in ranks]
        assert len(known) >= share * size
    assert sorted(known)[len(known) // 2] < 7_000


def test_joined_words_can_be_read_in_one_way_only() -> None:
    # Without a word that starts another, reading from the left never has a choice.
    words, chance = word_list(), random.Random(4)
    listed = set(words)
    for _ in range(300):
        chosen = chance.sample(words, 4)
        left, read = "".join(chosen), []
        while left:
            heads = list({left[:i] for i in range(3, 10)} & listed)
            assert len(heads) == 1
            read.append(heads[0])
            left = left[len(heads[0]) :]
        assert read == chosen


def test_a_list_that_does_not_ship_is_refused() -> None:
    with pytest.raises(FieldInvalid):
        word_list(2048)
