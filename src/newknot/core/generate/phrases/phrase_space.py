"""The set of all texts that are put together part by part and that a policy allows.

A layer is a place in the text, with the texts that may stand there; a mode remembers what stands
once only, at a place by chance. Counted exactly, backwards over (mode, reading, class counts),
with the lengths packed into one integer, and drawn uniformly by unranking. The caller warrants
that no text can be put together in two ways.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from newknot.core.errors import NewKnotError
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.phrases.reading_rules import ReadingRules
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import LENGTH_LIMIT, SitePolicy

STEPS_MOST = 200_000
"""Moves between states that are looked at when counting; beyond them it is refused."""


class NoRoom(NewKnotError):
    """The policy allows no text of this shape. data: says."""


class PhraseTooCostly(NewKnotError):
    """Counting would look at too many states. data: rule."""


@dataclass(frozen=True, slots=True)
class Branch:
    """Texts of which one may stand in a layer, and how the mode goes on."""

    texts: tuple[str, ...]
    before: int = 0
    after: int = 0


Layer = tuple[Branch, ...]
Counts = tuple[int, ...]
State = tuple[int, int, Counts]
"""(mode, number of the reading, class counts)."""


@dataclass(frozen=True, slots=True)
class _Group:
    """Texts of one length that leave the same reading and add the same to the class counts."""

    length: int
    reading: int
    added: Counts
    texts: tuple[Sequence[str], ...]
    ways: int


@dataclass(frozen=True, slots=True)
class _Move:
    """A group's texts on the way from one state to another."""

    group: _Group
    following: State


Bundle = tuple[int, str, int, Counts]
"""(which texts, their first character, mode after, counts before): moves that states share."""


class _Moves:
    """All moves from the states of one layer."""

    def __init__(self) -> None:
        self.shared: dict[Bundle, list[_Move]] = {}
        self.of_state: dict[State, tuple[list[Bundle], list[_Move]]] = {}


