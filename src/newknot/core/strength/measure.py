"""The guess number of a chosen text: how many texts a guesser would try no later, and why."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import cache

from newknot.core.strength.budgets import BUDGETS, AttackBudget, Fall, fall, weakest_fallen
from newknot.core.strength.chain import drawn_whole
from newknot.core.strength.context import Context, read_context
from newknot.core.strength.finders import Offers
from newknot.core.strength.finders.symbols import PAIRS
from newknot.core.strength.guesses import beside_doubt
from newknot.core.strength.reading import Reading, read
from newknot.core.strength.segments import Segment, SegmentKind
from newknot.core.strength.views import View, views_of
from newknot.core.strength.way import (
    BY_CHANCE,
    Way,
    beside_chance,
    cheaper_way,
    is_likelier_than,
    likeliest_way,
)

VIEWED_ABOVE_LOG10, VIEWED_FROM = 6.0, 4
"""What takes less, or leaves fewer characters to chance, is explained as it stands."""
VIEW_SAVES_LOG10, VIEW_LEAVES_MOST = 1.5, 0.25
"""By chance one of many views reads a little better: one that was made saves more than that, and
leaves no more than this share of the text to random characters.
"""
WITHIN_LOG10, WITHIN_LEAST = 0.7, 6
"""Of the choice to change a part alone, and how long that is at the least."""
_ESCAPES = ("%", "\\", "&", "=")
"""What a character begins with that a program or a page writes by its number."""
_DOUBTFUL = BY_CHANCE | {
    SegmentKind.RARE_WORD,
    SegmentKind.REPEAT,
    SegmentKind.COPY,
    SegmentKind.DISGUISED,
    SegmentKind.SEQUENCE,
    SegmentKind.SHAPE,
}
"""Found by chance too in what was made otherwise."""


@dataclass(frozen=True, slots=True)
class Measure:
    """A guess number with the segments that give it.

    Segments lie over the normalised text (NFC), of which at most 1,024 characters count.
    order_log10: what a guesser pays for the kinds of the segments and their order, in log10, and
    for the view. scheme_log10: what is taken off because its parts hang together; what is charged
    for coming upon them is paid from it first. view: what was done to the text as a whole, in
    words; empty where nothing was.
    is_bound: whether more than half of the number comes from characters that nothing explains: of a
    chosen text it is the most that it can be, if nobody guesses how it was made. least_log10: the
    number if these were made as a word is.
    character_kinds: how many of lower case, upper case, digits, symbols, other scripts it holds.
    context_was_cut: more than 64 words of 200 characters were given.
    """

    guess_number_log10: float
    segments: tuple[Segment, ...]
    order_log10: float
    scheme_log10: float
    is_bound: bool
    least_log10: float
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
    guesses = beside_doubt(way.guesses_log10)
    return Measure(
        guess_number_log10=round(guesses, 3),
        segments=_joined(way.segments),
        order_log10=way.order_log10 + max(0.0, way.charge_log10 - way.scheme_log10),
        scheme_log10=max(0.0, way.scheme_log10 - way.charge_log10),
        is_bound=way.is_bound,
        least_log10=round(min(way.least_log10, guesses), 3),
        measured_characters=len(reading.text),
        character_kinds=_character_kinds(reading.text),
        context_was_cut=own.was_cut,
        view=way.view,
    )


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
        self._views: dict[tuple[int, int], tuple[list[View], list[View]]] = {}

    @property
    def has_context(self) -> bool:
        """Whether anything known of the user was found in what was looked at."""
        return any(offers.has_context for offers in self._offers.values())

    def way_made(self, *, knowing: bool) -> Way:
        """The way the text was made that a guesser is through with first: one who knows of the
        user, or one who does not.
        """
        likely = self._likely(knowing)
        plain = self._plain(self._reading, knowing)
        offers = self._offers[self._reading.text].found(knowing=knowing)
        return beside_chance(cheaper_way(self._reading, offers, plain, likely), self._reading.text)

    def _likely(self, knowing: bool) -> Way:
        """The likeliest way, as the text stands or after a view where that takes less."""
        plain = self._plain(self._reading, knowing)
        doubtful = plain.length_of(_DOUBTFUL)
        low = self._reading.low
        # What holds no letters may stand for some, and what is written in other signs for these.
        is_coded = not low.isascii() or low.startswith(_ESCAPES) or not any(map(str.isalpha, low))
        if plain.effort_log10 <= VIEWED_ABOVE_LOG10:
            return plain
        # Scraps of this and that are no reason not to look.
        drawn = drawn_whole(self._reading.text)
        is_chance = drawn is not None and not is_likelier_than(drawn, plain)
        if is_coded or doubtful >= VIEWED_FROM or is_chance:
            viewed = self._viewed(plain, knowing)
            return min(plain, viewed, key=lambda one: one.guesses_log10)
        return plain

    def _viewed(self, plain: Way, knowing: bool) -> Way:
        """What comes out of the best view, where that takes less than the text as it stands."""
        best, n = plain, len(self._reading.text)
        # Which stretches are looked at hangs on what is known.
        stretches = [(0, n), *_stretches(plain, self._reading.text)]
        found_in = [self._views_within(*stretch) for stretch in stretches]
        views = [view for of_words, _ in found_in for view in of_words]
        if knowing:
            views += [view for _, of_known in found_in for view in of_known]
        for view in views:
            inner = read(view.text)
            if len(inner.text) != len(view.text):
                continue
            found = self._plain(inner, knowing)
            by_chance = found.length_of(BY_CHANCE)
            if not view.is_told and by_chance > VIEW_LEAVES_MOST * len(inner.text):
                continue
            effort, order = (
                found.effort_log10 + view.cost_log10,
                found.order_log10 + view.cost_log10,
            )
            if effort < min(best.effort_log10, plain.effort_log10 - VIEW_SAVES_LOG10):
                unlikely = found.unlikely_log10 + view.cost_log10
                placed = _placed(found.segments, view, n)
                best = Way(effort, order, placed, view.says, unlikely)
        return best

    def _views_within(self, start: int, end: int) -> tuple[list[View], list[View]]:
        """The views of the text or of a stretch of it, the rest left as it stands."""
        if (start, end) not in self._views:
            text = self._reading.text
            is_whole = (start, end) == (0, len(text))
            undone = self._looked_at.undone if self._looked_at is not None else None
            found = views_of(text[start:end], self._own.shapes, undone, depth=2 if is_whole else 1)
            if not is_whole:
                of_words, of_known = ([_in_a_part(v, text, start, end) for v in f] for f in found)
                found = of_words, of_known
            self._views[start, end] = found
        return self._views[start, end]

    def _plain(self, reading: Reading, knowing: bool) -> Way:
        offers = self._offers.get(reading.text)
        if offers is None:
            offers = self._offers[reading.text] = Offers(reading, self._own)
            if self._looked_at is not None:
                self._looked_at.readings.append(reading)
        key = reading.text, knowing or not offers.has_context
        if key not in self._ways:
            self._ways[key] = likeliest_way(reading, offers.found(knowing=knowing))
        return self._ways[key]


def _stretches(plain: Way, text: str) -> Iterator[tuple[int, int]]:
    """[start, end) of what may have been changed by itself: all that is left to chance, and the
    text between two signs.
    """
    doubtful = [s for s in plain.segments if s.kind in BY_CHANCE]
    first, last = (doubtful[0].start, doubtful[-1].end) if doubtful else (0, 0)
    if WITHIN_LEAST <= last - first < len(text):
        yield first, last
    is_between = not text[0].isalnum() and text[-1] in (text[0], PAIRS.get(text[0]))
    if is_between and len(text) - 2 >= WITHIN_LEAST and (first, last) != (1, len(text) - 1):
        yield 1, len(text) - 1


def _in_a_part(view: View, text: str, start: int, end: int) -> View:
    """The view of a stretch as one of the text."""
    says, cost = f"{view.says}, in a part", view.cost_log10 + WITHIN_LOG10
    whole = f"{text[:start]}{view.text}{text[end:]}"
    return View(says, cost, whole, _place_within(view, start, end), view.is_told)


def _place_within(view: View, first: int, last: int) -> Callable[[int, int, int], tuple[int, int]]:
    """Where a stretch stood in the text of which [first, last) was changed."""
    size, moved = len(view.text), last - first - len(view.text)

    def place(start: int, end: int, n: int) -> tuple[int, int]:
        if end <= first:
            return start, end
        if start >= first + size:
            return start + moved, end + moved
        if start < first or end > first + size:
            return 0, n
        at, to = view.place(start - first, end - first, last - first)
        return at + first, to + first

    return place


def _joined(segments: tuple[Segment, ...]) -> tuple[Segment, ...]:
    """Digits beside digits are digits, however they were chosen."""
    joined: list[Segment] = []
    for s in segments:
        before = joined[-1] if joined else None
        if before and before.kind is s.kind is SegmentKind.DIGITS:
            cost = before.cost_log10 + s.cost_log10
            joined[-1] = replace(before, end=s.end, cost_log10=cost)
        else:
            joined.append(s)
    return tuple(joined)


def _placed(segments: tuple[Segment, ...], view: View, n: int) -> tuple[Segment, ...]:
    """The segments where they stood in the text itself; one, where they lie all over it."""
    placed = (view.place(s.start, s.end, n) for s in segments)
    moved = [replace(s, start=a, end=b) for s, (a, b) in zip(segments, placed, strict=True)]
    moved.sort(key=lambda s: s.start)
    if [0, *(s.end for s in moved)] == [*(s.start for s in moved), n]:
        return tuple(moved)
    longest = max(segments, key=lambda s: s.end - s.start)
    return (replace(longest, start=0, end=n, cost_log10=sum(s.cost_log10 for s in segments)),)


def _character_kinds(text: str) -> int:
    return len(
        {"other" if not c.isascii() else (c.islower(), c.isupper(), c.isdigit()) for c in text}
    )


@cache
def warm() -> None:
    """Reads the dictionaries ahead of the first measure."""
    measure("warm 30517")
