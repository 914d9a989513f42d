"""Characters by chance out of very few: the letters of a code of two signs, of DNA, of laughter;
letters and digits by turns.
"""

import re
from collections.abc import Iterator
from math import comb, log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

FEW_SHARE = 0.01
"""Of patterns."""
_MOST, _SAVES_LOG10 = 5, 1.0
"""Different characters in a run; orders that it saves over characters of its kind."""
_RUN = re.compile(r"([a-z]{8,}|[^\w\s]{8,})|(?:[0-9][a-z]){4,}|(?:[a-z][0-9]){4,}")
_USUAL = ("acgt", "abcd", "abc", "ab", "xo", "ha", "lo", "wasd", "udlr", "nesw", "-.")
"""Sets that are chosen before others."""
_USUAL_LOG10 = log10(len(_USUAL))
_FEW, _BY_TURNS = "a few characters over and over", "letters and digits by turns"


def few_characters(reading: Reading) -> Iterator[Found]:
    """Runs of eight and more, of letters in one case or signs, with up to five different ones, or
    in which each second one is a digit.
    """
    text = reading.text[: len(reading.low)]
    for run in _RUN.finditer(reading.low):
        start, end = run.span()
        typed = run.group()
        if text[start:end] not in (typed, typed.upper()):
            continue
        if run.group(1):
            which, says, size = _cost_log10(typed), _FEW, _size(typed)
        else:
            which, says, size = sum(map(_cost_log10, (typed[::2], typed[1::2]))), _BY_TURNS, 36
        if which < len(typed) * log10(size) - _SAVES_LOG10:
            fee, kind = -log10(FEW_SHARE), SegmentKind.RANDOM
            yield Found(start, end, Part.PATTERN, which, fee, kind, says)


def _size(typed: str) -> int:
    return 10 if typed.isdigit() else 26 if typed.isalpha() else 32


def _cost_log10(typed: str) -> float:
    """Of all texts of so many characters, or of those with no more different ones."""
    kinds, size = set(typed), _size(typed)
    every = len(typed) * log10(size)
    if len(kinds) > _MOST:
        return every
    is_usual = any(kinds <= set(few) for few in _USUAL)
    chosen = _USUAL_LOG10 if is_usual else log10(comb(size, len(kinds)))
    return min(every, chosen + len(typed) * log10(len(kinds)))
