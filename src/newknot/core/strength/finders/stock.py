"""Strings with symbols that everybody types, and rows of digits that are known by heart."""

import re
from collections.abc import Iterator
from functools import cache
from math import log10
from operator import add

from newknot.core.shipped import shipped_bytes, shipped_lines
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

STOCK_SHARE, NUMBERS_SHARE = 0.05, 0.02
"""Of patterns."""
_FIRST = 20
_NUMBER_LEAST = 6
_DIGITS = re.compile(r"[0-9]{6,}")
_WITH_POINT, _POINT_LEAST = re.compile(r"(?<![0-9.,])([0-9])[.,]([0-9]{2,})"), 3
_FROM_START, _STYLED_LOG10 = log10(2), 0.7


@cache
def _strings() -> dict[str, tuple[tuple[str, float], ...]]:
    """First two characters -> the strings that begin so, the longest first, each with log10 of how
    many stand before it in the list.
    """
    lines = shipped_bytes("stock_strings.txt").decode("utf-8").splitlines()[1:]
    costs = {line: log10(max(_FIRST, rank)) for rank, line in enumerate(lines, 1)}
    found: dict[str, tuple[tuple[str, float], ...]] = {}
    for one in sorted(costs, key=len, reverse=True):
        found[one[:2]] = (*found.get(one[:2], ()), (one, costs[one]))
    return found


def stock_strings(reading: Reading) -> Iterator[Found]:
    """Every listed string, the longest at each place."""
    strings, low, text = _strings(), reading.low, reading.text
    for start, two in enumerate(map(add, low, low[1:])):
        for one, which in strings.get(two, ()):
            if low.startswith(one, start):
                styled = 0.0 if text.startswith(one, start) else _STYLED_LOG10
                fee, end = styled - log10(STOCK_SHARE), start + len(one)
                yield Found(start, end, Part.PATTERN, which, fee, SegmentKind.STOCK, one)
                break


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
    """Six digits and more of a known row, from its beginning or within; three and more from its
    beginning, where a point stands behind the first.
    """
    low, rows = reading.low, log10(len(shipped_lines("stock_numbers.txt")))
    if "." in low or "," in low:
        yield from _with_point(low, rows)
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


@cache
def _beginning() -> dict[str, str]:
    """The first three digits of rows -> the row."""
    return {row[:_POINT_LEAST]: row for row in reversed(shipped_lines("stock_numbers.txt"))}


def _with_point(low: str, rows: float) -> Iterator[Found]:
    for hit in _WITH_POINT.finditer(low):
        nought = hit.group(1) == "0"
        typed = hit.group(2) if nought else hit.group(1) + hit.group(2)
        row = _beginning().get(typed[:_POINT_LEAST])
        if row is None:
            continue
        size = _POINT_LEAST
        while size < len(typed) and row[size : size + 1] == typed[size]:
            size += 1
        # The last digit may be rounded up.
        up = row[size : size + 2]
        if (
            size < len(typed)
            and len(up) > 1
            and up[1] >= "5"
            and int(typed[size]) == int(up[0]) + 1
        ):
            size += 1
        end = hit.start() + 1 + size + nought
        which, fee = rows + _FROM_START, log10(15) - log10(NUMBERS_SHARE)
        yield Found(hit.start(), end, Part.PATTERN, which, fee, SegmentKind.STOCK, row)
