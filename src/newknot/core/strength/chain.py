"""The chain of parts: which kind of stretch follows which, and the likeliest way a text was made.

A secret is taken as made part by part, as people and machines make them; each part's cost is
-log10 of its probability, so that the costs of all texts add up to a probability and no kind of
text is cheap by accident (but for words of several other languages in a row, as said below). The
likeliest way (Viterbi, 1967) comes with pointers back, which are the reasons.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import compress
from math import inf, log10

from newknot.core.strength.letter_chain import (
    EDGE,
    ENTRY_LOG10,
    LETTERS,
    SHORTEST,
    STEPS_PER_ORDER,
    letter_number,
    triples,
)
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, Segment, SegmentKind

FOLLOWS: dict[Part, dict[Part, float]] = {
    Part.START: {
        Part.WORD: 0.56,
        Part.DIGITS: 0.09,
        Part.SYMBOL: 0.02,
        Part.RANDOM: 0.14,
        Part.PATTERN: 0.13,
        Part.LIST: 0.06,
    },
    Part.WORD: {
        Part.WORD: 0.16,
        Part.DIGITS: 0.28,
        Part.SYMBOL: 0.17,
        Part.RANDOM: 0.02,
        Part.PATTERN: 0.04,
    },
    Part.DIGITS: {
        Part.WORD: 0.16,
        Part.DIGITS: 0.06,
        Part.SYMBOL: 0.15,
        Part.RANDOM: 0.04,
        Part.PATTERN: 0.04,
    },
    Part.SYMBOL: {
        Part.WORD: 0.30,
        Part.DIGITS: 0.20,
        Part.SYMBOL: 0.03,
        Part.RANDOM: 0.02,
        Part.PATTERN: 0.03,
    },
    Part.RANDOM: {Part.WORD: 0.06, Part.DIGITS: 0.05, Part.SYMBOL: 0.05, Part.PATTERN: 0.04},
    Part.PATTERN: {
        Part.WORD: 0.15,
        Part.DIGITS: 0.15,
        Part.SYMBOL: 0.14,
        Part.RANDOM: 0.05,
        Part.PATTERN: 0.09,
    },
    Part.LIST: {Part.LIST: 0.42, Part.LINK: 0.38, Part.DIGITS: 0.05, Part.SYMBOL: 0.05},
    Part.LINK: {Part.LINK: 0.8, Part.DIGITS: 0.04, Part.SYMBOL: 0.04},
}
"""Shares of what follows each part; what is left ends the text."""
_ABROAD_SHARE, _STAYS_ABROAD = 0.02, 0.7
"""Of words, those of one other language; behind one of its words, how often the next is too. Which
of them it is, is not kept: a text of words of several is taken for likelier than it is.
"""
FOLLOWS |= {Part.ABROAD: FOLLOWS[Part.WORD]}
for _part, _follows in FOLLOWS.items():
    if _words := _follows.get(Part.WORD):
        _share = _STAYS_ABROAD if _part is Part.ABROAD else _ABROAD_SHARE
        FOLLOWS[_part] = _follows | {
            Part.WORD: _words * (1 - _share),
            Part.ABROAD: _words * _share,
        }
LOWER, UPPER, DIGITS = "abcdefghijklmnopqrstuvwxyz", "ABCDEFGHIJKLMNOPQRSTUVWXYZ", "0123456789"
PRINTABLE = "".join(map(chr, range(0x20, 0x7F)))
ALPHABETS = (
    (LOWER, 0.22),
    (LOWER + DIGITS, 0.18),
    (UPPER + DIGITS, 0.06),
    (UPPER, 0.03),
    (LOWER + UPPER, 0.08),
    (LOWER + UPPER + DIGITS, 0.17),
    (PRINTABLE, 0.19),
    (DIGITS, 0.02),
    (DIGITS + "abcdef", 0.03),
    (UPPER + "234567", 0.005),
    ("01", 0.003),
    ("123456", 0.003),
    ("ABCDEFG", 0.002),
    ("asdfghjkl;", 0.004),
)
"""Sets that unpatterned characters are drawn from, and their shares; what is left is any script."""
ANY_SCRIPT_SHARE = 1 - sum(share for _, share in ALPHABETS)
GOES_ON = 0.9
"""Of unpatterned characters, how often another follows."""
_ASCII_LOG10, _ALPHABETIC_LOG10, _IDEOGRAPHIC_LOG10, _OTHER_LOG10 = 2.1, 1.6, 3.5, 4.0
_USUAL = frozenset(
    "的一是不了人我在有他这中大来上国个到说们为子和你地出道也时年得就那要下以生会自着去之过家学对可里后小"
    "么心多天而能好都然没日于起还发成事只作当想看文无开手十用主行方又如前所本见经头面起点爱情花月水火木金"
    "土山川田海春夏秋冬風雨雪東西南北京日本語私愛友達夢星空光男女父母兄弟姉妹猫犬魚鳥龍虎王高新美世界平安"
    "福喜快乐幸生日密码红白黑青黄先老师朋二三四五六七八九百千万零"
)
_USUAL_LOG10 = 2.7
"""Of the ideographs that are written most, each as likely; they make more than half of a text."""
_SCRIPTS = (
    (0x80, 0x6FF, _ALPHABETIC_LOG10),  # Latin with marks, Greek, Cyrillic, Hebrew, Arabic
    (0x900, 0xE7F, 1.9),  # the scripts of India, Thai
    (0x10A0, 0x10FF, _ALPHABETIC_LOG10),  # Georgian
    (0x3040, 0x30FF, 2.0),  # kana
    (0xAC00, 0xD7A3, 3.2),  # Hangul: the syllables in use
)
"""Alphabets by their place in Unicode, and -log10 of one of their characters."""
_PARTS = len(Part)
_BY_CHANCE, _BY_WORD = int(Part.RANDOM), int(Part.WORD)
_FROM_START, _FROM_CHANCE = [int(Part.START)] * _PARTS, [_BY_CHANCE] * _PARTS
_ANY = len(ALPHABETS)
_EACH = [log10(len(members)) for members, _ in ALPHABETS]
_MEMBERS = [frozenset(members) for members, _ in ALPHABETS]
_PRINTABLE = frozenset(PRINTABLE)
_CLASSES = [
    frozenset(c) for c in (LOWER, UPPER, DIGITS, filter(lambda c: not c.isalnum(), PRINTABLE))
]
Holding = dict[str, tuple[tuple[int, float], ...]]


@cache
def _holding(classes: tuple[bool, ...], is_printable: bool) -> Holding:
    """Printable character -> the alphabets that hold it, with the cost of one of their characters,
    for texts of such classes of characters: without those of which another is chosen more often,
    is smaller, and holds as many of these. is_printable: nothing else occurs.
    """
    occur = frozenset[str]().union(*compress(_CLASSES, classes))
    held = [occur & members for members in _MEMBERS]
    rows = [(held[at], share, _EACH[at]) for at, (_, share) in enumerate(ALPHABETS)]
    rows.append((occur, ANY_SCRIPT_SHARE, _ASCII_LOG10))
    kept = [
        at
        for at, (members, share, each) in enumerate(rows)
        if not any(
            members <= more and share <= oftener and each >= smaller and other != at
            for other, (more, oftener, smaller) in enumerate(rows)
        )
        or (at == _ANY and not is_printable)
    ]
    return {c: tuple((at, rows[at][2]) for at in kept if c in rows[at][0]) for c in occur}


def _holding_of(text: str) -> Holding:
    met = set(text)
    classes = tuple(not met.isdisjoint(c) for c in _CLASSES)
    return _holding(classes, met <= _PRINTABLE)


_SPEAKABLE = re.compile(f"[a-z]{{{SHORTEST},}}")


@dataclass(frozen=True, slots=True)
class _Prices:
    """What the kinds of parts and their order cost, at a share of it: of the part that follows each
    (also as pairs, without those that never do), of the end after each, of each alphabet, of one
    more unpatterned character and of none more, and of letters like a word's.
    """

    costs: list[list[float]]
    following: list[list[tuple[int, float]]]
    end: list[float]
    enter: list[float]
    stays: float
    stops: float
    made_up: float


@cache
def _prices(share: float) -> _Prices:
    costs = [
        [-share * log10(follows[then]) if then in follows else inf for then in Part]
        for follows in (FOLLOWS[part] for part in Part)
    ]
    alphabets = [*(each for _, each in ALPHABETS), ANY_SCRIPT_SHARE]
    return _Prices(
        costs=costs,
        following=[[(then, c) for then, c in enumerate(row) if c < inf] for row in costs],
        end=[inf, *(-share * log10(1 - sum(FOLLOWS[part].values())) for part in list(Part)[1:])],
        enter=[-share * log10(each) for each in alphabets],
        stays=-share * log10(GOES_ON),
        stops=-share * log10(1 - GOES_ON),
        made_up=share * ENTRY_LOG10,
    )


@dataclass(frozen=True, slots=True)
class Cover:
    """The likeliest way that a text was made, with its segments in order.

    which_log10: the segments' costs together, each among all of its kind; kinds_log10: what the
    kinds and their order cost. Both together are -log10 of the way's probability.
    """

    which_log10: float
    kinds_log10: float
    segments: tuple[Segment, ...]


def script_log10(c: str) -> float:
    """-log10 of one character's probability where any script may occur."""
    code = ord(c)
    if code < 0x80:
        return _ASCII_LOG10
    for first, last, each in _SCRIPTS:
        if first <= code <= last:
            return each
    if c in _USUAL:
        return _USUAL_LOG10
    if 0x3000 <= code < 0xD800 or 0x1F000 <= code < 0x1FB00:
        return _IDEOGRAPHIC_LOG10
    return _OTHER_LOG10


