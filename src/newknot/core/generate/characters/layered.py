"""Exact counting under local rules and ends: completions, layer by layer, from the last position.

B_i[s, v] is the number of ways to go on from position i in automaton state s with class counts v
(held at what the rules can still tell apart). Most next characters are treated alike by all
states of one word state, so their sum is taken once and corrected for the few that are not.
"""

from collections.abc import Iterable
from dataclasses import replace
from itertools import product

from newknot.core.errors import NewKnotError
from newknot.core.generate.characters.local_rules import NEUTRAL, LocalRules, State
from newknot.core.policy.site_policy import CharacterClass, SitePolicy

WORK_MOST = 200_000
"""Additions of big integers that one compilation may take: about an eighth of a second."""
LENGTHS = 32
"""Lengths of one policy whose numbers are of one width."""
WIDE_BITS = 20_000
"""Of integers this wide an addition takes about twice as long as its call."""

Row = dict[State, int]
"""Completions from each state, for each class count."""
Step = tuple[int, tuple[tuple[int, State], ...]]
"""A symbol and the ways on by it."""


class WorkTooGreat(NewKnotError):
    """The exact count would take too long. data: rule (the family that makes it so)."""


class Completions:
    """What the rules leave from each state, by how many characters are still to come: found once
    for all lengths of one policy. bits: room of each number.
    """

    def __init__(self, policy: SitePolicy, bits: int, work_most: int) -> None:
        self.key = replace(policy, min_length=1, max_length=1), bits, work_most
        self.rules = LocalRules(policy)
        classes = policy.usable_classes()
        self.grid = Grid(classes, tracked=bool(policy.min_classes), bits=bits)
        self.width = len(self.rules.symbols)
        self.states = self._reachable(work_most)
        self.word_states = len({state[5] for state in self.states})
        self._places: dict[Step, int] = {}
        self._neutral: dict[int, list[int]] = {}
        self._special: dict[State, list[tuple[int, int]]] = {}
        fit = (int(self.grid.fits(v, policy.min_classes)) for v in range(self.grid.size))
        self._rows: dict[int, Row] = {0: dict.fromkeys(self.states, self.grid.packed(fit))}

    def row(self, left: int) -> Row:
        """With so many characters to come, none of them the first of all."""
        # Found twice side by side it is the same row.
        for at in range(1, left + 1):
            if at not in self._rows:
                self._rows[at] = self.before(self._rows[at - 1], is_first=False, is_last=at == 1)
        return self._rows[left]

    def allowed(self, y: int, *, is_first: bool, is_last: bool) -> bool:
        """Whether a symbol may stand there."""
        symbol = self.rules.symbols[y]
        return (not is_first or symbol.may_begin) and (not is_last or symbol.may_end)

    def before(self, after: Row, *, is_first: bool, is_last: bool) -> Row:
        """One character earlier than `after`."""
        self._find_steps()
        allowed = [self.allowed(y, is_first=is_first, is_last=is_last) for y in range(self.width)]
        gains = [self._gain(one, after) if allowed[one[0]] else 0 for one in self._places]
        sums = {word: sum(gains[at] for at in steps) for word, steps in self._neutral.items()}
        here: Row = {}
        for state in self.states:
            row, usual = sums[state[5]], self._neutral[state[5]]
            for y, at in self._special[state]:
                row += gains[at] - gains[usual[y]]
            here[state] = row
        return here

    def _find_steps(self) -> None:
        if self._neutral:
            return
        self._special = {
            state: [(y, self._step(state, y)) for y in self.rules.specials(state)]
            for state in self.states
        }
        self._neutral = {
            word: [self._step((*NEUTRAL[:5], word), y) for y in range(self.width)]
            for word in {state[5] for state in self.states}
        }

    def _step(self, state: State, y: int) -> int:
        """The place of a step among all that differ: most are the same from most states."""
        step = y, tuple(self.rules.ways(state, y))
        return self._places.setdefault(step, len(self._places))

    def _gain(self, step: Step, after: Row) -> int:
        """What the characters of one symbol add, for every class count at once."""
        y, found = step
        if not found:
            return 0
        row = sum(ways * after[following] for ways, following in found)
        return self.grid.before(row, self.rules.symbols[y].class_index)

    def _reachable(self, work_most: int) -> list[State]:
        seen, edge = {NEUTRAL}, [NEUTRAL]
        for state in edge:
            neutral = (*NEUTRAL[:5], state[5])
            if neutral not in seen:
                seen.add(neutral)
                edge.append(neutral)
            symbols = range(self.width) if state == neutral else self.rules.specials(state)
            for y in symbols:
                for _, following in self.rules.ways(state, y):
                    if following not in seen:
                        seen.add(following)
                        edge.append(following)
            if len(edge) > work_most // 12:
                break
        return edge


