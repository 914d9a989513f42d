"""Strings under rules that do not look at order: classes, kinds present, uses of a character.

With classes j of which c characters stand in a string, f_j[n, k] = sum over c of
C(n, c) * g_j[c] * f_(j+1)[n - c, k - (c > 0)] counts the ways to fill n positions with classes j
and after, at least k of them present; g_j[c] is the number of strings of c characters of class
j, each used at most m times. A uniform integer below f_0 becomes a string by walking the sums.
"""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property
from math import comb
from operator import itemgetter

from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

LEFT_LEAST, TRIES = 4, 12
"""One string of so many keeps its limits of use, at least; so many are tried."""
LISTED_MOST = 600
"""Ways to divide the places among the classes."""


class OrderFreeSpace:
    """All strings of `length` over the policy's classes, whatever its other rules say."""

    def __init__(self, policy: SitePolicy, length: int) -> None:
        self.length = length
        self._policy = policy
        self._min_classes = policy.min_classes
        self._uses = 1 if policy.distinct else policy.max_uses
        self._classes = _merged(policy, limited=self._uses is not None)
        self._arranged = [self._arrangements(len(one.characters)) for one in self._classes]
        self._ways = [
            [[comb(n, c) * rows[-1][c] for c in range(n + 1)] for n in range(length + 1)]
            for rows in self._arranged
        ]
        self._tables = self._count(self._ways)
        self._asked = 0

    @property
    def size(self) -> int:
        """How many strings there are, exactly."""
        return self._tables[0][self.length][self._min_classes]

    def draw(self, random: RandomSource) -> str:
        """A string, each alike likely: where limits of use leave enough of all strings, one of all
        that keeps them, which is found sooner than the string of a rank.
        """
        if self._loose is not None:
            for _ in range(TRIES):
                text = self._loose.unrank(random.randbelow(self._loose.size))
                if max(map(text.count, text)) <= (self._uses or 0):
                    return text
        return self.unrank(random.randbelow(self.size))

    @cached_property
    def _loose(self) -> "OrderFreeSpace | None":
        """The same strings and more, without limits of use; None where few of them keep these."""
        if self._uses is None or self._uses == 1:
            return None
        loose = OrderFreeSpace(replace(self._policy, distinct=False, max_uses=None), self.length)
        return loose if LEFT_LEAST * self.size >= loose.size else None

    def unrank(self, rank: int) -> str:
        """The string of a rank in [0, size)."""
        counts, rank = self._class_counts(rank)
        free = list(range(self.length))
        kinds = [-1] * self.length
        for j, c in enumerate(counts):
            if c == len(free):
                for position in free:
                    kinds[position] = j
                break
            rank, chosen = divmod(rank, comb(len(free), c))
            for position in reversed(combination(chosen, len(free), c)):
                kinds[free.pop(position)] = j
        out: list[str] = []
        if self._uses == 1:
            left = [list(one.characters) for one in self._classes]
            for j in kinds:
                rank, digit = divmod(rank, len(left[j]))
                out.append(left[j].pop(digit))
            return "".join(out)
        if self._uses is not None:
            return self._limited(kinds, counts, rank)
        for j in kinds:
            characters = self._classes[j].characters
            rank, digit = divmod(rank, len(characters))
            out.append(characters[digit])
        return "".join(out)

    def _arrangements(self, size: int) -> list[list[int]]:
        """rows[k][c]: strings of c characters over the first k, each at most `uses` times."""
        if self._uses is None:
            return [[size**c for c in range(self.length + 1)]]
        rows = [[1] + [0] * self.length]
        for _ in range(size):
            before = rows[-1]
            rows.append(
                [
                    sum(comb(c, i) * before[c - i] for i in range(min(c, self._uses) + 1))
                    for c in range(self.length + 1)
                ]
            )
        return rows

    def first_by_class(self) -> list[tuple[str, int]]:
        """(characters, how many strings begin with one of them) for each class."""
        out: list[tuple[str, int]] = []
        for j, one in enumerate(self._classes):
            ways = list(self._ways)
            # Weighted by its count of the class, each string adds up the places it could begin at.
            ways[j] = [[c * w for c, w in enumerate(row)] for row in ways[j]]
            weighted = self._count(ways)[0][self.length][self._min_classes]
            out.append((one.characters, weighted // self.length))
        return out

    def _count(self, filled: list[list[list[int]]]) -> list[list[list[int]]]:
        n_most, k_most = self.length, self._min_classes
        after = [[int(n == 0 and k == 0) for k in range(k_most + 1)] for n in range(n_most + 1)]
        tables = [after]
        for j in reversed(range(len(self._classes))):
            one = self._classes[j]
            here = [[0] * (k_most + 1) for _ in range(n_most + 1)]
            for n in range(n_most + 1):
                most = n if one.maximum is None else min(n, one.maximum)
                for c in range(one.minimum, most + 1):
                    ways = filled[j][n][c]
                    row = after[n - c]
                    for k in range(k_most + 1):
                        here[n][k] += ways * row[max(0, k - (c > 0))]
            tables.append(here)
            after = here
        tables.reverse()
        return tables

    def _class_counts(self, rank: int) -> tuple[list[int], int]:
        """How many characters each class gives, and the rank left among strings of those counts."""
        self._asked += 1
        if self._asked > 1 and self._listed:
            at = bisect_right(self._listed, rank, key=itemgetter(0)) - 1
            begins, counts = self._listed[at]
            return counts, rank - begins
        n, k = self.length, self._min_classes
        counts = []
        weight = 1
        for j, one in enumerate(self._classes):
            most = n if one.maximum is None else min(n, one.maximum)
            for c in range(one.minimum, most + 1):
                ways = weight * self._ways[j][n][c]
                rest = self._tables[j + 1][n - c][max(0, k - (c > 0))]
                if rank < ways * rest:
                    counts.append(c)
                    weight, n, k = ways, n - c, max(0, k - (c > 0))
                    break
                rank -= ways * rest
            else:
                raise AssertionError("rank beyond the count")
        return counts, rank

    @cached_property
    def _listed(self) -> list[tuple[int, list[int]]]:
        """(the first rank, the counts) of each way to divide the places among the classes, for a
        space that is drawn from again; none where they are too many.
        """
        found: list[tuple[int, list[int]]] = []
        begins = 0
        waiting: list[tuple[list[int], int, int, int]] = [([], self.length, self._min_classes, 1)]
        while waiting:
            counts, n, k, weight = waiting.pop()
            j = len(counts)
            if j == len(self._classes):
                found.append((begins, counts))
                begins += weight
                if len(found) > LISTED_MOST:
                    return []
                continue
            one = self._classes[j]
            most = n if one.maximum is None else min(n, one.maximum)
            for c in range(most, one.minimum - 1, -1):
                k_left = max(0, k - (c > 0))
                if self._tables[j + 1][n - c][k_left]:
                    ways = weight * self._ways[j][n][c]
                    waiting.append(([*counts, c], n - c, k_left, ways))
        return found

    def _limited(self, kinds: Sequence[int], counts: Sequence[int], rank: int) -> str:
        """Fills the positions of each class with characters used at most so often."""
        out = [""] * self.length
        for j, c in enumerate(counts):
            rows = self._arranged[j]
            rank, within = divmod(rank, rows[-1][c])
            places = [i for i, kind in enumerate(kinds) if kind == j]
            for k in range(len(rows) - 1, 0, -1):
                left = len(places)
                for i in range(min(left, self._uses or 0) + 1):
                    ways = comb(left, i) * rows[k - 1][left - i]
                    if within < ways:
                        break
                    within -= ways
                within, chosen = divmod(within, comb(left, i))
                for place in reversed(combination(chosen, left, i)):
                    out[places.pop(place)] = self._classes[j].characters[k - 1]
        return "".join(out)


def _merged(policy: SitePolicy, *, limited: bool) -> tuple[CharacterClass, ...]:
    """The usable classes, those of which nothing is demanded taken together as one."""
    classes = policy.usable_classes()
    if policy.min_classes or limited:
        return classes
    plain = [c for c in classes if not c.minimum and c.maximum is None]
    others = tuple(c for c in classes if c.minimum or c.maximum is not None)
    return (*others, CharacterClass("others", "".join(c.characters for c in plain)))


def combination(rank: int, n: int, c: int) -> list[int]:
    """The rank-th c-subset of range(n), ascending, in the combinatorial number system."""
    out: list[int] = []
    here = comb(n, c)
    while c:
        # here is C(n, c); those without n - 1 come first.
        below = here * (n - c) // n
        if rank < below:
            here = below
        else:
            rank -= below
            here -= below
            c -= 1
            out.append(n - 1)
        n -= 1
    out.reverse()
    return out