def drawn_whole(text: str) -> tuple[float, float] | None:
    """How likely a text is drawn whole by chance, as -log10 of it, from the set of characters that
    makes this likeliest, and log10 of how many texts of its length that set makes; None where no
    set holds it.
    """
    met, n, prices = set(text), len(text), _prices(1.0)
    holding = [at for at, members in enumerate(_MEMBERS) if met <= members]
    if not holding:
        return None
    at = min(holding, key=lambda one: prices.enter[one] + n * _EACH[one])
    entry = prices.costs[Part.START][_BY_CHANCE] + prices.enter[at]
    ending = prices.stops + prices.end[_BY_CHANCE]
    return entry + n * _EACH[at] + (n - 1) * prices.stays + ending, n * _EACH[at]


def likeliest(reading: Reading, found: Iterable[Found], kinds_share: float = 1.0) -> Cover:
    """One pass over the end positions; linear in the text but for what the finders offer.

    kinds_share: how much of what the kinds and their order cost is counted in the choice; below 1
    it is the way that costs least to whoever knows the kinds, and not the likeliest.
    """
    prices = _prices(kinds_share)
    text, low = reading.text, reading.low
    n = len(text)
    if n == 0:
        return Cover(0.0, 0.0, ())
    ending: dict[int, list[Found]] = {}
    for offer in found:
        ending.setdefault(offer.end, []).append(offer)
    entry: list[list[float]] = [prices.costs[Part.START]]
    entered_from: list[Sequence[int]] = [_FROM_START]
    chosen: list[dict[int, Found]] = [{}]
    drawn, made_up = _Drawn(prices, _holding_of(text)), _MadeUp(prices.made_up)
    after_chance, following = prices.costs[_BY_CHANCE], prices.following
    speakable = bytearray(n)
    for run in _SPEAKABLE.finditer(low):
        speakable[run.start() : run.end()] = b"\1" * (run.end() - run.start())
    best: dict[int, float] = {}
    for end in range(1, n + 1):
        # Parts that end here; most places are the end of none but of characters by chance.
        best, last = {}, {}
        for offer in ending.get(end, ()):
            start, _, part, which, fee, _, _ = offer
            total = entry[start][part] + which + fee * kinds_share
            if part not in best or total < best[part]:
                best[part], last[part] = total, offer
        if speakable[end - 1]:
            made_up.step(low[end - 1], end, entry[end - 1][_BY_WORD])
            total = made_up.ended(end)
            if total < best.get(_BY_WORD, inf):
                best[_BY_WORD], last[_BY_WORD] = total, made_up.found(end, total, entry)
        here = drawn.step(text[end - 1], end, entry[end - 1][_BY_CHANCE])
        costs, sources = [here + cost for cost in after_chance], _FROM_CHANCE
        if best:
            sources = [*sources]
            for part, total in best.items():
                for then, cost in following[part]:
                    if total + cost < costs[then]:
                        costs[then], sources[then] = total + cost, part
        best[_BY_CHANCE] = here
        entry.append(costs)
        entered_from.append(sources)
        chosen.append(last)
    part = min(best, key=lambda p: best[p] + prices.end[p])
    segments = _back(n, part, chosen, entered_from, drawn.runs)
    which = sum(segment.cost_log10 for segment in segments)
    return Cover(which, (best[part] + prices.end[part] - which) / kinds_share, segments)


