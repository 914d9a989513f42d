"""The last check's result as one sealed record, so that the worklist stands after unlock.

Findings are always computed; this is a copy for showing, replaced by each check: whole, or by what
differs from the last that was written whole.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime
from functools import partial
from operator import attrgetter, itemgetter
from typing import Any, TypeVar

from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import Finding, FindingKind, parts_of
from newknot.core.audit.reach import CordKind, Group
from newknot.core.audit.worklist import Need
from newknot.store.check_delta import delta_of, with_delta
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import column, day, iso, packed, unpacked
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
        # Few findings are of a further secret: these by their place, beside the table of all.
        "parts": [
            [at, [_part_row(part) for part in parts_of(finding)]]
            for at, finding in enumerate(result.findings)
            if finding.parts or finding.field_name
        ],
        "met": [[need, login_id, iso(at)] for need, login_id, at in result.met],
        "policies_since": None
        if result.policies_since is None
        else [[one, iso(at)] for one, at in result.policies_since.items()],
    }


def _part_row(part: Finding) -> list[Any]:
    said = (part.evidence, part.said_once, part.field_name, part.field_id)
    return [*said, list(part.others), part.guess_number_log10, part.basis]


def _document(result: CheckResult) -> dict[str, Any]:
    """Logins, sentences, moments and groups of logins are written once, and by their place after;
    of each table its columns, which are read sooner than as many rows.
    """
    places, texts, sets = _Places[str](), _Places[str](), _Places[tuple[str, ...]]()
    moments = _Places[datetime]()
    of = result.findings
    document = {
        **_head(result),
        "findings": [
            column(of, attrgetter("kind")),
            column(of, lambda f: places[f.login_id]),
            column(of, lambda f: texts[f.evidence]),
            column(of, lambda f: sets[f.others]),
            column(of, attrgetter("guess_number_log10")),
            column(of, attrgetter("reach")),
            column(of, attrgetter("urgency")),
            column(of, lambda f: texts[f.why]),
            column(of, lambda f: texts[f.basis]),
        ],
        "guess_numbers": [
            column(result.guess_numbers, places.__getitem__),
            list(result.guess_numbers.values()),
        ],
        "former": None
        if result.former is None
        else [
            column(result.former, itemgetter(0)),
            column(result.former, lambda one: places[one[1]]),
        ],
        "groups": [
            column(result.groups, attrgetter("kind")),
            column(result.groups, lambda g: column(g.login_ids, places.__getitem__)),
        ],
        "first_found": [
            column(result.first_found, places.__getitem__),
            column(result.first_found.values(), moments.__getitem__),
        ],
        "secrets_since": [
            column(result.secrets_since, places.__getitem__),
            column(result.secrets_since.values(), moments.__getitem__),
        ],
        "logins_changed_at": [
            column(result.logins_changed_at, places.__getitem__),
            column(result.logins_changed_at.values(), moments.__getitem__),
        ],
        "titles": [column(result.titles, places.__getitem__), list(result.titles.values())],
    }
    document["sets"] = column(sets, lambda ids: column(ids, places.__getitem__))
    document["moments"] = [iso(at) for at in moments]
    # Not as `texts`: by these earlier programs know a form that they read, and would read it wrong.
    document["sentences"] = list(texts)
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
    return base if found is None else _with_parts(replace(found, **_head_of(d)), d)


def _with_parts(result: CheckResult, d: dict[str, Any]) -> CheckResult:
    """The findings with what is found of each secret; earlier programs wrote none of it."""
    findings = list(result.findings)
    for at, rows in d.get("parts", ()):
        parts = tuple(_part_of(findings[at], row) for row in rows)
        of_one = {"field_name": parts[0].field_name, "field_id": parts[0].field_id}
        said = {"parts": parts} if len(parts) > 1 else of_one
        findings[at] = replace(findings[at], said_once=parts[-1].said_once, **said)
    return replace(result, findings=tuple(findings))


def _part_of(finding: Finding, row: list[Any]) -> Finding:
    evidence, said_once, field_name, field_id, others, guesses, basis = row
    return Finding(
        finding.kind,
        finding.login_id,
        evidence,
        tuple(others),
        guesses,
        basis=basis,
        said_once=said_once,
        field_name=field_name,
        field_id=field_id,
    )


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
        "met": tuple(
            (Need(need), login_id, datetime.fromisoformat(at))
            for need, login_id, at in d.get("met", ())
        ),
        "policies_since": None
        if d.get("policies_since") is None
        else {one: datetime.fromisoformat(at) for one, at in d["policies_since"]},
    }


def _to_columns(d: dict[str, Any]) -> None:
    """The form of earlier programs, which wrote its tables row by row, in today's."""
    # The basis of a finding was left out where there was none.
    none = len(d["texts"])
    d["sentences"] = [*d["texts"], ""]
    d["findings"] = _transposed([(*row, none)[:9] for row in d["findings"]], 9)
    d["moments"] = list(dict.fromkeys(at for _, at in d["first_found"]))
    place = {at: i for i, at in enumerate(d["moments"])}
    d["first_found"] = _transposed([(one, place[at]) for one, at in d["first_found"]], 2)
    for name in ("guess_numbers", "former", "groups"):
        if d[name] is not None:
            d[name] = _transposed(d[name], 2)


