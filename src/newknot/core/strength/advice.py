"""What change would help a chosen secret, found by measuring the changed text."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import log10

from newknot.core.shipped import shipped_lines
from newknot.core.strength.measure import Measure, measure
from newknot.core.strength.reading import FULLY_READ, read
from newknot.core.strength.segments import SegmentKind

LEAST_GAIN_LOG10 = 1.0
"""Advice that moves the number by less is not given."""
_PROBES = (1_700, 5_200), (3_100, 6_400)
"""Places in the word list of the words put in to see what any would do; the lesser gain counts."""
_CHARACTERS = ("k7%W", "Xq3&")
_CHARACTERS_LOG10 = len(_CHARACTERS[0]) * log10(94)
_ADDED = {1: "one more drawn word", 2: "two more drawn words"}


@dataclass(frozen=True, slots=True)
class Advice:
    """A change in words, and the guess number after it."""

    change: str
    guess_number_log10: float


def advice(secret: str, context: Sequence[str], now: Measure) -> list[Advice]:
    """Changes that raise the guess number by an order or more, least first; none of a text that
    is empty, or too long to be read whole.
    """
    secret = read(secret).text
    if not 0 < len(secret) < FULLY_READ:
        return []
    words = shipped_lines("words_7776.txt")
    word_log10 = log10(len(words))
    between = next((c for c in secret if c in " -._"), "-")
    pairs = [tuple(words[at] for at in places) for places in _PROBES]
    # Each change with texts that try it, and how much the draw itself can add at most.
    changes = [
        ("four drawn characters at the end", [secret + t for t in _CHARACTERS], _CHARACTERS_LOG10)
    ]
    for count, label in _ADDED.items():
        texts = [between.join((secret, *pair[:count])) for pair in pairs]
        changes.append((label, texts, count * word_log10))
    own = next((s for s in now.segments if s.kind is SegmentKind.CONTEXT), None)
    if own is not None:
        texts = [secret[: own.start] + pair[0] + secret[own.end :] for pair in pairs]
        label = "a drawn word for what others know of you or the site"
        changes.append((label, texts, word_log10 - own.cost_log10))
    found = []
    for label, texts, most in changes:
        after = min(measure(text, context).guess_number_log10 for text in texts)
        after = min(after, now.guess_number_log10 + most)
        if after >= now.guess_number_log10 + LEAST_GAIN_LOG10:
            found.append(Advice(label, round(after, 3)))
    return sorted(found, key=lambda a: a.guess_number_log10)
