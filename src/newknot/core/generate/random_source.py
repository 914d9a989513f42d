"""The only door through which the core gets randomness."""

from typing import Protocol


class RandomSource(Protocol):
    """Anything that gives uniform integers; at the edge it is the operating system's."""

    def randbelow(self, n: int, /) -> int:
        """A uniform integer in [0, n)."""
