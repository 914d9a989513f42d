"""Sayings, rhymes and quotations that the shipped list holds, from their beginning."""

from collections.abc import Iterator
from functools import cache
from itertools import chain
from math import log10

from newknot.core.shipped import shipped_lines
from newknot.core.strength.reading import Reading, spellings
from newknot.core.strength.segments import Found, Part, SegmentKind

QUOTATION_SHARE = 0.02
"""Of words."""
_WORDS_LEAST, _KEY, _INITIALS_LEAST, _INITIALS_MOST = 3, 8, 6, 24
_WHOLE_LOG10, _INITIALS_LOG10, _STYLED_LOG10 = log10(4), log10(3), log10(2)


@cache
def _by_beginning() -> dict[str, tuple[tuple[str, frozenset[int]], ...]]:
    """First eight letters -> whole lines in letters alone, with where their words end."""
    lines: dict[str, tuple[tuple[str, frozenset[int]], ...]] = {}
    for line in chain.from_iterable(map(spellings, shipped_lines("quotations.txt"))):
        words = line.replace("'", "").split()
        ends = [sum(map(len, words[: k + 1])) for k in range(len(words))]
        letters = "".join(words)
        lasting = frozenset(ends[_WORDS_LEAST - 1 :])
        lines[letters[:_KEY]] = (*lines.get(letters[:_KEY], ()), (letters, lasting))
    return lines


@cache
def _initials() -> dict[str, str]:
    """First letters of whole lines -> the line."""
    lines = shipped_lines("quotations.txt")
    initials = {"".join(word[0] for word in line.split()): line for line in lines}
    return {short: line for short, line in initials.items() if len(short) >= _INITIALS_LEAST}


def quotations(reading: Reading) -> Iterator[Found]:
    """A listed line's first three words and more, spaced or not, or its first letters."""
    low = reading.low
    places = [at for at, c in enumerate(low) if c.isalpha()]
    letters = "".join(low[at] for at in places)
    which, fee = log10(len(shipped_lines("quotations.txt"))), -log10(QUOTATION_SHARE)
    for begin in range(len(letters) - _KEY + 1):
        for line, ends in _by_beginning().get(letters[begin : begin + _KEY], ()):
            size = _KEY
            while size < len(line) and letters[begin + size : begin + size + 1] == line[size]:
                size += 1
            for last in ends:
                if last <= size:
                    start, end = places[begin], places[begin + last - 1] + 1
                    styled = end - start > last or low[start:end] != reading.text[start:end]
                    pattern = fee + (_STYLED_LOG10 if styled else 0.0)
                    cut = which + (0.0 if last == len(line) else _WHOLE_LOG10)
                    kind = SegmentKind.QUOTATION
                    yield Found(start, end, Part.WORD, cut, pattern, kind, line[:last])
    for size in range(_INITIALS_LEAST, min(_INITIALS_MOST, len(low)) + 1):
        whole = _initials().get(low[:size])
        if whole is not None:
            pattern = fee + _INITIALS_LOG10
            yield Found(0, size, Part.WORD, which, pattern, SegmentKind.QUOTATION, whole)
