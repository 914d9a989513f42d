"""The whole check over a vault's logins: every finding, gravest first."""

from collections.abc import Callable, Iterable, Sequence
from datetime import datetime
from functools import partial
from math import log10
from typing import Protocol

from newknot.core.address import host_of
from newknot.core.audit.audited import AuditedLogin, AuditedRotation, Measured
from newknot.core.audit.breached import CorpusLookup, Hit, breached, key_of, secret_digest
from newknot.core.audit.finding import Finding, FindingKind, together
from newknot.core.audit.like_passphrase import like_passphrase
from newknot.core.audit.mailboxes import Reset, resets
from newknot.core.audit.memory import AuditMemory, Seen
from newknot.core.audit.no_second_factor import no_second_factor
from newknot.core.audit.off_policy import off_policy
from newknot.core.audit.plain_http import plain_http
from newknot.core.audit.reach import CordKind, Group, Reach
from newknot.core.audit.reused import by_secret, reused, same_secret
from newknot.core.audit.similar import similar
from newknot.core.audit.unfinished import unfinished
from newknot.core.audit.weak import weak
from newknot.core.calendar_day import day_of
from newknot.core.errors import NewKnotError
from newknot.core.policy.kept_text import kept_says, kept_text
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.core.strength.kept import KeptMeasure, kept

__all__ = ["AuditStopped", "AuditedLogin", "AuditedRotation", "audit"]


_NOWHERE = 0, 0
TOLD_EACH = 512
"""Of so many logins that are not asked again, one is told to whoever watches."""


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
    corpus: CorpusLookup | Sequence[CorpusLookup] | None,
    rotations: Sequence[AuditedRotation] = (),
    progress: Callable[[int, int], bool] = lambda done, total: True,
    guess_numbers: dict[str, float] | None = None,
    groups: list[Group] | None = None,
    unmeasured: list[str] | None = None,
    measures: Measures | None = None,
    memory: AuditMemory | None = None,
    links: Sequence[Reset] | None = None,
) -> list[Finding]:
    """All findings, ordered by kind × importance × reach, then guess number, then login id.

    guess_numbers, where given, is filled with login id -> guess_number_log10, and groups with the
    logins that share or resemble a secret, and unmeasured with those whose measure failed.
    measures: where they were kept; else taken anew. links: who resets whom, where that is known.
    memory: that of the audit before; logins that are the same objects as then are not asked again.

    corpus None: nothing is said about breaches. progress(done, total) is called for each login
    measured, and now and then among those that are not asked again; where it answers False,
    `AuditStopped` is raised.
    """
    memory = AuditMemory() if memory is None else memory
    measures = measures or Fresh()
    seen: list[Seen] = []
    for done, login in enumerate(logins):
        held = memory.seen.get(login.login_id)
        is_new = held is None or held.measured.login is not login
        is_told = is_new or done % TOLD_EACH == 0 or done == len(logins) - 1
        if is_told and not progress(done, len(logins)):
            raise AuditStopped()
        if held is None or is_new:
            held = memory.seen[login.login_id] = _seen(login, measures)
        seen.append(held)
    memory.keep_only({login.login_id for login in logins})
    # The further secret fields stand beside the logins' own.
    every = [part for one in seen for part in (one, *one.fields)]
    measured = [one.measured for one in seen]
    each = [one.measured for one in every]
    if guess_numbers is not None:
        for one in seen:
            if one.rounded_log10 is not None:
                guess_numbers[one.measured.login.login_id] = one.rounded_log10
    if unmeasured is not None:
        unmeasured.extend(one.login.login_id for one in measured if one.failed)
    corpora = () if corpus is None else corpus if isinstance(corpus, Sequence) else (corpus,)
    of_secrets = by_secret(each)
    same = same_secret(of_secrets)
    alike = memory.likenesses.groups(
        (of_secrets if len(each) == len(measured) else by_secret(measured)).values()
    )
    today = day_of(now)
    findings = [
        *breached(each, _hits(every, corpora)),
        *(finding for one in every for finding in one.own),
        *(finding for one in seen for finding in one.overdue_on(today)),
        *unfinished(
            {
                r.login_id: memory.seen[r.login_id].measured.guess_number_log10
                for r in rotations
                if r.login_id in memory.seen
            },
            rotations,
        ),
    ]
    for members in same:
        find = partial(reused, members)
        findings += memory.of_group(FindingKind.REUSED, members, find)
    for group in alike:
        members = [one for text in group for one in text.members]
        findings += memory.of_group(FindingKind.SIMILAR, members, partial(similar, group))
    tied = [
        *(Group(CordKind.SAME, _logins(group)) for group in same),
        *(
            Group(CordKind.SIMILAR, _logins([m for text in group for m in text.members]))
            for group in alike
        ),
    ]
    if groups is not None:
        groups.extend(tied)
    links = resets(logins) if links is None else links
    return _ordered(one_of_each(findings), tied, links, memory)


