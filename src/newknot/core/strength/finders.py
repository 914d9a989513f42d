"""Finders: each yields stretches of a text that a guesser would reach early, with their costs."""

import re
from collections.abc import Iterator, Mapping
from functools import cache
from math import comb, log10

from newknot.core.strength.dictionaries import LONGEST, SHORTEST, ranked
from newknot.core.strength.segments import Segment, SegmentKind

_SWAPS = str.maketrans("4@310!|5$7+8", "aaeioiissttb")
_ROWS = (
    "1234567890-=",
    "qwertyuiop[]",
    "asdfghjkl;'",
    "zxcvbnm,./",
    "qwertzuiop",
    "yxcvbnm",
    "azertyuiop",
    "qsdfghjklm",
    "wxcvbn",
    "1qaz2wsx3edc4rfv5tgb6yhn7ujm8ik9ol0p",
    "147258369",
)
_DATE = re.compile(r"(\d{1,4})([-./ _]?)(\d{1,2})\2(\d{1,4})")
_YEAR = re.compile(r"(?=((?:19|20)\d\d))")
_DIGITS = re.compile(r"\d{2,}")
_SEPARATORS = "-_. ,+/:"


def found(text: str, context: Mapping[str, int]) -> Iterator[Segment]:
    """All stretches found in the text (at most some hundred characters), overlapping ones too.

    context: the user's own words, case-folded, with a rank each.
    """
    folded = text.lower() if len(text.lower()) == len(text) else text
    yield from _words(text, folded, context)
    yield from _walks(folded)
    yield from _sequences(folded)
    yield from _copies(folded)
    yield from _dates(text)
    yield from _digits_and_symbols(text)


def _words(text: str, folded: str, context: Mapping[str, int]) -> Iterator[Segment]:
    table = ranked()
    swapped = folded.translate(_SWAPS)
    forms = [(folded, 0.0)]
    if swapped != folded:
        forms.append((swapped, log10(4)))
    n = len(text)
    for line, fee in forms:
        backwards = line[::-1]
        for i in range(n):
            for j in range(i + 3, min(n, i + LONGEST) + 1):
                word = line[i:j]
                if word in context or word in table:
                    yield from _word(text, word, i, j, fee, context)
                word = backwards[n - j : n - i]
                if fee == 0.0 and (word in context or word in table):
                    yield from _word(text, word, i, j, log10(2), context)


def _word(
    text: str, word: str, i: int, j: int, fee: float, context: Mapping[str, int]
) -> Iterator[Segment]:
    cost = fee + _capitals(text[i:j])
    own = context.get(word)
    if own is not None:
        yield Segment(i, j, SegmentKind.CONTEXT, cost + log10(own))
        return
    if j - i >= SHORTEST:
        rank, kind = ranked()[word]
        yield Segment(i, j, kind, cost + log10(rank + 1))


def _capitals(text: str) -> float:
    """log10 of the capital patterns tried up to this one."""
    upper = sum(c.isupper() for c in text)
    if not upper:
        return 0.0
    if upper == len(text):
        return log10(3)
    if upper == 1 and text[0].isupper():
        return log10(2)
    return log10(3 + sum(comb(len(text), k) for k in range(1, upper + 1)))


@cache
def _steps() -> dict[str, tuple[str, ...]]:
    """Four keys in a row -> the lines of keys, forwards or backwards, that hold them."""
    steps: dict[str, tuple[str, ...]] = {}
    for row in _ROWS:
        for line in (row, row[::-1]):
            for at in range(len(line) - 3):
                start = line[at : at + 4]
                steps[start] = (*steps.get(start, ()), line[at:])
    return steps


def _walks(folded: str) -> Iterator[Segment]:
    steps = _steps()
    cost = log10(len(_ROWS) * 24) + 0.3
    for i in range(len(folded) - 3):
        for line in steps.get(folded[i : i + 4], ()):
            size = 4
            while size < len(line) and folded[i + size : i + size + 1] == line[size]:
                size += 1
            for end in range(i + 4, i + size + 1):
                yield Segment(i, end, SegmentKind.KEYBOARD_WALK, cost)


def _sequences(folded: str) -> Iterator[Segment]:
    i, n = 0, len(folded)
    while i < n - 2:
        step = ord(folded[i + 1]) - ord(folded[i])
        j = i + 1
        while j + 1 < n and ord(folded[j + 1]) - ord(folded[j]) == step and abs(step) <= 3:
            j += 1
        if j - i >= 2:
            start_cost = 1.0 if folded[i].isdigit() else log10(26)
            yield Segment(i, j + 1, SegmentKind.SEQUENCE, start_cost + log10(2 * (j - i + 1)))
        i = max(j, i + 1)


def _copies(folded: str) -> Iterator[Segment]:
    """Stretches of three or more that stand earlier in the text too (overlap allowed)."""
    n = len(folded)
    before = [0] * (n + 1)
    for i in range(n):
        here = [0] * (n + 1)
        best = 0
        for j in range(i):
            if folded[i] == folded[j]:
                here[j + 1] = before[j] + 1
                best = max(best, here[j + 1])
        if best >= 3:
            yield Segment(i + 1 - best, i + 1, SegmentKind.COPY, log10(best) + log10(i + 1))
        before = here


def _dates(text: str) -> Iterator[Segment]:
    for i in range(len(text)):
        hit = _DATE.match(text, i)
        if hit is None:
            continue
        for size in range(6, min(10, len(text) - i) + 1):
            whole = _DATE.fullmatch(text, i, i + size)
            if whole and _is_date(whole.group(1), whole.group(3), whole.group(4)):
                fee = 0.5 if whole.group(2) else 0.0
                yield Segment(i, i + size, SegmentKind.DATE, log10(366 * 60) + fee)
    for hit in _YEAR.finditer(text):
        yield Segment(hit.start(), hit.start() + 4, SegmentKind.YEAR, log10(90))


def _is_date(a: str, b: str, c: str) -> bool:
    if len(a) == 4:
        year, first, second = int(a), int(b), int(c)
    elif len(c) in (2, 4) and len(a) <= 2:
        year, first, second = int(c) if len(c) == 4 else 2000, int(a), int(b)
    else:
        return False
    day_month = 1 <= first <= 31 and 1 <= second <= 12
    month_day = 1 <= first <= 12 and 1 <= second <= 31
    return 1900 <= year <= 2059 and (day_month or month_day)


def _digits_and_symbols(text: str) -> Iterator[Segment]:
    for hit in _DIGITS.finditer(text):
        yield Segment(hit.start(), hit.end(), SegmentKind.DIGITS, float(hit.end() - hit.start()))
    n = len(text)
    for i, c in enumerate(text):
        at_edge = i in (0, n - 1)
        if c.isdigit() and at_edge:
            yield Segment(i, i + 1, SegmentKind.DIGITS, 1.0)
        elif not c.isalnum() and (at_edge or c in _SEPARATORS):
            usual = c in "!.?-_ "
            yield Segment(i, i + 1, SegmentKind.SYMBOL, log10(6) if usual else log10(33))
