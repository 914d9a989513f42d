"""What a site keeps of a text where limits of use, a cut and folded case meet other rules.

The kept forms are drawn from `outer`, which holds every one that some text has; `inner` holds only
those that surely have one, so the two bound the count. Whether one form has a text is found by
search, in a bounded number of steps.
"""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from newknot.core.generate.characters.case_folding import CaseFolding
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.folding import folded, step
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

STEPS_MOST = 20_000
"""Characters that a search may try for one form."""


class Undecided(Exception):
    """The search for a text of a form was given up."""


class SearchedForms:
    """The forms of length `length` that a site keeps, and a text for each that has one."""

    def __init__(self, policy: SitePolicy, length: int) -> None:
        kept = length if policy.keeps_first is None else min(policy.keeps_first, length)
        self.length = kept
        self._whole = length
        self._policy = policy
        self._classes = policy.usable_classes()
        self._uses = 1 if policy.distinct else policy.max_uses or length
        self._class_of = {c: j for j, one in enumerate(self._classes) for c in one.characters}
        self._words = tuple(folded(word) for word in policy.forbidden)
        self._dresses: dict[str, list[str]] = {}
        for c in self._class_of:
            self._dresses.setdefault(folded(c) if policy.folds_case else c, []).append(c)
        tail = length - kept
        plain = replace(
            policy,
            min_length=kept,
            max_length=kept,
            classes=self._classes,
            excluded="",
            distinct=False,
            max_uses=None,
            keeps_first=None,
            last_from=None if tail else policy.last_from,
        )
        loose = replace(
            plain,
            classes=tuple(replace(c, minimum=max(0, c.minimum - tail)) for c in self._classes),
            min_classes=max(0, policy.min_classes - tail),
        )
        spared = self._spared_for_the_end() if tail else ""
        strict = plain if spared is None else replace(plain, classes=_without(plain, spared))
        outer, inner = loose, strict
        if policy.folds_case:
            outer, folding = CaseFolding(loose, kept).outer, CaseFolding(strict, kept)
            inner = folding.inner or folding.outer
        self.outer = outer
        self.inner: SitePolicy | None = inner
        if self._uses < length:
            most = max(map(len, self._dresses.values()), default=1)
            self.outer = replace(self.outer, max_uses=self._uses * most)
            self.inner = inner = replace(inner, max_uses=self._uses)
        if not self._has_room():
            self.outer = self.inner = _empty(self.outer)
        elif spared is None:
            self.inner = _empty(inner)

    def finished(self, text: str, random: RandomSource) -> str | None:
        """A text of which the site keeps this form; None if there is none. Raises `Undecided`."""
        supply = self._supply(text)
        out: list[str] = []
        counts = [0] * len(self._classes)
        used: Counter[str] = Counter()
        waiting = [self._candidates(text, out, random)]
        for _ in range(STEPS_MOST):
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
                waiting.append(self._candidates(text, out, random))
            else:
                out.pop()
                counts[j] -= 1
                used[character] -= 1
        raise Undecided

    def _candidates(self, text: str, out: list[str], random: RandomSource) -> Iterator[str]:
        """What may be tried at the next place, in an order by chance."""
        at = len(out)
        left = list(self._dresses.get(text[at], ()) if at < len(text) else self._class_of)
        while left:
            place = random.randbelow(len(left))
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
        left, wanted, present = self._whole - at, 0, 0
        for one, count, has in zip(self._classes, counts, supply, strict=True):
            missing = max(0, one.minimum - count)
            if missing > has[min(at, self.length)]:
                return False
            wanted += missing
            present += count > 0 or missing > 0
        return wanted + max(0, self._policy.min_classes - present) <= left

    def _supply(self, text: str) -> list[list[int]]:
        """For each class, how many of the places from each on could hold one of it."""
        found: list[list[int]] = []
        for one in self._classes:
            behind = self._whole - self.length
            row = [behind]
            for form in reversed(text):
                behind += any(c in one.characters for c in self._dresses.get(form, ()))
                row.append(behind)
            found.append(row[::-1])
        return found

    def _has_room(self) -> bool:
        """Whether the classes hold enough, each character used as often as it may be."""
        rooms = [self._room(one) for one in self._classes]
        enough = all(r >= c.minimum for r, c in zip(rooms, self._classes, strict=True))
        return enough and sum(rooms) >= self._whole

    def _room(self, one: CharacterClass) -> int:
        room = self._uses * len(one.characters)
        return room if one.maximum is None else min(room, one.maximum)

    def _spared_for_the_end(self) -> str | None:
        """Characters that, kept out of the beginning, let every beginning that has all that is
        demanded be completed; None where that is not sure. At each place behind it more characters
        may then stand than all rules together can forbid there.
        """
        policy = self._policy
        free = [c for one in self._classes if one.maximum is None for c in one.characters]
        barred = int(policy.max_identical_run is not None)
        if policy.max_sequence_run is not None:
            # The next and the one before, in either case.
            barred += 4
        ends = {word[-1] for word in self._words}
        barred += sum(folded(c) in ends for c in free)
        last = [c for c in free if policy.last_from is None or c in policy.last_from]
        used_up = (self._whole - 1) // self._uses
        if len(last) > barred + used_up:
            return ""
        spared = "".join(last[: barred + 1])
        enough = len(last) > barred and len(free) - len(spared) > barred + used_up
        return spared if enough else None


def _without(policy: SitePolicy, characters: str) -> tuple[CharacterClass, ...]:
    return tuple(
        replace(one, characters="".join(c for c in one.characters if c not in characters))
        for one in policy.classes
    )


def _empty(policy: SitePolicy) -> SitePolicy:
    """The policy that nothing satisfies."""
    return replace(policy, min_classes=len(policy.classes) + 1)
