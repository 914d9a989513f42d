"""Named attacks, the guesses each can afford, and the arithmetic behind them."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class AttackBudget:
    """One attack: guesses_log10 it can afford in all, and guesses per second it makes."""

    code: str
    label: str
    guesses_log10: float
    rate_per_s: float
    basis: str


BUDGETS = (
    AttackBudget(
        "at_form",
        "at the form",
        6.0,
        0.01,
        "100 tries a day, let through by throttling, for 27 years: 10^6",
    ),
    AttackBudget(
        "stolen_slow",
        "stolen, slow",
        10.0,
        1e4,
        "the site's file, hashed by a slow function, 10^4 guesses/s on one rig for 12 days: 10^10",
    ),
    AttackBudget(
        "stolen_fast",
        "stolen, fast",
        14.0,
        1e10,
        "the site's file, hashed by a fast function, 10^10 guesses/s on one rig for 3 hours: 10^14",
    ),
    AttackBudget(
        "state",
        "a state",
        20.0,
        1e13,
        "a thousand such rigs for 4 months: 10^20",
    ),
)


def weakest_fallen(guess_number_log10: float) -> AttackBudget | None:
    """The cheapest attack that affords so many guesses, or None where none does."""
    for budget in BUDGETS:
        if guess_number_log10 <= budget.guesses_log10:
            return budget
    return None
