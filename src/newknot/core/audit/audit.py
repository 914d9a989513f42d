"""The whole check over a vault's logins: every finding, gravest first."""

from collections.abc import Callable, Sequence
from datetime import datetime
from math import log10
from typing import Protocol

from newknot.core.address import site_of
from newknot.core.audit.audited import AuditedLogin, AuditedRotation, Measured
from newknot.core.audit.breached import CorpusLookup, breached
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.like_passphrase import like_passphrase
from newknot.core.audit.off_policy import off_policy
from newknot.core.audit.overdue import overdue
from newknot.core.audit.plain_http import plain_http
from newknot.core.audit.reused import reused
from newknot.core.audit.similar import similar
from newknot.core.audit.unfinished import unfinished
from newknot.core.audit.weak import weak
from newknot.core.errors import FieldInvalid, NewKnotError
from newknot.core.login import Importance
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.core.strength.kept import KeptMeasure, kept

__all__ = ["AuditStopped", "AuditedLogin", "AuditedRotation", "audit"]

_GRAVITY = {kind: place for place, kind in enumerate(FindingKind)}
_WEIGHT = {
    Importance.CRITICAL: 0,
    Importance.HIGH: 1,
    Importance.NORMAL: 2,
    Importance.LOW: 3,
}


class Measures(Protocol):
    """Where the measures of the logins' secrets come from."""

    def of(self, login_id: str, secret: Secret, context: tuple[str, ...]) -> KeptMeasure:
        """The measure of a login's secret beside what others know of it."""


class Fresh:
    """Measures taken anew."""

    def of(self, login_id: str, secret: Secret, context: tuple[str, ...]) -> KeptMeasure:
        """The measure of the secret, as it is now."""
        return kept(measure(secret.reveal(), context))


class AuditStopped(NewKnotError):
    """The check was stopped before its end; nothing was concluded."""


def audit(
    logins: Sequence[AuditedLogin],
    *,
    now: datetime,
    corpus: CorpusLookup | None,
    rotations: Sequence[AuditedRotation] = (),
    progress: Callable[[int, int], bool] = lambda done, total: True,
    guess_numbers: dict[str, float] | None = None,
    measures: Measures | None = None,
) -> list[Finding]:
    """All findings, ordered by kind, then importance, then guess number, then login id.

    guess_numbers, where given, is filled with login id -> guess_number_log10. measures: where
    measures were kept; else each is taken anew.

    corpus None: nothing is said about breaches. progress(done, total) is called for each login
    measured; where it answers False, `AuditStopped` is raised.
    """
    measures = measures or Fresh()
    measured: list[Measured] = []
    for done, login in enumerate(logins):
        if not progress(done, len(logins)):
            raise AuditStopped()
        one = measured_login(login, measures)
        measured.append(one)
        if guess_numbers is not None and one.guess_number_log10 is not None:
            guess_numbers[login.login_id] = round(one.guess_number_log10, 2)
    findings = [
        *(breached(measured, corpus) if corpus is not None else ()),
        *like_passphrase(measured),
        *weak(measured),
        *reused(measured),
        *similar(measured),
        *unfinished(measured, rotations),
        *off_policy(measured),
        *overdue(measured, now),
        *plain_http(measured),
    ]
    importance = {one.login_id: _WEIGHT[one.importance] for one in logins}

    def order(finding: Finding) -> tuple[int, int, float, str]:
        guesses = finding.guess_number_log10
        return (
            _GRAVITY[finding.kind],
            importance[finding.login_id],
            999.0 if guesses is None else guesses,
            finding.login_id,
        )

    return sorted(findings, key=order)


def measured_login(login: AuditedLogin, measures: Measures) -> Measured:
    """The login with its guess number: the count of its draw, or the measure of its text."""
    if login.secret is None or not len(login.secret):
        return Measured(login, None, None)
    bits = login.origin.entropy_bits
    if login.origin.kind == "drawn" and bits is not None:
        return Measured(login, None, bits * log10(2))
    context = login_context(title=login.title, user_name=login.user_name, address=login.address)
    found = measures.of(login.login_id, login.secret, context)
    return Measured(login, found.reasons, found.guess_number_log10)


def login_context(*, title: str, user_name: str, address: str) -> tuple[str, ...]:
    """What the site and an acquaintance know of a login."""
    return tuple(word for word in (title, user_name, _host(address)) if word)


def _host(address: str) -> str:
    try:
        site = site_of(address)
    except FieldInvalid:
        return ""
    return site.host if site is not None else ""
