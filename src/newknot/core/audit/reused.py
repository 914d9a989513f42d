"""Reused: the same secret at more than one login."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind


def by_secret(logins: Sequence[Measured]) -> list[list[Measured]]:
    """The logins of each secret that there is; linear in logins."""
    groups: dict[str, list[Measured]] = {}
    for one in logins:
        secret = one.login.secret
        if secret is not None and (text := secret.reveal()):
            groups.setdefault(text, []).append(one)
    return list(groups.values())


def reused(group: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login of a group that shares a secret."""
    if group:
        ids = tuple(one.login.login_id for one in group)[:50]
        # From when the second of them had it.
        since = sorted(one.login.secret_since_at for one in group)[1]
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
                f"Same as {named}{ending}, since {since:%B %Y}",
                others=ids,
                guess_number_log10=one.guess_number_log10,
            )
