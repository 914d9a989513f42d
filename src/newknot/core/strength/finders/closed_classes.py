"""Members of small classes in a row: numbers in words, days, elements, the spelling alphabet."""

import re
from collections.abc import Iterator
from functools import cache
from math import log10

from newknot.core.shipped import shipped_lines
from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.reading import Reading, shape_of_letters
from newknot.core.strength.segments import Found, Part, SegmentKind

CLASSES_SHARE = 0.03
"""Of words."""
_LEAST, _FEW = 2, 26
"""Members in a row; one alone is a word as any other, but of a class of no more than so many, or
where it is long.
"""
_MEMBERS_MOST = 24
_BEGINNING = 3
"""Letters by which members are looked up."""
_RUN = re.compile(r"[^\W_]{4,}(?:[-._, &+/][^\W_]{2,}){0,24}")
_ALONE_LEAST, _LONG = 4, 10
_SEPARATORS = "-._, &+/"
_GOES_ON, _ENDS, _SEPARATED = log10(1 / 0.6), log10(1 / 0.4), log10(1 / 0.3)
_NEXT = log10(1 / 0.4)


@cache
def _classes() -> tuple[tuple[str, dict[str, int], int], ...]:
    """Name, shapes of the members with their places, and the longest of them."""
    found = []
    for line in shipped_lines("closed_classes.txt"):
        name, members = line.split("\t")
        shapes = {shape_of_letters(one): place for place, one in enumerate(members.split())}
        found.append((name, shapes, max(map(len, shapes))))
    return tuple(found)


@cache
def _beginnings() -> dict[str, tuple[int, ...]]:
    """First three letters -> the classes that have a member which begins so, or is all of two."""
    found: dict[str, tuple[int, ...]] = {}
    for at, (_, members, _) in enumerate(_classes()):
        for beginning in {member[:_BEGINNING] for member in members}:
            found[beginning] = (*found.get(beginning, ()), at)
    return found


def closed_classes(reading: Reading) -> Iterator[Found]:
    """Two members and more of one class, touching or each with the same separator before it."""
    low = reading.low
    # Digits stand for themselves here (1st), not for letters.
    shape = shape_of_letters(low)
    beginnings = _beginnings()
    for run in _RUN.finditer(shape):
        for start in range(run.start(), run.end() - 3):
            for size in (2, _BEGINNING):
                for at in beginnings.get(shape[start : start + size], ()):
                    yield from _in_a_row(reading, shape, start, run.end(), at)


def _in_a_row(reading: Reading, shape: str, start: int, limit: int, at: int) -> Iterator[Found]:
    name, members, longest = _classes()[at]
    each, between = log10(len(members)), ""
    which, count, end, place = log10(len(_classes())), 0, start, -2
    while count < _MEMBERS_MOST:
        begin = end + (count > 0 and shape[end : end + 1] in _SEPARATORS and end < limit)
        separator = shape[end:begin]
        if count > 1 and separator != between:
            return
        stop = next(
            (
                begin + size
                for size in range(min(longest, limit - begin), 1, -1)
                if shape[begin : begin + size] in members
            ),
            None,
        )
        if stop is None:
            return
        # The next in order is what one expects.
        last, place = place, members[shape[begin:stop]]
        which += _NEXT if place == last + 1 else each
        between, end, count = separator, stop, count + 1
        is_telling = end - start >= (_ALONE_LEAST if len(members) <= _FEW else _LONG)
        alone = count == 1 and is_telling
        if count >= _LEAST or alone:
            in_case, pattern = case_log10(reading.text, start, end)
            fee = _ENDS + _GOES_ON * max(0, count - _LEAST) - log10(CLASSES_SHARE)
            fee += (_SEPARATED if between else 0.0) + min(pattern + in_case, 1.5)
            kind = SegmentKind.OF_A_CLASS
            yield Found(start, end, Part.WORD, which, fee, kind, name)
