"""How long earlier secrets are kept: nothing goes by itself, what is past it can be let go."""

from collections.abc import Collection, Sequence
from datetime import datetime, timedelta

from newknot.core.login import EarlierSecret

KEEP_DAYS_MOST = 36_500


def past_retention(
    history: Sequence[EarlierSecret],
    *,
    keep_days: int,
    history_depth: int,
    held: Collection[str],
    now: datetime,
) -> tuple[EarlierSecret, ...]:
    """Those that ended more than `keep_days` ago; none where that is 0 (for ever).

    Kept in any case: the newest `history_depth` that served, which the site may remember, those
    whose id is in `held` (of an open rotation), and those of another copy that are not settled.
    """
    if not keep_days:
        return ()
    last = now - timedelta(days=keep_days)
    served = sorted(
        (e for e in history if e.used and not e.field), key=lambda e: e.place, reverse=True
    )
    remembered = {e.earlier_id for e in served[:history_depth]}
    return tuple(
        e
        for e in history
        if not e.parted
        and e.until_at < last
        and e.earlier_id not in remembered
        and e.earlier_id not in held
    )
