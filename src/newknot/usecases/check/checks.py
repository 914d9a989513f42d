"""The check of the whole vault, and what of its result still holds."""

import gc
from collections.abc import Callable, Collection, Mapping, Sequence
from datetime import datetime, timedelta
from threading import Lock

from newknot.core.audit import (
    AuditedLogin,
    AuditedRotation,
    AuditStopped,
    Finding,
    audit,
)
from newknot.core.audit.changed_since import is_since
from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import wants_secret
from newknot.core.audit.memory import AuditMemory
from newknot.core.audit.reach import Group
from newknot.core.audit.worklist import Need, to_set_right
from newknot.core.login import LoginCard
from newknot.core.policy import NamedPolicy
from newknot.core.rotation import OPEN_STATES
from newknot.store.checks import get_check, put_check
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_card, list_secrets
from newknot.store.manifest import Label
from newknot.store.policies import list_policies
from newknot.store.rotations import list_rotations
from newknot.store.vault import Vault
from newknot.usecases.check.audited import audited
from newknot.usecases.check.corpora import AskedList
from newknot.usecases.check.kept_measures import KeptMeasures
from newknot.usecases.check.reach import reset_by
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.policies import NamedPolicies
from newknot.usecases.progress import Progress

__all__ = ["CheckMemory", "get_check", "run_check"]

SUMMARIES_KEPT = 200
MET_KEPT = timedelta(days=2)
"""What was set right is told on its day."""
KEPT_EACH = 2_000
"""After so many logins measured, what is known of them is written."""
_RESTS_ON = (Label.POLICY, Label.PASSPHRASES, Label.OWN_DETAILS)


class CheckMemory:
    """The logins as last checked, by their revisions, so that only what changed is read again.

    It holds secrets: in memory alone, gone at the lock.
    """

    def __init__(self) -> None:
        self._lock = Lock()
        self.clear()

    def clear(self) -> None:
        """Forgets everything."""
        self.audit = AuditMemory()
        self.measures: KeptMeasures | None = None
        self._logins: dict[str, tuple[tuple[int, int], AuditedLogin]] = {}
        self._rests_on: dict[Label, dict[str, tuple[int, int]]] = {}
        self._unread: list[str] = []
        self._at = -1
        self.policies: Sequence[NamedPolicy] = ()

    def logins(self, vault: Vault, progress: Progress) -> tuple[list[AuditedLogin], list[str]]:
        """(all logins outside the bin as they are now, ids of those that cannot be read)."""
        with self._lock:
            with vault.lock:
                policies = list_policies(vault)
                counter, written = vault.counter, vault.written_since((Label.LOGIN,), self._at)
                rests_on_same = vault.written_since(_RESTS_ON, self._at) == set()
                if written is not None and rests_on_same:
                    written.update(self._unread)
                    revisions = vault.revisions_of(Label.LOGIN, written)
                    gone = written - revisions.keys()
                else:
                    of_kind = vault.revisions((Label.LOGIN, *_RESTS_ON))
                    revisions = of_kind.pop(Label.LOGIN)
                    if of_kind != self._rests_on:
                        self.clear()
                        self._rests_on = of_kind
                    gone = self._logins.keys() - revisions.keys()
            if self.measures is None:
                self.measures = KeptMeasures(vault)
            known = self._logins
            changed = [i for i, at in revisions.items() if i not in known or known[i][0] != at]
            for one in gone:
                known.pop(one, None)
            policy_of = NamedPolicies(policies).of
            self._unread = self._read(vault, changed, revisions, policy_of, progress)
            self._at, self.policies = counter, policies
            return [known[one][1] for one in sorted(known)], self._unread

    def _read(
        self,
        vault: Vault,
        login_ids: Sequence[str],
        revisions: dict[str, tuple[int, int]],
        policy_of: Callable[[str], NamedPolicy | None],
        progress: Progress,
    ) -> list[str]:
        assert self.measures is not None
        unread: list[str] = []
        cards: dict[str, LoginCard] = {}
        for login_id in login_ids:
            self._logins.pop(login_id, None)
            try:
                card = get_card(vault, login_id)
            except (RecordDamaged, RecordMissing):
                unread.append(login_id)
                continue
            if card.deleted_at is None:
                cards[login_id] = card
        for login_id, held in list_secrets(vault, list(cards)):
            if not progress.step(0, len(login_ids)):
                raise AuditStopped()
            if held is None:
                unread.append(login_id)
                continue
            card = cards[login_id]
            likeness = self.measures.passphrase_likeness(login_id, held.secret, held.origin)
            login = audited(card, held, policy_of(card.address), likeness)
            self._logins[login_id] = (revisions[login_id], login)
        return unread


def run_check(
    vault: Vault,
    *,
    lists: Sequence[AskedList],
    progress: Progress,
    now: datetime,
    memory: CheckMemory | None = None,
    not_asked: Sequence[ListAsked] = (),
) -> CheckResult:
    """Checks every login outside the bin; with a memory, only what changed since is asked anew.

    not_asked: lists that could not be asked at all. Raises `CheckRunning`, `AuditStopped`.
    """
    memory = CheckMemory() if memory is None else memory
    with progress.of_one_act():
        try:
            return _run(vault, lists, not_asked, progress=progress, now=now, memory=memory)
        finally:
            if memory.measures is not None:
                memory.measures.end_check()
            # What is remembered lives until the lock: the collector need not walk it each time.
            gc.freeze()


