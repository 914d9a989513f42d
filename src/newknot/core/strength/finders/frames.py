"""What people put words into: idioms of code, of screens and of speech (`SELECT … FROM …;`)."""

from collections.abc import Iterator
from functools import cache
from itertools import pairwise
from math import log10

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.reading import Reading, spellings
from newknot.core.strength.segments import Found, Part, SegmentKind

FRAMES_SHARE = 0.05
"""Of patterns."""
_FEE, _OTHER_CASE, _EXPECTED = -log10(FRAMES_SHARE), 0.5, -1.0
"""Of the first literal; in capitals; of those that the first lets expect."""
_TOUCHING_LEAST = 3
"""Letters of what is written without its blanks; fewer stand in any word."""
_FIRST = 2
_GAP = "…"
_SAYS = "a form to put words into"

Literals = tuple[str, ...]


@cache
def _frames() -> tuple[dict[str, tuple[Literals, ...]], dict[str, tuple[Literals, ...]], float]:
    """First two characters -> the frames that begin so; the same of those that begin with a word;
    and what one of all costs. A frame is its literals with "" where a word stands first or last.
    """
    lines = shipped_bytes("frames.txt").decode("utf-8").splitlines()[1:]
    spelt = dict.fromkeys(spelling for line in lines for spelling in spellings(line))
    spaced = [tuple(line.split(_GAP)) for line in spelt]
    touching = (tuple(one.replace(" ", "") for one in frame) for frame in spaced)
    all_of_them = dict.fromkeys((*spaced, *filter(_is_telling, touching)))
    begins: dict[str, tuple[Literals, ...]] = {}
    inner: dict[str, tuple[Literals, ...]] = {}
    for frame in all_of_them:
        by, key = (begins, frame[0][:_FIRST]) if frame[0] else (inner, frame[1][:_FIRST])
        by[key] = (*by.get(key, ()), frame)
    return begins, inner, log10(len(lines))


def _is_telling(frame: Literals) -> bool:
    return max(map(len, frame)) >= _TOUCHING_LEAST


def frames(reading: Reading) -> Iterator[Found]:
    """The literals of every frame that the text stands in, but for digits and signs behind."""
    low = reading.low
    begins, inner, each = _frames()
    for size in (1, _FIRST):
        for frame in begins.get(low[:size], ()):
            if low.startswith(frame[0]):
                yield from _literals(reading, frame, each)
    within = low[1:]
    pairs = {*within, *map("".join, pairwise(within))}
    for pair in sorted(inner.keys() & pairs):
        for frame in inner[pair]:
            if frame[1] in low:
                yield from _literals(reading, frame, each)


def _literals(reading: Reading, frame: Literals, each: float) -> Iterator[Found]:
    """Each pays its share of the choice among all frames."""
    low, end, places = reading.low, 0, []
    for at, literal in enumerate(frame):
        if not literal:
            continue
        # A word of one letter at least stands before all but the first.
        start = low.find(literal, end + 1) if at else 0
        if start < 0:
            return
        end = start + len(literal)
        places.append((start, end))
    rest = low[end:]
    if any(map(str.isalpha, rest)) if frame[-1] else not rest:
        return
    for at, (start, end) in enumerate(places):
        typed = reading.text[start:end]
        in_case = typed != typed.lower()
        fee = (_EXPECTED if at else _FEE) + (_OTHER_CASE if in_case else 0.0)
        which = each / len(places)
        yield Found(start, end, Part.PATTERN, which, fee, SegmentKind.SHAPE, _SAYS)
