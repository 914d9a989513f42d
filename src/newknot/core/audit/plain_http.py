"""Plain http: the address would send the secret in the clear."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from newknot.core.address import site_of
from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.errors import FieldInvalid


def plain_http(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each http address outside this machine."""
    for one in logins:
        login = one.login
        found = plain_http_of(login.login_id, login.address, has_secret=bool(login.secret))
        if found is not None:
            yield replace(found, guess_number_log10=one.guess_number_log10)


def plain_http_of(login_id: str, address: str, *, has_secret: bool) -> Finding | None:
    """What is to be said of one login by its address."""
    try:
        site = site_of(address)
    except FieldInvalid:
        return None
    if site is None or site.scheme != "http" or site.is_loopback:
        return None
    what = "the secret" if has_secret else "what is typed there"
    evidence = f"{site.host} is reached by http: {what} crosses the network in the clear"
    return Finding(FindingKind.PLAIN_HTTP, login_id, evidence)
