"""Overdue: the login's own expiry day, or the greatest age that its site allows, has passed."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import date, datetime

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.rotation.due import Due, due_on, how_due


def overdue(logins: Sequence[Measured], today: date) -> Iterator[Finding]:
    """One finding for each login whose day is over; on the day itself it is only due."""
    for one in logins:
        login = one.login
        if not login.secret:
            continue
        found = overdue_of(
            login.login_id,
            expires_on=login.expires_on,
            since_at=login.secret_since_at,
            max_age_days=login.max_age_days,
            today=today,
        )
        if found is not None:
            yield replace(found, guess_number_log10=one.guess_number_log10)


def overdue_of(
    login_id: str,
    *,
    expires_on: date | None,
    since_at: datetime,
    max_age_days: int | None,
    today: date,
) -> Finding | None:
    """What is to be said of one login by its days; None where none of them is over."""
    own = due_on(expires_on, since_at, None)
    asked = due_on(None, since_at, max_age_days)
    if how_due(own, today) is Due.OVERDUE:
        evidence, basis = f"Expired on {own:%-d %B %Y}, a day you set", f"{own}"
    elif asked is not None and how_due(asked, today) is Due.OVERDUE:
        over = (today - asked).days
        evidence = f"Site asks for a change every {max_age_days} days: {over} days over"
        basis = f"every {max_age_days} days"
    else:
        return None
    return Finding(FindingKind.OVERDUE, login_id, evidence, basis=basis)
