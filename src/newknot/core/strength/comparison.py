"""Two secrets side by side: which stands more guesses, and why."""

from dataclasses import dataclass
from typing import Literal

from newknot.core.strength.measure import Measure
from newknot.core.strength.segments import Segment, SegmentKind

ALIKE_LOG10 = 0.5
"""Within half an order the measure does not tell two secrets apart."""


@dataclass(frozen=True, slots=True)
class Comparison:
    """better: which one; orders: by how many powers of ten; reasons: whole sentences."""

    better: Literal["first", "second", "neither"]
    orders: float
    reasons: tuple[str, ...]


def compared(first: Measure, second: Measure) -> Comparison:
    """The comparison of two measures."""
    orders = second.guess_number_log10 - first.guess_number_log10
    if abs(orders) < ALIKE_LOG10:
        return Comparison("neither", abs(orders), ("They stand about as many guesses.",))
    name, other = ("second", "first") if orders > 0 else ("first", "second")
    better, worse = (second, first) if orders > 0 else (first, second)
    reasons = [_attacks(name, better, other, worse)]
    reasons += (_made_of(n, m) for n, m in (("first", first), ("second", second)))
    if better.measured_characters < worse.measured_characters:
        reasons.append(f"Length does not decide: the {name} is the shorter.")
    elif better.character_kinds < worse.character_kinds:
        reasons.append(
            f"Symbols and digits do not decide: the {name} has fewer kinds of character, "
            "and more choices."
        )
    return Comparison("second" if orders > 0 else "first", abs(orders), tuple(reasons))


def _attacks(name: str, better: Measure, other: str, worse: Measure) -> str:
    falls, stands = worse.falls_to, better.falls_to
    if falls is stands:
        where = "stand every attack on the ruler" if falls is None else f"fall to “{falls.label}”"
        return f"Both {where}; the {name} later."
    assert falls is not None
    then = "stands every attack on the ruler" if stands is None else f"only to “{stands.label}”"
    return f"The {other} falls to “{falls.label}”, the {name} {then}."


def _made_of(name: str, measured: Measure) -> str:
    kinds: dict[SegmentKind, list[Segment]] = {}
    for segment in measured.segments:
        kinds.setdefault(segment.kind, []).append(segment)
    parts = ", ".join(_alike(kind, segments) for kind, segments in kinds.items()) or "nothing"
    return f"The {name}: {parts}, {measured.view}." if measured.view else f"The {name}: {parts}."


def _alike(kind: SegmentKind, segments: list[Segment]) -> str:
    cost = one_in(sum(s.cost_log10 for s in segments))
    if kind is SegmentKind.RANDOM:
        size = sum(s.end - s.start for s in segments)
        return f"{size} {kind.label} (1 in {cost})"
    if len(segments) == 1:
        return f"{kind.label} (1 in {cost})"
    return f"{len(segments)} × {kind.label} (together 1 in {cost})"


def one_in(cost_log10: float) -> str:
    """A cost as a person reads it: whole numbers to a million, then powers of ten."""
    if cost_log10 >= 6:
        return f"10^{cost_log10:.1f}"
    count = max(1, round(10**cost_log10))
    digits = len(str(count))
    return f"{round(count, min(0, 2 - digits)):,}"
