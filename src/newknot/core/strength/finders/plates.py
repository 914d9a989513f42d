"""Number plates: letters and digits in the groups that registration offices use."""

import re
from collections.abc import Iterator
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

PLATE_SHARE = 0.02
"""Of patterns."""
SHAPES: tuple[str, ...] = (
    *("LLDDLLL", "LLLDDD", "LLLDDDD", "DDDLLL", "LLDDDLL", "LLDDDD", "LDDDLLL", "LLDDDDD"),
    *("DDDDLLL", "LLLDDL", "DLLLDDD", "LLDDLL", "DDLLLD", "LLLLDDD", "LDDDDD"),
    *(
        f"{district}-{letters}{'D' * size}"
        for district in ("L", "LL", "LLL")
        for letters in ("L", "LL")
        for size in (2, 3, 4)
    ),
)
"""Letters and digits in groups; a dash is always written, other groups may stand apart."""
_MEMBERS = {"L": "[a-z]", "D": "[0-9]"}
_PLATE = re.compile(
    "(?<![a-z0-9])(?=("
    + "|".join(
        "[- ]?".join(
            group if group == "-" else f"{_MEMBERS[group[0]]}{{{len(group)}}}"
            for group in re.findall("L+|D+|-", shape)
        )
        for shape in SHAPES
    )
    + ")(?![a-z0-9]))"
)
_LETTER_LOG10 = log10(24)
_SHAPE_LOG10 = log10(6 / PLATE_SHARE)
_UPPER_LOG10, _GROUPED_LOG10 = log10(2), log10(3)


def plates(reading: Reading) -> Iterator[Found]:
    """Stretches shaped like a plate that no letter or digit follows."""
    for hit in _PLATE.finditer(reading.low):
        start, end = hit.span(1)
        typed = reading.text[start:end]
        letters = [c for c in typed if c.isalpha()]
        if not (all(c.isupper() for c in letters) or all(c.islower() for c in letters)):
            continue
        count = sum(c.isdigit() for c in typed)
        which, fee = count + len(letters) * _LETTER_LOG10, _SHAPE_LOG10 + _UPPER_LOG10
        if count + len(letters) < len(typed):
            fee += _GROUPED_LOG10
        yield Found(start, end, Part.PATTERN, which, fee, SegmentKind.PLATE)
