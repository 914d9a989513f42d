"""Reach: what falls with a login, by the same secret, a similar one, or a reset through a mailbox.

Logins that share a secret, or have similar ones, hang on one knot, so that ten thousand of one
secret are ten thousand cords and not fifty million.
"""

from collections import deque
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum

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
        self._groups_of: dict[str, list[int]] = {}
        for at, group in enumerate(groups):
            for login_id in group.login_ids:
                self._groups_of.setdefault(login_id, []).append(at)
        self._resets: dict[str, list[str]] = {}
        for reset in resets:
            self._resets.setdefault(reset.by, []).append(reset.of)

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

        Logins that pull each other down (one strongly connected part) are counted once together.
        """
        parts = self._parts()
        part_of = {login_id: at for at, part in enumerate(parts) for login_id in part}
        reached: list[int] = []
        # Parts come in the order in which all that they pull is already known (Tarjan, 1972).
        for at, part in enumerate(parts):
            bits = 1 << at
            for login_id in part:
                for other in self._next(login_id):
                    bits |= 0 if part_of[other] == at else reached[part_of[other]]
            reached.append(bits)
        # Each part reached counts one, and the large ones the rest of their members.
        large = sum(1 << at for at, part in enumerate(parts) if len(part) > 1)
        counts: dict[str, int] = {}
        for at, part in enumerate(parts):
            more, left = 0, reached[at] & large
            while left:
                more += len(parts[left.bit_length() - 1]) - 1
                left ^= 1 << (left.bit_length() - 1)
            counts.update(dict.fromkeys(part, reached[at].bit_count() + more - 1))
        return counts

    def _cords(self, login_id: str, pulled: set[int]) -> Iterable[tuple[CordKind, Sequence[str]]]:
        for at in self._groups_of.get(login_id, ()):
            if at not in pulled:
                pulled.add(at)
                yield self._groups[at].kind, self._groups[at].login_ids
        yield CordKind.RESETS, self._resets.get(login_id, ())

    def _next(self, login_id: str) -> Iterable[str]:
        """What a login pulls; of a group only its first member, through whom the rest come."""
        for at in self._groups_of.get(login_id, ()):
            members = self._groups[at].login_ids
            if members[0] == login_id:
                yield from members[1:]
            else:
                yield members[0]
        yield from self._resets.get(login_id, ())

    def _parts(self) -> list[list[str]]:
        """Strongly connected parts, each after all that it pulls; without recursion."""
        order: dict[str, int] = {}
        low: dict[str, int] = {}
        stack: list[str] = []
        on_stack: set[str] = set()
        parts: list[list[str]] = []
        ties = {*self._groups_of, *self._resets, *(o for of in self._resets.values() for o in of)}
        for root in sorted(ties):
            if root in order:
                continue
            work = [(root, iter(list(self._next(root))))]
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
                    work.append((step, iter(list(self._next(step)))))
                elif step in on_stack:
                    low[at] = min(low[at], order[step])
        return parts


def _popped(stack: list[str], on_stack: set[str], last: str) -> list[str]:
    part: list[str] = []
    while True:
        member = stack.pop()
        on_stack.discard(member)
        part.append(member)
        if member == last:
            return part
