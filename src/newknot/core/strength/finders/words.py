"""Words of the shipped lists and the user's own, also with look-alikes swapped or reversed."""

import re
from collections.abc import Iterator
from itertools import pairwise
from math import comb, log10

from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.context import CONTEXT_LOG10, Context
from newknot.core.strength.dictionaries import (
    BEGINNING,
    LONGEST,
    SHORTEST,
    beginnings,
    dictionaries,
)
from newknot.core.strength.rarer_words import FEE_LOG10, rarer_words
from newknot.core.strength.reading import SWAPS, Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

REVERSED_LOG10 = 1.5
"""One word in thirty is written backwards."""
SWAPPED_LOG10 = 1.1
"""One word in twelve has letters swapped for look-alikes."""
_SHORTEST_CHANGED = 4
_LETTERS = re.compile(r"[^\W\d_]{3,}")
_TWO_LETTERS = frozenset(
    (
        *("to", "of", "in", "is", "it", "on", "my", "be", "at", "as", "by", "he", "we", "or", "do"),
        *("if", "me", "no", "so", "up", "us", "go", "an", "am", "hi", "oh", "ok", "4u", "u2"),
    )
)
_TWO_LETTERS_ABROAD = frozenset(
    (
        *("es", "er", "im", "ja", "du", "wo", "zu", "ab", "ob", "je", "tu", "il", "le", "la", "de"),
        *("un", "et", "en", "au", "ce", "ne", "te", "se", "ma", "ta", "sa", "on", "ou", "el", "mi"),
        *("yo", "si", "lo", "su", "al", "di", "da", "io", "ti", "ci", "eu", "um", "os", "na", "ik"),
        *("in", "an", "am", "so", "do", "me", "no", "as", "is", "us", "my", "or", "we"),
        *("op", "ze", "zo", "ni", "om", "vi", "ya", "ty", "po"),
    )
)
_TWO_LETTERS_LOG10, _ABROAD_LOG10 = log10(1 / 0.1), log10(1 / 0.06)
_OF_TWO_LETTERS = {
    word: tuple(
        (kind, log10(len(words)), fee)
        for kind, words, fee in (
            (SegmentKind.WORD, _TWO_LETTERS, _TWO_LETTERS_LOG10),
            (SegmentKind.FOREIGN_WORD, _TWO_LETTERS_ABROAD, _ABROAD_LOG10),
        )
        if word in words
    )
    for word in _TWO_LETTERS | _TWO_LETTERS_ABROAD
}
_PARTS, _OF_LANGUAGE_LOG10 = {SegmentKind.FOREIGN_WORD: Part.ABROAD}, 0.3
"""Which language it is, is told once: by the chain."""


def words(reading: Reading, context: Context) -> Iterator[Found]:
    """Every stretch of 3 to 24 characters that is a listed word in some guise.

    Words with digits of their own begin and end where letters, digits and symbols meet; words
    written backwards begin or end a run of letters.
    """
    low, shaped = reading.low, reading.shaped
    lists, own = dictionaries(), context.shapes
    number_of = lists.number
    n, backwards = len(low), shaped[::-1]
    edges = _edges(low)
    # Most stretches begin as no word does, and are not looked up.
    begins, begins_turned = (_may_begin(one, lists.begins, context) for one in (shaped, backwards))
    for run in _LETTERS.finditer(shaped):
        first, last = run.span()
        for start in range(first, last - SHORTEST + 1):
            stop = min(last, start + LONGEST) + 1 if begins[start] else start + BEGINNING
            for end in range(start + SHORTEST, stop):
                key = shaped[start:end]
                if key in number_of or key in own:
                    yield from _shaped(reading, start, end, key, context)
        for start, end in _at_an_edge(first, last):
            if begins_turned[n - end]:
                turned = backwards[n - end : n - start]
                is_word = turned in number_of or turned in own
                if is_word and turned != shaped[start:end]:
                    yield from _backwards(reading, start, end, turned, context)
    yield from _rarer(reading)
    if len(edges) == 2 and low.isalpha():
        return
    begins = _may_begin(low, lists.begins, context)
    for at, start in enumerate(edges):
        most = LONGEST if begins[start] else BEGINNING - 1
        for end in edges[at + 1 :]:
            if end - start > most:
                break
            if end - start >= SHORTEST:
                raw = low[start:end]
                if not raw.isalpha() and (raw in number_of or raw in own):
                    yield from _raw(reading, start, end, raw, context)


def _may_begin(shaped: str, begins: bytearray, context: Context) -> list[int]:
    """For each place of a text, whether a word may begin there, of four letters or more."""
    codes, own = beginnings(shaped), context.begins
    may = [begins[code] or code in own for code in codes] if own else [begins[c] for c in codes]
    return [*may, *[0] * (len(shaped) + 1 - len(may))]


