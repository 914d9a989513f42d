"""How much a text reads like words: by how letters follow, and by the words of the lists."""

import re
from bisect import bisect_right
from functools import cache
from itertools import accumulate
from math import inf

import numpy as np
from numpy.typing import NDArray

from newknot.core.strength.dictionaries import dictionaries
from newknot.core.strength.letter_chain import (
    EDGE,
    LETTERS,
    STEPS_PER_ORDER,
    letter_number,
    triples,
)
from newknot.core.strength.rarer_words import is_rarer
from newknot.core.strength.reading import shape_of_letters

WORD_LEAST = 4
"""Letters of a word that counts."""
NO_LETTERS = 2.0
"""What a text without letters of a to z reads like: letters by chance."""
_BETTER, _LIKE_WORDS = 0.15, 1.4
"""Orders a letter by which a view has to read better than the text itself, and at most: words take
0.9 to 1.2, letters by chance 1.7 and more.
"""
_RUNS_LEAST = 0.4
"""Share of the letters that stand together in what reads like words; by chance a few do."""
_LISTED_LEAST = 0.6
"""Of a text with letters for digits, more than this share is a word of a list."""
_RUN = re.compile(r"[^\W\d_]{3,}")
_WORD_RUN = re.compile(r"[^\W\d_]{4,}")
_FOREIGN_RUN = re.compile(r"[a-zA-Z]*[^\W\d_a-zA-Z][^\W\d_]*")
_NOT_ASCII = re.compile(r"[^\x00-\x7f]")
_ALPHABET = "abcdefghijklmnopqrstuvwxyz"


def like_words(texts: list[str], is_frame: list[bool], *, only_listed: bool = False) -> list[float]:
    """Of each text but the first, how much it reads like words where the first does not, the less
    the better; infinity where it does not. is_frame: of each, whether the first may do so too.
    only_listed: by words of the lists alone, not by how letters follow.
    """
    own, *costs = letter_costs(texts)
    # Most views read no better, and are not looked up.
    may_hold = [cost < own or cost == NO_LETTERS for cost in costs]
    own_held, *held_by = _word_letters(
        [texts[0], *(one for one, may in zip(texts[1:], may_hold, strict=True) if may)],
        rarer=not only_listed,
    )
    in_turn = iter(held_by)
    scores = []
    for one, cost, may, may_be_like in zip(texts[1:], costs, may_hold, is_frame, strict=True):
        held = next(in_turn) if may else 0
        is_better = not only_listed and (may_be_like or cost < own - _BETTER)
        is_held = held > own_held and (not only_listed or held > _LISTED_LEAST * len(one))
        islike_words = is_held or (is_better and cost < _LIKE_WORDS)
        is_run = islike_words and _runs(one) >= _RUNS_LEAST * len(one)
        scores.append(cost - held / len(one) if is_run else inf)
    return scores


def _runs(text: str) -> int:
    """Letters that stand at least three together."""
    return sum(map(len, _RUN.findall(text)))


def _word_letters(texts: list[str], *, rarer: bool = True) -> list[int]:
    """Of each text, the letters of the runs that a list holds as they stand; rarer: or that of
    rarer words.
    """
    known, letters = dictionaries().number, [0] * len(texts)
    shapes = [shape_of_letters(text.lower()) for text in texts]
    ends = list(accumulate(len(shape) + 1 for shape in shapes))
    shaped = "\n".join(shapes)
    for run in _WORD_RUN.finditer(shaped):
        word = run.group()
        if word in known or (rarer and len(word) > WORD_LEAST and is_rarer(word)):
            letters[bisect_right(ends, run.start())] += len(word)
    return letters


def letter_costs(texts: list[str]) -> list[float]:
    """Of each text, orders of ten a letter, by how letters follow in words. Runs of letters of
    another script do not count, nor do those of fewer than three.
    """
    texts = [text if text.isascii() else _without_foreign(text) for text in texts]
    letters = letters_of_bytes()[
        np.frombuffer("\n".join(["", *texts, "", ""]).encode(), dtype=np.uint8)
    ]
    is_letter = letters > EDGE
    three = is_letter[:-2] & is_letter[1:-1] & is_letter[2:]
    counts = np.zeros(len(letters), dtype=np.intp)
    counts[:-2] = three
    counts[1:-1] |= three
    counts[2:] |= three
    # A run begins anew behind what is no letter.
    second = letters[1:-1]
    first = letters[:-2] * is_letter[1:-1]
    costs = np.zeros(len(letters), dtype=np.intp)
    costs[2:] = _triples()[(first * LETTERS + second) * LETTERS + letters[2:]] * counts[2:]
    if is_letter[1]:
        costs[1] = _triples()[letters[1]] * counts[1]
    starts = list(accumulate((len(text) + 1 for text in texts), initial=1))
    totals, many = (np.add.reduceat(one, starts[:-1]).tolist() for one in (costs, counts))
    return [
        total / STEPS_PER_ORDER / count if count > 2 else NO_LETTERS
        for total, count in zip(totals, many, strict=True)
    ]


def _without_foreign(text: str) -> str:
    return _NOT_ASCII.sub("\n", _FOREIGN_RUN.sub("\n", text))


@cache
def letters_of_bytes() -> NDArray[np.intp]:
    """Of each byte: 1 to 26 for a letter in either case, else the edge of a word."""
    numbers = np.zeros(256, dtype=np.intp)
    for c in _ALPHABET:
        numbers[ord(c)] = numbers[ord(c.upper())] = letter_number(c)
    return numbers


@cache
def _triples() -> NDArray[np.uint8]:
    return np.frombuffer(triples(), dtype=np.uint8)