def _logins(members: Sequence[Measured]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(one.login.login_id for one in members))


def _seen(login: AuditedLogin, measures: Measures) -> Seen:
    one = measured_login(login, measures)
    alone = (one,)
    if login.field:
        return Seen(one, tuple(weak(alone)))
    fields = tuple(_seen(field, measures) for field in login.fields)
    return Seen(
        one,
        fields=fields,
        own=(
            *like_passphrase(alone),
            *weak(alone),
            *off_policy(alone),
            *no_second_factor(alone),
            *plain_http(alone),
        ),
    )


def _hits(
    seen: Sequence[Seen], corpora: Sequence[CorpusLookup]
) -> dict[tuple[str, str], list[Hit]]:
    """By secret, which corpora hold it, or what its site keeps of it; only secrets not asked about
    before are asked.
    """
    hits: dict[tuple[str, str], list[Hit]] = {}
    for corpus in corpora:
        title = corpus.title
        unknown = [one for one in seen if title not in one.hits and one.measured.login.secret]
        asked = [digest for one in unknown for digest in _digests(one.measured.login)]
        counts = iter(corpus.occurrences_many(asked))
        for one in unknown:
            found = [next(counts) for _ in _digests(one.measured.login)]
            if all(count is not None for count in found):
                whole, *kept = (count or 0 for count in found)
                one.hits[title] = (whole, kept[0] if kept else 0)
        for one in seen:
            whole, of_kept = one.hits.get(title, _NOWHERE)
            if whole or of_kept:
                hit = (title, whole, False) if whole else (title, of_kept, True)
                hits.setdefault(key_of(one.measured.login), []).append(hit)
    return hits


def _digests(login: AuditedLogin) -> list[bytes]:
    """Of the secret as it is typed, and as it is kept where that is other."""
    assert login.secret is not None
    text = login.secret.reveal()
    return [secret_digest(one) for one in dict.fromkeys((text, kept_text(login.policy, text)))]


def one_of_each(findings: Iterable[Finding]) -> list[Finding]:
    """One finding of a kind for a login, with what its further fields add to its evidence."""
    found: dict[tuple[FindingKind, str], Finding] = {}
    for finding in findings:
        key = (finding.kind, finding.login_id)
        there = found.get(key)
        found[key] = finding if there is None else together(there, finding)
    return list(found.values())


def _ordered(
    findings: Sequence[Finding],
    tied: Sequence[Group],
    links: Sequence[Reset],
    memory: AuditMemory,
) -> list[Finding]:
    mailboxes = {link.by for link in links}
    return memory.in_order(findings, Reach(tied, links).counts(), mailboxes)


def measured_login(login: AuditedLogin, measures: Measures) -> Measured:
    """The login with its guess number: the count of its draw, or the measure of its text; of what
    its site keeps of it, where that is less.
    """
    if login.secret is None or not len(login.secret):
        return Measured(login, None, None)
    bits = login.origin.entropy_bits
    drawn_log10 = bits * log10(2) if login.origin.kind == "drawn" and bits is not None else None
    text = login.secret.reveal()
    keeps = kept_says(login.policy, text)
    if drawn_log10 is not None and not keeps:
        return Measured(login, None, drawn_log10)
    context = login_context(title=login.title, user_name=login.user_name, address=login.address)
    try:
        whose = f"{login.login_id} {login.field}" if login.field else login.login_id
        found = measures.of(whose, Secret(kept_text(login.policy, text)), context)
    except Exception:
        # Whatever is wrong with one text, the others are still to be checked.
        return Measured(login, None, None, failed=True)
    if not keeps:
        return Measured(login, found.reasons, found.guess_number_log10)
    worth = (
        found.guess_number_log10
        if drawn_log10 is None
        else min(found.guess_number_log10, drawn_log10)
    )
    return Measured(login, f"{keeps}; {found.reasons}", worth)


def login_context(*, title: str, user_name: str, address: str) -> tuple[str, ...]:
    """What the site and an acquaintance know of a login."""
    return tuple(word for word in (title, user_name, host_of(address)) if word)
