"""The packed dictionaries: every word is found again, and they stay small."""

from math import log10

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.dictionaries import LISTS, Dictionaries, RankedList, dictionaries
from newknot.core.strength.reading import shape_of_letters
from newknot.core.strength.segments import SegmentKind


def test_every_listed_word_is_found_by_its_shape_as_likely_or_likelier() -> None:
    lists = dictionaries()
    for source in LISTS:
        words = shipped_bytes(source.file).decode().split()
        for rank in (1, 2, len(words) // 2, len(words)):
            word = words[rank - 1]
            key = shape_of_letters(word) if word.isalpha() else word
            taken, which, listed = lists.taken(lists.number[key])
            assert shape_of_letters(listed) == shape_of_letters(word)
            # Ranks within four tenths of each other count as equally likely.
            own = source.which_log10(rank, len(words)) - log10(source.share)
            assert which - log10(taken.share) < own + 0.3


def test_of_two_words_with_one_shape_the_likelier_is_found() -> None:
    rare = RankedList("a", SegmentKind.NAME, 0.1)
    common = RankedList("b", SegmentKind.WORD, 0.3)
    for lists in ([(rare, "bill"), (common, "bíll")], [(common, "bíll"), (rare, "bill")]):
        both = Dictionaries(lists)
        assert both.taken(both.number["biii"])[0] is common


def test_the_probabilities_of_a_list_add_up_to_one() -> None:
    source = LISTS[1]
    total = sum(10 ** -source.which_log10(rank, 30_000) for rank in range(1, 30_001))
    assert abs(total - 1) < 0.01
    assert sum(source.share for source in LISTS) < 1
