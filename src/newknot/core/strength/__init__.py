"""How many guesses a chosen text stands, with the reasons: `measure`, and the attack budgets."""

from newknot.core.strength.advice import Advice, advice
from newknot.core.strength.budgets import BUDGETS, AttackBudget
from newknot.core.strength.comparison import Comparison, compared
from newknot.core.strength.measure import Measure, measure
from newknot.core.strength.segments import Segment, SegmentKind

__all__ = [
    "BUDGETS",
    "Advice",
    "AttackBudget",
    "Comparison",
    "Measure",
    "Segment",
    "SegmentKind",
    "advice",
    "compared",
    "measure",
]
