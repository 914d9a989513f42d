"""Characters in an even step (abc, 9753), numbers in one (101520), and one character repeated."""

import re
from collections.abc import Iterator
from functools import cache
from itertools import pairwise
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SEQUENCE_SHARE, WOVEN_SHARE, COUNTING_SHARE = 0.24, 0.01, 0.02
REPEAT_SHARE, DRAWN_OUT_SHARE = 0.2, 0.03
"""Of patterns."""
_BY_ONE, _BY_OTHER = 0.9, 0.1
_STEPS_OTHER = 24
_FIRSTS = "a10z9"
_FIRST_SHARE = 0.6
_GROWS, _ENDS = log10(1 / 0.8), log10(1 / 0.2)
"""A series goes on four times in five."""
_LONG_AFTER = 12
_SHORTEST = 3
_COUNTED_LEAST, _WIDEST = 5, 4
"""Digits of a counting at least, and of its first number at most."""
_NUMBERS = re.compile(r"[0-9]{5,40}")
_APART = re.compile(r"(?<![0-9.,])\d{1,4}(, |[-,. /:;+|_])\d{1,6}(?:\1\d{1,6})+(?![0-9])")
_SIGN_LOG10, _MULTIPLES_LOG10 = 0.9, 0.5
"""Of what stands between numbers; of those that begin with their own step."""
_SIDE_LOG10, _BY_TURNS = log10(4), "two rows by turns"
_COUNTED_IN_ORDER = (
    *("一二三四五六七八九十", "甲乙丙丁戊己庚辛壬癸", "子丑寅卯辰巳午未申酉戌亥", "月火水木金土日"),
    *(
        "いろはにほへとちりぬるを",
        "あかさたなはまやらわ",
        "アカサタナハマヤラワ",
        "가나다라마바사아자차카타파하",
    ),
    *("абвгдеёжзийклмнопрстуфхцчшщъыьэюя", "אבגדהוזחטיכלמנסעפצקרשת"),
)
"""Numbers, stems and branches, days of the week and syllables as they are counted."""
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


def woven_sequences(reading: Reading) -> Iterator[Found]:
    """Two series by turns (a1b2c3), or one of which each comes twice (aabbcc): six and more."""
    low = reading.low
    steps = [_step(a, b) for a, b in zip(low, low[2:], strict=False)]
    start = 0
    while start < len(steps) - 3:
        two = steps[start : start + 2]
        # Both by one, or the one by one and the other the same again.
        if 1 not in map(abs, two) or not _goes_on(low, start, two):
            start += 1
            continue
        end = start + 4
        while end < len(steps) + 2 and steps[end - 2] == two[(end - start) % 2]:
            end += 1
        for last in range(start + 6, end + 1):
            of = (0,) if low[start] == low[start + 1] else (0, 1)
            which = sum(_start_log10(low[start + k]) + _step_or_same(two[k]) for k in of)
            fee = length_log10(last - start) - log10(WOVEN_SHARE)
            yield Found(start, last, Part.PATTERN, which, fee, SegmentKind.SEQUENCE)
        start = max(start + 1, end - 1)


def woven_rows(reading: Reading) -> Iterator[Found]:
    """Two by turns of what lies in a row, in the alphabet or on the keys (3e4r5t, azbycx): six
    characters and more.
    """
    low = reading.low
    beside, nowhere = _all_sides(), frozenset[str]()
    sides = [beside.get(a + b, nowhere) for a, b in zip(low, low[2:], strict=False)]
    start = 0
    while start < len(sides) - 3:
        end, two = start, sides[start : start + 2]
        while end < len(sides) and two[(end - start) % 2] & sides[end]:
            two[(end - start) % 2] &= sides[end]
            end += 1
        for last in range(start + 6, end + 3 if end > start + 3 else 0):
            which = sum(_start_log10(c) + _SIDE_LOG10 for c in low[start : start + 2])
            fee = length_log10(last - start) - log10(WOVEN_SHARE)
            yield Found(start, last, Part.PATTERN, which, fee, SegmentKind.SEQUENCE, _BY_TURNS)
        start = max(start + 1, end - 1)


@cache
def _all_sides() -> dict[str, frozenset[str]]:
    """Two characters -> on which sides the second is the first one's neighbour."""
    sides: dict[str, set[str]] = {}
    for pair, step in _steps().items():
        if abs(step) == 1:
            sides.setdefault(pair, set()).add("next" if step == 1 else "last")
    for row in ("qwertyuiop", "asdfghjkl", "zxcvbnm"):
        for a, b in pairwise(row):
            sides.setdefault(a + b, set()).add("right")
            sides.setdefault(b + a, set()).add("left")
    return {pair: frozenset(there) for pair, there in sides.items()}


