"""What is kept of a measure, so that only what changed is measured again."""

from dataclasses import dataclass

from newknot.core.strength.measure import Measure


@dataclass(frozen=True, slots=True)
class KeptMeasure:
    """A guess number and, in words, what gives it: neither holds the secret."""

    guess_number_log10: float
    reasons: str


def kept(measured: Measure) -> KeptMeasure:
    """What is kept of it."""
    return KeptMeasure(measured.guess_number_log10, measured.reasons)
