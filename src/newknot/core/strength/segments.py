"""What a stretch of a secret was taken for, and what it costs a guesser."""

from dataclasses import dataclass
from enum import IntEnum, StrEnum
from typing import NamedTuple


class SegmentKind(StrEnum):
    """The kinds of stretch that a guesser tries before random characters."""

    COMMON_PASSWORD = "common_password"  # noqa: S105
    WORD = "word"
    FOREIGN_WORD = "foreign_word"
    RARE_WORD = "rare_word"
    LIST_WORD = "list_word"
    DISGUISED = "disguised"
    NAME = "name"
    PLACE = "place"
    CONTEXT = "context"
    WORDLIKE = "wordlike"
    QUOTATION = "quotation"
    SEQUENCE = "sequence"
    REPEAT = "repeat"
    KEYBOARD_WALK = "keyboard_walk"
    COPY = "copy"
    DATE = "date"
    YEAR = "year"
    PHONE = "phone"
    PLATE = "plate"
    SHAPE = "shape"
    OF_A_CLASS = "of_a_class"
    STOCK = "stock"
    DIGITS = "digits"
    SYMBOL = "symbol"
    RANDOM = "random"

    @property
    def label(self) -> str:
        """A plain noun phrase, for a sentence of reasons."""
        return _LABELS[self]


_LABELS = {
    SegmentKind.COMMON_PASSWORD: "common password",
    SegmentKind.WORD: "word",
    SegmentKind.FOREIGN_WORD: "word of another language",
    SegmentKind.RARE_WORD: "rarer word",
    SegmentKind.LIST_WORD: "word of a list",
    SegmentKind.DISGUISED: "word in disguise",
    SegmentKind.NAME: "name",
    SegmentKind.PLACE: "place name",
    SegmentKind.CONTEXT: "own or site's name",
    SegmentKind.WORDLIKE: "letters like a word's",
    SegmentKind.QUOTATION: "saying or quotation",
    SegmentKind.SEQUENCE: "sequence",
    SegmentKind.REPEAT: "one character repeated",
    SegmentKind.KEYBOARD_WALK: "keyboard walk",
    SegmentKind.COPY: "repetition",
    SegmentKind.DATE: "date",
    SegmentKind.YEAR: "year",
    SegmentKind.PHONE: "telephone number",
    SegmentKind.PLATE: "number plate",
    SegmentKind.SHAPE: "number or code of a known shape",
    SegmentKind.OF_A_CLASS: "members of a small class",
    SegmentKind.STOCK: "common string",
    SegmentKind.DIGITS: "digits",
    SegmentKind.SYMBOL: "symbol",
    SegmentKind.RANDOM: "unpatterned characters",
}


class Part(IntEnum):
    """What a stretch is in the chain of kinds: which part may follow which, and how often."""

    START = 0
    WORD = 1
    DIGITS = 2
    SYMBOL = 3
    RANDOM = 4
    PATTERN = 5
    LIST = 6
    """A word of a passphrase whose words touch."""
    LINK = 7
    """A separator between the words of a passphrase, with the word after it."""
    ABROAD = 8
    """A word of another language than English; the next one is mostly of the same."""


class Found(NamedTuple):
    """A stretch [start, end) that a finder offers as a part of the chain.

    which_log10: -log10 of its probability among all of its kind; kind_log10: of the kind itself
    (its list, length, pattern of capitals), which a guesser who knows how it was made need not pay.
    """

    start: int
    end: int
    part: int
    which_log10: float
    kind_log10: float
    kind: SegmentKind
    taken_for: str = ""


@dataclass(frozen=True, slots=True)
class Segment:
    """The stretch [start, end) of the measured text, its kind, and log10 of how many of that kind
    a guesser tries up to it.

    taken_for: the dictionary's word, where it is one (it tells of the secret as the text does), or
    what it is, where its kind says no more than that it is something known.
    """

    start: int
    end: int
    kind: SegmentKind
    cost_log10: float
    taken_for: str = ""

    @property
    def label(self) -> str:
        """A plain noun phrase, for a sentence of reasons; nothing of the secret."""
        says_itself = self.kind in _SAYS_ITSELF and self.taken_for
        return self.taken_for if says_itself else self.kind.label


_SAYS_ITSELF = frozenset(
    (
        *(SegmentKind.SHAPE, SegmentKind.OF_A_CLASS, SegmentKind.SEQUENCE),
        *(SegmentKind.DISGUISED, SegmentKind.RANDOM),
    )
)
