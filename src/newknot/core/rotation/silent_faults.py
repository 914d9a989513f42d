"""What a site does to a secret in silence, told by sign-ins: whether it takes it without its end,
by halving, and in other case. Stateless: the answers so far give the next trial.
"""

from collections.abc import Sequence
from dataclasses import dataclass

CUT_TRIES_MOST = 6


@dataclass(frozen=True, slots=True)
class Trial:
    """A sign-in with the first `characters` of the secret; `other_case`: with its case turned."""

    characters: int
    other_case: bool = False

    def of(self, text: str) -> str:
        """What is to be typed."""
        start = text[: self.characters]
        return start.swapcase() if self.other_case else start


@dataclass(frozen=True, slots=True)
class Tried:
    """A trial, and whether it opened the site."""

    trial: Trial
    opened: bool


@dataclass(frozen=True, slots=True)
class SilentFaults:
    """keeps_first: how many characters count, None where all do; a bound where not is_exact."""

    keeps_first: int | None
    is_exact: bool
    folds_case: bool


def next_trial(text: str, tried: Sequence[Tried]) -> Trial | None:
    """The next sign-in to try; None at the end."""
    cuts = [one for one in tried if not one.trial.other_case]
    if len(text) > 1:
        if not cuts:
            return Trial(len(text) - 1)
        refused, taken = _bounds(text, cuts)
        if cuts[0].opened and taken - refused > 1 and len(cuts) < CUT_TRIES_MOST:
            return Trial((refused + taken) // 2)
    if text.swapcase() != text and len(cuts) == len(tried):
        return Trial(len(text), other_case=True)
    return None


def told(text: str, tried: Sequence[Tried]) -> SilentFaults:
    """What the answers tell."""
    cuts = [one for one in tried if not one.trial.other_case]
    folds = any(one.opened for one in tried if one.trial.other_case)
    if not any(one.opened for one in cuts):
        return SilentFaults(None, True, folds)
    refused, taken = _bounds(text, cuts)
    return SilentFaults(taken, taken - refused <= 1, folds)


def _bounds(text: str, cuts: Sequence[Tried]) -> tuple[int, int]:
    """The longest start that was refused, and the shortest that opened the site."""
    refused = max((c.trial.characters for c in cuts if not c.opened), default=0)
    taken = min((c.trial.characters for c in cuts if c.opened), default=len(text))
    return min(refused, taken), taken
