"""The order of work: kind of finding × importance of the login × what falls with it."""

from math import log2

from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.login import Importance

KIND_WEIGHT = {
    FindingKind.BREACHED: 100.0,
    FindingKind.LIKE_PASSPHRASE: 60.0,
    FindingKind.WEAK: 30.0,
    FindingKind.REUSED: 24.0,
    FindingKind.UNFINISHED: 20.0,
    FindingKind.SIMILAR: 10.0,
    FindingKind.OFF_POLICY: 6.0,
    FindingKind.OVERDUE: 5.0,
    FindingKind.PLAIN_HTTP: 4.0,
}
IMPORTANCE_WEIGHT = {
    Importance.CRITICAL: 4.0,
    Importance.HIGH: 2.0,
    Importance.NORMAL: 1.0,
    Importance.LOW: 0.4,
}


def urgency(finding: Finding, importance: Importance) -> float:
    """The product by which findings are ordered; reach counts by its doublings."""
    reach = 1 + log2(1 + finding.reach) / 2
    return KIND_WEIGHT[finding.kind] * IMPORTANCE_WEIGHT[importance] * reach


def why_here(finding: Finding, importance: Importance, *, guess: str) -> str:
    """The order in one sentence. guess: on what the importance rests, where it is a guess."""
    parts = [f"by kind ({KIND_WEIGHT[finding.kind]:g})"]
    weight = IMPORTANCE_WEIGHT[importance]
    if weight != 1:
        whose = f"{importance.value}: {guess}" if guess else importance.value
        parts.append(f"importance ({whose}, × {weight:g})")
    if finding.reach:
        reach = 1 + log2(1 + finding.reach) / 2
        others = f"{finding.reach:,} other{'s' if finding.reach > 1 else ''}"
        parts.append(f"reach ({others} would fall with it, × {reach:.1f})")
    return f"Ordered {', '.join(parts)}."
