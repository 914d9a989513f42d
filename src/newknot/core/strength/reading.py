"""A text as the measure reads it: normalised, cut, folded to lower case and look-alike shapes."""

import unicodedata
from dataclasses import dataclass

FULLY_READ = 128
"""Characters that every finder sees."""
READ_MOST = 1024
"""Characters that count at all; from 128 on only repeats and copies are looked for."""
_DECOMPOSED_MOST = 4
"""Characters of a canonical decomposition at most, so that NFC and NFD are cut alike (UAX 15)."""
SWAPS = {"0": "o", "1": "i", "!": "i", "|": "i", "3": "e", "4": "a", "@": "a", "5": "s", "$": "s"}
SWAPS |= {"7": "t", "+": "t", "8": "b", "9": "g", "€": "e"}
"""Digits and symbols that stand for letters."""


_STROKES = {"ł": "l", "ø": "o", "đ": "d", "ı": "i", "ß": "s"}
"""Letters without a decomposition."""


def shape_of_letters(low: str) -> str:
    """The look-alike shape of a lower-case text of letters: accents gone, l as i."""
    if not low.isascii():
        for letter in set(low):
            base = _STROKES.get(letter) or unicodedata.normalize("NFD", letter)[0]
            if base != letter:
                low = low.replace(letter, base)
    return low.replace("l", "i")


SPELT_OUT = (("ä", "ae"), ("ö", "oe"), ("ü", "ue"), ("å", "aa"), ("ß", "ss"))
"""Letters that are often typed as two."""


def spellings(line: str) -> list[str]:
    """A line as it stands, with two letters for one, and without accents and apostrophes."""
    spelt = line
    for letter, two in SPELT_OUT:
        spelt = spelt.replace(letter, two)
    bare = unicodedata.normalize("NFD", line.replace("ß", "ss")).replace("'", "")
    plain = "".join(c for c in bare if not unicodedata.combining(c))
    return list(dict.fromkeys((line, spelt, plain)))


_SWAPPED = str.maketrans(SWAPS)


def shape_of_text(low: str) -> str:
    """The shape of any lower-case text, character for character."""
    return shape_of_letters(low.translate(_SWAPPED))


@dataclass(frozen=True, slots=True)
class Reading:
    """text: NFC, at most 1,024 characters. low, shaped: foldings of the first 128, as long."""

    text: str
    low: str
    shaped: str


def read(secret: str) -> Reading:
    """Never raises. Cut before normalising, for time, and after, so that both forms agree."""
    cut = secret[: _DECOMPOSED_MOST * READ_MOST]
    text = unicodedata.normalize("NFC", cut)[:READ_MOST]
    head = text[:FULLY_READ]
    low = head.lower()
    if len(low) != len(head):
        low = "".join(c.lower() if len(c.lower()) == 1 else c for c in head)
    return Reading(text, low, shape_of_text(low))
