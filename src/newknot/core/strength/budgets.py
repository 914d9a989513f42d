"""Named attacks, the guesses each can afford, and the arithmetic behind them.

The online and the fast offline budget are those of Florêncio, Herley and van Oorschot (An
administrator's guide to internet password research, USENIX LISA 2014): 10^6 and 10^14 guesses. A
form that follows NIST SP 800-63B (2017, 5.2.2) lets 100 tries through before it acts; one that
forgets them each day lets 100 a day through. Slow and fast hashing differ by the work of the
function: about 10^4 and 10^10 trials a second on one machine with a few graphics cards.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from math import log10

from newknot.core.errors import FieldInvalid

DAY_S, YEAR_S = 86_400.0, 365.25 * 86_400.0
_UNITS = ((YEAR_S, "year"), (DAY_S, "day"), (3_600.0, "hour"), (60.0, "minute"), (1.0, "second"))
SLOWEST_PER_S, FASTEST_PER_S = 1e-6, 1e18


@dataclass(frozen=True, slots=True)
class AttackBudget:
    """One attack: guesses_log10 it can afford in all, guesses per second it makes, and who."""

    code: str
    label: str
    guesses_log10: float
    rate_per_s: float
    who: str

    @property
    def basis(self) -> str:
        """The arithmetic in a sentence: who, at what rate, for how long."""
        lasts = spoken_s(self.guesses_log10 - log10(self.rate_per_s))
        return f"{self.who}, {spoken_rate(self.rate_per_s)} for {lasts}: 10^{self.guesses_log10:g}"


BUDGETS = (
    AttackBudget(
        "at_form",
        "at the form",
        6.0,
        100 / DAY_S,
        "tries at the sign-in form, as many as its brake lets through",
    ),
    AttackBudget(
        "stolen_slow",
        "stolen, slow",
        10.0,
        1e4,
        "the site's file, hashed by a slow function, on one rig",
    ),
    AttackBudget(
        "stolen_fast",
        "stolen, fast",
        14.0,
        1e10,
        "the site's file, hashed by a fast function, on one rig",
    ),
    AttackBudget("state", "a state", 20.0, 1e13, "the same file on a thousand such rigs"),
)


@dataclass(frozen=True, slots=True)
class Fall:
    """Whether an attack's budget covers a guess number, and log10 of the seconds to it."""

    budget: AttackBudget
    falls: bool
    takes_s_log10: float

    @property
    def takes(self) -> str:
        """The time in words."""
        return spoken_s(self.takes_s_log10)


def fall(guess_number_log10: float, budget: AttackBudget) -> Fall:
    """How a guess number stands to one attack."""
    takes = guess_number_log10 - log10(budget.rate_per_s)
    return Fall(budget, guess_number_log10 <= budget.guesses_log10, takes)


def weakest_fallen(guess_number_log10: float) -> AttackBudget | None:
    """The cheapest attack that affords so many guesses, or None where none does."""
    for budget in BUDGETS:
        if guess_number_log10 <= budget.guesses_log10:
            return budget
    return None


def with_rates(rates: Mapping[str, float]) -> tuple[AttackBudget, ...]:
    """The budgets at the user's own rates (code -> guesses per second), where one is given.

    Raises `FieldInvalid` for an attack that is none, and beyond 10^-6 to 10^18 a second.
    """
    known = {budget.code for budget in BUDGETS}
    for code, rate in rates.items():
        if code not in known:
            raise FieldInvalid("rates", f"names no attack: {code}")
        if not SLOWEST_PER_S <= rate <= FASTEST_PER_S:
            raise FieldInvalid(f"rates.{code}", "is not between 10^-6 and 10^18 guesses a second")
    return tuple(replace(b, rate_per_s=rates.get(b.code, b.rate_per_s)) for b in BUDGETS)


def spoken_s(seconds_log10: float) -> str:
    """A span of log10 seconds in words that a person can use."""
    if seconds_log10 < 0:
        return "under a second"
    if seconds_log10 > log10(YEAR_S) + 6:
        return f"10^{seconds_log10 - log10(YEAR_S):.0f} years"
    seconds = 10**seconds_log10
    size, unit = next((size, unit) for size, unit in _UNITS if seconds >= size)
    count = seconds / size
    shown = round(count) if count < 10 else round(count, 1 - len(str(int(count))) + 1)
    return f"{shown:,.0f} {unit}{'' if shown == 1 else 's'}"


def spoken_rate(rate_per_s: float) -> str:
    """Guesses in the shortest unit of time in which they are ten or more."""
    per, unit = next(
        ((rate_per_s * size, unit) for size, unit in reversed(_UNITS) if rate_per_s * size >= 10),
        (rate_per_s * YEAR_S, "year"),
    )
    shown = f"10^{log10(per):.3g}" if per >= 1e6 else f"{per:,.3f}".rstrip("0").rstrip(".")
    return f"{shown} {'an' if unit == 'hour' else 'a'} {unit}"