class LayeredSpace:
    """All strings of `length` under every rule but uses. `kept`: how many characters count.
    beside: a space of the same policy and another length, whose completions serve here too.

    Raises `WorkTooGreat` before any work is done. Where the site keeps fewer characters than it
    takes, what is counted and drawn uniformly is the kept beginning; the rest is drawn after it.
    """

    def __init__(
        self,
        policy: SitePolicy,
        length: int,
        *,
        kept: int | None = None,
        work_most: int = WORK_MOST,
        beside: "LayeredSpace | None" = None,
    ) -> None:
        self._length = length
        self._kept = length if kept is None else min(kept, length)
        alphabet = sum(len(one.characters) for one in policy.usable_classes())
        bits = -(-length // LENGTHS) * LENGTHS * alphabet.bit_length() + 1
        key = replace(policy, min_length=1, max_length=1), bits, work_most
        found: Completions | None = beside._completions if beside is not None else None
        if found is None or found.key != key:
            found = Completions(policy, bits, work_most)
        self._completions: Completions = found
        self._rules, self._grid = found.rules, found.grid
        steps = length * (found.word_states * found.width + 12 * len(found.states))
        # Long rows of long numbers take longer to add.
        work = steps * (1 + self._grid.size * bits // WIDE_BITS)
        if work > work_most:
            rule = "classes" if self._grid.size > 64 else "forbidden"
            raise WorkTooGreat(rule=rule)
        self._rows = self._complete()

    @property
    def size(self) -> int:
        """How many strings (or kept beginnings) there are, exactly."""
        return self._grid.at(self._rows[0][NEUTRAL], 0)

    def unrank(self, rank: int) -> str:
        """The string of a rank; what is beyond the kept beginning follows from the rank's rest."""
        out: list[str] = []
        state, v = NEUTRAL, 0
        for i in range(self._kept):
            state, v, rank = self._choose(i, state, v, rank, out)
        return "".join(out)

    def finish(self, beginning: str, rank: int) -> str:
        """A whole string with the kept beginning; rank in [0, endings(beginning))."""
        out = list(beginning)
        state, v = self._follow(beginning)
        for i in range(self._kept, self._length):
            state, v, rank = self._choose(i, state, v, rank, out, ending=True)
        return "".join(out)

    def endings(self, beginning: str) -> int:
        """How many whole strings have the kept beginning."""
        state, v = self._follow(beginning)
        return self._grid.at(self._endings[self._kept][state], v)

    def _complete(self) -> list[Row]:
        n, found = self._length, self._completions
        rows = [found.row(n - i) for i in range(1, n + 1)]
        rows.insert(0, found.before(rows[0], is_first=True, is_last=n == 1))
        self._endings = rows
        if self._kept == n:
            return rows
        kept = list(rows)
        at = self._kept
        counts = range(self._grid.size)
        kept[at] = {
            s: self._grid.packed(int(self._grid.at(row, v) > 0) for v in counts)
            for s, row in rows[at].items()
        }
        for i in range(at - 1, -1, -1):
            kept[i] = found.before(kept[i + 1], is_first=i == 0, is_last=False)
        return kept

    def _choose(
        self, i: int, state: State, v: int, rank: int, out: list[str], *, ending: bool = False
    ) -> tuple[State, int, int]:
        """Takes one more character as the rank says."""
        after = (self._endings if ending else self._rows)[i + 1]
        is_last = i == self._length - 1
        for y, symbol in enumerate(self._rules.symbols):
            to = self._grid.after[symbol.class_index][v]
            if to < 0 or not self._completions.allowed(y, is_first=i == 0, is_last=is_last):
                continue
            for ways, following in self._rules.ways(state, y):
                each = self._grid.at(after[following], to)
                if rank < ways * each:
                    rank, which = rank % each, rank // each
                    repeated = following[0] == y and following[1] > 1
                    characters = symbol.characters
                    if repeated:
                        out.append(out[-1])
                    elif state[0] == y:
                        out.append(characters.replace(out[-1], "")[which])
                    else:
                        out.append(characters[which])
                    return following, to, rank
                rank -= ways * each
        raise AssertionError("rank beyond the count")

    def _follow(self, beginning: str) -> tuple[State, int]:
        state, v = NEUTRAL, 0
        for i, c in enumerate(beginning):
            y = next(y for y, s in enumerate(self._rules.symbols) if c in s.characters)
            found = self._rules.ways(state, y)
            repeats = i > 0 and beginning[i - 1] == c
            state = found[0][1] if repeats else found[-1][1]
            v = self._grid.after[self._rules.symbols[y].class_index][v]
        return state, v


class Grid:
    """Class counts, each held at the greatest number that the rules still tell apart.

    A number for each of them is packed into one integer of so many bits each: what a character of
    a class does to all counts is then two shifts and masks.
    """

    def __init__(self, classes: tuple[CharacterClass, ...], *, tracked: bool, bits: int) -> None:
        self._classes = classes
        self._bits = bits
        self._mask = (1 << bits) - 1
        tops = [max(c.minimum, int(tracked), (c.maximum or 0)) for c in classes]
        self._points = list(product(*(range(top + 1) for top in tops)))
        place = {point: v for v, point in enumerate(self._points)}
        self.size = len(self._points)
        self.after: list[list[int]] = []
        self._moved: list[tuple[int, int, int]] = []
        for j, one in enumerate(classes):
            moves: list[int] = []
            rises = stays = by = 0
            for v, point in enumerate(self._points):
                if one.maximum is not None and point[j] >= one.maximum:
                    moves.append(-1)
                    continue
                to = place[(*point[:j], min(tops[j], point[j] + 1), *point[j + 1 :])]
                moves.append(to)
                slot = self._mask << (bits * v)
                if to == v:
                    stays |= slot
                else:
                    # The same for all: places are numbers of mixed base.
                    by = to - v
                    rises |= slot
            self.after.append(moves)
            self._moved.append((by * bits, rises, stays))

    def packed(self, numbers: Iterable[int]) -> int:
        """One number for each count, as one."""
        return sum(number << (self._bits * v) for v, number in enumerate(numbers))

    def at(self, row: int, v: int) -> int:
        """The number of one count."""
        return (row >> (self._bits * v)) & self._mask

    def before(self, row: int, j: int) -> int:
        """For each count, the number of that which one more character of class j leads to."""
        shift, rises, stays = self._moved[j]
        return ((row >> shift) & rises) + (row & stays)

    def fits(self, v: int, min_classes: int) -> bool:
        """Whether a string of these counts has enough of each class, and enough kinds."""
        point = self._points[v]
        enough = all(n >= c.minimum for n, c in zip(point, self._classes, strict=True))
        return enough and (not min_classes or sum(n > 0 for n in point) >= min_classes)
