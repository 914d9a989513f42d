"""The set of all strings of one length that a policy allows: its size, and uniform draws.

Rules that do not look at order are counted by sums over classes (`order_free`); rules that look
at neighbours, ends, and what the site keeps, by an automaton (`layered`). Where both meet, or
where the automaton would cost too much, the size is given by proven bounds: the order-free count,
and that count less a union bound on what breaks the other rules.
"""

from collections import Counter
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from functools import cache, cached_property
from typing import Protocol

from newknot.core.errors import NewKnotError
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.characters.case_folding import CaseFolding
from newknot.core.generate.characters.chosen_ends import ChosenEnds
from newknot.core.generate.characters.layered import WORK_MOST, LayeredSpace, WorkTooGreat
from newknot.core.generate.characters.local_rules import breach_pattern
from newknot.core.generate.characters.order_free import OrderFreeSpace
from newknot.core.generate.characters.searched_forms import SearchedForms
from newknot.core.generate.characters.text_search import Undecided
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.contradiction import contradiction
from newknot.core.policy.folding import folded
from newknot.core.policy.site_policy import LENGTH_LIMIT, SitePolicy

__all__ = [
    "LengthRefused",
    "PasswordSpace",
    "SpaceEmpty",
    "SpaceTooCostly",
]

TRIES_MOST = 300
LISTED_MOST = 10_000
"""Up to so many order-free strings are looked through one by one where nothing else is exact."""


class LengthRefused(NewKnotError):
    """A length outside the policy or beyond the limit. data: length, least, most."""


class SpaceEmpty(NewKnotError):
    """No string of that length satisfies the policy. data: length, says."""


class SpaceTooCostly(NewKnotError):
    """Too few strings surely satisfy the rules together for a bounded draw. data: rule."""


