"""What the capitals of a word cost a guesser."""

from itertools import pairwise
from math import comb, log10

SHARES = LOWER, FIRST, ALL, BY_TURNS, LAST, AT_ONE_END, BY_RULE, OTHER = (
    0.72, 0.2, 0.05, 0.01, 0.003, 0.003, 0.002, 0.012,
)  # fmt: skip
"""Of words: none capital, the first, all, every second letter, the last, some at one end alone, by
another rule, any other pattern.
"""
_LOWER, _FIRST, _ALL, _BY_TURNS, _LAST, _AT_ONE_END, _BY_RULE, _OTHER = map(abs, map(log10, SHARES))
_BY_TURNS_LEAST, _VOWELS = 4, frozenset("aeiouAEIOU")
_RULES_LOG10 = log10(5)
"""Every third letter from each of the first three, the vowels, the others."""
SAME_AGAIN = 0.9
"""Share of later words that are written like the first."""
_SAME, _NOT_SAME = -log10(SAME_AGAIN), -log10(1 - SAME_AGAIN)


def case_log10(text: str, start: int, end: int) -> tuple[float, float]:
    """-log10 of which capitals [start, end) has among words of its pattern, and of the pattern,
    given the text before.
    """
    word = text[start:end]
    lower = word.islower()
    cases = [] if lower else [c.isupper() for c in word if c.isalpha()]
    # Digits for letters begin no words.
    is_first = word.istitle() or (len(cases) > 1 and cases[0] and not any(cases[1:]))
    if start > 0 and (lower or is_first):
        same = text[0].isupper() is not lower
        return 0.0, _SAME if same else _NOT_SAME + (_LOWER if lower else _FIRST)
    if lower or not any(cases):
        return 0.0, _LOWER
    if all(cases):
        return 0.0, _ALL
    if is_first:
        return 0.0, _FIRST
    if len(cases) >= _BY_TURNS_LEAST and all(a is not b for a, b in pairwise(cases)):
        return log10(2), _BY_TURNS
    capitals = sum(cases)
    if sum(a is not b for a, b in pairwise(cases)) == 1:
        return (0.0, _LAST) if capitals == 1 else (log10(2 * len(word)), _AT_ONE_END)
    if _is_by_rule(word, cases):
        return _RULES_LOG10, _BY_RULE
    return log10(len(word)) + log10(comb(len(word), capitals)), _OTHER


def _is_by_rule(word: str, cases: list[bool]) -> bool:
    """Every third letter, the vowels, or what is none."""
    if any(cases == [at % 3 == first for at in range(len(cases))] for first in range(3)):
        return True
    vowels = [c in _VOWELS for c in word if c.isalpha()]
    return cases in (vowels, [not is_vowel for is_vowel in vowels])
