"""The last check's result as one sealed record, so that the worklist stands after unlock.

Findings are always computed; this is a copy for showing, replaced by each check: whole, or by what
differs from the last that was written whole.
"""

from dataclasses import replace
from datetime import datetime
from functools import partial
from typing import Any, TypeVar

from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store.check_delta import delta_of, with_delta
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import day, iso, packed, unpacked
from newknot.store.vault import CARD, SECRETS, Transaction, Vault, new_id

_K = TypeVar("_K")
DELTA = SECRETS
"""The part of the record that holds what differs."""


class _Places(dict[_K, int]):
    """What is written once: each gets the next place when it is first asked for."""

    def __missing__(self, key: _K) -> int:
        self[key] = place = len(self)
        return place


def put_check(tx: Transaction, vault: Vault, result: CheckResult) -> None:
    """Writes the result over the former one."""
    ids = vault.ids(Label.CHECK)
    record_id = ids[0] if ids else new_id()
    base = _whole(vault, record_id) if ids else None
    delta = delta_of(base, result) if base is not None else None
    if delta is not None:
        text = packed({**_head(result), **delta})
        tx.put(Label.CHECK, record_id, text, part=DELTA, decoded=result)
        return
    tx.put(Label.CHECK, record_id, packed(_document(result)), decoded=result)
    if ids:
        tx.put(Label.CHECK, record_id, packed({}), part=DELTA, decoded=result)


def _head(result: CheckResult) -> dict[str, Any]:
    """What is short, or of this check alone."""
    return {
        "checked_at": iso(result.checked_at),
        "checked_count": result.checked_count,
        "unread": list(result.unread),
        "unmeasured": list(result.unmeasured),
        "asked": [
            [a.name, iso(a.dated_on), a.unique_count, a.unchecked_count, a.reason, a.sent_count]
            for a in result.asked
        ],
        "earlier": [[iso(s.checked_at), s.counts] for s in result.earlier],
    }


def _document(result: CheckResult) -> dict[str, Any]:
    """Logins, sentences and groups of logins are written once, and by their place after."""
    places, texts, sets = _Places[str](), _Places[str](), _Places[tuple[str, ...]]()
    moments = {at: iso(at) for at in set(result.first_found.values())}
    document = {
        **_head(result),
        "findings": [
            [
                *(f.kind, places[f.login_id], texts[f.evidence], sets[f.others]),
                *(f.guess_number_log10, f.reach, f.urgency, texts[f.why], texts[f.basis]),
            ]
            for f in result.findings
        ],
        "guess_numbers": [[places[one], guesses] for one, guesses in result.guess_numbers.items()],
        "former": None
        if result.former is None
        else [[kind, places[login_id]] for kind, login_id in result.former],
        "groups": [[g.kind, [places[one] for one in g.login_ids]] for g in result.groups],
        "first_found": [
            [places[one], moments[found_at]] for one, found_at in result.first_found.items()
        ],
    }
    document["sets"] = [[places[one] for one in login_ids] for login_ids in sets]
    document["texts"] = list(texts)
    document["logins"] = list(places)
    return document


def get_check(vault: Vault) -> CheckResult | None:
    """The last result; None before the first check, and where it is damaged or of an earlier form:
    check again.
    """
    ids = vault.ids(Label.CHECK)
    base = _whole(vault, ids[0]) if ids else None
    if base is None:
        return None
    try:
        return vault.decoded(Label.CHECK, ids[0], DELTA, partial(_differing, base))
    except RecordMissing:
        return base
    except RecordDamaged:
        return None


def _whole(vault: Vault, record_id: str) -> CheckResult | None:
    """The last result that was written whole."""
    try:
        return vault.decoded(Label.CHECK, record_id, CARD, _result_of)
    except RecordDamaged:
        return None


def _differing(base: CheckResult, text: bytes) -> CheckResult:
    d = unpacked(text)
    found = with_delta(base, d)
    return base if found is None else replace(found, **_head_of(d))


def _head_of(d: dict[str, Any]) -> dict[str, Any]:
    return {
        "checked_at": datetime.fromisoformat(d["checked_at"]),
        "checked_count": d["checked_count"],
        "unread": tuple(d["unread"]),
        "unmeasured": tuple(d.get("unmeasured", ())),
        "asked": tuple(
            ListAsked(name, day(dated_on), *rest) for name, dated_on, *rest in d["asked"]
        ),
        "earlier": tuple(
            CheckSummary(datetime.fromisoformat(at), counts) for at, counts in d["earlier"]
        ),
    }


def _result_of(text: bytes) -> CheckResult | None:
    d = unpacked(text)
    if "texts" not in d:
        return None
    logins: list[str] = d["logins"]
    texts: list[str] = d["texts"]
    sets = [tuple(logins[at] for at in one) for one in d["sets"]]
    return CheckResult(
        **_head_of(d),
        findings=tuple(
            Finding(
                FindingKind(kind),
                logins[at],
                texts[evidence],
                sets[others],
                guesses,
                reach,
                urgency,
                texts[why],
                *(texts[basis] for basis in basis_at),
            )
            for kind, at, evidence, others, guesses, reach, urgency, why, *basis_at in d["findings"]
        ),
        guess_numbers={logins[at]: guesses for at, guesses in d["guess_numbers"]},
        former=None
        if d["former"] is None
        else frozenset((FindingKind(kind), logins[at]) for kind, at in d["former"]),
        groups=tuple(
            Group(CordKind(kind), tuple(logins[at] for at in members))
            for kind, members in d["groups"]
        ),
        first_found={logins[at]: datetime.fromisoformat(found) for at, found in d["first_found"]},
    )