class PasswordSpace:
    """All strings of `length` that satisfy `policy`; where the site keeps fewer, what it keeps.
    beside: the space of the same policy at another length, from which the exact count goes on.

    Raises `LengthRefused`. size_bounds: (low, high) integers, equal where the
    count is exact; (0, 0) where there is no such string. work_most: additions that the exact count
    may take; beyond them there are bounds.
    """

    def __init__(
        self,
        policy: SitePolicy,
        length: int,
        *,
        work_most: int = WORK_MOST,
        beside: "PasswordSpace | None" = None,
    ) -> None:
        most = min(policy.max_length, LENGTH_LIMIT)
        if isinstance(length, bool) or not isinstance(length, int):
            raise LengthRefused(length=0, least=policy.min_length, most=most)
        if not policy.min_length <= length <= most:
            raise LengthRefused(length=length, least=policy.min_length, most=most)
        self.policy = policy
        self.length = length
        self._costly = ""
        self._layered: LayeredSpace | None = None
        self._listed: list[int] | None = None
        self._outer: PasswordSpace | None = None
        self._forms = _kept_forms(policy, length)
        if self._forms is not None and self._forms.inner is not None:
            self._outer = PasswordSpace(
                self._forms.outer,
                self._forms.length,
                work_most=work_most,
                beside=beside._outer if beside is not None else None,
            )
            self.size_bounds = self._form_bounds(self._forms.inner, work_most)
            return
        needed = simplified(policy if self._forms is None else self._forms.outer, length)
        self._pattern = breach_pattern(needed)
        self._first, self._last = needed.first_from, needed.last_from
        self._core: OrderFreeSpace | ChosenEnds = _core_of(needed, length)
        layered = beside._layered if beside is not None else None
        self.size_bounds = self._bounds(needed, work_most, layered)

    @cached_property
    def entropy_bits(self) -> float:
        """log2 of the lower bound, rounded down to hundredths.

        Raises `SpaceEmpty`, and `SpaceTooCostly` where it is not known whether it is empty.
        """
        self._refuse_empty()
        return floor_log2(self.size_bounds[0])

    def draw(self, random: RandomSource) -> str:
        """A string of the space, each (each kept form) equally likely.

        Raises `SpaceEmpty`, `SpaceTooCostly`.
        """
        self._refuse_empty()
        if self._forms is None:
            return self._drawn(random)
        if self._outer is None:
            text = self._forms.finished(self._drawn(random), random)
            assert text is not None
            return text
        if self._listed is not None:
            form = self._outer.text_of(self._listed[random.randbelow(len(self._listed))])
            text = self._forms.finished(form, random)
            assert text is not None
            return text
        for _ in range(TRIES_MOST):
            with suppress(Undecided):
                text = self._forms.finished(self._outer.draw(random), random)
                if text is not None:
                    return text
        raise SpaceTooCostly(rule=_limit_of(self.policy))

    @property
    def is_ranked(self) -> bool:
        """Whether each string has a rank: the size is exact, and more than two bounds that meet."""
        exact = self._layered is not None or self._listed is not None
        return exact or self._core.size == self.size_bounds[0]

    def text_of(self, rank: int) -> str:
        """The kept form of a rank in [0, size), where `is_ranked`."""
        if self._listed is not None:
            return self._core.unrank(self._listed[rank])
        return self._core.unrank(rank) if self._layered is None else self._layered.unrank(rank)

    def _form_bounds(self, inner: SitePolicy, work_most: int) -> tuple[int, int]:
        """Between the forms that surely can be finished and those that perhaps can."""
        assert self._forms is not None and self._outer is not None
        high = self._outer.size_bounds[1]
        if self._outer.is_ranked and high <= min(LISTED_MOST, work_most):
            first, undecided = _First(), 0
            self._listed = []
            for rank in range(high):
                try:
                    if self._forms.finished(self._outer.text_of(rank), first) is not None:
                        self._listed.append(rank)
                except Undecided:
                    undecided += 1
            return len(self._listed), len(self._listed) + undecided
        self._costly = _limit_of(self.policy)
        surely = PasswordSpace(inner, self._forms.length, work_most=work_most)
        return surely.size_bounds[0], high

    def _drawn(self, random: RandomSource) -> str:
        if self._listed is not None:
            return self._core.unrank(self._listed[random.randbelow(len(self._listed))])
        if self._may_reject or self._layered is None:
            for _ in range(TRIES_MOST):
                text = self._core.draw(random)
                if self._passes(text):
                    return text
        if self._layered is None:
            raise SpaceTooCostly(rule=self._costly)
        text = self._layered.unrank(random.randbelow(self._layered.size))
        if len(text) < self.length:
            return self._layered.finish(text, random.randbelow(self._layered.endings(text)))
        return text

    @property
    def _may_reject(self) -> bool:
        """Whether two and a half tries are enough on average, by the lower bound."""
        return 5 * self.size_bounds[0] >= 2 * self._core.size and not self._keeps_less

    @property
    def _keeps_less(self) -> bool:
        return self.policy.keeps_first is not None and self.policy.keeps_first < self.length

    def _bounds(
        self, needed: SitePolicy, work_most: int, beside: LayeredSpace | None
    ) -> tuple[int, int]:
        size = self._core.size
        ends = self._first is not None or self._last is not None
        ends = ends and isinstance(self._core, OrderFreeSpace)
        if self._pattern is None and not ends and not self._keeps_less:
            return size, size
        limited = needed.distinct or needed.max_uses is not None
        if not limited:
            try:
                self._layered = LayeredSpace(
                    needed,
                    self.length,
                    kept=needed.keeps_first,
                    work_most=work_most,
                    beside=beside,
                )
                return self._layered.size, self._layered.size
            except WorkTooGreat as error:
                self._costly = str(error.data["rule"])
                if self._keeps_less:
                    return 0, size
        else:
            self._costly = _limit_of(needed)
        if size <= min(LISTED_MOST, work_most):
            self._listed = [r for r in range(size) if self._passes(self._core.unrank(r))]
            return len(self._listed), len(self._listed)
        low = high = size
        if isinstance(self._core, OrderFreeSpace):
            low, high = within_ends(self._core, needed)
        return max(0, low - breaking_neighbours(needed, self.length)), high

    def _passes(self, text: str) -> bool:
        """Whether an order-free string keeps the other rules too."""
        if self._first is not None and text[0] not in self._first:
            return False
        if self._last is not None and text[-1] not in self._last:
            return False
        if self._pattern is None:
            return True
        lowered = text.lower() if text.isascii() else folded(text)
        return self._pattern.search(f"{lowered}\n{text}") is None

    def _refuse_empty(self) -> None:
        low, high = self.size_bounds
        if high == 0:
            found = contradiction(self.policy)
            says = found.says if found else "no text of this length satisfies every rule"
            raise SpaceEmpty(length=self.length, says=says)
        if low == 0:
            raise SpaceTooCostly(rule=self._costly)


def _core_of(needed: SitePolicy, length: int) -> "OrderFreeSpace | ChosenEnds":
    """What is counted without the rules on neighbours: with the ends chosen, where they bind and
    can be.
    """
    ends = needed.first_from is not None or needed.last_from is not None
    limited = needed.distinct or needed.max_uses is not None or needed.min_classes > 0
    if ends and length > 1 and not limited:
        return ChosenEnds(needed, length)
    return OrderFreeSpace(needed, length)


class _First:
    """Always the first of all ways: enough to see whether there is one."""

    def randbelow(self, n: int, /) -> int:
        return 0


class _KeptForms(Protocol):
    """What a site keeps of a text: the policies that bound it, its length, and its finishing."""

    outer: SitePolicy
    inner: SitePolicy | None
    length: int

    def finished(self, text: str, random: RandomSource) -> str | None: ...


def _kept_forms(policy: SitePolicy, length: int) -> _KeptForms | None:
    """How the site's kept forms are counted, where that takes more than the policy itself."""
    uses = 1 if policy.distinct else policy.max_uses
    is_limited = uses is not None and uses < length
    keeps_less = policy.keeps_first is not None and policy.keeps_first < length
    if policy.folds_case and not is_limited:
        folding = CaseFolding(policy, length)
        if not keeps_less or folding.inner is None:
            return folding
    if policy.folds_case or (keeps_less and is_limited):
        return SearchedForms(policy, length)
    return None