def _goes_on(low: str, start: int, two: list[int]) -> bool:
    if low[start] == low[start + 1]:
        return two[0] == two[1]
    ends = low[start : start + 2], low[start + 2 : start + 4]
    same = all(two[k] or ends[0][k] == ends[1][k] for k in (0, 1))
    return same and len({c.isdigit() for c in low[start : start + 2]}) == 2


def _step_or_same(step: int) -> float:
    return _step_log10(step) if step else 1.0


def countings(reading: Reading) -> Iterator[Found]:
    """Three numbers and more, each the same step after the one before, written without a gap."""
    for run in _NUMBERS.finditer(reading.low):
        for start in range(run.start(), min(run.end() - _COUNTED_LEAST, run.start() + 3) + 1):
            yield from _counted(reading.low, start, run.end())


def countings_apart(reading: Reading) -> Iterator[Found]:
    """The same with a sign between, each number so many more or so many times the one before."""
    for run in _APART.finditer(reading.low):
        row = [int(number) for number in run.group().split(run.group(1))]
        first, step = row[0], row[1] - row[0]
        ratio = row[1] // first if first else 0
        if step and all(b - a == step for a, b in pairwise(row)):
            own = _MULTIPLES_LOG10 if step == first else log10(4 * abs(step))
            says = f"counting by {step}"
        elif ratio > 1 and all(b == ratio * a for a, b in pairwise(row)):
            own, says = log10(4 * ratio), f"each {ratio} times the one before"
        else:
            continue
        which = log10(10 * (first + 1)) + own + _SIGN_LOG10
        fee = length_log10(len(row)) - log10(COUNTING_SHARE)
        yield Found(*run.span(), Part.PATTERN, which, fee, SegmentKind.SEQUENCE, says)


def _counted(low: str, start: int, limit: int) -> Iterator[Found]:
    for width in range(1, _WIDEST + 1):
        for next_width in range(width, width + 2):
            end = start + width + next_width
            if end > limit:
                break
            first, second = low[start : start + width], low[start + width : end]
            step = int(second) - int(first)
            if not step:
                continue
            # A leading nought says that all are of one width.
            filled = width if first.startswith("0") or second.startswith("0") else 0
            value, at, terms = int(first), start, 0
            while value >= 0:
                term = str(value).zfill(filled)
                if not low.startswith(term, at) or at + len(term) > limit:
                    break
                value, at, terms = value + step, at + len(term), terms + 1
            if terms >= _SHORTEST and at - start >= _COUNTED_LEAST:
                which = log10(10 * (int(first) + 1)) + log10(4 * abs(step))
                fee = length_log10(terms) - log10(COUNTING_SHARE)
                says = f"counting by {step}"
                yield Found(start, at, Part.PATTERN, which, fee, SegmentKind.SEQUENCE, says)


def _sequence(low: str, start: int, end: int, step: int) -> Found:
    which = _start_log10(low[start]) + _step_log10(step)
    fee = length_log10(end - start) - log10(SEQUENCE_SHARE)
    says = "" if abs(step) == 1 else f"a sequence in steps of {step}"
    return Found(start, end, Part.PATTERN, which, fee, SegmentKind.SEQUENCE, says)


@cache
def _steps() -> dict[str, int]:
    """Two letters or digits -> the step from the first to the second, from -12 to 13, or from -4 to
    5 of digits: after the last the first comes again. So it is of signs that are counted in another
    order than that of their code points.
    """
    found: dict[str, int] = {}
    for members in ("0123456789", "abcdefghijklmnopqrstuvwxyz", *_COUNTED_IN_ORDER):
        size = len(members)
        for at, before in enumerate(members):
            for then, after in enumerate(members):
                step = (then - at) % size
                found[before + after] = step - size if step > size // 2 else step
    return found


def _step(before: str, after: str) -> int:
    known = _steps().get(before + after)
    if before.isascii() or known is not None:
        return known or 0
    step = ord(after) - ord(before)
    alike = before.isalpha() and after.isalpha() and not after.isascii()
    return step if alike and abs(step) <= _STEPS_OTHER // 2 else 0


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
        if start and common and run.group(1).isalpha() and end - start > _SHORTEST - 1:
            # A last letter drawn out is the word's own.
            fee = length_log10(end - start) - log10(DRAWN_OUT_SHARE)
            yield Found(start + 1, end, Part.PATTERN, 0.3, fee, SegmentKind.REPEAT)
