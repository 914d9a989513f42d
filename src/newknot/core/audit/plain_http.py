"""Plain http: the address would send the secret in the clear."""

from collections.abc import Iterator, Sequence

from newknot.core.address import site_of
from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.errors import FieldInvalid


def plain_http(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each http address outside this machine."""
    for one in logins:
        try:
            site = site_of(one.login.address)
        except FieldInvalid:
            continue
        if site is not None and site.scheme == "http" and not site.is_loopback:
            what = "the secret" if one.login.secret else "what is typed there"
            yield Finding(
                FindingKind.PLAIN_HTTP,
                one.login.login_id,
                f"{site.host} is reached by http: {what} crosses the network in the clear",
                guess_number_log10=one.guess_number_log10,
            )
