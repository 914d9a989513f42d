"""Words beyond the ranked lists, 450,000 of them by hash: common enough to be guessed, and too much
for memory as text.

The file is prebuilt and read at once: hashes of the words' shapes in order, 8 bytes each, then how
rare each is, a byte each. A polynomial hash (R. Karp and M. Rabin, 1987), so that all stretches of
a text are looked up together from sums over its beginnings.
"""

import re
from array import array
from bisect import bisect_left
from collections.abc import Iterator, Sequence
from functools import cache
from itertools import accumulate
from math import log10

import numpy as np
from numpy.typing import NDArray

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.dictionaries import RARER_SHARE, RankedList
from newknot.core.strength.reading import FULLY_READ
from newknot.core.strength.segments import SegmentKind

MOST = 450_000
SHORTEST, LONGEST = 4, 20
"""Letters of a word."""
_FILE = "languages/rarer_words.bin"
_STEPS_PER_ORDER = 40
_BASE, _MASK = 0x9E37_79B9_7F4A_7C15, (1 << 64) - 1
_POWERS = [pow(_BASE, at, 1 << 64) for at in range(FULLY_READ)]
_INVERSES = [pow(_BASE, -at, 1 << 64) for at in range(FULLY_READ)]
_MARK_BITS = 23
"""A mark for each beginning of a hash in so many bits: one in twenty is set."""
_TO_BIT, _TO_BYTE = 64 - _MARK_BITS, 64 - _MARK_BITS + 3
_RUN = re.compile(r"[^\W\d_]{4,}")
_LIST = RankedList(_FILE, SegmentKind.RARE_WORD, RARER_SHARE, 0.4)

Hashes = NDArray[np.uint64]


def hash_of(shape: str) -> int:
    """The hash of a shape of at most 128 characters: its code points as digits to the base, modulo
    2^64.
    """
    return sum((ord(c) + 1) * power for c, power in zip(shape, _POWERS, strict=False)) & _MASK


def packed(hashes: Hashes) -> bytes:
    """The file of words that are given in their order, the likeliest first."""
    costs = [_LIST.which_log10(rank, len(hashes)) for rank in range(1, len(hashes) + 1)]
    steps = np.array([round(_STEPS_PER_ORDER * cost) for cost in costs], dtype=np.uint8)
    order = np.argsort(hashes)
    return hashes[order].astype("<u8").tobytes() + steps[order].tobytes()


@cache
def _words() -> tuple[Sequence[int], bytes]:
    """Hashes in order, and how rare each is."""
    raw = shipped_bytes(_FILE)
    count = len(raw) // 9
    hashes = np.frombuffer(raw, dtype="<u8", count=count).astype(np.uint64)
    return array("Q", hashes.tobytes()), raw[8 * count :]


@cache
def _marks() -> bytes:
    """Eight marks in a byte. What has none is no word, and is not looked for among all of them,
    which lie farther away than a processor keeps at hand.
    """
    marks = np.zeros(1 << _MARK_BITS, dtype=np.uint8)
    marks[np.array(_words()[0]) >> np.uint64(_TO_BIT)] = 1
    return np.packbits(marks, bitorder="little").tobytes()


def _place(found: int) -> int | None:
    """Where a hash stands among the words'."""
    words, _ = _words()
    place = bisect_left(words, found)
    return place if place < len(words) and words[place] == found else None


def is_rarer(shape: str) -> bool:
    """Whether a shape of any length is one of these words."""
    if len(shape) > LONGEST:
        return False
    found = hash_of(shape)
    is_marked = _marks()[found >> _TO_BYTE] >> (found >> _TO_BIT & 7) & 1
    return bool(is_marked) and _place(found) is not None


def rarer_words(shaped: str) -> Iterator[tuple[int, int, float]]:
    """(start, end, -log10 of the word's probability within the list) of every stretch of a shape of
    at most 128 characters that is one of them.
    """
    marks = _marks()
    for run in _RUN.finditer(shaped):
        first, last = run.span()
        letters = last - first
        terms = ((ord(c) + 1) * power for c, power in zip(run.group(), _POWERS, strict=False))
        sums = list(accumulate(terms, initial=0))
        for start in range(letters - SHORTEST + 1):
            before, inverse = sums[start], _INVERSES[start]
            for end in range(start + SHORTEST, min(letters, start + LONGEST) + 1):
                found = (sums[end] - before) * inverse & _MASK
                if marks[found >> _TO_BYTE] >> (found >> _TO_BIT & 7) & 1:
                    place = _place(found)
                    if place is not None:
                        yield first + start, first + end, _words()[1][place] / _STEPS_PER_ORDER


FEE_LOG10 = -log10(RARER_SHARE)
"""Of the choice of this list."""
