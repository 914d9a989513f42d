"""What the capitals of a word cost a guesser."""

from itertools import pairwise
from math import comb, log10

SHARES = LOWER, FIRST, ALL, BY_TURNS, OTHER = 0.72, 0.2, 0.05, 0.01, 0.02
"""Of words: none capital, the first, all, every second letter, any other pattern."""
_LOWER, _FIRST, _ALL, _BY_TURNS, _OTHER = (-log10(share) for share in SHARES)
_BY_TURNS_LEAST = 4
SAME_AGAIN = 0.9
"""Share of later words that are written like the first."""
_SAME, _NOT_SAME = -log10(SAME_AGAIN), -log10(1 - SAME_AGAIN)


def case_log10(text: str, start: int, end: int) -> tuple[float, float]:
    """-log10 of which capitals [start, end) has among words of its pattern, and of the pattern,
    given the text before.
    """
    word = text[start:end]
    lower, upper = word.islower(), word.isupper()
    if start > 0 and (lower or word.istitle()):
        same = text[0].isupper() is not lower
        return 0.0, _SAME if same else _NOT_SAME + (_LOWER if lower else _FIRST)
    if lower or not (upper or any(c.isupper() for c in word)):
        return 0.0, _LOWER
    if upper:
        return 0.0, _ALL
    if word.istitle():
        return 0.0, _FIRST
    cases = [c.isupper() for c in word if c.isalpha()]
    if len(cases) >= _BY_TURNS_LEAST and all(a is not b for a, b in pairwise(cases)):
        return log10(2), _BY_TURNS
    capitals = sum(cases)
    return log10(len(word)) + log10(comb(len(word), capitals)), _OTHER
