"""Strings with symbols that everybody types, and rows of digits that are known by heart."""

import re
from collections.abc import Iterator
from functools import cache
from math import log10

from newknot.core.shipped import shipped_bytes, shipped_lines
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

STOCK_SHARE, NUMBERS_SHARE = 0.05, 0.02
"""Of patterns."""
_FIRST = 20
_NUMBER_LEAST = 6
_DIGITS = re.compile(r"[0-9]{6,}")
_FROM_START = log10(2)


@cache
def _strings() -> tuple[re.Pattern[str], dict[str, float]]:
    """What finds one at a place, the longest first, and how many stand before each in the list."""
    lines = shipped_bytes("stock_strings.txt").decode("utf-8").splitlines()[1:]
    costs = {line: log10(max(_FIRST, rank)) for rank, line in enumerate(lines, 1)}
    longest_first = sorted(costs, key=len, reverse=True)
    return re.compile("(?=(" + "|".join(map(re.escape, longest_first)) + "))"), costs


def stock_strings(reading: Reading) -> Iterator[Found]:
    """Every listed string, the longest at each place."""
    pattern, costs = _strings()
    for hit in pattern.finditer(reading.low):
        start, end = hit.span(1)
        which, fee = costs[hit.group(1)], -log10(STOCK_SHARE)
        if reading.text[start:end] != hit.group(1):
            fee += 0.7
        yield Found(start, end, Part.PATTERN, which, fee, SegmentKind.STOCK, hit.group(1))


@cache
def _numbers() -> dict[str, tuple[tuple[str, int], ...]]:
    """Six digits -> the rows that hold them, and where."""
    found: dict[str, tuple[tuple[str, int], ...]] = {}
    for row in shipped_lines("stock_numbers.txt"):
        for at in range(len(row) - _NUMBER_LEAST + 1):
            key = row[at : at + _NUMBER_LEAST]
            found[key] = (*found.get(key, ()), (row, at))
    return found


def stock_numbers(reading: Reading) -> Iterator[Found]:
    """Six digits and more of a known row, from its beginning or within."""
    low, rows = reading.low, log10(len(shipped_lines("stock_numbers.txt")))
    for run in _DIGITS.finditer(low):
        for start in range(run.start(), run.end() - _NUMBER_LEAST + 1):
            for row, at in _numbers().get(low[start : start + _NUMBER_LEAST], ()):
                size = _NUMBER_LEAST
                while row[at + size : at + size + 1] == low[start + size : start + size + 1] != "":
                    size += 1
                which = rows + (_FROM_START if at == 0 else log10(2 * len(row)))
                fee = log10(15) - log10(NUMBERS_SHARE)
                kind = SegmentKind.STOCK
                yield Found(start, start + size, Part.PATTERN, which, fee, kind, row)
