"""Words beyond the ranked lists, 450,000 of them by hash: common enough to be guessed, and too much
for memory as text.

The file is prebuilt and read at once: hashes of the words' shapes in order, 8 bytes each, then how
rare each is, a byte each. A polynomial hash (R. Karp and M. Rabin, 1987), so that all stretches of
a text are looked up together from sums over its beginnings.
"""

import re
from collections.abc import Iterator
from functools import cache
from math import log10

import numpy as np
from numpy.typing import NDArray

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.dictionaries import RARER_SHARE, RankedList
from newknot.core.strength.segments import SegmentKind

MOST = 450_000
SHORTEST, LONGEST = 4, 20
"""Letters of a word."""
_FILE = "languages/rarer_words.bin"
_STEPS_PER_ORDER = 40
_BASE = 0x9E37_79B9_7F4A_7C15
_INVERSE = pow(_BASE, -1, 1 << 64)
_MASK = (1 << 64) - 1
_READ_MOST = 128
_RUN = re.compile(r"[^\W\d_]{4,}")
_LIST = RankedList(_FILE, SegmentKind.RARE_WORD, RARER_SHARE, 0.4)

Hashes = NDArray[np.uint64]


def hash_of(shape: str) -> int:
    """The hash of a shape: its code points as digits to the base, modulo 2^64."""
    found, power = 0, 1
    for c in shape:
        found = (found + (ord(c) + 1) * power) & _MASK
        power = power * _BASE & _MASK
    return found


def packed(hashes: Hashes) -> bytes:
    """The file of words that are given in their order, the likeliest first."""
    costs = [_LIST.which_log10(rank, len(hashes)) for rank in range(1, len(hashes) + 1)]
    steps = np.array([round(_STEPS_PER_ORDER * cost) for cost in costs], dtype=np.uint8)
    order = np.argsort(hashes)
    return hashes[order].astype("<u8").tobytes() + steps[order].tobytes()


@cache
def _words() -> tuple[Hashes, NDArray[np.uint8]]:
    raw = shipped_bytes(_FILE)
    count = len(raw) // 9
    return (
        np.frombuffer(raw, dtype="<u8", count=count),
        np.frombuffer(raw, dtype=np.uint8, offset=8 * count),
    )


@cache
def _powers() -> tuple[Hashes, Hashes]:
    def row(base: int) -> Hashes:
        powers = [1]
        for _ in range(_READ_MOST):
            powers.append(powers[-1] * base & _MASK)
        return np.array(powers, dtype=np.uint64)

    return row(_BASE), row(_INVERSE)


def is_rarer_word(shape: str) -> bool:
    """Whether a whole shape is one of them."""
    hashes, _ = _words()
    wanted = np.uint64(hash_of(shape))
    at = int(np.searchsorted(hashes, wanted))
    return at < len(hashes) and bool(hashes[at] == wanted)


def rarer_words(shaped: str) -> Iterator[tuple[int, int, float]]:
    """(start, end, -log10 of the word's probability within the list) of every stretch of a shape of
    at most 128 characters that is one of them.
    """
    runs = [run.span() for run in _RUN.finditer(shaped)]
    if not runs:
        return
    up, down = _powers()
    codes = np.fromiter(map(ord, shaped), dtype=np.uint64, count=len(shaped)) + np.uint64(1)
    sums = np.zeros(len(shaped) + 1, dtype=np.uint64)
    np.cumsum(codes * up[: len(shaped)], out=sums[1:])
    starts, ends = _stretches(tuple(runs))
    found = (sums[ends] - sums[starts]) * down[starts]
    hashes, steps = _words()
    places = np.minimum(np.searchsorted(hashes, found), len(hashes) - 1)
    for at in np.flatnonzero(hashes[places] == found):
        yield int(starts[at]), int(ends[at]), int(steps[places[at]]) / _STEPS_PER_ORDER


def _stretches(runs: tuple[tuple[int, int], ...]) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
    starts: list[int] = []
    ends: list[int] = []
    for first, last in runs:
        for start in range(first, last - SHORTEST + 1):
            stop = min(last, start + LONGEST) + 1
            ends.extend(range(start + SHORTEST, stop))
            starts.extend([start] * (stop - start - SHORTEST))
    return np.array(starts, dtype=np.intp), np.array(ends, dtype=np.intp)


FEE_LOG10 = -log10(RARER_SHARE)
"""Of the choice of this list."""
