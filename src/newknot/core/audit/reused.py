"""Reused: the same secret at more than one login."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.secret import Secret


def sharing(logins: Sequence[Measured]) -> list[list[Measured]]:
    """Logins that have the same secret, two or more; linear in logins."""
    groups: dict[Secret, list[Measured]] = {}
    for one in logins:
        if one.login.secret is not None and len(one.login.secret):
            groups.setdefault(one.login.secret, []).append(one)
    return [group for group in groups.values() if len(group) > 1]


def reused(groups: Sequence[list[Measured]]) -> Iterator[Finding]:
    """One finding for each login of a group that shares a secret."""
    for group in groups:
        ids = tuple(one.login.login_id for one in group)
        for one in group:
            other = next(o.login for o in group if o.login.login_id != one.login.login_id)
            more = len(group) - 2
            ending = f" and {more} other{'s' if more > 1 else ''}" if more else ""
            named = (
                other.title
                if other.title != one.login.title
                else f"{other.title}, {other.user_name}"
            )
            yield Finding(
                FindingKind.REUSED,
                one.login.login_id,
                f"Same as {named}{ending}",
                others=ids if len(group) <= 50 else ids[:50],
                guess_number_log10=one.guess_number_log10,
            )
