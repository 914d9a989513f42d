"""Why nothing can satisfy a policy: the rules that contradict one another, and what would free it.

Lengths and classes are told by arithmetic. For the other rules a smallest set is looked for, by
counting with all but a few rules let go; the counting is bounded, so it may stay undecided.
"""

from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import combinations

from newknot.core.errors import NewKnotError
from newknot.core.generate.characters.password_space import PasswordSpace, without_single_texts
from newknot.core.generate.characters.text_search import TextSearch, Undecided
from newknot.core.policy.contradiction import Conflict, contradiction
from newknot.core.policy.site_policy import LENGTH_LIMIT, SitePolicy

COUNTS_MOST = 250
WORK_MOST = 20_000
"""Spaces that one search may count, and additions for each, before it stays undecided."""
STEPS_MOST = 3_000
"""Characters that a search for one text may try."""
LENGTHS_LOOKED_AT = 64
SET_MOST = 3


def conflicts(policy: SitePolicy) -> Conflict | None:
    """A contradiction with what would free it; None where something satisfies the policy."""
    found = contradiction(policy)
    if found is None:
        search = _Search()
        satisfied = search.satisfied(policy)
        if satisfied:
            return None
        if satisfied is not None:
            found = _smallest(policy, search)
        if found is None:
            says = "nothing that satisfies all of it was found, and no contradiction either"
            return Conflict((), says, is_decided=False)
    freed = _freed_by(policy, found.rules)
    return replace(found, frees=freed[0] if freed else "", also_frees=tuple(freed[1:]))


class _Search:
    """Asks whether anything satisfies a policy, so often and no more."""

    def __init__(self) -> None:
        self._left = COUNTS_MOST

    def satisfied(self, policy: SitePolicy) -> bool | None:
        """True, False, or None where it was not decided."""
        if contradiction(policy) is not None:
            return False
        plain = without_single_texts(replace(policy, folds_case=False, keeps_first=None))
        needed = sum(c.minimum for c in plain.usable_classes())
        first = max(plain.min_length, min(needed, plain.max_length), plain.min_classes)
        most = min(plain.max_length, _room(plain))
        lengths = [
            *range(first, most + 1),
            *range(min(first, most + 1) - 1, plain.min_length - 1, -1),
        ]
        for length in _spread(lengths):
            with suppress(Undecided):
                if _some_text(plain, length):
                    return True
        decided = len(lengths) <= LENGTHS_LOOKED_AT
        for length in lengths[:LENGTHS_LOOKED_AT]:
            self._left -= 1
            if self._left < 0:
                return None
            with suppress(Undecided):
                if _some_text(plain, length):
                    return True
                # Every way was tried: there is none of this length.
                continue
            try:
                space = PasswordSpace(plain, length, work_most=WORK_MOST)
            except NewKnotError:
                decided = False
                continue
            low, high = space.size_bounds
            if low:
                return True
            decided = decided and high == 0
        return False if decided else None


def _some_text(policy: SitePolicy, length: int) -> bool:
    """Whether some text satisfies it. Raises `Undecided`."""
    search = TextSearch(policy, length, steps_most=STEPS_MOST, eager=True)
    return search.text_with("", _Stirred()) is not None


class _Stirred:
    """A fixed order that is no order: that of a linear congruential generator (D. H. Lehmer, 1949).
    Where one order of trying goes astray another does not.
    """

    def __init__(self) -> None:
        self._state = 20_261

    def randbelow(self, n: int, /) -> int:
        self._state = self._state * 48_271 % 2_147_483_647
        return self._state % n


