"""Stretches that stand earlier in the text too, also mirrored: the second one is nearly free."""

import re
from collections.abc import Iterator
from math import log10

from newknot.core.strength.dictionaries import dictionaries
from newknot.core.strength.rarer_words import is_rarer
from newknot.core.strength.reading import FULLY_READ, Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

COPY_SHARE = 0.2
"""Of patterns."""
_FROM_START_LOG10, _WHOLE_LOG10, _CASE_LOG10, _MIRROR_LOG10 = 0.3, 0.2, 0.7, 0.9
_IN_SIGNS_LOG10, _IN_SIGNS_LEAST = 0.9, 4
_STUTTER = re.compile(r"([a-z]{2,4})[-_. ]?(?:\1[-_. ]?)*(?=\1(?!\1)[a-z])")
_STUTTER_LOG10, _WORD_MOST = 1.5, 16
"""How many letters, how often, and what is between."""
_SHORTEST = 3
_SHORTER_OFFERED = 24


def copies(reading: Reading) -> Iterator[Found]:
    """Three characters and more that repeat an earlier stretch (it may overlap), linear in time.

    Each copy is found from where its first three characters stood first and last; after the first
    128 characters a copy is looked for only where the one before ends.
    """
    text = reading.text.lower()
    if len(text) != len(reading.text):
        text = reading.text
    yield from _mirrored(reading.low)
    yield from _in_signs(reading)
    yield from _stutter(reading)
    n = len(text)
    keys = [text[at : at + _SHORTEST] for at in range(n - _SHORTEST + 1)]
    if len(set(keys)) == len(keys):
        return
    first: dict[str, int] = {}
    latest: dict[str, int] = {}
    reach: dict[int, int] = {}
    covered = 0
    for at, key in enumerate(keys):
        if at < FULLY_READ or at >= covered:
            for source in {first.get(key, -1), latest.get(key, -1)} - {-1}:
                # What the stretch before matched beyond its first character still matches.
                shift = at - source
                size = max(reach.get(shift, 0) - at, _SHORTEST)
                while at + size < n and text[source + size] == text[at + size]:
                    size += 1
                reach[shift] = at + size
                covered = max(covered, at + size)
                yield from _copy(reading.text, source, at, size)
        first.setdefault(key, at)
        latest[key] = at


def _copy(text: str, source: int, at: int, size: int) -> Iterator[Found]:
    offered = range(_SHORTEST, size + 1) if size <= _SHORTER_OFFERED else (size,)
    for length in offered:
        which = _FROM_START_LOG10 if source == 0 else log10(2 * at)
        which += _WHOLE_LOG10 if length >= at - source else log10(2 * at)
        fee = -log10(COPY_SHARE)
        if text[at : at + length] != text[source : source + length]:
            fee += _CASE_LOG10
        yield Found(at, at + length, Part.PATTERN, which, fee, SegmentKind.COPY)


def _mirrored(low: str) -> Iterator[Found]:
    for at in range(_SHORTEST, len(low) - _SHORTEST + 1):
        # Back to back, or with one character between.
        for before in (at, at - 1):
            size, most = 0, min(before, len(low) - at)
            while size < most and low[before - 1 - size] == low[at + size]:
                size += 1
            if size >= _SHORTEST:
                fee = _MIRROR_LOG10 - log10(COPY_SHARE)
                which = _WHOLE_LOG10 if size == before else log10(2 * at)
                yield Found(at, at + size, Part.PATTERN, which, fee, SegmentKind.COPY)


def _in_signs(reading: Reading) -> Iterator[Found]:
    """The beginning once more, with look-alike signs for letters or letters for signs."""
    low, shaped = reading.low, reading.shaped
    if low.isalpha() or low.isdigit():
        return
    for at in range(_IN_SIGNS_LEAST, (len(low) + 1) // 2 + 1):
        for size in (at, at - 1):
            end = at + size
            first, again = shaped[:size], shaped[at:end]
            if first == again and low[:size] != low[at:end] and first.isalpha():
                fee = _IN_SIGNS_LOG10 - log10(COPY_SHARE)
                which = _FROM_START_LOG10 + _WHOLE_LOG10
                yield Found(at, end, Part.PATTERN, which, fee, SegmentKind.COPY)


def _stutter(reading: Reading) -> Iterator[Found]:
    """What stands at the beginning because a longer word behind it begins so, once or more."""
    said, known = _STUTTER.match(reading.low), dictionaries().number
    if said is None:
        return
    rest = reading.shaped[said.end() : said.end() + _WORD_MOST]
    # Of letters that mean nothing, one of the two is no copy.
    longer = (rest[:size] for size in range(said.end(1) + 1, len(rest) + 1))
    if any(one in known or is_rarer(one) for one in longer):
        fee = -log10(COPY_SHARE)
        yield Found(0, said.end(), Part.PATTERN, _STUTTER_LOG10, fee, SegmentKind.COPY)