def _back(
    end: int,
    part: int,
    chosen: list[dict[int, Found]],
    entered_from: list[Sequence[int]],
    runs: list[tuple[int, float]],
) -> tuple[Segment, ...]:
    segments: list[Segment] = []
    while end > 0:
        offer = chosen[end].get(part)
        if offer is None:
            start, which = runs[end]
            segments.append(Segment(start, end, SegmentKind.RANDOM, which))
        else:
            start, _, _, which, _, kind, taken_for = offer
            segments.append(Segment(start, end, kind, which, taken_for))
        end, part = start, entered_from[start][part]
    return tuple(reversed(segments))


class _Drawn:
    """Unpatterned characters: for each alphabet the cheapest run that goes on up to here.

    runs: by end position, where the cheapest run of all begins and what its characters cost.
    """

    def __init__(self, prices: _Prices, holding: Holding) -> None:
        self._holding = holding
        self._enter, self._stays, self._stops = prices.enter, prices.stays, prices.stops
        self._cost = [inf] * len(self._enter)
        self._which = [0.0] * len(self._enter)
        self._start = [0] * len(self._enter)
        self.runs: list[tuple[int, float]] = [(0, 0.0)]

    def step(self, c: str, end: int, entry: float) -> float:
        """Takes one character more, and gives the cost if they end there."""
        before, starts, which = self._cost, self._start, self._which
        enter, stays = self._enter, self._stays
        self._cost = costs = [inf] * len(enter)
        least, cheapest = inf, _ANY
        for kind, each in self._holding.get(c) or ((_ANY, script_log10(c)),):
            goes_on, begins = before[kind] + stays, entry + enter[kind]
            if begins < goes_on:
                starts[kind], which[kind] = end - 1, each
                cost = begins + each
            else:
                which[kind] += each
                cost = goes_on + each
            costs[kind] = cost
            if cost < least:
                least, cheapest = cost, kind
        self.runs.append((starts[cheapest], which[cheapest]))
        return least + self._stops


