"""The set of all strings of one length that a policy allows: its exact size, and uniform draws.

Strings are counted by how many of their characters come from each class: with classes j of
a_j characters, f_j[n, k] = sum over c of C(n, c) * a_j^c * f_(j+1)[n - c, k - (c > 0)] counts
the ways to fill n positions with classes j and after, at least k of them present. A uniform
integer below f_0 is turned into a string by walking the same sums: unranking.
"""

from functools import cached_property
from math import comb

from newknot.core.errors import NewKnotError
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import LENGTH_LIMIT, CharacterClass, SitePolicy

_NOT_COUNTED = (
    "max_identical_run",
    "max_sequence_run",
    "first_from",
    "last_from",
    "distinct",
    "max_uses",
    "forbidden",
    "folds_case",
    "keeps_first",
)


class RuleNotCounted(NewKnotError):
    """A rule that the count does not know yet, so no exact draw is offered. data: field."""


class LengthRefused(NewKnotError):
    """A length outside the policy or beyond the limit. data: length, least, most."""


class SpaceEmpty(NewKnotError):
    """No string of that length satisfies the policy. data: length, says."""


def require_counted(policy: SitePolicy) -> None:
    """Raises `RuleNotCounted` where the policy has a rule that the count does not know."""
    for field in _NOT_COUNTED:
        if getattr(policy, field):
            raise RuleNotCounted(field=field)


class PasswordSpace:
    """All strings of `length` that satisfy `policy`. Raises `LengthRefused`, `RuleNotCounted`.

    size_bounds: (low, high) integers, equal since the count is exact; (0, 0) where it is empty.
    """

    def __init__(self, policy: SitePolicy, length: int) -> None:
        most = min(policy.max_length, LENGTH_LIMIT)
        if isinstance(length, bool) or not isinstance(length, int):
            raise LengthRefused(length=0, least=policy.min_length, most=most)
        if not policy.min_length <= length <= most:
            raise LengthRefused(length=length, least=policy.min_length, most=most)
        require_counted(policy)
        self.policy = policy
        self.length = length
        self._classes = _merged(policy)
        self._tables = self._count()

    def _count(self) -> list[list[list[int]]]:
        """tables[j][n][k]: ways to fill n positions by classes j.. with at least k present."""
        n_most, k_most = self.length, self.policy.min_classes
        after = [
            [1 if n == 0 and k == 0 else 0 for k in range(k_most + 1)] for n in range(n_most + 1)
        ]
        tables = [after]
        for one in reversed(self._classes):
            size = len(one.characters)
            powers = [size**c for c in range(n_most + 1)]
            here = [[0] * (k_most + 1) for _ in range(n_most + 1)]
            for n in range(n_most + 1):
                most = n if one.maximum is None else min(n, one.maximum)
                for c in range(one.minimum, most + 1):
                    ways = comb(n, c) * powers[c]
                    row = after[n - c]
                    for k in range(k_most + 1):
                        here[n][k] += ways * row[max(0, k - (c > 0))]
            tables.append(here)
            after = here
        tables.reverse()
        return tables

    @property
    def size_bounds(self) -> tuple[int, int]:
        """(low, high) bounds of the number of strings; equal, since the count is exact."""
        size = self._tables[0][self.length][self.policy.min_classes]
        return size, size

    @cached_property
    def entropy_bits(self) -> float:
        """log2 of the lower bound, rounded down to hundredths. Raises `SpaceEmpty`."""
        self._refuse_empty()
        return floor_log2(self.size_bounds[0])

    def draw(self, random: RandomSource) -> str:
        """A string of the space, each equally likely. Raises `SpaceEmpty`."""
        self._refuse_empty()
        rank = random.randbelow(self.size_bounds[0])
        counts, rank = self._class_counts(rank)
        free = list(range(self.length))
        kinds = [-1] * self.length
        for j, c in enumerate(counts):
            rank, chosen = divmod(rank, comb(len(free), c))
            if c == len(free):
                for position in free:
                    kinds[position] = j
                break
            for position in reversed(_combination(chosen, len(free), c)):
                kinds[free.pop(position)] = j
        out: list[str] = []
        for j in kinds:
            characters = self._classes[j].characters
            rank, digit = divmod(rank, len(characters))
            out.append(characters[digit])
        return "".join(out)

    def _class_counts(self, rank: int) -> tuple[list[int], int]:
        """How many characters each class gives, and the rank left among strings of those counts."""
        n, k = self.length, self.policy.min_classes
        counts: list[int] = []
        weight = 1
        for j, one in enumerate(self._classes):
            most = n if one.maximum is None else min(n, one.maximum)
            for c in range(one.minimum, most + 1):
                ways = weight * comb(n, c) * len(one.characters) ** c
                rest = self._tables[j + 1][n - c][max(0, k - (c > 0))]
                if rank < ways * rest:
                    counts.append(c)
                    weight, n, k = ways, n - c, max(0, k - (c > 0))
                    break
                rank -= ways * rest
            else:
                raise AssertionError("rank beyond the count")
        return counts, rank

    def _refuse_empty(self) -> None:
        if self.size_bounds[0] == 0:
            found = self.policy.conflicts()
            says = found.says if found else "no text of this length satisfies every rule"
            raise SpaceEmpty(length=self.length, says=says)


def _merged(policy: SitePolicy) -> tuple[CharacterClass, ...]:
    """The usable classes, those of which nothing is demanded taken together as one."""
    classes = policy.usable_classes()
    if policy.min_classes:
        return classes
    plain = [c for c in classes if not c.minimum and c.maximum is None]
    others = tuple(c for c in classes if c.minimum or c.maximum is not None)
    return (*others, CharacterClass("others", "".join(c.characters for c in plain)))


def _combination(rank: int, n: int, c: int) -> list[int]:
    """The rank-th c-subset of range(n), ascending, in the combinatorial number system."""
    out: list[int] = []
    for size in range(c, 0, -1):
        top = size - 1
        value = comb(top, size)
        while top + 1 < n:
            following = comb(top + 1, size)
            if following > rank:
                break
            top, value = top + 1, following
        out.append(top)
        rank -= value
        n = top
    out.reverse()
    return out
