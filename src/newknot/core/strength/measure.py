"""The guess number of a chosen text: how many texts a guesser would try no later, and why."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from typing import NamedTuple

from newknot.core.strength.budgets import BUDGETS, AttackBudget, Fall, fall, weakest_fallen
from newknot.core.strength.chain import likeliest
from newknot.core.strength.context import Context, read_context
from newknot.core.strength.finders import Offers
from newknot.core.strength.finders.list_words import of_one_list
from newknot.core.strength.guesses import guesses_log10
from newknot.core.strength.reading import Reading, read
from newknot.core.strength.scheme import scheme_log10
from newknot.core.strength.segments import Found, Segment, SegmentKind
from newknot.core.strength.views import View, views_of

KINDS_PAID = 0.25
"""How much of what the kinds and their order cost a guesser pays who has seen many secrets made."""


COMMONEST_LOG10, _AFTER_LOG10, _SHORT = 2.0, 3.0, 2
"""Whoever guesses begins with the hundred commonest passwords, and with what is known of the user:
what is neither, and longer than two characters, comes after those, up to a thousand guesses in the
order that it had.
"""
_TRIED_FIRST = frozenset((SegmentKind.COMMON_PASSWORD, SegmentKind.CONTEXT))
VIEWED_ABOVE_LOG10, VIEWED_FROM = 6.0, 4
"""What takes less, or leaves fewer characters to chance, is explained as it stands."""
LETTER_OF_A_WORD_LOG10 = 0.9
"""By how letters follow in words, at the least."""
VIEW_SAVES_LOG10, VIEW_LEAVES_MOST = 1.5, 0.25
"""By chance one of many views reads a little better: one that was made saves more than that, and
leaves no more than this share of the text to random characters.
"""
_BY_CHANCE = frozenset((SegmentKind.RANDOM, SegmentKind.WORDLIKE))
_DOUBTFUL = _BY_CHANCE | {
    SegmentKind.RARE_WORD,
    SegmentKind.REPEAT,
    SegmentKind.DISGUISED,
    SegmentKind.SEQUENCE,
}
"""Found by chance too in what was made otherwise."""


@dataclass(frozen=True, slots=True)
class Measure:
    """A guess number with the segments that give it.

    Segments lie over the normalised text (NFC), of which at most 1,024 characters count.
    order_log10: what a guesser pays for the kinds of the segments and their order, in log10, and
    for the view. scheme_log10: what is taken off because its parts hang together. view: what was
    done to the text as a whole, in words; empty where nothing was.
    character_kinds: how many of lower case, upper case, digits, symbols, other scripts it holds.
    context_was_cut: more than 64 words of 200 characters were given.
    """

    guess_number_log10: float
    segments: tuple[Segment, ...]
    order_log10: float
    scheme_log10: float
    measured_characters: int
    character_kinds: int
    context_was_cut: bool
    view: str = ""

    @property
    def falls_to(self) -> AttackBudget | None:
        """The cheapest attack budget that covers the guess number."""
        return weakest_fallen(self.guess_number_log10)

    def against(self, budgets: Sequence[AttackBudget] = BUDGETS) -> tuple[Fall, ...]:
        """For each attack whether it gets there, and how long its rate takes to."""
        return tuple(fall(self.guess_number_log10, budget) for budget in budgets)

    @property
    def is_bound(self) -> bool:
        """Whether more than half of the number comes from characters that nothing explains: of a
        chosen text it is the most that it can be, if nobody guesses how it was made.
        """
        total = sum(segment.cost_log10 for segment in self.segments)
        by_chance = (s.cost_log10 for s in self.segments if s.kind in _BY_CHANCE)
        return 2 * sum(by_chance) > total

    @property
    def least_log10(self) -> float:
        """The guess number if what nothing explains was made as a word is, of which the guesser
        holds no list: each of its characters is worth no more than a word's letter.
        """
        effort = self.order_log10 + sum(
            min(s.cost_log10, LETTER_OF_A_WORD_LOG10 * (s.end - s.start))
            if s.kind in _BY_CHANCE
            else s.cost_log10
            for s in self.segments
        )
        guesses = guesses_log10(effort) - self.scheme_log10
        return min(self.guess_number_log10, round(max(guesses, 0.0), 3))

    @property
    def reasons(self) -> str:
        """The segments' kinds in one phrase, in order: `name and year`."""
        labels = list(dict.fromkeys(segment.label for segment in self.segments))
        if not labels:
            return "nothing"
        *others, last = labels
        said = ", ".join(others) + " and " + last if others else last
        return f"{said}, {self.view}" if self.view else said


