"""What a site keeps of a text where limits of use, a cut and folded case meet other rules.

The kept forms are drawn from `outer`, which holds every one that some text has; `inner` holds only
those that surely have one, so the two bound the count. Whether one form has a text is found by
search, in a bounded number of steps.
"""

from dataclasses import replace

from newknot.core.generate.characters.case_folding import CaseFolding
from newknot.core.generate.characters.text_search import TextSearch
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.folding import folded
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

TRIES = 3
"""So often a text is taken by chance before one is searched."""


class SearchedForms:
    """The forms of length `length` that a site keeps, and a text for each that has one."""

    def __init__(self, policy: SitePolicy, length: int) -> None:
        kept = length if policy.keeps_first is None else min(policy.keeps_first, length)
        self.length = kept
        self._whole = length
        self._policy = policy
        self._classes = policy.usable_classes()
        self._uses = 1 if policy.distinct else policy.max_uses or length
        self._search = TextSearch(policy, length)
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
            self.outer = replace(self.outer, max_uses=self._uses * self._search.most_dresses)
            self.inner = inner = replace(inner, max_uses=self._uses)
        if not self._search.has_room():
            self.outer = self.inner = _empty(self.outer)
        elif spared is None:
            self.inner = _empty(inner)

    def finished(self, text: str, random: RandomSource) -> str | None:
        """A text of which the site keeps this form; None if there is none. Raises `Undecided`."""
        if not self._search.has_characters(text):
            return None
        for _ in range(TRIES):
            found = self._search.by_chance(text, random)
            if found is not None:
                return found
        return self._search.text_with(text, random)

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
        ends = {folded(word)[-1] for word in policy.forbidden}
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
