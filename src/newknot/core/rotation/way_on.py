"""The way on after "not sure": which secret opens the site, tried one by one by sign-ins.

First the new one and the old one as they are; then what a site may have made of the new one when it
stored it: its beginning, all of it in one case, or what is left without some characters; beginnings
of usual lengths come first, all others last. Stateless: the answers so far give the next.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from unicodedata import normalize

CUTS = (72, 64, 32, 30, 24, 20, 16, 15, 14, 12, 10, 8, 6)
"""Lengths at which sites are known to cut."""
CUT_TRIES_FIRST, CUT_LEAST = 5, 4
"""How many beginnings are tried before all else; the shortest of all."""


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


_OTHERWISE = (
    Which.NEW_IN_SMALL,
    Which.NEW_IN_CAPITALS,
    Which.NEW_WITHOUT_SPACES,
    Which.NEW_WITHOUT_SYMBOLS,
    Which.NEW_WITHOUT_ACCENTS,
)


@dataclass(frozen=True, slots=True)
class WayOnTrial:
    """characters: of a beginning; 0 of the others."""

    which: Which
    characters: int = 0

    def of(self, new: str, current: str) -> str:
        """What is to be typed."""
        match self.which:
            case Which.CURRENT:
                return current
            case Which.START_OF_NEW:
                return new[: self.characters]
            case Which.NEW_IN_SMALL:
                return new.lower()
            case Which.NEW_IN_CAPITALS:
                return new.upper()
            case Which.NEW_WITHOUT_SPACES:
                return "".join(new.split())
            case Which.NEW_WITHOUT_SYMBOLS:
                return "".join(c for c in new if c.isalnum())
            case Which.NEW_WITHOUT_ACCENTS:
                return "".join(c for c in normalize("NFKD", new) if c.isascii())
        return new

    @property
    def is_part(self) -> bool:
        """Whether it is of the new one, and not all of it."""
        return self.which not in (Which.NEW, Which.CURRENT)

    @property
    def says(self) -> str:
        """What it is, in words."""
        return {
            Which.NEW: "the new secret",
            Which.CURRENT: "the old secret",
            Which.START_OF_NEW: f"the first {self.characters} characters of the new secret",
            Which.NEW_IN_SMALL: "the new secret in small letters",
            Which.NEW_IN_CAPITALS: "the new secret in capitals",
            Which.NEW_WITHOUT_SPACES: "the new secret without its spaces",
            Which.NEW_WITHOUT_SYMBOLS: "the letters and digits of the new secret alone",
            Which.NEW_WITHOUT_ACCENTS: "the new secret with plain letters for accented ones",
        }[self.which]


def trials(new: str, current: str, *, longest: int | None) -> Iterator[WayOnTrial]:
    """All of them in order, each text once. longest: what the site says it takes at most."""
    seen: set[str] = set()
    cuts = sorted({*CUTS, *([longest] if longest else [])}, reverse=True)
    shorter = [n for n in cuts if n < len(new)]
    if longest is not None and longest < len(new):
        shorter = [longest, *(n for n in shorter if n != longest)]
    every = [
        WayOnTrial(Which.NEW),
        *([WayOnTrial(Which.CURRENT)] if current else []),
        *(WayOnTrial(Which.START_OF_NEW, n) for n in shorter[:CUT_TRIES_FIRST]),
        *map(WayOnTrial, _OTHERWISE),
        *(WayOnTrial(Which.START_OF_NEW, n) for n in range(len(new) - 1, CUT_LEAST - 1, -1)),
    ]
    for one in every:
        text = one.of(new, current)
        if text and text not in seen:
            seen.add(text)
            yield one


def next_trial(
    new: str, current: str, refused: Sequence[WayOnTrial], *, longest: int | None
) -> WayOnTrial | None:
    """The next sign-in; None at the end."""
    return next((t for t in trials(new, current, longest=longest) if t not in refused), None)
