"""Rules that look at neighbours: runs of one character, sequences, forbidden texts.

They are read by an automaton whose state is the last character where it matters, the run of it,
the sequence it ends, and an Aho-Corasick state over the forbidden texts (Aho and Corasick, 1975).
Characters that no rule tells apart are taken together as one symbol.
"""

import re
from collections import deque
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from newknot.core.policy.folding import folded, step
from newknot.core.policy.site_policy import SitePolicy


@dataclass(frozen=True, slots=True)
class Symbol:
    """Characters of one class that all rules treat alike; ident: their form where it matters."""

    class_index: int
    characters: str
    ident: str
    may_begin: bool
    may_end: bool


State = tuple[int, int, str, int, int, int]
"""(last symbol or -1, run of its character, ident, direction, sequence length, word state)."""
NEUTRAL: State = (-1, 0, "", 0, 1, 0)


class Words:
    """Aho-Corasick over folded texts: `goto[state][character]`, absent means the root."""

    def __init__(self, texts: Sequence[str]) -> None:
        self.goto: list[dict[str, int]] = [{}]
        self._ends: list[bool] = [False]
        for text in texts:
            at = 0
            for c in text:
                if c not in self.goto[at]:
                    self.goto[at][c] = len(self.goto)
                    self.goto.append({})
                    self._ends.append(False)
                at = self.goto[at][c]
            self._ends[at] = True
        self._complete()

    def after(self, state: int, character: str) -> int:
        """The next state; -1 where a forbidden text is now complete."""
        following = self.goto[state].get(character, 0)
        return -1 if self._ends[following] else following

    def _complete(self) -> None:
        fail = [0] * len(self.goto)
        queue = deque(self.goto[0].values())
        while queue:
            at = queue.popleft()
            self._ends[at] = self._ends[at] or self._ends[fail[at]]
            for c, child in list(self.goto[at].items()):
                fail[child] = self.goto[fail[at]].get(c, 0)
                queue.append(child)
            for c, other in self.goto[fail[at]].items():
                self.goto[at].setdefault(c, other)


class LocalRules:
    """The automaton of a policy's local rules over its usable characters."""

    def __init__(self, policy: SitePolicy) -> None:
        self._run = policy.max_identical_run
        self._sequence = policy.max_sequence_run
        self.words = Words([folded(word) for word in policy.forbidden])
        self.symbols = tuple(self._symbols(policy))
        self._known: dict[tuple[State, int], list[tuple[int, State]]] = {}
        self._by_ident: dict[str, list[int]] = {}
        for y, symbol in enumerate(self.symbols):
            self._by_ident.setdefault(symbol.ident, []).append(y)

    def ways(self, state: State, y: int) -> list[tuple[int, State]]:
        """(number of characters, next state) for each way on by a character of symbol y."""
        found = self._known.get((state, y))
        if found is None:
            found = self._known[state, y] = self._ways(state, y)
        return found

    def _ways(self, state: State, y: int) -> list[tuple[int, State]]:
        last, run, ident, direction, length, word = state
        symbol = self.symbols[y]
        word = self.words.after(word, symbol.ident) if symbol.ident else 0
        if word < 0:
            return []
        size = len(symbol.characters)
        on = (0, 1)
        if self._sequence is not None:
            by = step(ident, symbol.ident) if ident and symbol.ident else 0
            if by:
                on = (by, length + 1 if direction in (0, by) else 2)
                if on[1] > self._sequence:
                    return []
        kept = symbol.ident if self._sequence is not None else ""
        if self._run is None:
            return [(size, (-1, 0, kept, *on, word))]
        found: list[tuple[int, State]] = []
        if last == y:
            size -= 1
            if run < self._run:
                found.append((1, (y, run + 1, kept, *on, word)))
        if size:
            found.append((size, (y, 1, kept, *on, word)))
        return found

    def specials(self, state: State) -> list[int]:
        """The symbols that this state does not treat as a neutral one of the same word state."""
        last, _, ident, _, _, _ = state
        found = {last} if last >= 0 else set()
        if self._sequence is not None and ident:
            for by in (-1, 1):
                found.update(self._by_ident.get(chr(ord(ident) + by), ()))
        return sorted(found)

    def _symbols(self, policy: SitePolicy) -> Iterator[Symbol]:
        told_apart = {c for word in policy.forbidden for c in folded(word)}
        if policy.max_sequence_run is not None:
            told_apart |= set("abcdefghijklmnopqrstuvwxyz0123456789")
        groups: dict[tuple[int, str, bool, bool], list[str]] = {}
        for j, one in enumerate(policy.usable_classes()):
            for c in one.characters:
                ident = folded(c) if folded(c) in told_apart else ""
                begins = policy.first_from is None or c in policy.first_from
                ends = policy.last_from is None or c in policy.last_from
                groups.setdefault((j, ident, begins, ends), []).append(c)
        for (j, ident, begins, ends), characters in groups.items():
            yield Symbol(j, "".join(characters), ident, begins, ends)


def breach_pattern(policy: SitePolicy) -> re.Pattern[str] | None:
    """A pattern that a folded text with its original case after a line break would not hold.

    Used on `folded(text) + newline + text`: sequences and forbidden texts are looked for in the
    folded half, runs in the other.
    """
    parts = [re.escape(folded(word)) + r"(?=.*\n)" for word in policy.forbidden]
    if policy.max_sequence_run is not None:
        size = policy.max_sequence_run + 1
        for line in ("abcdefghijklmnopqrstuvwxyz", "0123456789"):
            for way in (line, line[::-1]):
                pieces = (way[i : i + size] for i in range(len(way) - size + 1))
                parts.extend(piece + r"(?=.*\n)" for piece in pieces)
    if policy.max_identical_run is not None:
        parts.append(r"(.)\1{" + str(policy.max_identical_run) + r"}(?!.*\n)")
    return re.compile("|".join(parts)) if parts else None
