"""Sites that treat upper and lower alike: what counts is the folded form, dressed afterwards.

Classes that share folded characters hang together. The forms are drawn from `outer`, which holds
every form that has a dressing; where a rule sees the case, `inner` holds only forms that certainly
have one, so the two bound the count, and a drawn form without a dressing is drawn again.
"""

from dataclasses import dataclass, replace
from math import prod

from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.folding import folded
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

TRIES = 3
"""So often a case is taken by chance before those that the site takes are counted."""
Counts = tuple[int, ...]
State = tuple[Counts, str, int]
"""(uses of each class as far as they matter, last character, its run)."""


@dataclass(frozen=True, slots=True)
class _Part:
    """Classes that hang together, and their folded characters by the classes that dress them."""

    classes: tuple[int, ...]
    by_dress: dict[tuple[int, ...], str]


class CaseFolding:
    """The policy over folded characters, and how its strings are dressed for the site; without
    its limits of use. inner is None where every form has a dressing.
    """

    def __init__(self, policy: SitePolicy, length: int) -> None:
        self.length = length
        self._policy = policy
        self._classes = policy.usable_classes()
        self._forms: dict[str, list[tuple[str, int]]] = {}
        for i, one in enumerate(self._classes):
            for c in one.characters:
                self._forms.setdefault(folded(c), []).append((c, i))
        kinds = min(1, policy.min_classes)
        self._caps = tuple(
            max(kinds, c.minimum) if c.maximum is None else c.maximum + 1 for c in self._classes
        )
        parts = self._parts()
        closed = all(self._closed(ends) for ends in (policy.first_from, policy.last_from))
        runs = policy.max_identical_run is not None and any(
            len(f) > 1 for f in self._forms.values()
        )
        kinds_seen = policy.min_classes > 0 and any(len(p.classes) > 1 for p in parts)
        exact = closed and not runs and not kinds_seen and all(map(self._simple, parts))
        plain = replace(
            policy,
            excluded="",
            folds_case=False,
            distinct=False,
            max_uses=None,
            first_from=self._folded_ends(policy.first_from),
            last_from=self._folded_ends(policy.last_from),
        )
        self.outer = replace(
            plain,
            classes=tuple(map(self._loose, parts)),
            max_identical_run=None if runs else policy.max_identical_run,
            min_classes=0 if kinds_seen else policy.min_classes,
        )
        self.inner: SitePolicy | None = None
        if not exact:
            classes, spare = self._strict(parts, ends_bind=not closed)
            self.inner = replace(
                plain, classes=classes, min_classes=max(0, policy.min_classes - spare)
            )

    def finished(self, text: str, random: RandomSource) -> str | None:
        """The folded text in a case that the site takes, each alike likely; None if none is."""
        for _ in range(TRIES):
            found = self._by_chance(text, random)
            if not self._policy.violations(found):
                return found
        return self._by_counting(text, random)

    def _by_chance(self, text: str, random: RandomSource) -> str:
        """The text in any case at all: those that the site takes are alike likely among them."""
        rank = random.randbelow(prod(len(self._forms[form]) for form in text))
        out: list[str] = []
        for form in text:
            forms = self._forms[form]
            rank, which = divmod(rank, len(forms))
            out.append(forms[which][0])
        return "".join(out)

    def _by_counting(self, text: str, random: RandomSource) -> str | None:
        begin: State = ((0,) * len(self._classes), "", 0)
        layers: list[dict[State, list[tuple[str, State]]]] = []
        states = {begin}
        for place, form in enumerate(text):
            moves = {state: self._moves(state, place, form) for state in states}
            layers.append(moves)
            states = {following for found in moves.values() for _, following in found}
        ways: dict[State, int] = {state: int(self._may_end(state)) for state in states}
        tables = [ways]
        for moves in reversed(layers):
            ways = {s: sum(ways[f] for _, f in found) for s, found in moves.items()}
            tables.append(ways)
        tables.reverse()
        if not tables[0][begin]:
            return None
        rank, state, out = random.randbelow(tables[0][begin]), begin, []
        for place, moves in enumerate(layers):
            for character, following in moves[state]:
                count = tables[place + 1][following]
                if rank < count:
                    out.append(character)
                    state = following
                    break
                rank -= count
        return "".join(out)

    def _moves(self, state: State, place: int, form: str) -> list[tuple[str, State]]:
        counts, last, run = state
        policy = self._policy
        found: list[tuple[str, State]] = []
        for character, i in self._forms[form]:
            if place == 0 and policy.first_from is not None and character not in policy.first_from:
                continue
            at_end = place == self.length - 1 and policy.last_from is not None
            if at_end and character not in (policy.last_from or ""):
                continue
            following_run = run + 1 if character == last else 1
            if policy.max_identical_run is not None and following_run > policy.max_identical_run:
                continue
            most = self._classes[i].maximum
            if most is not None and counts[i] >= most:
                continue
            more = (*counts[:i], min(self._caps[i], counts[i] + 1), *counts[i + 1 :])
            seen = (character, following_run) if policy.max_identical_run is not None else ("", 0)
            found.append((character, (more, *seen)))
        return found

    def _may_end(self, state: State) -> bool:
        counts = state[0]
        enough = all(n >= c.minimum for n, c in zip(counts, self._classes, strict=True))
        return enough and sum(n > 0 for n in counts) >= self._policy.min_classes

    def _parts(self) -> list[_Part]:
        together = list(range(len(self._classes)))
        for forms in self._forms.values():
            joined = {together[i] for _, i in forms}
            together = [min(joined) if t in joined else t for t in together]
        parts = []
        for root in sorted(set(together)):
            classes = tuple(i for i, t in enumerate(together) if t == root)
            by_dress: dict[tuple[int, ...], str] = {}
            for form, forms in self._forms.items():
                dress = tuple(sorted({i for _, i in forms}))
                if dress and dress[0] in classes:
                    by_dress[dress] = by_dress.get(dress, "") + form
            parts.append(_Part(classes, by_dress))
        return parts

    def _simple(self, part: _Part) -> bool:
        """Whether any number between the sums of the leasts and of the mosts can be dressed."""
        demands = map(self._classes.__getitem__, part.classes)
        if all(not c.minimum and c.maximum is None for c in demands):
            return True
        return len(part.by_dress) <= 1

    def _closed(self, ends: str | None) -> bool:
        """Whether a rule on an end takes a character in all its cases, or in none."""
        if ends is None:
            return True
        return all(len({c in ends for c, _ in forms}) == 1 for forms in self._forms.values())

    def _folded_ends(self, ends: str | None) -> str | None:
        if ends is None:
            return None
        usable = {c for forms in self._forms.values() for c, _ in forms}
        return "".join(dict.fromkeys(folded(c) for c in ends if c in usable))

    def _loose(self, part: _Part) -> CharacterClass:
        classes = [self._classes[i] for i in part.classes]
        if any(c.maximum is not None and c.minimum > c.maximum for c in classes):
            return CharacterClass("", "", 1, 0)
        mosts = [c.maximum for c in classes]
        return CharacterClass(
            " or ".join(c.name for c in classes),
            "".join(part.by_dress.values()),
            sum(c.minimum for c in classes),
            None if None in mosts else sum(m for m in mosts if m is not None),
        )

    def _strict(
        self, parts: list[_Part], *, ends_bind: bool
    ) -> tuple[tuple[CharacterClass, ...], int]:
        """Classes of forms that surely have a dressing, and how many kinds come without counting.

        All that a part demands is laid on the characters that can be dressed for each of its
        classes; two more where the ends may force a case.
        """
        found: list[CharacterClass] = []
        spare = 0
        for part in parts:
            classes = [self._classes[i] for i in part.classes]
            loose, simple = self._loose(part), self._simple(part)
            if len(classes) == 1 and simple:
                found.append(loose)
                continue
            counted = self._policy.min_classes > 0
            least = sum(max(c.minimum, counted) for c in classes)
            if ends_bind and least:
                least += 2
            limited = any(c.maximum is not None for c in classes)
            most = loose.maximum if simple or not limited else 0
            dresses = {part.classes: "", **part.by_dress}
            for dress, characters in dresses.items():
                whole = dress == part.classes
                found.append(CharacterClass("", characters, least if whole else 0, most))
            spare += len(classes) - len(dresses)
        return tuple(found), spare
