"""The properties that the shipped word lists are built to have."""

import itertools
import json
import math
import random
import re
import unicodedata
from pathlib import Path

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate.phrases.word_list import LIST_SIZES, word_list
from newknot.core.shipped import shipped_lines
from newknot.core.strength import measure

ROOT = Path(__file__).parents[4]
VECTORS = ROOT / "tests" / "vectors"
each_list = pytest.mark.parametrize(
    ("language", "size"), [(code, size) for code, sizes in LIST_SIZES.items() for size in sizes]
)
english = pytest.mark.parametrize("size", LIST_SIZES["en"])
LETTERS = {"en": "[a-z]{3,9}", "ru": "[а-я]{4,9}"}


@each_list
def test_so_many_plain_short_words_in_order_none_the_start_of_another(
    language: str, size: int
) -> None:
    words = word_list(size, language)
    assert len(set(words)) == len(words) == size
    assert list(words) == sorted(words)
    letters = LETTERS.get(language, "[a-z]{4,9}")
    assert all(re.fullmatch(letters, word) for word in words)
    assert not any(b.startswith(a) for a, b in itertools.pairwise(words))


@each_list
def test_no_word_is_one_slip_from_another(language: str, size: int) -> None:
    """A letter other, missing, added, or two neighbours swapped."""
    listed = set(word_list(size, language))
    blotted: set[str] = set()
    for word in listed:
        blots = {f"{word[:i]}*{word[i + 1 :]}" for i in range(len(word))}
        assert not blots & blotted, word
        blotted |= blots
        shorter = {word[:i] + word[i + 1 :] for i in range(len(word))}
        swapped = {word[:i] + word[i + 1] + word[i] + word[i + 2 :] for i in range(len(word) - 1)}
        assert not (shorter | swapped - {word}) & listed, word


@english
def test_no_two_sound_alike_and_none_is_spelt_in_two_ways(size: int) -> None:
    listed = set(word_list(size))
    groups = json.loads((VECTORS / "homophones.json").read_text())["groups"]
    assert not [group for group in groups if len(listed.intersection(group)) > 1]
    other = json.loads((VECTORS / "two_spellings.json").read_text())["words"]
    assert not listed.intersection(other)


@english
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
    for size, language, field in (
        (2048, "en", "list_size"),
        (2048, "tlh", "language"),
        (7776, "de", "list_size"),
    ):
        with pytest.raises(FieldInvalid) as refused:
            word_list(size, language)
        assert refused.value.data["field"] == field


def test_what_a_reader_left_out_of_other_languages_is_out_and_so_are_names() -> None:
    out: dict[str, set[str]] = {}
    text = (ROOT / "scripts/words/deny_words_abroad.txt").read_text("utf-8")
    for code, *words in (line.split() for line in text.splitlines() if line[:1] != "#"):
        out.setdefault(code, set()).update(words)
    names = set(shipped_lines("given_names.txt.gz")) | set(shipped_lines("names_abroad.txt.gz"))
    assert out.keys() == LIST_SIZES.keys() - {"en"}
    for code, denied in out.items():
        assert not set(word_list(2048, code)) & (denied | names)


def test_no_accent_alone_tells_a_word_from_a_common_one() -> None:
    """Of the commonest 15,000 of each language."""
    for code in ("de", "fr", "es"):
        listed = set(word_list(2048, code))
        for word in shipped_lines(f"languages/{code}.txt.gz"):
            apart = unicodedata.normalize("NFD", word.replace("ß", "ss"))
            bare = "".join(c for c in apart if not unicodedata.combining(c))
            assert bare == word or bare not in listed


def test_the_measure_knows_the_lists_of_every_language() -> None:
    chance = random.Random(5)
    for code in LIST_SIZES:
        words = chance.sample(word_list(LIST_SIZES[code][0], code), 5)
        drawn_log10 = 5 * math.log10(LIST_SIZES[code][0])
        found = measure(" ".join(words)).guess_number_log10
        assert found == pytest.approx(drawn_log10, abs=1.5), code
