"""Overdue: the login's own expiry day, or the greatest age that its site allows, has passed."""

from collections.abc import Iterator, Sequence
from datetime import datetime

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.rotation.due import Due, due_on, how_due


def overdue(logins: Sequence[Measured], now: datetime) -> Iterator[Finding]:
    """One finding for each login whose day is over; on the day itself it is only due."""
    today = now.date()
    for one in logins:
        login = one.login
        since, age = login.secret_since_at, login.max_age_days
        own = due_on(login.expires_on, since, None)
        asked = due_on(None, since, age)
        if how_due(own, today) is Due.OVERDUE:
            evidence = f"Expired on {own:%-d %B %Y}, a day you set"
            basis = f"{own}"
        elif asked is not None and how_due(asked, today) is Due.OVERDUE:
            over = (today - asked).days
            evidence = f"Site asks for a change every {age} days: {over} days over"
            basis = f"every {age} days"
        else:
            continue
        yield Finding(
            FindingKind.OVERDUE,
            login.login_id,
            evidence,
            guess_number_log10=one.guess_number_log10,
            basis=basis,
        )
