"""Members of small classes in a row: numbers in words, days, elements, the spelling alphabet."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from math import log10

from newknot.core.shipped import shipped_lines
from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.reading import Reading, shape_of_letters
from newknot.core.strength.segments import Found, Part, SegmentKind

CLASSES_SHARE, _RARER_SHARE = 0.03, 0.15
"""Of words; of these, of the classes that are rarer chosen from."""
_LEAST, _FEW = 2, 26
"""Members in a row; one alone is a word as any other, but of a class of no more than so many, or
where it is long.
"""
_MEMBERS_MOST = 24
_SHORTEST, _BEGINNING = 2, 3
"""Letters of a member at least, and those by which members are looked up."""
_RUN = re.compile(r"(?:[^\W_]{4,}|[^\W_]{2,3}[-._, &+/][^\W_]{2,})(?:[-._, &+/][^\W_]{2,}){0,24}")
_ALONE_LEAST, _LONG = 4, 10
_SEPARATORS = "-._, &+/"
_GOES_ON, _ENDS, _SEPARATED = log10(1 / 0.6), log10(1 / 0.4), log10(1 / 0.3)
_NEXT, _FROM_FIRST = log10(1 / 0.4), log10(1 / 0.3)
_TENS, _UNITS, _UNIT = "ty", range(1, 10), log10(9)
"""Seventy is followed by one to nine."""
_SMALL, _SMALL_SHARE = 12, 0.7
"""Members that come first, and how often one of them it is."""
_FIRST = (0, 1)
"""Some count from nought."""


@dataclass(frozen=True, slots=True)
class _SmallClass:
    """places: shapes of the members with their places; by_beginning: first two letters -> members,
    the longest first; which_log10: -log10 of the class among all; alone_least: from how many
    letters on one member is found alone.
    """

    name: str
    places: dict[str, int]
    by_beginning: dict[str, tuple[str, ...]]
    which_log10: float
    alone_least: int

    def each_log10(self, place: int) -> float:
        """-log10 of a member: of numbers, the small ones are the most."""
        size = len(self.places)
        if "numbers" not in self.name or size <= _SMALL:
            return log10(size)
        if place < _SMALL:
            return log10(_SMALL / _SMALL_SHARE)
        return log10((size - _SMALL) / (1 - _SMALL_SHARE))

    def member_at(self, shape: str, at: int, limit: int) -> str | None:
        """The longest member that stands there and ends by the limit."""
        for member in self.by_beginning.get(shape[at : at + _SHORTEST], ()):
            if shape.startswith(member, at) and at + len(member) <= limit:
                return member
        return None


@cache
def _classes() -> tuple[_SmallClass, ...]:
    lines = [line.split("\t") for line in shipped_lines("closed_classes.txt")]
    rarer = sum(len(line) > 2 for line in lines)
    costs = log10((len(lines) - rarer) / (1 - _RARER_SHARE)), log10(rarer / _RARER_SHARE)
    found = []
    for name, members, *is_rarer in lines:
        places = {shape_of_letters(one): place for place, one in enumerate(members.split())}
        begun: dict[str, tuple[str, ...]] = {}
        for member in sorted(places, key=len, reverse=True):
            begun[member[:_SHORTEST]] = (*begun.get(member[:_SHORTEST], ()), member)
        # Of the rarer ones, one alone is a word as any other.
        alone = _ALONE_LEAST if len(places) <= _FEW and not is_rarer else _LONG
        found.append(_SmallClass(name, places, begun, costs[len(is_rarer)], alone))
    return tuple(found)


@cache
def _beginnings() -> dict[str, tuple[_SmallClass, ...]]:
    """First three letters -> the classes that have a member which begins so, or is all of two."""
    found: dict[str, tuple[_SmallClass, ...]] = {}
    for one in _classes():
        for beginning in {member[:_BEGINNING] for member in one.places}:
            found[beginning] = (*found.get(beginning, ()), one)
    return found


def closed_classes(reading: Reading) -> Iterator[Found]:
    """Two members and more of one class, touching or each with the same separator before it."""
    low = reading.low
    # Digits stand for themselves here (1st), not for letters.
    shape = shape_of_letters(low)
    beginnings = _beginnings()
    for run in _RUN.finditer(shape):
        for start in range(run.start(), run.end() - 3):
            for size in (_SHORTEST, _BEGINNING):
                for one in beginnings.get(shape[start : start + size], ()):
                    yield from _in_a_row(reading, shape, start, run.end(), one)


def _in_a_row(
    reading: Reading, shape: str, start: int, limit: int, of: _SmallClass
) -> Iterator[Found]:
    which, between = of.which_log10, ""
    count, end, place = 0, start, -2
    while count < _MEMBERS_MOST:
        begin = end + (count > 0 and shape[end : end + 1] in _SEPARATORS and end < limit)
        separator = shape[end:begin]
        if count > 1 and separator != between:
            return
        member = of.member_at(shape, begin, limit)
        if member is None:
            return
        # The next in order is what one expects, from the first on above all.
        last, place = place, of.places[member]
        if place == last + 1:
            which += _NEXT
        elif shape[:begin].endswith(_TENS) and place in _UNITS:
            which += _UNIT
        else:
            which += of.each_log10(place)
        between, end, count = separator, begin + len(member), count + 1
        if count == _LEAST and last in _FIRST and place == last + 1:
            which -= of.each_log10(last) - _FROM_FIRST
        alone = count == 1 and end - start >= of.alone_least
        if count >= _LEAST or alone:
            in_case, pattern = case_log10(reading.text, start, end)
            fee = _ENDS + _GOES_ON * max(0, count - _LEAST) - log10(CLASSES_SHARE)
            fee += (_SEPARATED if between else 0.0) + min(pattern + in_case, 1.5)
            kind = SegmentKind.OF_A_CLASS
            yield Found(start, end, Part.WORD, which, fee, kind, of.name)
