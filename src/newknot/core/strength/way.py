"""A way that a text was made, part by part, and how many guesses it stands."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from newknot.core.strength.chain import Cover, drawn_whole, likeliest
from newknot.core.strength.finders.list_words import of_one_list
from newknot.core.strength.guesses import guesses_log10
from newknot.core.strength.reading import Reading
from newknot.core.strength.scheme import scheme_log10
from newknot.core.strength.segments import Found, Segment, SegmentKind

KINDS_PAID = 0.25
"""How much of what the kinds and their order cost a guesser pays who has seen many secrets made."""


COMMONEST_LOG10, _AFTER_LOG10, _SHORT = 2.0, 3.0, 2
"""Whoever guesses begins with the hundred commonest passwords, and with what is known of the user:
what is neither, and longer than two characters, comes after those, up to a thousand guesses in the
order that it had.
"""
_TRIED_FIRST = frozenset((SegmentKind.COMMON_PASSWORD, SegmentKind.CONTEXT))
LETTER_OF_A_WORD_LOG10 = 0.9
"""By how letters follow in words, at the least."""
BY_CHANCE = frozenset((SegmentKind.RANDOM, SegmentKind.WORDLIKE))
LOOKED_FROM_LOG10, LEAST_LOG10, LISTED_MOST = 6.0, 5.85, 3
"""What falls to a million guesses falls whatever its way was, and no cheaper one is worth less than
this; a phrase of more words of one list than the last has none.
"""
CHANCE_ABOVE_LOG10 = 24.0
"""What is likeliest drawn whole and takes more guesses than this stands as it is."""
SURPRISE_FREE_LOG10, SURPRISE_PAID = 1.5, 0.5
"""Orders that a way may be less likely than the likeliest, and what each beyond costs."""
CHANCE_MOST, SAVED_MOST_LOG10 = 0.1, 2.0
"""A way that leaves a greater share to chance saves no more than this."""
LIKELIER_LOG10, CHEAPER_LIKELIER_LOG10, OF_CHANCE_LOG10, CHANCE_FROM_LOG10 = 1.0, -3.0, 2.9, 5.0
"""What is not ten times likelier than that the text was drawn whole by chance (of a cheaper way,
not a thousandth as likely) is worth no less than a thousandth of all texts that are drawn so; what
falls at once is left as it is.
"""
SCHEME_MORE_LOG10 = 1.5
"""By chance there are more parts and known forms in it too: its scheme takes no more orders beyond
what that of the likeliest takes.
"""


@dataclass(frozen=True)
class Way:
    """A way that a text was made: its effort, with what its kinds, their order and the view are of
    that; the segments; the view in words, or nothing. unlikely_log10: -log10 of its probability;
    charge_log10: what a guesser pays beside for coming upon it, where it stands instead of the
    likeliest.
    """

    effort_log10: float
    order_log10: float
    segments: tuple[Segment, ...]
    view: str = ""
    unlikely_log10: float = 0.0
    charge_log10: float = 0.0
    instead_of: "Way | None" = None

    def length_of(self, kinds: frozenset[SegmentKind]) -> int:
        """Characters in segments of these kinds."""
        return sum(s.end - s.start for s in self.segments if s.kind in kinds)

    @cached_property
    def scheme_log10(self) -> float:
        """What hangs together in it, and is tried together."""
        guesses = guesses_log10(self.effort_log10)
        saved = scheme_log10(self.segments, is_viewed=self.view != "", guesses_log10=guesses)
        if self.instead_of is None:
            return saved
        return min(saved, self.instead_of.scheme_log10 + SCHEME_MORE_LOG10)

    @cached_property
    def guesses_log10(self) -> float:
        """Of nothing, no orders."""
        if not self.segments:
            return 0.0
        alone = guesses_log10(self.effort_log10) - self.scheme_log10 + self.charge_log10
        if self.segments[-1].end <= _SHORT or self._is_tried_first:
            return alone
        return max(alone, COMMONEST_LOG10 + alone * (1 - COMMONEST_LOG10 / _AFTER_LOG10))

    @property
    def is_bound(self) -> bool:
        """Whether more than half of the number comes from characters that nothing explains, in this
        way or, where it too leaves some to chance, in the likeliest.
        """
        total = sum(segment.cost_log10 for segment in self.segments)
        by_chance = sum(s.cost_log10 for s in self.segments if s.kind in BY_CHANCE)
        doubted = self._doubted
        return 2 * by_chance > total or (doubted is not None and doubted.is_bound)

    @property
    def least_log10(self) -> float:
        """The guess number if what nothing explains was made as a word is, of which the guesser
        holds no list: each of its characters is worth no more than a word's letter.
        """
        effort = self.order_log10 + sum(
            min(s.cost_log10, LETTER_OF_A_WORD_LOG10 * (s.end - s.start))
            if s.kind in BY_CHANCE
            else s.cost_log10
            for s in self.segments
        )
        least = max(guesses_log10(effort) - self.scheme_log10 + self.charge_log10, 0.0)
        if self._doubted is not None:
            least = min(least, self._doubted.least_log10)
        return min(self.guesses_log10, least)

    @property
    def leaves_to_chance(self) -> bool:
        """Whether it is more than a little of the text that nothing explains."""
        return self.length_of(BY_CHANCE) > CHANCE_MOST * self.segments[-1].end

    @property
    def _doubted(self) -> "Way | None":
        """The likeliest way, where this one leaves so much that it may be read so by chance."""
        if self.instead_of is None or not self.leaves_to_chance:
            return None
        return self.instead_of

    @property
    def _is_tried_first(self) -> bool:
        return len(self.segments) == 1 and self.segments[0].kind in _TRIED_FIRST


def likeliest_way(reading: Reading, offers: Sequence[Found]) -> Way:
    """The likeliest way a text was made as it stands. Its effort is log10 of what trying all that
    is like it takes: the segments' costs and a part of their kinds'.
    """
    return _way_of(likeliest(reading, offers))


def cheaper_way(reading: Reading, offers: Sequence[Found], plain: Way, likely: Way) -> Way:
    """The way that costs least to whoever knows the kinds and their order, if it is cheaper than
    the likely one, which else stands; plain: the likeliest as the text stands.

    By chance many texts can be read so: what is less likely than the likeliest is charged for, and
    where more than a little is left to chance it saves little.
    """
    before = likely.guesses_log10
    listed = sum(s.kind is SegmentKind.LIST_WORD for s in likely.segments)
    if before < LOOKED_FROM_LOG10 or listed > LISTED_MOST:
        return likely
    if before > CHANCE_ABOVE_LOG10 and [s.kind for s in likely.segments] == [SegmentKind.RANDOM]:
        return likely
    way = _way_of(likeliest(reading, offers, KINDS_PAID), likely)
    surprise = way.unlikely_log10 - plain.unlikely_log10
    charge = SURPRISE_PAID * max(0.0, surprise - SURPRISE_FREE_LOG10)
    if way.leaves_to_chance:
        charge += max(0.0, before - SAVED_MOST_LOG10 - way.guesses_log10)
    charge = max(charge, LEAST_LOG10 - way.guesses_log10)
    return replace(way, charge_log10=charge) if way.guesses_log10 + charge < before else likely


def is_likelier_than(drawn: tuple[float, float], way: Way) -> bool:
    """Whether a way is likelier, by more than chance makes one, than that the text was drawn."""
    likelier = LIKELIER_LOG10 if way.instead_of is None else CHEAPER_LIKELIER_LOG10
    return drawn[0] - way.unlikely_log10 >= likelier


def beside_chance(way: Way, text: str) -> Way:
    """The way; or chance, where the text may as well be drawn by it: of all that are drawn so some
    can be read as anything, but few. What is known of the user is no chance.
    """
    guesses = way.guesses_log10
    if guesses < CHANCE_FROM_LOG10 or any(s.kind is SegmentKind.CONTEXT for s in way.segments):
        return way
    drawn = drawn_whole(text)
    if drawn is None or is_likelier_than(drawn, way):
        return way
    unlikely, texts = drawn
    least = texts - OF_CHANCE_LOG10
    if least <= guesses:
        return way
    whole = (Segment(0, len(text), SegmentKind.RANDOM, least),)
    charge = least - guesses_log10(least)
    return Way(least, 0.0, whole, "", unlikely, charge_log10=charge, instead_of=way)


def _way_of(cover: Cover, instead_of: Way | None = None) -> Way:
    order = KINDS_PAID * cover.kinds_log10
    segments = cover.segments
    words = [s.taken_for for s in segments if s.kind is SegmentKind.LIST_WORD]
    if words:
        saved = of_one_list(words)
        kind = SegmentKind.LIST_WORD if len(words) > 1 else SegmentKind.WORD
        segments = tuple(
            replace(s, cost_log10=s.cost_log10 - saved[s.taken_for], kind=kind)
            if s.kind is SegmentKind.LIST_WORD
            else s
            for s in segments
        )
    unlikely = cover.which_log10 + cover.kinds_log10
    effort = sum(s.cost_log10 for s in segments) + order
    return Way(effort, order, segments, unlikely_log10=unlikely, instead_of=instead_of)
