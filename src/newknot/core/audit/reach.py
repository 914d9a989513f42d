"""Reach: what falls with a login, by the same secret, a similar one, or a reset through a mailbox.

Logins that share a secret, or have similar ones, hang on one knot, so that ten thousand of one
secret are ten thousand cords and not fifty million.
"""

from collections import deque
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from newknot.core.audit.mailboxes import Reset


class CordKind(StrEnum):
    """What ties two logins."""

    SAME = "same"
    SIMILAR = "similar"
    RESETS = "resets"


@dataclass(frozen=True, slots=True)
class Group:
    """Logins that share a secret, or have similar ones."""

    kind: CordKind
    login_ids: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Fall:
    """A login that falls, by what cord, and after which login (the one asked about, or another)."""

    login_id: str
    by: CordKind
    after: str


class Reach:
    """The cords of a vault, asked for what falls with a login."""

    def __init__(self, groups: Sequence[Group], resets: Iterable[Reset]) -> None:
        self._groups = groups
        self._resets: dict[str, list[str]] = {}
        for reset in resets:
            self._resets.setdefault(reset.by, []).append(reset.of)

    @cached_property
    def _groups_of(self) -> dict[str, list[int]]:
        found: dict[str, list[int]] = {}
        for at, group in enumerate(self._groups):
            for login_id in group.login_ids:
                found.setdefault(login_id, []).append(at)
        return found

    def falls_with(self, login_id: str) -> list[Fall]:
        """All that falls if this login falls, nearest first, each by the shortest path."""
        fallen = {login_id}
        pulled: set[int] = set()
        waiting, found = deque([login_id]), list[Fall]()
        while waiting:
            at = waiting.popleft()
            for kind, others in self._cords(at, pulled):
                for other in others:
                    if other not in fallen:
                        fallen.add(other)
                        waiting.append(other)
                        found.append(Fall(other, kind, at))
        return found

    def counts(self) -> dict[str, int]:
        """How many others fall with each login that any cord holds.

        Logins that pull each other down are counted once together: those of a knot, then knots that
        reset each other (one strongly connected part).
        """
        knots = self._knots()
        knot_of = {login_id: at for at, knot in enumerate(knots) for login_id in knot}
        pulls: dict[int, set[int]] = {}
        for by, resets in self._resets.items():
            if others := {knot_of[one] for one in resets} - {knot_of[by]}:
                pulls.setdefault(knot_of[by], set()).update(others)
        fallen = [len(knot) for knot in knots]
        # Parts come in the order in which all that they pull is already known (Tarjan, 1972).
        parts = _parts(pulls)
        part_of = {knot: at for at, part in enumerate(parts) for knot in part}
        sizes = [sum(map(fallen.__getitem__, part)) for part in parts]
        # Each part reached counts one, and the large ones the rest of their members.
        large = sum(1 << at for at, size in enumerate(sizes) if size > 1)
        reached: dict[int, int] = {}
        for at, part in enumerate(parts):
            if not any(knot in pulls for knot in part):
                continue
            bits = 1 << at
            for pulled in {part_of[one] for knot in part for one in pulls.get(knot, ())} - {at}:
                bits |= reached.get(pulled) or 1 << pulled
            reached[at] = bits
            size, left = bits.bit_count(), bits & large
            while left:
                size += sizes[left.bit_length() - 1] - 1
                left ^= 1 << (left.bit_length() - 1)
            for knot in part:
                fallen[knot] = size
        return {one: size - 1 for knot, size in zip(knots, fallen, strict=True) for one in knot}

    def _knots(self) -> list[list[str]]:
        """Logins that fall together by what they share, and each other that resets or is reset."""
        knots: list[list[str]] = []
        knot_of: dict[str, int] = {}
        for group in self._groups:
            held = {knot_of[one] for one in group.login_ids if one in knot_of}
            into = max(held, key=lambda at: len(knots[at]), default=len(knots))
            if not held:
                knots.append([])
            # The smaller goes into the larger, so that no login is moved often.
            moved = [one for one in group.login_ids if one not in knot_of]
            for other in held - {into}:
                moved += knots[other]
                knots[other] = []
            knots[into] += moved
            knot_of.update(dict.fromkeys(moved, into))
        alone = {*self._resets, *(one for resets in self._resets.values() for one in resets)}
        return [*knots, *([one] for one in sorted(alone - knot_of.keys()))]

    def _cords(self, login_id: str, pulled: set[int]) -> Iterable[tuple[CordKind, Sequence[str]]]:
        for at in self._groups_of.get(login_id, ()):
            if at not in pulled:
                pulled.add(at)
                yield self._groups[at].kind, self._groups[at].login_ids
        yield CordKind.RESETS, self._resets.get(login_id, ())


def _parts(pulls: Mapping[int, Iterable[int]]) -> list[list[int]]:
    """Strongly connected parts of what pulls or is pulled, each after all that it pulls."""
    order: dict[int, int] = {}
    low: dict[int, int] = {}
    stack: list[int] = []
    on_stack: set[int] = set()
    parts: list[list[int]] = []
    for root in pulls:
        if root in order:
            continue
        # Without recursion: a chain may be as long as the vault.
        work = [(root, iter(pulls[root]))]
        order[root] = low[root] = len(order)
        stack.append(root)
        on_stack.add(root)
        while work:
            at, rest = work[-1]
            step = next(rest, None)
            if step is None:
                work.pop()
                if work:
                    low[work[-1][0]] = min(low[work[-1][0]], low[at])
                if low[at] == order[at]:
                    parts.append(_popped(stack, on_stack, at))
            elif step not in order:
                order[step] = low[step] = len(order)
                stack.append(step)
                on_stack.add(step)
                work.append((step, iter(pulls.get(step, ()))))
            elif step in on_stack:
                low[at] = min(low[at], order[step])
    return parts


def _popped(stack: list[int], on_stack: set[int], last: int) -> list[int]:
    part: list[int] = []
    while True:
        member = stack.pop()
        on_stack.discard(member)
        part.append(member)
        if member == last:
            return part
