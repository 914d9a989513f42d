"""A text that satisfies every rule of a policy, found place by place with backtracking."""

from collections import Counter
from collections.abc import Iterator
from itertools import pairwise

from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.folding import folded, step
from newknot.core.policy.site_policy import SitePolicy

STEPS_MOST = 20_000
"""Characters that a search may try."""


class Undecided(Exception):
    """The search was given up."""


class TextSearch:
    """All texts of `length` that satisfy the policy, looked for one at a time. eager: what is
    demanded is tried first, for a text that nobody is to use.
    """

    def __init__(
        self,
        policy: SitePolicy,
        length: int,
        *,
        steps_most: int = STEPS_MOST,
        eager: bool = False,
    ) -> None:
        self._eager = eager
        self._policy = policy
        self._whole = length
        self._steps_most = steps_most
        self._classes = policy.usable_classes()
        self._uses = 1 if policy.distinct else policy.max_uses or length
        self._class_of = {c: j for j, one in enumerate(self._classes) for c in one.characters}
        self._words = tuple(folded(word) for word in policy.forbidden)
        self._dresses: dict[str, list[str]] = {}
        for c in self._class_of:
            self._dresses.setdefault(folded(c) if policy.folds_case else c, []).append(c)
        last = policy.last_from
        self._ends_bind = last is not None
        self._may_be_last = [
            last is None or any(c in last for c in one.characters) for one in self._classes
        ]
        # What may stand last is tried last before: else it may be used up.
        self._free = sorted(self._class_of, key=lambda c: last is None or c not in last)
        self._kept_back = sum(last is not None and c in last for c in self._class_of)

    @property
    def most_dresses(self) -> int:
        """In how many cases a character may stand, at most."""
        return max(map(len, self._dresses.values()), default=1)

    def text_with(self, text: str, random: RandomSource) -> str | None:
        """A text whose kept beginning is this; None if there is none. Raises `Undecided`."""
        if not self.has_room():
            return None
        supply = self._supply(text)
        out: list[str] = []
        counts = [0] * len(self._classes)
        used: Counter[str] = Counter()
        waiting = [self._candidates(text, out, counts, random)]
        for _ in range(self._steps_most):
            character = next(waiting[-1], None)
            if character is None:
                waiting.pop()
                if not waiting:
                    return None
                back = out.pop()
                counts[self._class_of[back]] -= 1
                used[back] -= 1
                continue
            j = self._class_of[character]
            out.append(character)
            counts[j] += 1
            used[character] += 1
            if self._may_stand(out, j, counts, used) and self._may_go_on(len(out), counts, supply):
                if len(out) == self._whole:
                    return "".join(out)
                waiting.append(self._candidates(text, out, counts, random))
            else:
                out.pop()
                counts[j] -= 1
                used[character] -= 1
        raise Undecided

    def by_chance(self, text: str, random: RandomSource) -> str | None:
        """A text whose kept beginning is this, in any case and with any end; None where that
        breaks a rule.
        """
        out: list[str] = []
        for form in text:
            left = self._dresses.get(form, ())
            if self._uses == 1:
                left = [c for c in left if c not in out]
            if not left:
                return None
            out.append(left[random.randbelow(len(left))] if len(left) > 1 else left[0])
        for _ in range(self._whole - len(text)):
            out.append(self._free[random.randbelow(len(self._free))])
        found = "".join(out)
        return None if self._policy.violations(found) else found

    def has_characters(self, text: str) -> bool:
        """Whether each form of a kept beginning has as many characters as it stands there."""
        return all(
            text.count(form) <= self._uses * len(self._dresses.get(form, ())) for form in set(text)
        )

    def has_room(self) -> bool:
        """Whether the classes hold enough, each character used as often as it may be."""
        rooms = [
            min(
                self._uses * len(one.characters),
                self._whole if one.maximum is None else one.maximum,
            )
            for one in self._classes
        ]
        enough = all(r >= c.minimum for r, c in zip(rooms, self._classes, strict=True))
        return enough and sum(rooms) >= self._whole

    def _candidates(
        self, text: str, out: list[str], counts: list[int], random: RandomSource
    ) -> Iterator[str]:
        """What may be tried at the next place, in an order by chance."""
        at = len(out)
        if at < len(text):
            left, first = list(self._dresses.get(text[at], ())), 0
        else:
            left, first = list(self._free), self._kept_back
        if self._eager:
            lacks = [count < one.minimum for one, count in zip(self._classes, counts, strict=True)]
            wanted = [c for c in left[first:] if lacks[self._class_of[c]]]
            yield from wanted
            left = [c for c in left if c not in wanted]
        while left:
            # The first of them are what is kept back.
            first = first if first < len(left) else 0
            place = first + random.randbelow(len(left) - first)
            left[place], left[-1] = left[-1], left[place]
            yield left.pop()

    def _may_stand(self, out: list[str], j: int, counts: list[int], used: Counter[str]) -> bool:
        """Whether the last character of what is there breaks no rule."""
        policy, last, at = self._policy, out[-1], len(out)
        most = self._classes[j].maximum
        if used[last] > self._uses or (most is not None and counts[j] > most):
            return False
        if at == 1 and policy.first_from is not None and last not in policy.first_from:
            return False
        if at == self._whole and policy.last_from is not None and last not in policy.last_from:
            return False
        run = policy.max_identical_run
        if run is not None and at > run and out[-run - 1 :] == [last] * (run + 1):
            return False
        sequence = policy.max_sequence_run
        if sequence is not None and at > sequence:
            end = out[-sequence - 1 :]
            ways = {step(a, b) for a, b in pairwise(end)}
            if ways in ({1}, {-1}):
                return False
        return not any(folded("".join(out[-len(word) :])) == word for word in self._words)

    def _may_go_on(self, at: int, counts: list[int], supply: list[list[int]]) -> bool:
        """Whether what is still demanded can be met by the places that are left."""
        left, wanted, present, fits_last = self._whole - at, 0, 0, not self._ends_bind
        run = self._policy.max_identical_run
        if left and not any(
            may and (one.maximum is None or count < one.maximum)
            for one, count, may in zip(self._classes, counts, self._may_be_last, strict=True)
        ):
            return False
        rows = zip(self._classes, counts, supply, self._may_be_last, strict=True)
        for one, count, has, may_be_last in rows:
            missing = max(0, one.minimum - count)
            # One character alone stands in runs, with something of another class between them.
            alone = missing > 0 and run is not None and len(one.characters) == 1
            if alone and missing + (missing - 1) // (run or 1) > left:
                return False
            places = has[at] if at < len(has) else left
            if missing > places - (left > 0 and not may_be_last and at >= len(has) - 1):
                return False
            wanted += missing
            present += count > 0 or missing > 0
            fits_last |= missing > 0 and may_be_last
        more = max(0, self._policy.min_classes - present)
        wanted += more
        # The last place is for what may stand there, wanted or not.
        return wanted + (left > 0 and wanted > 0 and not fits_last and not more) <= left

    def _supply(self, text: str) -> list[list[int]]:
        """For each class, how many of the places from each on could hold one of it."""
        found: list[list[int]] = []
        for one in self._classes:
            behind = self._whole - len(text)
            row = [behind]
            for form in reversed(text):
                behind += any(c in one.characters for c in self._dresses.get(form, ()))
                row.append(behind)
            found.append(row[::-1])
        return found