def _limit_of(policy: SitePolicy) -> str:
    """The rule that makes for bounds: a limit of uses where there is one, else what is kept."""
    if policy.distinct or policy.max_uses is not None:
        return "distinct" if policy.distinct else "max_uses"
    return "folds_case" if policy.folds_case else "keeps_first"


def simplified(policy: SitePolicy, length: int) -> SitePolicy:
    """The policy without the rules that cannot bite at this length and alphabet."""
    uses = 1 if policy.distinct else policy.max_uses
    if uses is not None and uses >= length:
        uses = None
    run, sequence = policy.max_identical_run, policy.max_sequence_run
    if run is not None and (run >= length or (uses is not None and uses <= run)):
        run = None
    if sequence is not None and sequence >= length:
        sequence = None
    policy = without_single_texts(policy)
    alphabet = {folded(c) for one in policy.usable_classes() for c in one.characters}
    words = {folded(word) for word in policy.forbidden}
    biting = [w for w in words if len(w) <= length and set(w) <= alphabet]
    shortest = [w for w in biting if not any(o != w and o in w for o in biting)]
    kept = policy.keeps_first
    return replace(
        policy,
        max_identical_run=run,
        max_sequence_run=sequence,
        distinct=uses == 1,
        max_uses=None if uses == 1 else uses,
        forbidden=tuple(sorted(shortest)),
        keeps_first=None if kept is None or kept >= length else kept,
    )


def without_single_texts(policy: SitePolicy) -> SitePolicy:
    """A forbidden text of one character leaves that character out, in either case."""
    barred = {folded(text) for text in policy.forbidden if len(text) == 1}
    if not barred:
        return policy
    classes = tuple(
        replace(one, characters="".join(c for c in one.characters if folded(c) not in barred))
        for one in policy.usable_classes()
    )
    rest = tuple(text for text in policy.forbidden if len(text) > 1)
    return replace(policy, classes=classes, forbidden=rest)


def within_ends(core: OrderFreeSpace, policy: SitePolicy) -> tuple[int, int]:
    """Between how many order-free strings begin and end with characters that may stand there.

    By symmetry each character of a class stands first (or last) equally often.
    """
    found = []
    for wanted in (policy.first_from, policy.last_from):
        if wanted is not None:
            found.append(
                sum(
                    first * sum(c in wanted for c in characters) // max(1, len(characters))
                    for characters, first in core.first_by_class()
                )
            )
    if not found:
        return core.size, core.size
    # Both ends: what one leaves, less what the other takes away at most.
    low = sum(found) - core.size * (len(found) - 1)
    return low, min(found)


def breaking_neighbours(policy: SitePolicy, length: int) -> int:
    """A union bound: places times patterns times what may stand elsewhere, without the rules on
    neighbours.
    """
    alphabet = [c for one in policy.usable_classes() for c in one.characters]
    first = (
        alphabet if policy.first_from is None else [c for c in alphabet if c in policy.first_from]
    )
    last = alphabet if policy.last_from is None else [c for c in alphabet if c in policy.last_from]
    by_fold, at_first, at_last = (Counter(map(folded, one)) for one in (alphabet, first, last))

    @cache
    def outside(size: int, left: bool, right: bool) -> int:
        """The texts outside a pattern of that size; left, right: which of the ends they have."""
        inner: int = len(alphabet) ** (length - size - left - right)
        simple = (len(first) if left else 1) * inner * (len(last) if right else 1)
        if length == size:
            return simple
        loose = replace(
            policy,
            classes=tuple(replace(c, minimum=max(0, c.minimum - size)) for c in policy.classes),
            min_classes=max(0, policy.min_classes - size),
            first_from=policy.first_from if left else None,
            last_from=policy.last_from if right else None,
        )
        return min(simple, within_ends(OrderFreeSpace(loose, length - size), loose)[1])

    def elsewhere(start: int, size: int) -> int:
        return outside(size, start > 0, start + size < length)

    def places(size: int) -> Iterator[tuple[int, int]]:
        """Each kind of place for a pattern, and how many there are of it."""
        yield 0, 1
        if length > size:
            yield length - size, 1
        if length > size + 1:
            yield 1, length - size - 1

    total = 0
    for pattern in _patterns(policy):
        for start, count in places(len(pattern)):
            ways = 1
            for i, c in enumerate(pattern):
                at_end = start + i == length - 1
                ways *= (at_first if start + i == 0 else at_last if at_end else by_fold)[c]
            total += count * ways * elsewhere(start, len(pattern))
    if policy.max_identical_run is not None:
        size = policy.max_identical_run + 1
        for start, count in places(size):
            begins, ends = start == 0, start + size == length
            characters = set(first if begins else alphabet) & set(last if ends else alphabet)
            total += count * len(characters) * elsewhere(start, size)
    return total


def _patterns(policy: SitePolicy) -> Iterator[str]:
    """Folded texts of which none may stand in a string."""
    yield from policy.forbidden
    if policy.max_sequence_run is not None:
        size = policy.max_sequence_run + 1
        for line in ("abcdefghijklmnopqrstuvwxyz", "0123456789"):
            for way in (line, line[::-1]):
                for i in range(len(way) - size + 1):
                    yield way[i : i + size]
