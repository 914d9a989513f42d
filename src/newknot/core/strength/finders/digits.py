"""Runs of digits, and those that are shaped like a telephone number."""

import re
from collections.abc import Iterator
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

LENGTH_SHARES = (0.0, 0.3, 0.26, 0.12, 0.12, 0.03, 0.06, 0.015, 0.025)
"""Of runs of 1 to 8 digits; what is left falls by a quarter with each further digit."""
_LONGER, _FALL = 0.02, 0.75
ONE_SHARE = 0.4
"""Of single digits, those that are 1."""
_LONGEST = 20
_COUNTED_MOST, _COUNTED_LOG10 = 3, 0.5
"""Digits of a number that goes on where the one before ended, and what it costs."""
_RUN = re.compile(r"[0-9]+")
_PHONE = re.compile(r"(?<![0-9])(?:\+|00)?[0-9](?:[-. /()]{0,2}[0-9]){8,13}(?![0-9])")
_PHONE_LOG10, _PHONE_KNOWN = 1.5, 2
"""A number plan gives away about two digits: the trunk prefix and a network's or area's first."""


def digits(reading: Reading) -> Iterator[Found]:
    """Every stretch of up to 20 digits; a telephone number as one."""
    low, part, kind = reading.low, Part.DIGITS, SegmentKind.DIGITS
    for run in _RUN.finditer(low):
        first, last = run.span()
        for start in range(first, last):
            yield Found(start, start + 1, part, _one_log10(low[start]), _LENGTHS_LOG10[1], kind)
            for size in range(2, min(last - start, _LONGEST) + 1):
                yield Found(start, start + size, part, float(size), _LENGTHS_LOG10[size], kind)
    for phone in _PHONE.finditer(low):
        typed = phone.group()
        if typed[0] in "+0" or not typed.isdigit():
            count = sum(c.isdigit() for c in typed)
            groups = 0.0 if typed.lstrip("+").isdigit() else 1.0
            which, fee = count - _PHONE_KNOWN, _PHONE_LOG10 + groups
            yield Found(*phone.span(), Part.DIGITS, which, fee, SegmentKind.PHONE)


def next_numbers(reading: Reading) -> Iterator[Found]:
    """A number that is the one after that before it, with something between: 1…2…3…"""
    last = -1
    for run in _RUN.finditer(reading.low):
        if run.end() - run.start() > _COUNTED_MOST:
            continue
        number = int(run.group())
        if number in (last, last + 1):
            yield Found(*run.span(), Part.DIGITS, _COUNTED_LOG10, 0.0, SegmentKind.DIGITS)
        last = number


def length_log10(size: int) -> float:
    """-log10 of the share of runs of so many digits."""
    if size < len(LENGTH_SHARES):
        return -log10(LENGTH_SHARES[size])
    beyond = size - len(LENGTH_SHARES)
    return -log10(_LONGER * (1 - _FALL)) - beyond * log10(_FALL)


def _one_log10(digit: str) -> float:
    return _ONE_LOG10 if digit == "1" else _OTHER_LOG10


_ONE_LOG10, _OTHER_LOG10 = -log10(ONE_SHARE), -log10((1 - ONE_SHARE) / 9)
_LENGTHS_LOG10 = (0.0, *(length_log10(size) for size in range(1, _LONGEST + 1)))
