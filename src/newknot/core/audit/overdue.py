"""Overdue: past the login's own expiry day, or past the greatest age the site allows."""

from collections.abc import Iterator, Sequence
from datetime import datetime

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind


def overdue(logins: Sequence[Measured], now: datetime) -> Iterator[Finding]:
    """One finding for each login that is due; the site's age is counted from the last change."""
    for one in logins:
        login = one.login
        age_days = (now - login.secret_since_at).days
        evidence = ""
        if login.expires_on is not None and login.expires_on <= now.date():
            evidence = f"Expires on {login.expires_on:%-d %B %Y}, a day you set: it is past"
        elif login.max_age_days is not None and age_days > login.max_age_days:
            over = age_days - login.max_age_days
            evidence = f"Site asks for a change every {login.max_age_days} days: {over} days over"
        if evidence:
            yield Finding(
                FindingKind.OVERDUE,
                login.login_id,
                evidence,
                guess_number_log10=one.guess_number_log10,
            )
