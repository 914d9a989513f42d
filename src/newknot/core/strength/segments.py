"""What a stretch of a secret was taken for, and what it costs a guesser."""

from dataclasses import dataclass
from enum import StrEnum


class SegmentKind(StrEnum):
    """The kinds of stretch that a guesser tries before random characters."""

    COMMON_PASSWORD = "common_password"  # noqa: S105
    WORD = "word"
    NAME = "name"
    CONTEXT = "context"
    SEQUENCE = "sequence"
    KEYBOARD_WALK = "keyboard_walk"
    COPY = "copy"
    DATE = "date"
    YEAR = "year"
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
    SegmentKind.NAME: "name",
    SegmentKind.CONTEXT: "own or site's name",
    SegmentKind.SEQUENCE: "sequence",
    SegmentKind.KEYBOARD_WALK: "keyboard walk",
    SegmentKind.COPY: "repetition",
    SegmentKind.DATE: "date",
    SegmentKind.YEAR: "year",
    SegmentKind.DIGITS: "digits",
    SegmentKind.SYMBOL: "symbol",
    SegmentKind.RANDOM: "unpatterned characters",
}


@dataclass(frozen=True, slots=True)
class Segment:
    """The stretch [start, end) of the normalised text, its kind, and log10 of its cost."""

    start: int
    end: int
    kind: SegmentKind
    cost_log10: float
