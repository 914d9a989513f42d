"""Words that an acquaintance or the site knows, as shapes a guesser would try first."""

import re
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from math import log10

from newknot.core.strength.dictionaries import BEGINNING, CONTEXT_SHARE, beginnings
from newknot.core.strength.reading import shape_of_letters

WORDS_MOST = 64
WORD_CHARACTERS_MOST = 200
CONTEXT_LOG10 = -log10(CONTEXT_SHARE)
"""Of the choice of such a word."""
_SHORTEST = 3
_PIECES = re.compile(r"[^\W_]+")


@dataclass(frozen=True, slots=True)
class Context:
    """shapes: what to look for, each with the word it is of. begins: the numbers of the first four
    characters of each. was_cut: more was given than read.
    """

    shapes: dict[str, str]
    begins: frozenset[int]
    was_cut: bool

    @property
    def which_log10(self) -> float:
        """-log10 of the probability of each: all are equally near to hand."""
        return log10(max(1, len(self.shapes)))


def read_context(words: Iterable[str]) -> Context:
    """The pieces of each word or phrase, and the whole without what stands between; cut at 64
    words of 200 characters.
    """
    shapes: dict[str, str] = {}
    cut = False
    for at, phrase in enumerate(words):
        if at == WORDS_MOST:
            cut = True
            break
        cut = cut or len(phrase) > WORD_CHARACTERS_MOST
        low = unicodedata.normalize("NFC", phrase[:WORD_CHARACTERS_MOST]).lower()
        pieces = _PIECES.findall(low)
        for piece in (*pieces, "".join(pieces)):
            if len(piece) >= _SHORTEST:
                shapes.setdefault(shape_of_letters(piece), piece)
    begins = frozenset(code for shape in shapes for code in beginnings(shape[:BEGINNING]))
    return Context(shapes, begins, cut)
