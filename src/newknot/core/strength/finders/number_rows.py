"""Numbers that follow one from the other, written without a gap: squares, primes, powers, sums."""

import re
from collections.abc import Callable, Iterator
from functools import cache
from itertools import pairwise
from math import isqrt, log10

from newknot.core.strength.finders.series import length_log10
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

ROWS_SHARE = 0.02
"""Of patterns."""
_RUN = re.compile(r"[0-9]{6,40}")
_LEAST, _TERMS_LEAST, _WIDEST = 6, 3, 4
"""Digits and numbers of a row at least; digits of its first numbers at most."""
_PRIMES_TO, _RATIO_MOST = 10_000, 12

Follows = Callable[[list[int]], int | None]
_KINDS = 8
"""Squares, cubes, triangular numbers, primes, powers of two, other powers, sums of two; others."""


@cache
def _after_each() -> tuple[tuple[str, dict[int, int]], ...]:
    """Name, and each number with the one that follows it."""
    prime = [True] * _PRIMES_TO
    for n in range(2, isqrt(_PRIMES_TO) + 1):
        if prime[n]:
            prime[n * n :: n] = [False] * len(prime[n * n :: n])
    rows = (
        ("square numbers", [n * n for n in range(1, 101)]),
        ("cubes", [n**3 for n in range(1, 40)]),
        ("triangular numbers", [n * (n + 1) // 2 for n in range(1, 141)]),
        ("powers of two", [2**n for n in range(1, 41)]),
        ("prime numbers", [n for n in range(2, _PRIMES_TO) if prime[n]]),
    )
    return tuple((name, dict(pairwise(row))) for name, row in rows)


def number_rows(reading: Reading) -> Iterator[Found]:
    """Three numbers and more of a row, from any of its numbers on."""
    for run in _RUN.finditer(reading.low):
        for start in range(run.start(), min(run.end() - _LEAST, run.start() + 3) + 1):
            typed = reading.low[start : run.end()]
            if typed[0] == "0":
                continue
            for width in range(1, min(_WIDEST, len(typed) - 2) + 1):
                first = int(typed[:width])
                for name, after in _after_each():
                    if first in after:
                        yield from _row(start, typed, [first], _by(after), name, log10(len(after)))
                yield from _of_two(start, typed, first, width)


def _by(after: dict[int, int]) -> Follows:
    return lambda row: after.get(row[-1])


def _of_two(start: int, typed: str, first: int, width: int) -> Iterator[Found]:
    """Rows that their first two numbers tell."""
    for next_width in range(max(1, width - 1), width + 2):
        if typed[width : width + 1] in ("", "0"):
            return
        second = int(typed[width : width + next_width])
        both = log10(10 * first) + log10(10 * second)
        if first and second % first == 0 and 2 <= second // first <= _RATIO_MOST:
            ratio, says = second // first, f"each {second // first} times the one before"
            which = log10(10 * first) + log10(_RATIO_MOST)
            yield from _row(start, typed, [first, second], _times(ratio), says, which)
        says = "each the sum of the two before"
        yield from _row(start, typed, [first, second], lambda row: row[-1] + row[-2], says, both)


def _times(ratio: int) -> Follows:
    return lambda row: row[-1] * ratio


def _row(
    start: int,
    typed: str,
    known: list[int],
    follows: Follows,
    says: str,
    which: float,
) -> Iterator[Found]:
    row, at = list(known), sum(len(str(n)) for n in known)
    while (then := follows(row)) is not None and typed.startswith(str(then), at):
        row.append(then)
        at += len(str(then))
    if len(row) >= max(_TERMS_LEAST, len(known) + 2) and at >= _LEAST:
        fee = length_log10(len(row)) - log10(ROWS_SHARE)
        total = log10(_KINDS) + which
        yield Found(start, start + at, Part.PATTERN, total, fee, SegmentKind.SEQUENCE, says)
