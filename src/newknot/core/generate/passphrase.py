"""Passphrases: words drawn independently and uniformly from the shipped list.

No word of the list is the start of another and none holds a digit, so a text of words, with or
without separators, can be read in one way only: the bits are those of the choices.
"""

from dataclasses import dataclass

from newknot.core.errors import FieldInvalid
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.random_source import RandomSource
from newknot.core.shipped import shipped_lines

WORD_LIST = "passphrase_words.txt"
WORDS_MOST = 20
SEPARATORS = (" ", "-", ".", "_", "")


@dataclass(frozen=True, slots=True)
class PassphraseShape:
    """How words become a text. digit: one digit after one of the words, both by chance."""

    words: int = 6
    separator: str = " "
    capitals: bool = False
    digit: bool = False

    def __post_init__(self) -> None:
        if not 1 <= self.words <= WORDS_MOST:
            raise FieldInvalid("words", f"is not between 1 and {WORDS_MOST}")
        if self.separator not in SEPARATORS:
            raise FieldInvalid("separator", "is none of blank, hyphen, stop, underscore or nothing")


@dataclass(frozen=True, slots=True)
class Passphrase:
    """Drawn words, their text, how many equally likely texts there are, and the bits of that."""

    words: tuple[str, ...]
    text: str
    size: int
    entropy_bits: float


def draw_passphrase(random: RandomSource, shape: PassphraseShape) -> Passphrase:
    """Words in the shape, each text equally likely. Raises `FieldInvalid`."""
    listed = shipped_lines(WORD_LIST)
    size = len(listed) ** shape.words
    words = tuple(listed[random.randbelow(len(listed))] for _ in range(shape.words))
    shown = [word.capitalize() if shape.capitals else word for word in words]
    if shape.digit:
        size *= 10 * shape.words
        shown[random.randbelow(shape.words)] += str(random.randbelow(10))
    return Passphrase(words, shape.separator.join(shown), size, floor_log2(size))
