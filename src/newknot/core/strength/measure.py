"""The guess number of a chosen text: the cheapest cover by stretches that guessers try early.

Costs are log10 of guesses. The cover is found by one pass over end positions with back
pointers, so the explanation comes with it. Characters that nothing explains cost a uniform
choice from the kinds of character that the text uses.
"""

import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from math import log10

from newknot.core.strength.budgets import AttackBudget, weakest_fallen
from newknot.core.strength.finders import found
from newknot.core.strength.segments import Segment, SegmentKind

MEASURED_CHARACTERS = 128
CONTEXT_WORDS_MOST = 64
CONTEXT_WORD_CHARACTERS_MOST = 200
_CHAIN_FEE = 0.45
"""log10 of the shapes tried for each further segment (word then digits, and the like)."""


@dataclass(frozen=True, slots=True)
class Measure:
    """A guess number with the segments that give it, over the first 128 normalised characters."""

    guess_number_log10: float
    segments: tuple[Segment, ...]
    measured_characters: int

    @property
    def falls_to(self) -> AttackBudget | None:
        """The cheapest attack budget that covers the guess number."""
        return weakest_fallen(self.guess_number_log10)

    @property
    def reasons(self) -> str:
        """The segments' kinds in one phrase, in order: `name and year`."""
        labels: list[str] = []
        for segment in self.segments:
            if segment.kind.label not in labels:
                labels.append(segment.kind.label)
        if not labels:
            return "nothing"
        return labels[0] if len(labels) == 1 else ", ".join(labels[:-1]) + " and " + labels[-1]


def measure(secret: str, context: Iterable[str] = ()) -> Measure:
    """The guess number of a text. Never raises on any text; NFC and NFD measure the same.

    context: words an acquaintance or the site knows; cut at 64 words of 200 characters.
    """
    text = _normalised(secret)
    alphabet = log10(max(2, _alphabet(text)))
    ending: dict[int, list[Segment]] = {}
    for segment in found(text, _context_ranks(context)):
        ending.setdefault(segment.end, []).append(segment)
    n = len(text)
    cost = [0.0] + [float("inf")] * n
    last: list[Segment | None] = [None] * (n + 1)
    for end in range(1, n + 1):
        before = last[end - 1]
        grows = before is not None and before.kind is SegmentKind.RANDOM
        start = before.start if before is not None and grows else end - 1
        fee = 0.0 if grows or end == 1 else _CHAIN_FEE
        cost[end] = cost[end - 1] + alphabet + fee
        last[end] = Segment(start, end, SegmentKind.RANDOM, alphabet * (end - start))
        for segment in ending.get(end, ()):
            fee = _CHAIN_FEE if segment.start else 0.0
            total = cost[segment.start] + segment.cost_log10 + fee
            if total < cost[end]:
                cost[end], last[end] = total, segment
    return Measure(round(cost[n], 3), _walk_back(last), n)


def _walk_back(last: list[Segment | None]) -> tuple[Segment, ...]:
    out: list[Segment] = []
    end = len(last) - 1
    while end > 0:
        segment = last[end]
        assert segment is not None
        out.append(segment)
        end = segment.start
    return tuple(reversed(out))


def _normalised(secret: str) -> str:
    cut = secret[: 4 * MEASURED_CHARACTERS]
    return unicodedata.normalize("NFC", cut)[:MEASURED_CHARACTERS]


def _alphabet(text: str) -> int:
    size = 0
    if any("a" <= c <= "z" for c in text):
        size += 26
    if any("A" <= c <= "Z" for c in text):
        size += 26
    if any("0" <= c <= "9" for c in text):
        size += 10
    if any(c.isascii() and not c.isalnum() for c in text):
        size += 33
    if any(not c.isascii() for c in text):
        size += 100
    return size


def _context_ranks(context: Iterable[str]) -> dict[str, int]:
    ranks: dict[str, int] = {}
    for i, phrase in enumerate(context):
        if i == CONTEXT_WORDS_MOST:
            break
        cut = unicodedata.normalize("NFC", phrase[:CONTEXT_WORD_CHARACTERS_MOST]).lower()
        pieces = "".join(c if c.isalnum() else " " for c in cut).split()
        for word in (*pieces, "".join(pieces)):
            if len(word) >= 3:
                ranks.setdefault(word, len(ranks) + 2)
    return ranks


@cache
def warm() -> None:
    """Reads the dictionaries ahead of the first measure."""
    measure("warm")
