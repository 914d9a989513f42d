"""Words beyond the ranked lists, 450,000 of them by hash: common enough to be guessed, and too much
for memory as text.

The file is prebuilt and read at once: hashes of the words' shapes in order, 8 bytes each, then how
rare each is, a byte each. A polynomial hash (R. Karp and M. Rabin, 1987), so that all stretches of
a text are looked up together from sums over its beginnings.
"""

import re
from collections.abc import Iterator, Sequence
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
_MARK_BITS = 23
"""A mark for each beginning of a hash in so many bits: one in twenty is set."""
_RUN = re.compile(r"[^\W\d_]{4,}")
_LIST = RankedList(_FILE, SegmentKind.RARE_WORD, RARER_SHARE, 0.4)

Hashes = NDArray[np.uint64]
Places = NDArray[np.intp]


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
def _marks() -> NDArray[np.uint8]:
    """Eight marks in a byte. What has none is no word, and is not looked for among all of them,
    which lie farther away than a processor keeps at hand.
    """
    marks = np.zeros(1 << _MARK_BITS, dtype=np.uint8)
    marks[_words()[0] >> np.uint64(64 - _MARK_BITS)] = 1
    return np.packbits(marks, bitorder="little")


def _marked(hashes: Hashes) -> Places:
    """The places of those that may be of words."""
    places = hashes >> np.uint64(64 - _MARK_BITS)
    bits = _marks()[places >> np.uint64(3)] >> (places & np.uint64(7)).astype(np.uint8)
    # Methods rather than functions: on a short text half of the time goes to the functions.
    found: Places = (bits & 1).nonzero()[0]
    return found


@cache
def _powers(bits: int) -> tuple[Hashes, Hashes]:
    """Of the base and of its inverse, 2^bits each."""
    rows = np.full((2, 1 << bits), 1, dtype=np.uint64)
    rows[0, 1:], rows[1, 1:] = np.uint64(_BASE), np.uint64(_INVERSE)
    up, down = np.multiply.accumulate(rows, axis=1)
    return up, down


def _hashes_of(shaped: str, starts: Places, ends: Places) -> Hashes:
    """The hashes of stretches of a text."""
    up, down = _powers(len(shaped).bit_length())
    codes = np.frombuffer(shaped.encode("utf-32-le", "surrogatepass"), dtype="<u4")
    sums = np.zeros(len(shaped) + 1, dtype=np.uint64)
    np.add.accumulate((codes + np.uint64(1)) * up[: len(shaped)], out=sums[1:])
    hashes: Hashes = (sums[ends] - sums[starts]) * down[starts]
    return hashes


def _found(hashes: Hashes) -> tuple[Places, Places]:
    """(which of some hashes are of words, the places of these words)."""
    maybe = _marked(hashes)
    if not len(maybe):
        return maybe, maybe
    words, _ = _words()
    wanted = hashes[maybe]
    places = np.minimum(words.searchsorted(wanted), len(words) - 1)
    is_word = words[places] == wanted
    return maybe[is_word], places[is_word]


def rarer_among(shaped: str, spans: Sequence[tuple[int, int]]) -> list[int]:
    """Which of some stretches [start, end) of a shape of any length are such words."""
    if not spans:
        return []
    starts, ends = np.array(spans, dtype=np.intp).T
    which, _ = _found(_hashes_of(shaped, starts, ends))
    found: list[int] = which.tolist()
    return found


def rarer_words(shaped: str) -> Iterator[tuple[int, int, float]]:
    """(start, end, -log10 of the word's probability within the list) of every stretch of a shape of
    at most 128 characters that is one of them.
    """
    runs = [run.span() for run in _RUN.finditer(shaped)]
    if not runs:
        return
    stretches = [_stretches(last - first) + first for first, last in runs]
    starts, ends = np.concatenate(stretches, axis=1) if len(runs) > 1 else stretches[0]
    _, steps = _words()
    for at, place in zip(*_found(_hashes_of(shaped, starts, ends)), strict=True):
        yield int(starts[at]), int(ends[at]), int(steps[place]) / _STEPS_PER_ORDER


@cache
def _stretches(letters: int) -> Places:
    """The starts and the ends of all stretches of a run of so many letters."""
    pairs = [
        (start, end)
        for start in range(letters - SHORTEST + 1)
        for end in range(start + SHORTEST, min(letters, start + LONGEST) + 1)
    ]
    return np.array(pairs, dtype=np.intp).T


FEE_LOG10 = -log10(RARER_SHARE)
"""Of the choice of this list."""
