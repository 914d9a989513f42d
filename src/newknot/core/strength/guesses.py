"""From the effort of trying all that is like a text to the number of guesses until it falls."""

from bisect import bisect_right
from functools import cache

from newknot.core.shipped import shipped_lines

DOUBTS = ((6.0, 1.0), (10.0, 0.5))
"""What an attack reaches, and how many orders above it a number is in doubt: the sign-in form, and
a stolen file that is hashed by a slow function (`budgets`).
"""
_PRESSED_FROM, _BELOW = 0.2, 0.005


@cache
def _table() -> tuple[tuple[float, ...], tuple[float, ...]]:
    rows = [tuple(map(float, line.split())) for line in shipped_lines("guesses_by_effort.txt")]
    return tuple(effort for effort, _ in rows), tuple(guesses for _, guesses in rows)


def guesses_log10(effort_log10: float) -> float:
    """log10 of the guesses that secrets of this effort (0 or more) stood, by the shipped table.

    The table was sampled over ways of making secrets whose number of outcomes is known; between
    its rows straight lines, beyond its last row one order for each order of effort.
    """
    efforts, guesses = _table()
    at = bisect_right(efforts, effort_log10)
    if at == len(efforts):
        return guesses[-1] + effort_log10 - efforts[-1]
    share = (effort_log10 - efforts[at - 1]) / (efforts[at] - efforts[at - 1])
    return guesses[at - 1] + share * (guesses[at] - guesses[at - 1])


def beside_doubt(guesses_log10: float) -> float:
    """The number as it is said: one that is in doubt is said to be within the attack's reach, just
    below it, for who reads that a secret stands an attack relies on it. Order is kept.
    """
    for reached, doubt in DOUBTS:
        low = reached - _PRESSED_FROM
        if low < guesses_log10 < reached + doubt:
            slope = (_PRESSED_FROM - _BELOW) / (_PRESSED_FROM + doubt)
            return low + (guesses_log10 - low) * slope
    return guesses_log10
