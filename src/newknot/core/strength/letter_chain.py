"""How likely letters are in a row that only looks like a word: by the two letters before each."""

from functools import cache
from math import log10

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.dictionaries import WORDLIKE_SHARE

LETTERS = 27
"""The word's edge (0) and a to z."""
STEPS_PER_ORDER = 40
EDGE = 0
ENTRY_LOG10 = -log10(WORDLIKE_SHARE)
"""Cost of the choice to make a word up."""
SHORTEST = 4
"""Letters of a made-up word at least; fewer are as good as drawn."""


@cache
def triples() -> bytes:
    """-log10 of each triple's probability in steps of 1/40, rows by first, second, third letter."""
    return shipped_bytes("letter_triples.bin.gz")


def letter_number(low: str) -> int:
    """1 to 26 for a to z."""
    return ord(low) - 96
