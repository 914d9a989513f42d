"""Sites that keep only the beginning of a text and limit how often a character may occur in all.

The kept beginnings are drawn from `outer`, which holds each that can be completed; `inner` holds
only beginnings that already have all that is demanded, so the two bound the count.
"""

from collections import Counter
from dataclasses import replace

from newknot.core.generate.characters.case_folding import RuleNotCounted
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import SitePolicy


class KeptUses:
    """The beginnings that a site keeps, and how each is completed.

    Raises `RuleNotCounted` where a rule looks at neighbours or at the end of what is cut off.
    """

    def __init__(self, policy: SitePolicy, length: int) -> None:
        assert policy.keeps_first is not None
        local = policy.max_identical_run or policy.max_sequence_run or policy.forbidden
        if local or policy.last_from is not None:
            raise RuleNotCounted(field="keeps_first")
        self.length = policy.keeps_first
        self._policy = policy
        self._whole = length
        self._uses = 1 if policy.distinct else policy.max_uses or length
        self._classes = policy.usable_classes()
        tail = length - self.length
        whole = replace(policy, excluded="", keeps_first=None, min_length=1)
        loose = tuple(replace(c, minimum=max(0, c.minimum - tail)) for c in self._classes)
        self.outer = replace(whole, classes=loose, min_classes=max(0, policy.min_classes - tail))
        self.inner: SitePolicy | None = replace(whole, classes=self._classes)
        # Each character takes one of the room, so from here on there is always some left.
        room = [self._space(j, Counter()) for j in range(len(self._classes))]
        lacks = any(has < one.minimum for has, one in zip(room, self._classes, strict=True))
        if lacks or sum(max(0, has) for has in room) < length:
            self.outer = replace(self.outer, min_classes=len(self._classes) + 1)
            self.inner = self.outer

    def finished(self, text: str, random: RandomSource) -> str | None:
        """The beginning with an end that satisfies the rest; None if there is none."""
        used = Counter(text)
        counts = [sum(used[c] for c in one.characters) for one in self._classes]
        wanted = [max(0, one.minimum - n) for one, n in zip(self._classes, counts, strict=True)]
        left = self._whole - len(text) - sum(wanted)
        present = [n + w > 0 for n, w in zip(counts, wanted, strict=True)]
        for j in range(len(wanted)):
            if sum(present) >= self._policy.min_classes:
                break
            if not present[j] and self._space(j, used) > 0:
                present[j], wanted[j], left = True, 1, left - 1
        if left < 0 or sum(present) < self._policy.min_classes:
            return None
        end: list[str] = []
        for j, count in enumerate(wanted):
            for _ in range(count):
                end.append(self._pick([j], used, random))
        for _ in range(left):
            open_classes = [j for j in range(len(self._classes)) if self._space(j, used) > 0]
            end.append(self._pick(open_classes, used, random))
        for i in range(len(end) - 1, 0, -1):
            j = random.randbelow(i + 1)
            end[i], end[j] = end[j], end[i]
        return text + "".join(end)

    def _pick(self, classes: list[int], used: Counter[str], random: RandomSource) -> str:
        free = [c for j in classes for c in self._classes[j].characters if used[c] < self._uses]
        character = free[random.randbelow(len(free))]
        used[character] += 1
        return character

    def _space(self, j: int, used: Counter[str]) -> int:
        """How many more characters of a class may stand in the text."""
        one = self._classes[j]
        room = sum(self._uses - used[c] for c in one.characters)
        if one.maximum is None:
            return room
        return min(room, one.maximum - sum(used[c] for c in one.characters))