def _run(
    vault: Vault,
    lists: Sequence[AskedList],
    not_asked: Sequence[ListAsked],
    *,
    progress: Progress,
    now: datetime,
    memory: CheckMemory,
) -> CheckResult:
    # What is changed while they are read counts as changed since.
    logins_changed_at = {card.login_id: card.changed_at for card in list_logins(vault)[0]}
    logins, unread = memory.logins(vault, progress)
    measures = memory.measures
    assert measures is not None
    rotations = [
        AuditedRotation(r.login_id, r.state.value, r.changed_at, r.rotation_id)
        for r in list_rotations(vault)
        if r.state in OPEN_STATES
    ]
    guess_numbers: dict[str, float] = {}
    groups: list[Group] = []
    unmeasured: list[str] = []
    ids = {login.login_id for login in logins}

    def step(done: int, total: int) -> bool:
        # What was measured is kept as it goes: a check that is begun again goes on from there.
        if done % KEPT_EACH == KEPT_EACH - 1:
            _keep(vault, measures, ids)
        return progress.step(done, total)

    try:
        findings = audit(
            logins,
            now=now,
            corpus=lists,
            rotations=rotations,
            progress=step,
            guess_numbers=guess_numbers,
            links=reset_by(vault),
            groups=groups,
            unmeasured=unmeasured,
            measures=measures,
            memory=memory.audit,
        )
    except AuditStopped:
        _keep(vault, measures, ids)
        raise
    former = get_check(vault)
    met_before: tuple[tuple[Need, str, datetime], ...] = ()
    earlier: tuple[CheckSummary, ...] = ()
    first_found: dict[str, datetime] = {}
    if former is not None:
        summary = CheckSummary(former.checked_at, counts_of(former.findings))
        earlier = (*former.earlier, summary)[-SUMMARIES_KEPT:]
        first_found = dict(former.first_found)
        met_before = _met(vault, former, findings, now=now)
    for finding in findings:
        if wants_secret(finding):
            first_found.setdefault(finding.login_id, now)
    tied = {one for group in groups for one in group.login_ids}
    result = CheckResult(
        checked_at=now,
        checked_count=len(logins),
        unread=tuple(unread),
        unmeasured=tuple(unmeasured),
        asked=(*(one.asked() for one in lists), *not_asked),
        findings=tuple(findings),
        guess_numbers=guess_numbers,
        groups=tuple(groups),
        former=None if former is None else frozenset((f.kind, f.login_id) for f in former.findings),
        earlier=earlier,
        first_found=first_found,
        secrets_since={login.login_id: login.secret_since_at for login in logins},
        policies_since={one.policy_id: one.changed_at for one in memory.policies},
        met=met_before,
        logins_changed_at=logins_changed_at,
        titles={one.login_id: one.title for one in logins if one.login_id in tied},
    )
    with vault.transaction() as tx:
        put_check(tx, vault, result)
        measures.keep(tx, ids)
    return result


def _met(
    vault: Vault, former: CheckResult, findings: Sequence[Finding], *, now: datetime
) -> tuple[tuple[Need, str, datetime], ...]:
    """What was met since the former check by a change of its login, and before it some days ago."""
    known = [one for one in former.met if now - one[2] < MET_KEPT]
    left = to_set_right(findings)
    if left >= to_set_right(former.findings):
        return tuple(known)
    cards = {card.login_id: card for card in list_logins(vault)[0]}
    return (*known, *met_since(former, left, cards))


def met_since(
    result: CheckResult, left: Collection[tuple[Need, str]], cards: Mapping[str, LoginCard]
) -> list[tuple[Need, str, datetime]]:
    """The needs that a check found and a change of their login met. left: those that stand."""
    return [
        (need, one, cards[one].changed_at)
        for need, one in sorted(to_set_right(result.findings).difference(left))
        if one in cards and cards[one].changed_at > result.checked_at
    ]


def _keep(vault: Vault, measures: KeptMeasures, login_ids: set[str]) -> None:
    with vault.transaction() as tx:
        measures.keep(tx, login_ids)


def counts_of(findings: Sequence[Finding]) -> dict[str, int]:
    """How many findings of each kind there are."""
    counts: dict[str, int] = {}
    for finding in findings:
        counts[finding.kind.value] = counts.get(finding.kind.value, 0) + 1
    return counts


def renewal(result: CheckResult, cards: Sequence[LoginCard]) -> tuple[int, int]:
    """(logins renewed since a check first found something that a new secret settles, all such).

    One whose new secret was found wanting again does not count as renewed.
    """
    found = [card for card in cards if card.login_id in result.first_found]
    newer = {c.login_id: c for c in found if c.secret_since_at > result.first_found[c.login_id]}
    wanting = {f.login_id for f in result.findings if f.login_id in newer and wants_secret(f)}
    renewed = [one for one in newer if one not in wanting or is_since(newer[one], result)]
    return len(renewed), len(found)
