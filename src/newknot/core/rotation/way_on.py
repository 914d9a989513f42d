"""The way on after "not sure": which secret opens the site, tried one by one by sign-ins.

First the new one and the old one as they are; then what a site may have made of the new one when it
stored it: its beginning, all of it in one case, or what is left without some characters; then
every beginning, every end, beginnings in one case, and at last every part within. Stateless: the
answers so far give the next.
"""

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from enum import StrEnum
from unicodedata import normalize

CUTS = (72, 64, 32, 30, 24, 20, 16, 15, 14, 12, 10, 8, 6)
"""Lengths at which sites are known to cut."""
CUT_TRIES_FIRST, PART_LEAST = 5, 4
"""How many beginnings are tried before all else; the shortest part of all."""
TRIED_AT_ONCE_MOST = 100
"""However many there are: no site is to be asked without end."""
_OF_MARKUP = frozenset("<>&\"'`\\")
"""Signs that a page's own code gives a meaning, and careless sites drop."""


class Which(StrEnum):
    """What a sign-in is tried with."""

    NEW = "new"
    CURRENT = "current"
    START_OF_NEW = "start_of_new"
    NEW_IN_SMALL = "new_in_small"
    NEW_IN_CAPITALS = "new_in_capitals"
    NEW_WITHOUT_SPACES = "new_without_spaces"
    NEW_WITHOUT_SYMBOLS = "new_without_symbols"
    NEW_WITHOUT_ACCENTS = "new_without_accents"
    NEW_WITHOUT_MARKUP = "new_without_markup"
    END_OF_NEW = "end_of_new"
    START_IN_SMALL = "start_in_small"
    START_IN_CAPITALS = "start_in_capitals"
    PART_OF_NEW = "part_of_new"


_OTHERWISE = (
    Which.NEW_IN_SMALL,
    Which.NEW_IN_CAPITALS,
    Which.NEW_WITHOUT_SPACES,
    Which.NEW_WITHOUT_SYMBOLS,
    Which.NEW_WITHOUT_MARKUP,
    Which.NEW_WITHOUT_ACCENTS,
)


@dataclass(frozen=True, slots=True)
class WayOnTrial:
    """characters: of a beginning, an end or a part; 0 of the others. after: how many stand before
    a part; 0 of the others.
    """

    which: Which
    characters: int = 0
    after: int = 0

    def of(self, new: str, current: str) -> str:
        """What is to be typed."""
        match self.which:
            case Which.CURRENT:
                return current
            case Which.START_OF_NEW:
                return new[: self.characters]
            case Which.END_OF_NEW:
                return new[-self.characters :]
            case Which.PART_OF_NEW:
                return new[self.after :][: self.characters]
            case Which.START_IN_SMALL:
                return new[: self.characters].lower()
            case Which.START_IN_CAPITALS:
                return new[: self.characters].upper()
            case Which.NEW_IN_SMALL:
                return new.lower()
            case Which.NEW_IN_CAPITALS:
                return new.upper()
            case Which.NEW_WITHOUT_SPACES:
                return "".join(new.split())
            case Which.NEW_WITHOUT_SYMBOLS:
                return "".join(c for c in new if c.isalnum())
            case Which.NEW_WITHOUT_MARKUP:
                return "".join(c for c in new if c not in _OF_MARKUP)
            case Which.NEW_WITHOUT_ACCENTS:
                return "".join(c for c in normalize("NFKD", new) if c.isascii())
        return new

    @property
    def is_part(self) -> bool:
        """Whether it is of the new one, and not all of it."""
        return self.which not in (Which.NEW, Which.CURRENT)

    @property
    def stores_first(self) -> int | None:
        """How many characters from the beginning a site keeps whom it opens; None where all, or
        where it is something else.
        """
        starts = (Which.START_OF_NEW, Which.START_IN_SMALL, Which.START_IN_CAPITALS)
        return self.characters if self.which in starts else None

    @property
    def says(self) -> str:
        """What it is, in words."""
        first = f"the first {self.characters} characters of the new secret"
        return {
            Which.NEW: "the new secret",
            Which.CURRENT: "the old secret",
            Which.START_OF_NEW: first,
            Which.NEW_IN_SMALL: "the new secret in small letters",
            Which.NEW_IN_CAPITALS: "the new secret in capitals",
            Which.NEW_WITHOUT_SPACES: "the new secret without its spaces",
            Which.NEW_WITHOUT_SYMBOLS: "the letters and digits of the new secret alone",
            Which.NEW_WITHOUT_ACCENTS: "the new secret with plain letters for accented ones",
            Which.NEW_WITHOUT_MARKUP: "the new secret without < > & quotes and backslashes",
            Which.END_OF_NEW: f"the last {self.characters} characters of the new secret",
            Which.START_IN_SMALL: f"{first}, in small letters",
            Which.START_IN_CAPITALS: f"{first}, in capitals",
            Which.PART_OF_NEW: f"characters {self.after + 1} to {self.after + self.characters}"
            " of the new secret",
        }[self.which]


def _every(new: str, current: str, longest: int | None) -> Iterator[WayOnTrial]:
    cuts = sorted({*CUTS, *([longest] if longest else [])}, reverse=True)
    usual = [n for n in cuts if n < len(new)]
    if longest is not None and longest < len(new):
        usual = [longest, *(n for n in usual if n != longest)]
    shorter = range(len(new) - 1, PART_LEAST - 1, -1)
    yield WayOnTrial(Which.NEW)
    if current:
        yield WayOnTrial(Which.CURRENT)
    yield from (WayOnTrial(Which.START_OF_NEW, n) for n in usual[:CUT_TRIES_FIRST])
    yield from map(WayOnTrial, _OTHERWISE)
    yield from (WayOnTrial(Which.START_OF_NEW, n) for n in shorter)
    yield from (WayOnTrial(Which.END_OF_NEW, n) for n in shorter)
    for n in (*usual, *shorter):
        yield WayOnTrial(Which.START_IN_SMALL, n)
        yield WayOnTrial(Which.START_IN_CAPITALS, n)
    for n in shorter:
        yield from (WayOnTrial(Which.PART_OF_NEW, n, after) for after in range(1, len(new) - n))


def trials(new: str, current: str, *, longest: int | None) -> Iterator[WayOnTrial]:
    """All of them in order, each text once. longest: what the site says it takes at most."""
    seen: set[str] = set()
    for one in _every(new, current, longest):
        text = one.of(new, current)
        if text and text not in seen:
            seen.add(text)
            yield one


def next_trial(
    new: str, current: str, refused: Collection[WayOnTrial], *, longest: int | None
) -> WayOnTrial | None:
    """The next sign-in; None at the end."""
    past = frozenset(refused)
    return next((t for t in trials(new, current, longest=longest) if t not in past), None)
