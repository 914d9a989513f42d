"""The last check's result as one sealed record, so that the worklist stands after unlock.

Findings are always computed; this is a copy for showing, replaced by each check.
"""

from datetime import datetime

from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store.documents import day, iso, packed, unpacked
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.vault import CARD, Transaction, Vault, new_id


def put_check(tx: Transaction, vault: Vault, result: CheckResult) -> None:
    """Writes the result over the former one."""
    document = {
        "checked_at": iso(result.checked_at),
        "checked_count": result.checked_count,
        "unread": list(result.unread),
        "asked": [
            [a.name, iso(a.dated_on), a.unique_count, a.unchecked_count, a.reason, a.sent_count]
            for a in result.asked
        ],
        "findings": [
            [
                *(f.kind.value, f.login_id, f.evidence, list(f.others)),
                *(f.guess_number_log10, f.reach, f.urgency, f.why),
            ]
            for f in result.findings
        ],
        "guess_numbers": result.guess_numbers,
        "former": None
        if result.former is None
        else [[kind.value, login_id] for kind, login_id in sorted(result.former)],
        "groups": [[group.kind.value, list(group.login_ids)] for group in result.groups],
        "first_found": {i: iso(at) for i, at in result.first_found.items()},
        "earlier": [[iso(s.checked_at), s.counts] for s in result.earlier],
    }
    ids = vault.ids(Label.CHECK)
    tx.put(Label.CHECK, ids[0] if ids else new_id(), packed(document))


def get_check(vault: Vault) -> CheckResult | None:
    """The last result, or None before the first check (or where it is damaged: check again)."""
    ids = vault.ids(Label.CHECK)
    if not ids:
        return None
    try:
        return vault.decoded(Label.CHECK, ids[0], CARD, _result_of)
    except RecordDamaged:
        return None


def _result_of(text: bytes) -> CheckResult:
    d = unpacked(text)
    return CheckResult(
        checked_at=datetime.fromisoformat(d["checked_at"]),
        checked_count=d["checked_count"],
        unread=tuple(d["unread"]),
        asked=tuple(
            ListAsked(name, day(dated_on), *rest) for name, dated_on, *rest in d.get("asked", ())
        ),
        findings=tuple(
            Finding(FindingKind(kind), login_id, evidence, tuple(others), *rest)
            for kind, login_id, evidence, others, *rest in d["findings"]
        ),
        guess_numbers=d["guess_numbers"],
        former=None
        if d.get("former") is None
        else frozenset((FindingKind(kind), login_id) for kind, login_id in d["former"]),
        # Results of before there were any have none.
        groups=tuple(
            Group(CordKind(kind), tuple(login_ids)) for kind, login_ids in d.get("groups", ())
        ),
        earlier=tuple(
            CheckSummary(datetime.fromisoformat(at), counts) for at, counts in d["earlier"]
        ),
        first_found={i: datetime.fromisoformat(at) for i, at in d.get("first_found", {}).items()},
    )
