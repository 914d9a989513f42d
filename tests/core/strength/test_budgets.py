"""The named attacks."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.strength.budgets import BUDGETS, spoken_s, weakest_fallen, with_rates


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


@pytest.mark.parametrize(
    ("log10_s", "spoken"),
    [
        (-1, "under a second"),
        (0, "1 second"),
        (2.5, "5 minutes"),
        (6, "12 days"),
        (9, "32 years"),
        (12, "32,000 years"),
        (20, "10^13 years"),
    ],
)
def test_spans_are_spoken_in_their_unit(log10_s: float, spoken: str) -> None:
    assert spoken_s(log10_s) == spoken


def test_each_budget_states_its_own_arithmetic() -> None:
    assert "100 a day for 27 years: 10^6" in BUDGETS[0].basis
    assert "10,000 a second for 12 days: 10^10" in BUDGETS[1].basis
    assert "10^10 a second for 3 hours: 10^14" in BUDGETS[2].basis


def test_own_rates_change_the_times_and_nothing_else() -> None:
    own = with_rates({"stolen_slow": 10.0})
    assert [b.guesses_log10 for b in own] == [b.guesses_log10 for b in BUDGETS]
    assert "10 a second for 32 years" in own[1].basis
    assert own[2] == BUDGETS[2]
    for rates in ({"state": 0.0}, {"state": 1e30}, {"neighbour": 1.0}):
        with pytest.raises(FieldInvalid):
            with_rates(rates)
