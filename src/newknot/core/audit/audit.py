"""The whole check over a vault's logins: every finding, gravest first."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime
from math import log10
from typing import Protocol

from newknot.core.address import host_of
from newknot.core.audit.audited import AuditedLogin, AuditedRotation, Measured
from newknot.core.audit.breached import CorpusLookup, breached
from newknot.core.audit.finding import Finding
from newknot.core.audit.importance import importance_of
from newknot.core.audit.like_passphrase import like_passphrase
from newknot.core.audit.mailboxes import resets
from newknot.core.audit.off_policy import off_policy
from newknot.core.audit.order import urgency, why_here
from newknot.core.audit.overdue import overdue
from newknot.core.audit.plain_http import plain_http
from newknot.core.audit.reach import CordKind, Group, Reach
from newknot.core.audit.reused import reused, sharing
from newknot.core.audit.similar import resembling, similar
from newknot.core.audit.unfinished import unfinished
from newknot.core.audit.weak import weak
from newknot.core.errors import NewKnotError
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.core.strength.kept import KeptMeasure, kept

__all__ = ["AuditStopped", "AuditedLogin", "AuditedRotation", "audit"]


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
    groups: list[Group] | None = None,
    measures: Measures | None = None,
) -> list[Finding]:
    """All findings, ordered by kind × importance × reach, then guess number, then login id.

    guess_numbers, where given, is filled with login id -> guess_number_log10, and groups with the
    logins that share or resemble a secret. measures: where they were kept; else taken anew.

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
    same, alike = sharing(measured), resembling(measured)
    findings = [
        *(breached(measured, corpus) if corpus is not None else ()),
        *like_passphrase(measured),
        *weak(measured),
        *reused(same),
        *similar(alike),
        *unfinished(measured, rotations),
        *off_policy(measured),
        *overdue(measured, now),
        *plain_http(measured),
    ]
    tied = [
        *(Group(CordKind.SAME, tuple(m.login.login_id for m in group)) for group in same),
        *(
            Group(CordKind.SIMILAR, tuple(m.login.login_id for t in group for m in t.members))
            for group in alike
        ),
    ]
    if groups is not None:
        groups.extend(tied)
    return _ordered(findings, logins, tied)


def _ordered(
    findings: Sequence[Finding], logins: Sequence[AuditedLogin], tied: Sequence[Group]
) -> list[Finding]:
    links = resets(logins)
    counts = Reach(tied, links).counts()
    mailboxes = {link.by for link in links}
    weighed = {
        one.login_id: importance_of(one, resets_others=one.login_id in mailboxes) for one in logins
    }
    placed: list[tuple[float, float, str, Finding]] = []
    for finding in findings:
        importance, guess = weighed[finding.login_id]
        one = replace(finding, reach=counts.get(finding.login_id, 0))
        one = replace(one, why=why_here(one, importance, guess=guess))
        guesses = 999.0 if one.guess_number_log10 is None else one.guess_number_log10
        placed.append((-urgency(one, importance), guesses, one.login_id, one))
    return [one for *_, one in sorted(placed, key=lambda p: (*p[:3], p[3].kind.value))]


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
    return tuple(word for word in (title, user_name, host_of(address)) if word)