def measure(secret: str, context: Iterable[str] = ()) -> Measure:
    """The guess number of a text. Never raises on any text; NFC and NFD measure the same.

    context: words an acquaintance or the site knows; cut at 64 words of 200 characters.
    """
    return measured(read(secret), read_context(context))


@dataclass(slots=True)
class LookedAt:
    """All in which what is known of the user was looked for: readings, and shapes of what comes out
    of every way that a text may have been changed, of which a known one has to make half.
    """

    readings: list[Reading] = field(default_factory=list)
    undone: list[str] = field(default_factory=list)


def measured(reading: Reading, own: Context, looked_at: LookedAt | None = None) -> Measure:
    """The measure of a text that was read. looked_at, where given, is filled."""
    looks = Looks(reading, own, looked_at)
    way = looks.way_made(knowing=True)
    if looks.has_context:
        # Knowing more never takes more.
        way = min(way, looks.way_made(knowing=False), key=lambda one: one.guesses_log10)
    return Measure(
        guess_number_log10=round(way.guesses_log10, 3),
        segments=way.segments,
        order_log10=way.order_log10,
        scheme_log10=way.scheme_log10,
        measured_characters=len(reading.text),
        character_kinds=_character_kinds(reading.text),
        context_was_cut=own.was_cut,
        view=way.view,
    )


class Way(NamedTuple):
    """A way that a text was made: its effort, with what its kinds, their order and the view are of
    that; the segments; the view in words, or nothing.
    """

    effort_log10: float
    order_log10: float
    segments: tuple[Segment, ...]
    view: str = ""

    @property
    def scheme_log10(self) -> float:
        """What hangs together in it, and is tried together."""
        guesses = guesses_log10(self.effort_log10)
        return scheme_log10(self.segments, is_viewed=self.view != "", guesses_log10=guesses)

    @property
    def guesses_log10(self) -> float:
        """Of nothing, no orders."""
        if not self.segments:
            return 0.0
        alone = guesses_log10(self.effort_log10) - self.scheme_log10
        if self.segments[-1].end <= _SHORT or self._is_tried_first:
            return alone
        return max(alone, COMMONEST_LOG10 + alone * (1 - COMMONEST_LOG10 / _AFTER_LOG10))

    @property
    def _is_tried_first(self) -> bool:
        return len(self.segments) == 1 and self.segments[0].kind in _TRIED_FIRST


