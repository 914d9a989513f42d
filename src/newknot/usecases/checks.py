"""The check of the whole vault, and what of its result still holds."""

from datetime import datetime

from newknot.core.audit import AuditedLogin, AuditedRotation, Finding, audit
from newknot.core.audit.check_result import CheckResult, CheckSummary
from newknot.core.audit.reach import Group
from newknot.core.login import LoginCard, Origin
from newknot.core.policy import NamedPolicy
from newknot.core.rotation import OPEN_STATES
from newknot.core.secret import Secret
from newknot.store.checks import get_check, put_check
from newknot.store.corpus import Corpus
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_secrets
from newknot.store.passphrases import get_passphrases
from newknot.store.policies import list_policies
from newknot.store.rotations import list_rotations
from newknot.store.vault import Vault
from newknot.usecases.errors import CheckRunning
from newknot.usecases.logins import list_logins
from newknot.usecases.measuring import KeptMeasures
from newknot.usecases.policies import NamedPolicies
from newknot.usecases.progress import Progress
from newknot.usecases.vault_passphrase import passphrase_likeness

__all__ = ["current_findings", "get_check", "run_check"]

SUMMARIES_KEPT = 200


def run_check(
    vault: Vault, *, corpus: Corpus | None, progress: Progress, now: datetime
) -> CheckResult:
    """Checks every login outside the bin. Raises `CheckRunning`, `AuditStopped`."""
    if progress.running:
        raise CheckRunning()
    progress.begin()
    try:
        return _run(vault, corpus=corpus, progress=progress, now=now)
    finally:
        progress.end()


def _run(vault: Vault, *, corpus: Corpus | None, progress: Progress, now: datetime) -> CheckResult:
    cards, damaged = list_logins(vault)
    unread = list(damaged)
    policies = NamedPolicies(list_policies(vault))
    passphrases = get_passphrases(vault)
    logins: list[AuditedLogin] = []
    for card in cards:
        try:
            held = get_secrets(vault, card.login_id)
        except (RecordDamaged, RecordMissing):
            unread.append(card.login_id)
            continue
        named = policies.of(card.address)
        likeness = passphrase_likeness(vault, held.secret, held.origin, passphrases)
        logins.append(audited(card, held.secret, held.origin, named, likeness))
    rotations = [
        AuditedRotation(r.login_id, r.state.value, r.changed_at)
        for r in list_rotations(vault)
        if r.state in OPEN_STATES
    ]
    guess_numbers: dict[str, float] = {}
    groups: list[Group] = []
    measures = KeptMeasures(vault)
    findings = audit(
        logins,
        now=now,
        corpus=corpus,
        rotations=rotations,
        progress=progress.step,
        guess_numbers=guess_numbers,
        groups=groups,
        measures=measures,
    )
    former = get_check(vault)
    earlier: tuple[CheckSummary, ...] = ()
    if former is not None:
        summary = CheckSummary(former.checked_at, counts_of(former.findings))
        earlier = (*former.earlier, summary)[-SUMMARIES_KEPT:]
    title = corpus.title if corpus is not None else None
    result = CheckResult(
        checked_at=now,
        checked_count=len(logins),
        unread=tuple(unread),
        corpus_name=title.name if title is not None else None,
        corpus_dated_on=title.dated_on if title is not None else None,
        corpus_count=title.unique_count if title is not None else None,
        findings=tuple(findings),
        guess_numbers=guess_numbers,
        groups=tuple(groups),
        former=None if former is None else frozenset((f.kind, f.login_id) for f in former.findings),
        earlier=earlier,
    )
    with vault.transaction() as tx:
        put_check(tx, vault, result)
        measures.keep(tx)
    return result


def audited(
    card: LoginCard,
    secret: Secret,
    origin: Origin,
    named: NamedPolicy | None = None,
    passphrase_likeness: str = "",
) -> AuditedLogin:
    """A login as the audit wants it."""
    return AuditedLogin(
        login_id=card.login_id,
        title=card.title,
        user_name=card.user_name,
        address=card.address,
        importance=card.importance,
        expires_on=card.expires_on,
        max_age_days=named.policy.max_age_days if named is not None else None,
        secret=secret if len(secret) else None,
        origin=origin,
        secret_since_at=card.secret_since_at,
        resets_by=card.resets_by,
        policy=named.policy if named is not None else None,
        policy_name=named.name if named is not None else "",
        passphrase_likeness=passphrase_likeness,
    )


def counts_of(findings: tuple[Finding, ...]) -> dict[str, int]:
    """How many findings of each kind there are."""
    counts: dict[str, int] = {}
    for finding in findings:
        counts[finding.kind.value] = counts.get(finding.kind.value, 0) + 1
    return counts


def current_findings(
    result: CheckResult, cards: list[LoginCard]
) -> tuple[list[Finding], list[Finding]]:
    """(those that still stand, those whose login changed or went away since the check)."""
    changed_at = {card.login_id: card.secret_since_at for card in cards}
    standing: list[Finding] = []
    settled: list[Finding] = []
    for finding in result.findings:
        at = changed_at.get(finding.login_id)
        gone = at is None or at > result.checked_at
        (settled if gone else standing).append(finding)
    return standing, settled
