"""Letters in another order, and words that are said piece by piece, twice or within one another:
what undoes each of them, or gives nothing where it cannot have been made.
"""

import re
from functools import cache
from itertools import pairwise, zip_longest
from string import ascii_lowercase

from newknot.core.strength.dictionaries import dictionaries
from newknot.core.strength.reading import shape_of_letters
from newknot.core.strength.views.like_words import WORD_LEAST

_WITHIN_MOST, _SHORTEST_HALF = 24, 3
_PIECES_LEAST = 3
"""Of a word that is said piece by piece."""
_INNER = re.compile(r"([a-zA-Z]+)[(<\[{*\"']([a-zA-Z]{4,})[)>\]}*\"']([a-zA-Z]+)")


def by_thirds(text: str) -> str | None:
    """Three rows that were written one after the other, read column by column."""
    third, rest = divmod(len(text), 3)
    ends = (0, third + (rest > 0), 2 * third + (rest > 0) + (rest > 1), len(text))
    rows = [text[a:b] for a, b in pairwise(ends)]
    return "".join(row[at] for at in range(len(rows[0])) for row in rows if at < len(row))


def one_less(text: str) -> str | None:
    """Each letter one further back in the alphabet than the one before it."""
    low = text.lower()
    if not (low.isascii() and low.isalpha()):
        return None
    return "".join(ascii_lowercase[(ord(c) - 97 - at) % 26] for at, c in enumerate(low, 1))


def inside_out(text: str) -> str:
    """Letters that were taken from both ends by turns."""
    return text[::2] + text[1::2][::-1]


def word_within(text: str) -> str | None:
    """The outer word and the inner one, the longest inner one first; or that in brackets."""
    low = text.lower()
    if said := _INNER.fullmatch(text):
        return f"{said.group(1)}{said.group(3)} {said.group(2)}"
    n, known = len(low), dictionaries().number
    if n > _WITHIN_MOST or not (low.isascii() and low.isalpha()):
        return None
    shape = shape_of_letters(low)
    for size in range(n - WORD_LEAST, WORD_LEAST - 1, -1):
        for start in range(1, n - size):
            if (
                shape[start : start + size] in known
                and shape[:start] + shape[start + size :] in known
            ):
                return f"{text[:start]}{text[start + size :]} {text[start : start + size]}"
    return None


def firsts_back(text: str) -> str | None:
    """Of two words that touch."""
    low, known = shape_of_letters(text.lower()), dictionaries().number
    n = len(low)
    for at in range(WORD_LEAST, n - WORD_LEAST + 1) if low.isalpha() and n <= _WITHIN_MOST else ():
        one, other = low[at] + low[1:at], low[0] + low[at + 1 :]
        if one != low[:at] and one in known and other in known:
            return text[at] + text[1:at] + text[0] + text[at + 1 :]
    return None


def before_its_letters(text: str) -> str | None:
    """A half before its own letters in the order of the alphabet."""
    half = len(text) // 2
    return text[:half] if [*text[half:].lower()] == sorted(text[:half].lower()) else None


def keyword(text: str) -> str | None:
    """Letters that differ, before as many of the others as there are, in their order."""
    low = text.lower()
    if not low.isalpha() or [*low[-WORD_LEAST:]] != sorted(low[-WORD_LEAST:]):
        return None
    for size in range(_SHORTEST_HALF, len(low) - WORD_LEAST + 1):
        others = "".join(c for c in ascii_lowercase if c not in low[:size])
        if others.startswith(low[size:]) and len({*low[:size]}) == size:
            return text[:size]
    return None


def first_behind(text: str) -> str | None:
    """The first letter behind the others."""
    return text[1:] + text[0]


def last_in_front(text: str) -> str | None:
    """The capital goes with the place, not with the letter."""
    turned = text[-1] + text[:-1]
    return turned.title() if text.istitle() else turned


def without_its_letter(text: str) -> str | None:
    """A word between its first or last letter twice."""
    low = text.lower()
    is_own = low[0] == low[-1] and low[0].isalpha() and low[0] in (low[1], low[-2])
    return text[1:-1] if is_own else None


def unwoven(text: str) -> str | None:
    """One after the other; of two words, what is left of the longer one stands behind."""
    n, known = len(text), dictionaries().number
    if n < 2 * WORD_LEAST:
        return None
    if n <= _WITHIN_MOST and text.isascii() and text.isalpha():
        for end in range(n - 2 + n % 2, WORD_LEAST, -2):
            one, other = text[:end:2], text[1:end:2]
            for first, second in ((one + text[end:], other), (one, other + text[end:])):
                if all(shape_of_letters(word.lower()) in known for word in (first, second)):
                    return first + second
    return text[::2] + text[1::2]


def woven(text: str) -> str | None:
    """The one half between the letters of the other."""
    half = (len(text) + 1) // 2
    if len(text) < 2 * _SHORTEST_HALF:
        return None
    return "".join(map("".join, zip_longest(text[:half], text[half:], fillvalue="")))


def grown(text: str) -> str | None:
    """The word of which a text says beginnings or endings one after the other, the longest of them
    first or last.
    """
    for lengths in _pieces(len(text)):
        size, second, least = lengths[0], lengths[1], lengths[-1]
        first, last, turned = text[:size], text[-size:], lengths[::-1]
        if text.startswith(first[:second], size):
            word, parts = first, [first[:length] for length in lengths]
        elif text.startswith(first[size - second :], size):
            word, parts = first, [first[size - length :] for length in lengths]
        elif text.startswith(last[:least]):
            word, parts = last, [last[:length] for length in turned]
        else:
            word, parts = last, [last[size - length :] for length in turned]
        if parts[0] == text[: len(parts[0])] and "".join(parts) == text:
            return word
    return None


@cache
def _pieces(total: int) -> tuple[tuple[int, ...], ...]:
    """Lengths that fall by one or two and make a text of so many characters, three at the least."""
    return tuple(
        lengths
        for step in (1, 2)
        for size in range(WORD_LEAST, total)
        for count in range(_PIECES_LEAST, size // step + 1)
        if sum(lengths := tuple(range(size, size - step * count, -step))) == total
    )


def unwoven_by_twos(text: str) -> str | None:
    """Two letters by turns of one text and of the other."""
    twos = [text[at : at + 2] for at in range(0, len(text), 2)]
    return "".join((*twos[::2], *twos[1::2]))


def ends_back(text: str) -> str | None:
    """The capital goes with the place."""
    turned = text[-1] + text[1:-1] + text[0]
    return turned.title() if text.istitle() else turned


def of_twice(text: str) -> str | None:
    """The half that is said twice."""
    half = len(text) // 2
    return text[:half] if text == 2 * text[:half] else None


def of_there_and_back(text: str) -> str | None:
    """The half that is said there and back."""
    half = (len(text) + 1) // 2
    return text[:half] if text == text[::-1] else None


def halves_back(text: str) -> str | None:
    """The halves the other way round."""
    half = len(text) // 2
    return text[half:] + text[:half]
