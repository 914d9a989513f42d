"""Real dice and coins: throws that pick a place of a list, each place equally likely.

Of the s^k equally likely results of k throws of s sides, the greatest multiple of the list's size
is divided evenly among its places; a result beyond it is thrown again (rejection: J. von Neumann,
1951).
"""

import re
from dataclasses import dataclass

from newknot.core.errors import FieldInvalid

SIDES_MOST = 1_000
SURE_ENOUGH = 0.9
"""At least so many of the results count, so that few are thrown again."""
_COIN = {"h": 1, "t": 2}


@dataclass(frozen=True, slots=True)
class Dice:
    """Dice of so many sides (2: a coin) for a list of so many places. Raises `FieldInvalid`."""

    sides: int
    places: int

    def __post_init__(self) -> None:
        if not 2 <= self.sides <= SIDES_MOST:
            raise FieldInvalid("sides", f"are not between 2 and {SIDES_MOST:,}")

    @property
    def throws(self) -> int:
        """How many throws pick one place."""
        throws = 1
        while self._counting(throws) < SURE_ENOUGH:
            throws += 1
        return throws

    @property
    def counting(self) -> float:
        """The share of the results that count, 1 where none is ever thrown again."""
        return self._counting(self.throws)

    def _counting(self, throws: int) -> float:
        results: int = self.sides**throws
        return results // self.places * self.places / results

    def place_of(self, faces: str, *, field: str = "faces") -> int:
        """The place (from 0) that throws pick, the first counting most: as `16342`, `HTTH…`, or
        with blanks between them where there are more than nine sides. Raises `FieldInvalid`.
        """
        found = self._read(faces)
        if len(found) != self.throws or any(not 1 <= face <= self.sides for face in found):
            raise FieldInvalid(field, f"is not {self.throws} throws from 1 to {self.sides}")
        value = 0
        for face in found:
            value = value * self.sides + face - 1
        if value >= self.sides**self.throws // self.places * self.places:
            raise FieldInvalid(field, "is a result that does not count: throw again")
        # Where every result has its own place this is the result itself.
        return value % self.places

    def _read(self, faces: str) -> list[int]:
        text = faces.strip().lower()
        if self.sides == 2 and not text.strip("ht, "):
            return [_COIN[c] for c in text if c in _COIN]
        if re.fullmatch(r"[0-9]+(?:[\s,]+[0-9]+)+|[0-9]+", text, re.ASCII) is None:
            return []
        parts = re.split(r"[\s,]+", text)
        if self.sides <= 9:
            return [int(c) for part in parts for c in part]
        return [int(part[:9]) for part in parts]