def _spread(lengths: list[int]) -> list[int]:
    """The least, the greatest, and two between: where something fits, it mostly does here."""
    places = (0, len(lengths) - 1, len(lengths) // 2, len(lengths) // 4)
    return list(dict.fromkeys(lengths[at] for at in places if 0 <= at < len(lengths)))


def _room(policy: SitePolicy) -> int:
    """The greatest length that the classes leave room for, whatever the other rules say."""
    uses = 1 if policy.distinct else policy.max_uses
    room = 0
    for one in policy.usable_classes():
        places = LENGTH_LIMIT if uses is None else uses * len(one.characters)
        room += min(
            places if one.characters else 0, LENGTH_LIMIT if one.maximum is None else one.maximum
        )
    return min(LENGTH_LIMIT, room)


@dataclass(frozen=True, slots=True)
class _Rule:
    """One rule: its name, its phrase, the policy without it, and milder forms in order."""

    name: str
    says: str
    without: Callable[[SitePolicy], SitePolicy]
    milder: tuple[tuple[str, Callable[[SitePolicy], SitePolicy]], ...] = ()


def _smallest(policy: SitePolicy, search: _Search) -> Conflict | None:
    """A set of at most three rules that contradict each other while all others are let go."""
    rules = list(_rules(policy))
    for size in range(1, SET_MOST + 1):
        for kept in combinations(rules, size):
            loose = policy
            for rule in rules:
                if rule not in kept:
                    loose = rule.without(loose)
            if search.satisfied(loose) is False:
                names = tuple(dict.fromkeys(rule.name for rule in kept))
                return Conflict(names, " but ".join(rule.says for rule in kept))
    return Conflict(
        tuple(dict.fromkeys(rule.name for rule in rules)), "these rules together leave nothing"
    )


def single_changes(policy: SitePolicy) -> Iterator[tuple[str, SitePolicy]]:
    """Each change of one rule alone, milder ones before letting it go: in words, and made."""
    for rule in _rules(policy):
        for says, change in rule.milder:
            yield says, change(policy)
        yield f"without “{rule.says}”", rule.without(policy)


def _freed_by(policy: SitePolicy, names: tuple[str, ...]) -> list[str]:
    """Of each rule of the contradiction the mildest change that frees the policy by itself; those
    that only loosen a rule before those that let it go.
    """
    search = _Search()
    loosened: list[str] = []
    let_go: list[str] = []
    for rule in _rules(policy):
        if rule.name not in names:
            continue
        milder = (says for says, change in rule.milder if search.satisfied(change(policy)))
        says = next(milder, "")
        if says:
            loosened.append(says)
        elif search.satisfied(rule.without(policy)):
            let_go.append(f"without “{rule.says}”")
    return list(dict.fromkeys(loosened + let_go))


def _with(**changes: object) -> Callable[[SitePolicy], SitePolicy]:
    return lambda policy: replace(policy, **changes)  # type: ignore[arg-type]


def _class(j: int, **changes: int | None) -> Callable[[SitePolicy], SitePolicy]:
    def change(policy: SitePolicy) -> SitePolicy:
        classes = list(policy.classes)
        classes[j] = replace(classes[j], **changes)  # type: ignore[arg-type]
        return replace(policy, classes=tuple(classes))

    return change


def _rules(policy: SitePolicy) -> Iterator[_Rule]:
    greater = range(policy.max_length + 1, min(LENGTH_LIMIT, policy.max_length + 16) + 1)
    yield _Rule(
        "max_length",
        f"at most {policy.max_length} characters",
        _with(max_length=min(LENGTH_LIMIT, policy.max_length + 24)),
        tuple((f"with {n} characters", _with(max_length=n)) for n in greater),
    )
    if policy.min_length > 1:
        smaller = range(policy.min_length - 1, max(0, policy.min_length - 17), -1)
        yield _Rule(
            "min_length",
            f"at least {policy.min_length} characters",
            _with(min_length=1),
            tuple((f"from {n} characters", _with(min_length=n)) for n in smaller),
        )
    for j, one in enumerate(policy.classes):
        if one.minimum:
            yield _Rule(
                "classes",
                f"at least {one.minimum} of {one.name}",
                _class(j, minimum=0),
                tuple(
                    (f"with {n} of {one.name} as the least", _class(j, minimum=n))
                    for n in range(one.minimum - 1, -1, -1)
                ),
            )
        if one.maximum is not None:
            yield _Rule(
                "classes",
                f"at most {one.maximum} of {one.name}",
                _class(j, maximum=None),
                tuple(
                    (f"with {n} of {one.name} as the most", _class(j, maximum=n))
                    for n in range(one.maximum + 1, one.maximum + 9)
                ),
            )
    if policy.min_classes:
        yield _Rule(
            "min_classes",
            f"at least {policy.min_classes} kinds of character",
            _with(min_classes=0),
            tuple(
                (f"with {n} kinds of character", _with(min_classes=n))
                for n in range(policy.min_classes - 1, 0, -1)
            ),
        )
    if policy.distinct:
        yield _Rule(
            "distinct",
            "no character twice",
            _with(distinct=False, max_uses=None),
            tuple(
                (f"with each character up to {n} times", _with(distinct=False, max_uses=n))
                for n in range(2, 6)
            ),
        )
    for name, says in (
        ("max_uses", "no character more than {} times"),
        ("max_identical_run", "at most {} alike in a row"),
        ("max_sequence_run", "no sequence beyond {}"),
    ):
        value = getattr(policy, name)
        if value is not None:
            wider = range(value + 1, value + 9)
            yield _Rule(
                name,
                says.format(value),
                _with(**{name: None}),
                tuple((f"with {n} for “{says.format(value)}”", _with(**{name: n})) for n in wider),
            )
    for name, says in (("first_from", "its beginning"), ("last_from", "its end")):
        if getattr(policy, name) is not None:
            yield _Rule(name, f"{says} is one of a set", _with(**{name: None}))
    if policy.forbidden:
        yield _Rule("forbidden", "no forbidden text", _with(forbidden=()))
    if policy.excluded:
        yield _Rule("excluded", "without the excluded characters", _with(excluded=""))