class Looks:
    """A text and its views, as one measure looks at them: each is searched once, and so is what was
    made of it, with what is known of the user and without.
    """

    def __init__(self, reading: Reading, own: Context, looked_at: LookedAt | None = None) -> None:
        self._reading = reading
        self._own = own
        self._looked_at = looked_at
        self._offers: dict[str, Offers] = {}
        self._ways: dict[tuple[str, bool], Way] = {}
        self._views: tuple[list[View], list[View]] | None = None

    @property
    def has_context(self) -> bool:
        """Whether anything known of the user was found in what was looked at."""
        return any(offers.has_context for offers in self._offers.values())

    def way_made(self, *, knowing: bool) -> Way:
        """The likeliest way the text was made, as it stands or after a view where that takes less:
        to a guesser who knows of the user, or to one who does not.
        """
        plain = self._plain(self._reading, knowing)
        doubtful = _length_of(plain.segments, _DOUBTFUL)
        low = self._reading.low
        # What holds no letters may stand for some, and what is written in other signs for these.
        is_coded = not low.isascii() or not any(map(str.isalpha, low))
        if plain.effort_log10 > VIEWED_ABOVE_LOG10 and (is_coded or doubtful >= VIEWED_FROM):
            viewed = self._viewed(plain, knowing)
            return min(plain, viewed, key=lambda one: one.guesses_log10)
        return plain

    def _viewed(self, plain: Way, knowing: bool) -> Way:
        """What comes out of the best view, where that takes less than the text as it stands."""
        best, n = plain, len(self._reading.text)
        if self._views is None:
            undone = self._looked_at.undone if self._looked_at is not None else None
            self._views = views_of(self._reading.text, self._own.shapes, undone)
        of_words, of_known = self._views
        for view in (*of_words, *of_known) if knowing else of_words:
            inner = read(view.text)
            if len(inner.text) != len(view.text):
                continue
            found = self._plain(inner, knowing)
            if _length_of(found.segments, _BY_CHANCE) > VIEW_LEAVES_MOST * len(inner.text):
                continue
            effort, order = (one + view.cost_log10 for one in found[:2])
            if effort < min(best.effort_log10, plain.effort_log10 - VIEW_SAVES_LOG10):
                best = Way(effort, order, _placed(found.segments, view, n), view.says)
        return best

    def _plain(self, reading: Reading, knowing: bool) -> Way:
        offers = self._offers.get(reading.text)
        if offers is None:
            offers = self._offers[reading.text] = Offers(reading, self._own)
            if self._looked_at is not None:
                self._looked_at.readings.append(reading)
        key = reading.text, knowing or not offers.has_context
        if key not in self._ways:
            self._ways[key] = _likeliest(reading, offers.found(knowing=knowing))
        return self._ways[key]


def _length_of(segments: tuple[Segment, ...], kinds: frozenset[SegmentKind]) -> int:
    return sum(s.end - s.start for s in segments if s.kind in kinds)


def _placed(segments: tuple[Segment, ...], view: View, n: int) -> tuple[Segment, ...]:
    """The segments where they stood in the text itself; one, where they lie all over it."""
    placed = (view.place(s.start, s.end, n) for s in segments)
    moved = [replace(s, start=a, end=b) for s, (a, b) in zip(segments, placed, strict=True)]
    moved.sort(key=lambda s: s.start)
    if [0, *(s.end for s in moved)] == [*(s.start for s in moved), n]:
        return tuple(moved)
    longest = max(segments, key=lambda s: s.end - s.start)
    return (replace(longest, start=0, end=n, cost_log10=sum(s.cost_log10 for s in segments)),)


def _likeliest(reading: Reading, offers: Sequence[Found]) -> Way:
    """The likeliest way a text was made as it stands. Its effort is log10 of what trying all that
    is like it takes: the segments' costs and a part of their kinds'.
    """
    cover = likeliest(reading, offers)
    order = KINDS_PAID * cover.kinds_log10
    words = [s.taken_for for s in cover.segments if s.kind is SegmentKind.LIST_WORD]
    saved = of_one_list(words)
    of_list = SegmentKind.LIST_WORD if len(words) > 1 else SegmentKind.WORD
    segments = tuple(
        replace(s, cost_log10=s.cost_log10 - saved[s.taken_for], kind=of_list)
        if s.kind is SegmentKind.LIST_WORD
        else s
        for s in cover.segments
    )
    return Way(sum(s.cost_log10 for s in segments) + order, order, segments)


def _character_kinds(text: str) -> int:
    return len(
        {"other" if not c.isascii() else (c.islower(), c.isupper(), c.isdigit()) for c in text}
    )


@cache
def warm() -> None:
    """Reads the dictionaries ahead of the first measure."""
    measure("warm 30517")
