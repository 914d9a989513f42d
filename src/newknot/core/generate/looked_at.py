"""What choosing among draws costs.

Of N texts that one may have ended with, each drawn uniformly from S, the likeliest end has at most
N/S: the bits are log2(S/N) at least, whatever the taste. Redrawing some words and keeping others
makes many possible ends: those that as many redrawn words, in as many acts, can lead to.
"""

from dataclasses import dataclass

from newknot.core.generate.bits import floor_log2


@dataclass(frozen=True, slots=True)
class LookedAt:
    """The draws seen so far. ends: of earlier whole draws; acts: redraws since the last whole one.

    redrawn: words redrawn in these acts.
    """

    parts: int = 1
    ends: int = 0
    acts: int = 0
    redrawn: int = 0

    def whole(self) -> "LookedAt":
        """After one more draw of everything."""
        return LookedAt(self.parts, self.possible, 0, 0)

    def some(self, count: int) -> "LookedAt":
        """After a redraw of so many parts, the others kept."""
        return LookedAt(self.parts, self.ends, self.acts + 1, self.redrawn + count)

    @property
    def possible(self) -> int:
        """How many texts one may have ended with; 1 at the first draw."""
        ways = [1] + [0] * self.redrawn
        for _ in range(self.parts):
            ways = [
                sum(ways[total - k] for k in range(min(self.acts, total) + 1))
                for total in range(self.redrawn + 1)
            ]
        return self.ends + sum(ways)


def bits_after_choice(size: int, looked_at: LookedAt) -> float:
    """log2(size / possible ends), rounded down, not below 0."""
    return floor_log2(max(1, size // looked_at.possible))
