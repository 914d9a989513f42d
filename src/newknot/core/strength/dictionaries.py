"""Ranked words that guessers try first, read once from the shipped lists."""

from functools import cache

from newknot.core.shipped import shipped_lines
from newknot.core.strength.segments import SegmentKind

_LISTS = (
    ("english_words.txt.gz", SegmentKind.WORD),
    ("surnames.txt.gz", SegmentKind.NAME),
    ("given_names.txt.gz", SegmentKind.NAME),
    ("common_passwords.txt.gz", SegmentKind.COMMON_PASSWORD),
)
SHORTEST, LONGEST = 4, 24


@cache
def ranked() -> dict[str, tuple[int, SegmentKind]]:
    """Lower-case word -> (rank from 1, kind), the better rank where lists share a word."""
    table: dict[str, tuple[int, SegmentKind]] = {}
    for name, kind in _LISTS:
        for rank, word in enumerate(shipped_lines(name), 1):
            known = table.get(word)
            if SHORTEST <= len(word) <= LONGEST and (known is None or rank < known[0]):
                table[word] = (rank, kind)
    return table