def _transposed(rows: Sequence[Sequence[Any]], width: int) -> list[Sequence[Any]]:
    return list(zip(*rows, strict=True)) or [()] * width


_KINDS = {kind.value: kind for kind in FindingKind}


def _picked(logins: Sequence[str], places: Sequence[int]) -> tuple[str, ...]:
    """The logins at these places, in one step: a group of 120 stands with each of its members."""
    if len(places) < 2:
        return tuple(logins[at] for at in places)
    found: tuple[str, ...] = itemgetter(*places)(logins)
    return found


def _result_of(text: bytes) -> CheckResult | None:
    d = unpacked(text)
    if "sentences" not in d:
        if "texts" not in d:
            return None
        _to_columns(d)
    login: Callable[[int], str] = d["logins"].__getitem__
    said: Callable[[int], str] = d["sentences"].__getitem__
    sets = column(d["sets"], partial(_picked, d["logins"]))
    moments = [datetime.fromisoformat(at) for at in d["moments"]]
    kinds, of, evidence, others, guesses, reach, urgency, why, basis = d["findings"]
    measured, numbers = d["guess_numbers"]
    tied, members = d["groups"]
    found, found_at = d["first_found"]
    # Earlier programs wrote none.
    seen, since = d.get("secrets_since", ((), ()))
    changed, changed_at = d.get("logins_changed_at", ((), ()))
    named, titles = d.get("titles", ((), ()))
    former = d["former"]
    result = CheckResult(
        **_head_of(d),
        findings=tuple(
            map(
                Finding,
                map(_KINDS.__getitem__, kinds),
                map(login, of),
                map(said, evidence),
                map(sets.__getitem__, others),
                guesses,
                reach,
                urgency,
                map(said, why),
                map(said, basis),
            )
        ),
        guess_numbers=dict(zip(map(login, measured), numbers, strict=True)),
        former=None
        if former is None
        else frozenset(zip(map(_KINDS.__getitem__, former[0]), map(login, former[1]), strict=True)),
        groups=tuple(
            Group(CordKind(kind), _picked(d["logins"], one))
            for kind, one in zip(tied, members, strict=True)
        ),
        first_found=dict(zip(map(login, found), map(moments.__getitem__, found_at), strict=True)),
        secrets_since=dict(zip(map(login, seen), map(moments.__getitem__, since), strict=True)),
        titles=dict(zip(map(login, named), titles, strict=True)),
        logins_changed_at=dict(
            zip(map(login, changed), map(moments.__getitem__, changed_at), strict=True)
        ),
    )
    return _with_parts(result, d)