class PhraseSpace:
    """All texts of the layers that end in mode `last_mode` and satisfy the policy.

    `size` is their number, exactly; limits of use are not looked at here. Raises
    `PhraseTooCostly`. Where the site keeps only so many characters, texts are no longer than that.
    """

    def __init__(
        self, layers: Sequence[Layer], policy: SitePolicy | None, *, last_mode: int = 0
    ) -> None:
        self._layers = layers
        self._last_mode = last_mode
        self._policy = policy
        self._rules = None if policy is None else ReadingRules(policy)
        self._classes = () if policy is None else policy.usable_classes()
        self._class_of = {c: i for i, one in enumerate(self._classes) for c in one.characters}
        kinds = 0 if policy is None else min(1, policy.min_classes)
        self._caps = tuple(max(kinds, one.minimum) for one in self._classes)
        """What of a class's count still makes a difference where it has no most."""
        self._most = tuple(
            cap if one.maximum is None else max(cap, one.maximum + 1)
            for cap, one in zip(self._caps, self._classes, strict=True)
        )
        self._following = self._first_characters()
        self._fresh: dict[int, dict[str, list[_Group]]] = {}
        self._apart: dict[tuple[int, int], tuple[list[str], list[_Group]]] = {}
        self._known: dict[tuple[int, frozenset[str]], int] = {}
        self._moves: list[_Moves] = []
        begin: State = (0, ReadingRules.START, (0,) * len(self._classes))
        states = {begin}
        self._steps = 0
        for t in range(len(layers)):
            moves = _Moves()
            for state in states:
                self._add_moves(moves, t, state)
            self._moves.append(moves)
            states = {m.following for _, found in moves.of_state.values() for m in found}
            states.update(m.following for found in moves.shared.values() for m in found)
        bound = 1
        for layer in layers:
            bound *= max(1, sum(len(b.texts) for b in layer))
        self._stride = bound.bit_length() + 1
        self._mask = (1 << self._stride) - 1
        self._ways = self._count(states)
        self._begin = begin
        whole = self._ways[0].get(begin, 0)
        least, most = self._lengths()
        self._by_length = [(n, self._of(whole, n)) for n in range(least, most + 1)]
        self.size = sum(count for _, count in self._by_length)

    @cached_property
    def entropy_bits(self) -> float:
        """log2 of the size, rounded down to hundredths. Raises `NoRoom`."""
        if not self.size:
            raise NoRoom(says="no text of this shape satisfies every rule")
        return floor_log2(self.size)

    def draw(self, random: RandomSource) -> list[str]:
        """The parts of a text, layer by layer; each text equally likely. Raises `NoRoom`."""
        if not self.size:
            raise NoRoom(says="no text of this shape satisfies every rule")
        rank = random.randbelow(self.size)
        left = 0
        for length, count in self._by_length:
            if rank < count:
                left = length
                break
            rank -= count
        state, parts = self._begin, []
        for t, moves in enumerate(self._moves):
            bundles, own = moves.of_state[state]
            ways, shared = self._ways[t + 1], self._shared[t]
            options = own
            for bundle in bundles:
                count = self._of(shared[bundle], left)
                if rank < count:
                    options = moves.shared[bundle]
                    break
                rank -= count
            for move in options:
                each = self._of(ways.get(move.following, 0), left - move.group.length)
                if rank < each * move.group.ways:
                    break
                rank -= each * move.group.ways
            place, rank = divmod(rank, each)
            parts.append(_nth(move.group.texts, place))
            state, left = move.following, left - move.group.length
        return parts

    def _lengths(self) -> tuple[int, int]:
        if self._policy is None:
            return 0, LENGTH_LIMIT
        most = min(self._policy.max_length, LENGTH_LIMIT)
        if self._policy.keeps_first is not None:
            most = min(most, self._policy.keeps_first)
        return self._policy.min_length, most

    def _of(self, packed: int, length: int) -> int:
        return (packed >> (self._stride * length)) & self._mask if length >= 0 else 0

    def _count(self, last: set[State]) -> list[dict[State, int]]:
        """For each layer and state, the ways to the end, packed by the length that is left."""
        ways: list[dict[State, int]] = [{state: 1 for state in last if self._may_end(state)}]
        self._shared: list[dict[Bundle, int]] = []
        for moves in reversed(self._moves):
            after = ways[-1]
            shared = {bundle: self._sum(found, after) for bundle, found in moves.shared.items()}
            ways.append(
                {
                    state: sum(shared[b] for b in bundles) + self._sum(own, after)
                    for state, (bundles, own) in moves.of_state.items()
                }
            )
            self._shared.append(shared)
        self._shared.reverse()
        return ways[::-1]

    def _sum(self, moves: Sequence[_Move], after: dict[State, int]) -> int:
        total = 0
        for move in moves:
            rest = after.get(move.following, 0)
            if rest:
                total += (rest * move.group.ways) << (self._stride * move.group.length)
        return total

    def _may_end(self, state: State) -> bool:
        mode, reading, counts = state
        if mode != self._last_mode:
            return False
        if self._policy is None or self._rules is None:
            return True
        present = sum(count > 0 for count in counts)
        return (
            self._rules.may_end(reading)
            and present >= self._policy.min_classes
            and all(n >= c.minimum for n, c in zip(counts, self._classes, strict=True))
        )

    def _add_moves(self, moves: _Moves, t: int, state: State) -> None:
        mode, reading, counts = state
        bundles: list[Bundle] = []
        own: list[_Move] = []
        for branch in self._layers[t]:
            if branch.before != mode:
                continue
            heads, apart = self._split(branch.texts, reading)
            own += self._on(apart, t, branch.after, counts)
            for head in heads:
                bundle = (id(branch.texts), head, branch.after, counts)
                bundles.append(bundle)
                if bundle not in moves.shared:
                    fresh = self._read_afresh(branch.texts)[head]
                    moves.shared[bundle] = self._on(fresh, t, branch.after, counts)
                    self._steps += len(moves.shared[bundle])
        moves.of_state[state] = bundles, own
        self._steps += len(own) + len(bundles)
        if self._steps > STEPS_MOST:
            raise PhraseTooCostly(rule=self._costliest())

    def _on(self, groups: Sequence[_Group], t: int, mode: int, counts: Counts) -> list[_Move]:
        """The moves by groups, with what the rest of the text cannot touch forgotten."""
        found: dict[tuple[int, State], list[_Group]] = defaultdict(list)
        for group in groups:
            total = self._added(counts, group.added)
            if total is not None:
                found[group.length, (mode, self._forgotten(group.reading, t), total)].append(group)
        return [_Move(_together(alike), following) for (_, following), alike in found.items()]

    def _forgotten(self, reading: int, t: int) -> int:
        key = (reading, self._following[t])
        if key not in self._known:
            rules = self._rules
            self._known[key] = reading if rules is None else rules.forgotten(*key)
        return self._known[key]

    def _split(self, texts: Sequence[str], reading: int) -> tuple[list[str], list[_Group]]:
        """The first characters whose texts read as by themselves, and the other texts read."""
        key = (id(texts), reading)
        if key not in self._apart:
            heads: list[str] = []
            apart: dict[tuple[int, int, Counts], list[str]] = defaultdict(list)
            for head, fresh in self._read_afresh(texts).items():
                if self._rules is None or (
                    fresh[0].length and self._rules.reads_as_within(reading, head)
                ):
                    heads.append(head)
                    continue
                for group in fresh:
                    for text in group.texts[0]:
                        following = self._rules.after(reading, text)
                        if following >= 0:
                            apart[group.length, following, group.added].append(text)
            groups = [_Group(*one, (alike,), len(alike)) for one, alike in apart.items()]
            self._apart[key] = heads, groups
        return self._apart[key]

    def _read_afresh(self, texts: Sequence[str]) -> dict[str, list[_Group]]:
        """The texts that break no rule by themselves, as read within a text.

        By first character where rules look at neighbours; the empty text by itself.
        """
        known = self._fresh.get(id(texts))
        if known is not None:
            return known
        found: dict[tuple[str, int, int, Counts], list[str]] = defaultdict(list)
        rules, class_of, size = self._rules, self._class_of, len(self._classes)
        for text in texts:
            if rules is None:
                found["", len(text), ReadingRules.START, ()].append(text)
                continue
            if any(c not in class_of for c in text):
                continue
            following = rules.after(ReadingRules.WITHIN, text)
            if following >= 0:
                added = [0] * size
                for c in text:
                    added[class_of[c]] += 1
                capped = tuple(map(min, added, self._most))
                head = text[:1] if rules.bind else text and "all"
                found[head, len(text), following, capped].append(text)
        by_head: dict[str, list[_Group]] = defaultdict(list)
        for (head, length, following, capped), alike in found.items():
            by_head[head].append(_Group(length, following, capped, (alike,), len(alike)))
        self._fresh[id(texts)] = by_head
        return by_head

    def _costliest(self) -> str:
        """The rule that makes for most states."""
        if self._policy is None or self._policy.max_sequence_run is not None:
            return "max_sequence_run"
        return "forbidden" if self._policy.forbidden else "max_identical_run"

    def _added(self, counts: Counts, added: Counts) -> Counts | None:
        """Class counts together, capped where more makes no difference; None beyond a most."""
        total = []
        for one, most, a, b in zip(self._classes, self._most, counts, added, strict=False):
            if one.maximum is not None and a + b > one.maximum:
                return None
            total.append(min(most, a + b))
        return tuple(total)

    def _first_characters(self) -> list[frozenset[str]]:
        """For each layer, the characters that the text after it may begin with."""
        found: list[frozenset[str]] = [frozenset()]
        for layer in reversed(self._layers[1:]):
            begins = frozenset(text[:1] for branch in layer for text in branch.texts)
            found.append(begins - {""} | (found[-1] if "" in begins else frozenset()))
        return found[::-1]


def _together(groups: Sequence[_Group]) -> _Group:
    """Groups of one length whose ways on are the same, as one."""
    if len(groups) == 1:
        return groups[0]
    texts = tuple(one for group in groups for one in group.texts)
    first = groups[0]
    return _Group(first.length, first.reading, first.added, texts, sum(map(len, texts)))


def _nth(lists: Sequence[Sequence[str]], place: int) -> str:
    for texts in lists:
        if place < len(texts):
            return texts[place]
        place -= len(texts)
    raise IndexError(place)
