"""Finders: each offers stretches of a text that a guesser would reach early, with their costs."""

from collections.abc import Callable, Iterable
from itertools import chain

from newknot.core.strength.context import Context
from newknot.core.strength.finders.arithmetic import arithmetic
from newknot.core.strength.finders.closed_classes import closed_classes
from newknot.core.strength.finders.copies import copies
from newknot.core.strength.finders.dates import dates
from newknot.core.strength.finders.digests import digests
from newknot.core.strength.finders.digits import digits, next_numbers
from newknot.core.strength.finders.disguises import disguises
from newknot.core.strength.finders.few_characters import few_characters
from newknot.core.strength.finders.frames import frames
from newknot.core.strength.finders.list_words import list_words
from newknot.core.strength.finders.number_rows import number_rows
from newknot.core.strength.finders.quotations import quotations
from newknot.core.strength.finders.series import (
    countings,
    countings_apart,
    repeats,
    sequences,
    woven_rows,
    woven_sequences,
)
from newknot.core.strength.finders.shapes import drawn_in_groups, formulas, shapes
from newknot.core.strength.finders.slips import known_slips, slips
from newknot.core.strength.finders.stock import stock_numbers, stock_strings
from newknot.core.strength.finders.syllables import mandarin_syllables, syllables
from newknot.core.strength.finders.symbols import single_letters, symbols
from newknot.core.strength.finders.walks import walks
from newknot.core.strength.finders.words import short_words, words
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, SegmentKind

__all__ = ["Offers"]


_OTHERS: tuple[Callable[[Reading], Iterable[Found]], ...] = (
    short_words,
    disguises,
    closed_classes,
    syllables,
    mandarin_syllables,
    list_words,
    quotations,
    walks,
    sequences,
    woven_sequences,
    woven_rows,
    countings,
    countings_apart,
    number_rows,
    arithmetic,
    repeats,
    few_characters,
    copies,
    dates,
    digits,
    next_numbers,
    digests,
    shapes,
    drawn_in_groups,
    formulas,
    stock_strings,
    frames,
    stock_numbers,
    symbols,
    single_letters,
)
"""What hangs neither on what is known of the user nor on the words."""


class Offers:
    """All stretches of a text that any finder offers, overlapping ones too. What does not hang on
    what is known of the user is looked for once.
    """

    def __init__(self, reading: Reading, context: Context) -> None:
        self.reading = reading
        self._words = [*words(reading, context), *known_slips(reading, context)]
        self._others = list(chain.from_iterable(finder(reading) for finder in _OTHERS))
        self.has_context = any(one.kind is SegmentKind.CONTEXT for one in self._words)
        self._found: dict[bool, list[Found]] = {}

    def found(self, *, knowing: bool) -> list[Found]:
        """Those of a guesser who knows of the user, or of one who does not."""
        knowing = knowing or not self.has_context
        if knowing not in self._found:
            whole = self._words
            if not knowing:
                whole = [one for one in whole if one.kind is not SegmentKind.CONTEXT]
            self._found[knowing] = [*whole, *slips(self.reading, whole), *self._others]
        return self._found[knowing]
