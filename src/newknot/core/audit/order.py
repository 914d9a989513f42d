"""The order of work: kind of finding × importance of the login × what falls with it."""

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache
from math import log2

from newknot.core.audit.finding import KINDS, Finding, FindingKind
from newknot.core.login import Importance

IMPORTANCE_WEIGHT = {
    Importance.CRITICAL: 4.0,
    Importance.HIGH: 2.0,
    Importance.NORMAL: 1.0,
    Importance.LOW: 0.4,
}


def urgency(kind: FindingKind, importance: Importance, reach: int) -> float:
    """The product by which findings are ordered; reach counts by its doublings."""
    return KINDS[kind].weight * IMPORTANCE_WEIGHT[importance] * _by_reach(reach)


def why_here(kind: FindingKind, importance: Importance, reach: int, *, guess: str) -> str:
    """The order in one sentence. guess: on what the importance rests, where it is a guess."""
    parts = [f"by kind ({KINDS[kind].weight:g})"]
    weight = IMPORTANCE_WEIGHT[importance]
    if weight != 1:
        whose = f"{importance.value}: {guess}" if guess else importance.value
        parts.append(f"importance ({whose}, × {weight:g})")
    if reach:
        others = f"{reach:,} other{'s' if reach > 1 else ''}"
        parts.append(f"reach ({others} would fall with it, × {_by_reach(reach):.1f})")
    return f"Ordered {', '.join(parts)}."


def placed(finding: Finding, importance: Importance, *, guess: str, reach: int) -> Finding:
    """The finding with its reach, its urgency and its place in a sentence."""
    return replace(
        finding,
        reach=reach,
        urgency=urgency(finding.kind, importance, reach),
        why=why_here(finding.kind, importance, reach, guess=guess),
    )


def in_order(findings: Iterable[Finding]) -> list[Finding]:
    """The findings by their places."""
    return sorted(findings, key=place_of)


Place = tuple[float, float, str, FindingKind]


def place_of(finding: Finding) -> Place:
    """By what findings are ordered: most urgent first, then by guess number, then by login: the
    same each time.
    """
    guesses = finding.guess_number_log10
    how_many = 999.0 if guesses is None else guesses
    return -finding.urgency, how_many, finding.login_id, finding.kind


@lru_cache(maxsize=10_000)
def _by_reach(reach: int) -> float:
    return 1 + log2(1 + reach) / 2
