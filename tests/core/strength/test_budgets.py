"""The named attacks."""

import pytest

from newknot.core.strength.budgets import BUDGETS, weakest_fallen


@pytest.mark.parametrize(
    ("log10", "code"),
    [(0, "at_form"), (6, "at_form"), (6.1, "stolen_slow"), (14, "stolen_fast"), (20, "state")],
)
def test_the_cheapest_attack_that_affords_it_is_named(log10: float, code: str) -> None:
    found = weakest_fallen(log10)
    assert found is not None
    assert found.code == code


def test_beyond_every_budget_nothing_falls_and_budgets_rise() -> None:
    assert weakest_fallen(20.1) is None
    assert [b.guesses_log10 for b in BUDGETS] == [6, 10, 14, 20]
