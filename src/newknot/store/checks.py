"""The last check's result as one sealed record, so that the worklist stands after unlock.

Findings are always computed; this is a copy for showing, replaced by each check.
"""

from datetime import datetime

from newknot.core.audit.check_result import CheckResult, CheckSummary
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store.documents import day, iso, packed, unpacked
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.vault import Transaction, Vault, new_id


def put_check(tx: Transaction, vault: Vault, result: CheckResult) -> None:
    """Writes the result over the former one."""
    document = {
        "checked_at": iso(result.checked_at),
        "checked_count": result.checked_count,
        "unread": list(result.unread),
        "corpus": [result.corpus_name, iso(result.corpus_dated_on), result.corpus_count],
        "findings": [
            [
                *(f.kind.value, f.login_id, f.evidence, list(f.others)),
                *(f.guess_number_log10, f.reach, f.why),
            ]
            for f in result.findings
        ],
        "guess_numbers": result.guess_numbers,
        "former": None
        if result.former is None
        else [[kind.value, login_id] for kind, login_id in sorted(result.former)],
        "groups": [[group.kind.value, list(group.login_ids)] for group in result.groups],
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
        d = unpacked(vault.get(Label.CHECK, ids[0]))
    except RecordDamaged:
        return None
    name, dated_on, count = d["corpus"]
    return CheckResult(
        checked_at=datetime.fromisoformat(d["checked_at"]),
        checked_count=d["checked_count"],
        unread=tuple(d["unread"]),
        corpus_name=name,
        corpus_dated_on=day(dated_on),
        corpus_count=count,
        findings=tuple(
            Finding(FindingKind(kind), login_id, evidence, tuple(others), guesses, *rest)
            for kind, login_id, evidence, others, guesses, *rest in d["findings"]
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
    )
