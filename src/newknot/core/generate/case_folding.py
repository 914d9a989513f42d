"""Sites that treat upper and lower alike: what counts is the folded form, dressed afterwards.

Classes that share folded characters become one: with every character there in each of its
classes, a folded text has a dressing just where the count of such characters lies between the
sums of the least and of the most numbers.
"""

from dataclasses import replace
from math import comb

from newknot.core.errors import NewKnotError
from newknot.core.generate.order_free import combination
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.folding import folded
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

_SENSITIVE = (
    "max_identical_run",
    "first_from",
    "last_from",
    "distinct",
    "max_uses",
    "min_classes",
)


class RuleNotCounted(NewKnotError):
    """A rule that the count does not know yet, so no exact draw is offered. data: field."""


class CaseFolding:
    """The policy over folded characters, and how its strings are dressed for the site.

    Raises `RuleNotCounted` beside rules that see the case: there the folded forms are not counted.
    """

    def __init__(self, policy: SitePolicy) -> None:
        for field in _SENSITIVE:
            if getattr(policy, field):
                raise RuleNotCounted(field="folds_case")
        self._groups: list[list[CharacterClass]] = []
        for one in policy.usable_classes():
            forms = {folded(c) for c in one.characters}
            if len(forms) != len(one.characters):
                raise RuleNotCounted(field="folds_case")
            for group in self._groups:
                shared = {folded(c) for c in group[0].characters}
                if shared == forms:
                    group.append(one)
                    break
                if shared & forms:
                    raise RuleNotCounted(field="folds_case")
            else:
                self._groups.append([one])
        self.policy = replace(
            policy,
            classes=tuple(_together(group) for group in self._groups),
            excluded="",
            folds_case=False,
        )

    def dressed(self, text: str, random: RandomSource) -> str:
        """The folded text in a case that gives each class what it asks for."""
        out = list(text)
        for group in self._groups:
            forms = {folded(c) for c in group[0].characters}
            places = [i for i, c in enumerate(text) if c in forms]
            for j, one in enumerate(group):
                later = group[j + 1 :]
                least = max(one.minimum, len(places) - _most(later, len(places)))
                most = min(_most([one], len(places)), len(places) - sum(c.minimum for c in later))
                count = least + random.randbelow(most - least + 1)
                rank = random.randbelow(comb(len(places), count))
                chosen = combination(rank, len(places), count)
                by_form = {folded(c): c for c in one.characters}
                for at in reversed(chosen):
                    place = places.pop(at)
                    out[place] = by_form[text[place]]
        return "".join(out)


def _together(group: list[CharacterClass]) -> CharacterClass:
    mosts = [one.maximum for one in group]
    if any(one.maximum is not None and one.minimum > one.maximum for one in group):
        return replace(group[0], minimum=1, maximum=0)
    return CharacterClass(
        " or ".join(one.name for one in group),
        "".join(folded(c) for c in group[0].characters),
        sum(one.minimum for one in group),
        None if None in mosts else sum(m for m in mosts if m is not None),
    )


def _most(classes: list[CharacterClass], room: int) -> int:
    return min(room, sum(room if c.maximum is None else c.maximum for c in classes))