class _MadeUp:
    """Letters in the order of a word's, that no list holds."""

    def __init__(self, entry_log10: float) -> None:
        self._entry_log10 = entry_log10
        self._table = triples()
        self._cost = inf
        self._start = self._end = 0
        self._two = (EDGE, EDGE)

    def step(self, c: str, end: int, entry: float) -> None:
        letter, table = letter_number(c), self._table
        goes_on = inf
        if end == self._end + 1:
            first, second = self._two
            step = table[(first * LETTERS + second) * LETTERS + letter]
            goes_on = self._cost + step / STEPS_PER_ORDER
        self._end = end
        begins = entry + self._entry_log10 + table[letter] / STEPS_PER_ORDER
        if begins < goes_on:
            self._cost, self._start, self._two = begins, end - 1, (EDGE, letter)
        else:
            self._cost, self._two = goes_on, (second, letter)

    def ended(self, end: int) -> float:
        """The cost of the way to here, if the letters end here."""
        if end - self._start < SHORTEST:
            return inf
        first, second = self._two
        return self._cost + self._table[(first * LETTERS + second) * LETTERS] / STEPS_PER_ORDER

    def found(self, end: int, total: float, entry: list[list[float]]) -> Found:
        """The stretch that ends here, at a total cost of the way."""
        which = total - entry[self._start][_BY_WORD] - self._entry_log10
        kind = SegmentKind.WORDLIKE
        return Found(self._start, end, _BY_WORD, which, self._entry_log10, kind)
