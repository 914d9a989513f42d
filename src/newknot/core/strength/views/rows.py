"""Rows of one form: what follows exactly of the rows before, or of what stands beside it."""

from collections.abc import Iterator
from functools import cache

BETWEEN_LOG10 = 0.9
"""Of the choice of a form for the whole text, as to put something between all letters."""
_COLUMN_LOG10, _STEP_LOG10, _SURPRISE_LOG10 = 0.3, 0.5, 1.5
"""Of rows of one form: for each place in them, for one that goes on by a step, and by how much it
has to be less likely by chance, where each character is one of ten at the least.
"""
_STEPS = frozenset((-1, 0, 1))
_LEAST, _MOST, _BEHIND_MOST = 4, 40, 3
"""Characters of a text in rows, and of what may stand behind them."""


def in_rows(text: str) -> tuple[str, float, int] | None:
    """Of three rows of characters and more of one form, or two of which the second is the first
    moved on in the alphabet: what the rows do not have of one another, log10 of what choosing the
    form costs, and how many rows.
    """
    n = len(text)
    if n > _MOST:
        return None
    low = low if len(low := text.lower()) == n else text
    codes = [*map(ord, low)]
    found = [
        (len(told) + n - end + cost, f"{told}{text[end:]}", cost, end // size)
        for end, size in _forms(n)
        if end == 2 * size or _may_follow(codes, size)
        for told, cost in _rows_told(text[:end], low[:end], size)
    ]
    return min(found)[1:] if found else None


@cache
def _forms(n: int) -> tuple[tuple[int, int], ...]:
    """Where the rows may end in a text of so many characters, and how long each is then."""
    ends = range(n, max(n - _BEHIND_MOST, _LEAST) - 1, -1)
    return tuple((end, size) for end in ends for size in range(2, end // 2 + 1) if end % size == 0)


def _may_follow(codes: list[int], size: int) -> bool:
    """Whether any column goes on by one step or none, or as another does, from the first row to the
    second; else nothing in three rows follows of another, and most texts are told so at once.
    """
    steps = {below - above for above, below in zip(codes[:size], codes[size:], strict=False)}
    return len(steps) < size or not _STEPS.isdisjoint(steps)


def _rows_told(text: str, low: str, size: int) -> Iterator[tuple[str, float]]:
    """Of rows of this size, what they do not have of one another, and what finding that costs."""
    if len(text) == 2 * size:
        is_much = size > BETWEEN_LOG10 + _STEP_LOG10 + 1 + _SURPRISE_LOG10
        if is_much and _step(low[0] + low[size]) and _is_moved_on(low[:size], low[size:]):
            yield text[:size], BETWEEN_LOG10 + _STEP_LOG10
        return
    columns = [low[at::size] for at in range(size)]
    free: list[str] = []
    once, cost, followed = "", BETWEEN_LOG10 + _COLUMN_LOG10 * size, 0
    for at, column in enumerate(columns):
        if column == column[0] * len(column):
            once, followed = once + text[at], followed + len(column) - 1
        elif any(_follows(column, other) for other in columns[:at]):
            cost, followed = cost + _STEP_LOG10, followed + len(column)
        elif _follows(column[1:], column[:-1]):
            once, cost = once + text[at], cost + _STEP_LOG10
            followed += len(column) - 1
        else:
            free.append(text[at::size])
    if followed > cost + _SURPRISE_LOG10:
        yield "".join(map("".join, zip(*free, strict=True))) + once, cost


def _follows(column: str, other: str) -> bool:
    """Whether each character is the one of the other column, or the one beside that."""
    by = ord(column[0]) - ord(other[0])
    if not -1 <= by <= 1 or not (by == 0 or (column[0].isalnum() and other[0].isalnum())):
        return False
    return all(ord(a) - ord(b) == by for a, b in zip(column, other, strict=True))


def _is_moved_on(half: str, other: str) -> bool:
    """Whether all letters, and all digits, are as many places further on in the other half."""
    return len({_step(a + b) for a, b in zip(half, other, strict=True)}) == 1


def _step(pair: str) -> int | None:
    """By how much the second of two letters, or digits, is further on; None of others."""
    if not (pair.isdigit() or (pair.isascii() and pair.isalpha())):
        return None
    of = 10 if pair.isdigit() else 26
    step = (ord(pair[1]) - ord(pair[0])) % of
    return (step if 2 * step < of else step - of) or None
