"""Which backups are kept: the newest of each of the last days, weeks and months."""

from collections.abc import Callable, Hashable, Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from newknot.core.errors import FieldInvalid


@dataclass(frozen=True, slots=True)
class KeepingRule:
    """How many of each: calendar days, ISO weeks, months, by UTC."""

    daily: int = 7
    weekly: int = 5
    monthly: int = 12

    def __post_init__(self) -> None:
        for name in ("daily", "weekly", "monthly"):
            if not 1 <= getattr(self, name) <= 1_000:
                raise FieldInvalid(f"backup_{name}", "is not between 1 and 1,000")


def kept(made: Iterable[datetime], rule: KeepingRule) -> list[bool]:
    """Of each, newest first by what was made after what, whether the rule keeps it: the newest of
    each period, and all within a day of the newest. A day that a wrong clock said is a day like any
    other, so that a jump of the clock lets nothing go.
    """
    times = list(made)
    periods: tuple[tuple[int, Callable[[datetime], Hashable]], ...] = (
        (rule.daily, lambda at: at.date()),
        (rule.weekly, lambda at: at.isocalendar()[:2]),
        (rule.monthly, lambda at: (at.year, at.month)),
    )
    stays = [abs(times[0] - at) < timedelta(days=1) for at in times]
    for count, period_of in periods:
        seen: dict[Hashable, int] = {}
        for i, at in enumerate(times):
            seen.setdefault(period_of(at), i)
        for i in list(seen.values())[:count]:
            stays[i] = True
    return stays
