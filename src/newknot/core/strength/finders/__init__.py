"""Finders: each offers stretches of a text that a guesser would reach early, with their costs."""

from collections.abc import Iterator

from newknot.core.strength.context import Context
from newknot.core.strength.finders.closed_classes import closed_classes
from newknot.core.strength.finders.copies import copies
from newknot.core.strength.finders.dates import dates
from newknot.core.strength.finders.digits import digits, next_numbers
from newknot.core.strength.finders.disguises import disguises
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
from newknot.core.strength.finders.shapes import drawn_in_groups, shapes
from newknot.core.strength.finders.slips import known_slips, slips
from newknot.core.strength.finders.stock import stock_numbers, stock_strings
from newknot.core.strength.finders.syllables import mandarin_syllables, syllables
from newknot.core.strength.finders.symbols import single_letters, symbols
from newknot.core.strength.finders.walks import walks
from newknot.core.strength.finders.words import short_words, words
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, SegmentKind

__all__ = ["Offers"]


class Offers:
    """All stretches of a text that any finder offers, overlapping ones too. What does not hang on
    what is known of the user is looked for once.
    """

    def __init__(self, reading: Reading, context: Context) -> None:
        self.reading = reading
        self._words = [*words(reading, context), *known_slips(reading, context)]
        self._others = list(_others(reading))
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


def _others(reading: Reading) -> Iterator[Found]:
    """What hangs neither on what is known of the user nor on the words."""
    yield from short_words(reading)
    yield from disguises(reading)
    yield from closed_classes(reading)
    yield from syllables(reading)
    yield from mandarin_syllables(reading)
    yield from list_words(reading)
    yield from quotations(reading)
    yield from walks(reading)
    yield from sequences(reading)
    yield from woven_sequences(reading)
    yield from woven_rows(reading)
    yield from countings(reading)
    yield from countings_apart(reading)
    yield from number_rows(reading)
    yield from repeats(reading)
    yield from copies(reading)
    yield from dates(reading)
    yield from digits(reading)
    yield from next_numbers(reading)
    yield from shapes(reading)
    yield from drawn_in_groups(reading)
    yield from stock_strings(reading)
    yield from frames(reading)
    yield from stock_numbers(reading)
    yield from symbols(reading)
    yield from single_letters(reading)
