"""First letters of running text, as a guesser would try them: common beginnings first."""

from functools import cache
from math import log10

from newknot.core.shipped import shipped_lines

_CAPITAL, _MARK = log10(4), log10(40)
"""log10 cost of a capital (one in four, generous), and of a mark or digit among the letters."""


@cache
def beginnings() -> dict[str, float]:
    """log10 of how rare each first letter is, words weighed by 1/rank (Zipf, 1935)."""
    weights: dict[str, float] = {}
    for rank, word in enumerate(shipped_lines("english_words.txt.gz"), 1):
        weights[word[0]] = weights.get(word[0], 0.0) + 1 / rank
    total = sum(weights.values())
    return {letter: log10(total / weight) for letter, weight in weights.items()}


def initials_log10(text: str) -> float:
    """log10 of the guesses that reach a text taken as first letters of an English line.

    A line that is known by heart to others too (verse, song, saying) falls far sooner.
    """
    rare = max(beginnings().values())
    total = 0.0
    for c in text:
        if c.isalpha():
            total += beginnings().get(c.lower(), rare) + (_CAPITAL if c.isupper() else log10(4 / 3))
        else:
            total += _MARK
    return total