def _at_an_edge(first: int, last: int) -> Iterator[tuple[int, int]]:
    """The stretches of a run of letters that begin or end with it."""
    for end in range(first + _SHORTEST_CHANGED, min(last, first + LONGEST) + 1):
        yield first, end
    for start in range(max(first + 1, last - LONGEST), last - _SHORTEST_CHANGED + 1):
        yield start, last


def _edges(low: str) -> list[int]:
    """Where letters, digits and symbols meet, and both ends."""
    classes = [2 if c.isalpha() else c.isdigit() for c in low]
    meet = (at for at, (a, b) in enumerate(pairwise(classes), 1) if a != b)
    return [0, *meet, len(low)]


def _rarer(reading: Reading) -> Iterator[Found]:
    """Words that are in none of the lists, and in the greater one."""
    number_of = dictionaries().number
    for start, end, in_list in rarer_words(reading.shaped):
        key = reading.shaped[start:end]
        guise = _guise(reading, start, end)
        if guise is not None and key not in number_of:
            which, pattern = guise
            which, pattern = which + in_list, pattern + FEE_LOG10
            yield Found(start, end, Part.WORD, which, pattern, SegmentKind.RARE_WORD)


def _guise(reading: Reading, start: int, end: int) -> tuple[float, float] | None:
    """-log10 of the capitals and swapped letters among all such, and of their pattern; None where
    hardly a letter is left.
    """
    typed = reading.low[start:end]
    which, pattern = case_log10(reading.text, start, end)
    if not typed.isalpha():
        swapped = sum(c in SWAPS for c in typed)
        if end - start < _SHORTEST_CHANGED or 4 * swapped > 3 * (end - start):
            return None
        which += log10(comb(end - start, swapped)) / 2
        pattern += SWAPPED_LOG10
    return which, pattern


def _shaped(reading: Reading, start: int, end: int, key: str, context: Context) -> Iterator[Found]:
    guise = _guise(reading, start, end)
    if guise is None:
        return
    which, pattern = guise
    typed = reading.low[start:end]
    for kind, in_list, of_list, word in _entries(key, context):
        if _same_letters(typed, word):
            part = _PARTS.get(kind, Part.WORD)
            yield Found(start, end, part, which + in_list, pattern + of_list, kind, word)


def _raw(reading: Reading, start: int, end: int, raw: str, context: Context) -> Iterator[Found]:
    which, pattern = 0.0, 0.0
    if any(c.isalpha() for c in raw):
        which, pattern = case_log10(reading.text, start, end)
    for kind, in_list, of_list, word in _entries(raw, context):
        yield Found(
            start, end, _PARTS.get(kind, Part.WORD), which + in_list, pattern + of_list, kind, word
        )


def _backwards(
    reading: Reading, start: int, end: int, key: str, context: Context
) -> Iterator[Found]:
    typed = reading.low[start:end][::-1]
    if not typed.isalpha():
        return
    which, pattern = case_log10(reading.text, start, end)
    pattern += REVERSED_LOG10
    for kind, in_list, of_list, word in _entries(key, context):
        if _same_letters(typed, word):
            part = _PARTS.get(kind, Part.WORD)
            yield Found(start, end, part, which + in_list, pattern + of_list, kind, word)


def _entries(key: str, context: Context) -> Iterator[tuple[SegmentKind, float, float, str]]:
    """Kind, -log10 of the word within its list, of the list, and the word."""
    own = context.shapes.get(key)
    if own is not None:
        yield SegmentKind.CONTEXT, context.which_log10, CONTEXT_LOG10, own
    lists = dictionaries()
    for number in (lists.number.get(key), lists.abroad.get(key)):
        if number is None:
            continue
        source, which, word = lists.taken(number)
        of_list = -log10(source.share)
        if source.kind is SegmentKind.FOREIGN_WORD:
            of_list = _OF_LANGUAGE_LOG10
        yield source.kind, which, of_list, word


def _same_letters(typed: str, word: str) -> bool:
    """Whether l and i, which share a shape, stand where the word has them; a word whose accents
    are spelt out passes.
    """
    if typed == word or len(typed) != len(word):
        return True
    return all(a == b or a not in "li" for a, b in zip(typed, word, strict=True))


def short_words(reading: Reading) -> Iterator[Found]:
    """Words of two letters, which no list holds: my, is, to; es, je, ya."""
    for at, (a, b) in enumerate(pairwise(reading.low)):
        for kind, which, fee in _OF_TWO_LETTERS.get(a + b, ()):
            in_case, pattern = case_log10(reading.text, at, at + 2)
            part, which = _PARTS.get(kind, Part.WORD), which + in_case
            yield Found(at, at + 2, part, which, pattern + fee, kind, a + b)
