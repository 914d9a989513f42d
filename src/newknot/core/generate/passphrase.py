"""Passphrases: words drawn independently and uniformly from the shipped list."""

from dataclasses import dataclass

from newknot.core.errors import FieldInvalid
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.random_source import RandomSource
from newknot.core.shipped import shipped_lines

WORD_LIST = "passphrase_words.txt"
WORDS_MOST = 20


@dataclass(frozen=True, slots=True)
class Passphrase:
    """Drawn words, and the bits of the draw: log2(list size ^ words), rounded down."""

    words: tuple[str, ...]
    entropy_bits: float


def draw_passphrase(random: RandomSource, *, words: int) -> Passphrase:
    """So many words, each equally likely and independent. Raises `FieldInvalid` on the number."""
    if not 1 <= words <= WORDS_MOST:
        raise FieldInvalid("words", f"is not between 1 and {WORDS_MOST}")
    listed = shipped_lines(WORD_LIST)
    drawn = tuple(listed[random.randbelow(len(listed))] for _ in range(words))
    return Passphrase(drawn, floor_log2(len(listed) ** words))
