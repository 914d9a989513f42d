"""Characters in an even step (abc, 9753), and one character over and over."""

import re
from collections.abc import Iterator
from itertools import pairwise
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SEQUENCE_SHARE, REPEAT_SHARE = 0.28, 0.22
"""Of patterns."""
_BY_ONE, _BY_OTHER = 0.9, 0.1
_STEPS_OTHER = 16
_FIRSTS = "a10z9"
_FIRST_SHARE = 0.6
_GROWS, _ENDS = log10(1 / 0.8), log10(1 / 0.2)
"""A series goes on four times in five."""
_LONG_AFTER = 12
_SHORTEST = 3
_REPEATED = re.compile(r"(.)\1{2,}", re.DOTALL)


def length_log10(size: int) -> float:
    """-log10 of the share of series of so many characters; long ones are typed as easily."""
    return _ENDS + _GROWS * min(size - _SHORTEST, _LONG_AFTER) + log10(max(1, size - _LONG_AFTER))


def sequences(reading: Reading) -> Iterator[Found]:
    """Three letters or digits and more, each the same step after the one before."""
    low = reading.low
    steps = [_step(a, b) for a, b in pairwise(low)]
    if not any(a and a == b for a, b in pairwise(steps)):
        return
    n, start = len(low), 0
    while start < n - 2:
        step = steps[start]
        end = start + 2
        while step and end < n and steps[end - 1] == step:
            end += 1
        if step and end - start >= _SHORTEST:
            for first in range(start, end - 2):
                yield _sequence(low, first, end, step)
            for last in range(start + _SHORTEST, end):
                yield _sequence(low, start, last, step)
        start = max(start + 1, end - 1)


def _sequence(low: str, start: int, end: int, step: int) -> Found:
    which = _start_log10(low[start]) + _step_log10(step)
    fee = length_log10(end - start) - log10(SEQUENCE_SHARE)
    return Found(start, end, Part.PATTERN, which, fee, SegmentKind.SEQUENCE)


def _step(before: str, after: str) -> int:
    step = ord(after) - ord(before)
    if before + after == "90":
        return 1
    if not -(_STEPS_OTHER // 2) <= step <= _STEPS_OTHER // 2 and not before.isdigit():
        return 0
    alike = (before.isdigit() and after.isdigit()) or (before.isalpha() and after.isalpha())
    return step if alike else 0


def _step_log10(step: int) -> float:
    if step == 1:
        return -log10(_BY_ONE * 0.8)
    if step == -1:
        return -log10(_BY_ONE * 0.2)
    return log10(_STEPS_OTHER / _BY_OTHER)


def _start_log10(first: str) -> float:
    if first in _FIRSTS:
        return log10(len(_FIRSTS) / _FIRST_SHARE)
    return log10((36 if first.isascii() else 100) / (1 - _FIRST_SHARE))


def repeats(reading: Reading) -> Iterator[Found]:
    """Three and more of one character, to the end of what is read at all."""
    for run in _REPEATED.finditer(reading.text):
        start, end = run.span()
        common = run.group(1).isascii() and run.group(1).isalnum()
        fee = length_log10(end - start) - log10(REPEAT_SHARE)
        which = log10(36 if common else 200)
        yield Found(start, end, Part.PATTERN, which, fee, SegmentKind.REPEAT)
