"""How many guesses a chosen text stands, with the reasons: `measure`, and the attack budgets."""

from newknot.core.strength.budgets import BUDGETS, AttackBudget
from newknot.core.strength.measure import Measure, measure
from newknot.core.strength.segments import Segment, SegmentKind

__all__ = ["BUDGETS", "AttackBudget", "Measure", "Segment", "SegmentKind", "measure"]
