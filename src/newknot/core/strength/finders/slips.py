"""Listed words with one letter wrong, left out, put in, or changed over with its neighbour."""

import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import compress
from math import log10
from string import ascii_lowercase

from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.context import CONTEXT_LOG10, Context
from newknot.core.strength.dictionaries import (
    BEGINNING,
    BITS,
    LONGEST,
    beginnings,
    dictionaries,
)
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SLIPPED_LOG10 = 1.7
"""One word in fifty is written with a slip."""
_WAYS_PER_LETTER = 53
_SHORTEST, _STRETCHES = 6, 6
_LETTERS = ascii_lowercase.replace("l", "")
_NO_LETTER = "`"
"""What counts as nothing in the number of a beginning."""
_BY_PLACE = [chr(0x60 | place) for place in range(1 << BITS)]
"""Letters by the bits that they have in the number of a beginning, with signs that none has."""
_RUN = re.compile(r"[^\W\d_]{5,}")
_KEPT = 2
"""Letters of a beginning or an ending."""


def slips(reading: Reading, words: Sequence[Found]) -> Iterator[Found]:
    """Runs of six letters or more, or what words found at their edges leave of them."""
    # Digits behind it stand for letters in the shape, and are none here.
    for run in _RUN.finditer(reading.low):
        for start, end in _stretches(run.start(), run.end(), words):
            yield from _slipped(reading, start, end)


def _stretches(start: int, end: int, words: Sequence[Found]) -> list[tuple[int, int]]:
    inside = [w for w in words if start <= w.start and w.end <= end and w.end - w.start >= 4]
    if any(w.start == start and w.end == end for w in inside):
        return []
    starts = {start, *(w.end for w in inside if w.start == start)}
    ends = {end, *(w.start for w in inside if w.end == end)}
    stretches = [(s, e) for s in starts for e in ends if _SHORTEST <= e - s <= LONGEST]
    return sorted(stretches, key=lambda se: se[0] - se[1])[:_STRETCHES]


def _slipped(reading: Reading, start: int, end: int) -> Iterator[Found]:
    lists, key = dictionaries(), reading.shaped[start:end]
    number_of = lists.number
    is_begun = lists.begins[beginnings(key)[0]]
    hits: set[int] = set()
    # What is put right behind its beginning begins as it did.
    for at in range(len(key) if is_begun else BEGINNING):
        before, here, after = key[:at], key[at], key[at + 1 :]
        edits = [before + after]
        edits += (before + c + after for c in that_begin(before, after))
        edits += (before + c + here + after for c in that_begin(before, here + after))
        if after:
            edits.append(before + after[0] + here + after[1:])
        hits.update(map(number_of.__getitem__, number_of.keys() & edits))
    if is_begun:
        hits.update(number_of[key + c] for c in _LETTERS if key + c in number_of)
    which, pattern = case_log10(reading.text, start, end)
    which += log10(_WAYS_PER_LETTER * len(key))
    for source, in_list, word in map(lists.taken, hits):
        if len(word) >= _SHORTEST - 1:
            fee = SLIPPED_LOG10 + pattern - log10(source.share)
            yield Found(start, end, Part.WORD, which + in_list, fee, source.kind, word)


def known_slips(reading: Reading, context: Context) -> Iterator[Found]:
    """What is known of the user, six letters or more, with one slip, at an edge of a run."""
    known = [(shape, word) for shape, word in context.shapes.items() if len(shape) >= _SHORTEST]
    for run in _RUN.finditer(reading.low) if known else ():
        for shape, word in known:
            for start, end in _at_the_edges(*run.span(), len(shape)):
                if _is_slip(reading.shaped[start:end], shape):
                    which, pattern = case_log10(reading.text, start, end)
                    which += context.which_log10 + log10(_WAYS_PER_LETTER * len(shape))
                    fee = SLIPPED_LOG10 + pattern + CONTEXT_LOG10
                    yield Found(start, end, Part.WORD, which, fee, SegmentKind.CONTEXT, word)


def _at_the_edges(first: int, last: int, letters: int) -> Iterator[tuple[int, int]]:
    """Stretches of a run, of so many letters, one less or one more."""
    for size in range(letters - 1, letters + 2):
        if size <= last - first:
            yield first, first + size
            if size < last - first:
                yield last - size, last


def _is_slip(typed: str, meant: str) -> bool:
    """Whether one letter was put in, left out or is another, or two changed places."""
    # One slip leaves the beginning or the ending as it was.
    if typed[:_KEPT] != meant[:_KEPT] and typed[-_KEPT:] != meant[-_KEPT:]:
        return False
    same = next((at for at, (a, b) in enumerate(zip(typed, meant, strict=False)) if a != b), None)
    if same is None:
        return len(typed) != len(meant)
    typed, meant = typed[same:], meant[same:]
    changed = typed[1::-1] == meant[:2] and typed[2:] == meant[2:]
    return changed or meant[1:] in (typed, typed[1:]) or typed[1:] == meant


def that_begin(before: str, after: str) -> Iterable[str]:
    """The letters with which between the two a listed word may begin."""
    bits = BITS * (BEGINNING - 1 - len(before))
    if bits < 0:
        return _LETTERS
    (first, *_) = beginnings(before + _NO_LETTER + after[:BEGINNING])
    return compress(
        _BY_PLACE, dictionaries().begins[first : first + (1 << BITS + bits) : 1 << bits]
    )
