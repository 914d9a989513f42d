"""The worklist that a check leaves: by finding whole, by login in parts."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import asdict

from fastapi import APIRouter

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.check.worklist import (
    AskedOut,
    FacetIn,
    FindingRow,
    LoginIds,
    MemberOut,
    MembersIn,
    MembersOut,
    RowFinding,
    RowsIn,
    SettledOut,
    Summary,
    Worklist,
    WorkRow,
    WorkRows,
)
from newknot.api.shaping import RowMaker
from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.finding import wants_field, wants_secret
from newknot.core.audit.like_passphrase import is_of_present
from newknot.core.audit.reach import CordKind
from newknot.core.audit.worklist import Counts, Need, Row, RowKind, has_facet
from newknot.core.login import LoginCard
from newknot.core.loose_end import LooseEnd
from newknot.core.rotation import OPEN_STATES
from newknot.store.logins import get_card
from newknot.usecases.check.notices import get_notices
from newknot.usecases.check.standing import Standing, standing
from newknot.usecases.check.worklist import AsNow
from newknot.usecases.errors import NothingHeld
from newknot.usecases.rotation.rotations import list_rotations
from newknot.usecases.vault.safeguards import get_safeguards

router = APIRouter(prefix="/checks/worklist", tags=["check"])

NAMED_MOST, SETTLED_MOST = 5, 20
"""Titles of a group's members in its row; logins named of those settled today."""


@router.get("")
def worklist(work: WorkDep) -> Worklist:
    """What still stands of the last check and what came up since, gravest first."""
    found = standing(work.vault, now=work.now)
    rows = RowMaker(work.vault, now=work.now)
    findings = [
        _loose_end(f, found.loose_ends[f.login_id])
        if f.login_id in found.loose_ends
        else _row(f, found.cards[f.login_id], rows)
        for f in found.to_do
    ]
    return _basis(work, found, findings)


def worklist_basis(work: Work) -> Worklist:
    """What the check was, without its findings."""
    return _basis(work, work.keeper.worklist.as_now(work.vault, now=work.now).standing, [])


def _basis(work: Work, found: Standing, findings: list[FindingRow]) -> Worklist:
    """What the check was, with these findings."""
    result = found.result
    renewed, renewable = found.renewal
    changes = result.changes if result is not None else None
    held = get_notices(work.vault)
    return Worklist(
        checked_at=result.checked_at if result is not None else None,
        checked_count=result.checked_count if result is not None else 0,
        unread_count=len(result.unread) if result is not None else 0,
        unmeasured=[found.cards[i].title for i in result.unmeasured if i in found.cards]
        if result is not None
        else [],
        asked=[AskedOut(**asdict(one)) for one in result.asked] if result is not None else [],
        findings=findings,
        changed_count=found.changed_count,
        policies_changed=found.policies_changed,
        found_count=len(result.findings) if result is not None else 0,
        renewed_count=renewed,
        renewable_count=renewable,
        waived_count=len(found.accepted),
        new_count=changes[0] if changes else None,
        gone_count=changes[1] if changes else None,
        notices_used=get_safeguards(work.vault).feed_used,
        notices_at=held.fetched_at if held is not None else None,
        earlier=[Summary(checked_at=s.checked_at, counts=s.counts) for s in result.earlier]
        if result is not None
        else [],
    )


@router.post("/rows")
def worklist_rows(body: RowsIn, work: WorkDep) -> WorkRows:
    """The worklist by login: a part of its rows, those to be seen to first at the top."""
    held = work.keeper.worklist.as_now(work.vault, now=work.now)
    counts, rows = held.worklist.counts, held.worklist.with_facet(body.facet)
    open_rotations = {
        r.login_id: r.rotation_id for r in list_rotations(work.vault) if r.state in OPEN_STATES
    }
    return WorkRows(
        basis=_basis(work, held.standing, []),
        total=len(rows),
        first_rows=sum(row.is_first for row in rows),
        rows=[
            _work_row(row, held, open_rotations)
            for row in rows[body.offset : body.offset + body.limit]
        ],
        logins=counts.logins,
        first=counts.first,
        by_need={need.value: n for need, n in counts.by_need.items()},
        by_kind={kind.value: n for kind, n in counts.by_kind.items()},
        rotations=counts.rotations,
        rotations_here=_rotations(counts, body.facet),
        settled_by_rotations=counts.settled_by_rotations,
        settled_today_count=len(held.settled_today),
        settled_today=[SettledOut(**asdict(one)) for one in held.settled_today[:SETTLED_MOST]],
    )


def _rotations(counts: Counts, facet: Need | FindingKind | None) -> int:
    """How many logins a campaign over a facet would rotate."""
    if facet is None:
        return counts.rotations
    if facet is Need.NEW_SECRET:
        return counts.by_need.get(facet, 0)
    return counts.rotations_by.get(facet, 0) if isinstance(facet, FindingKind) else 0


@router.post("/members")
def worklist_members(body: MembersIn, work: WorkDep) -> MembersOut:
    """The logins within the row of a group."""
    held = work.keeper.worklist.as_now(work.vault, now=work.now)
    row = next((row for row in held.worklist.rows if row.row_id == body.row_id), None)
    if row is None:
        raise NothingHeld()
    members = row.login_ids[body.offset : body.offset + body.limit]
    return MembersOut(total=len(row.login_ids), members=[_member(one, held) for one in members])


@router.post("/logins")
def worklist_logins(body: FacetIn, work: WorkDep) -> LoginIds:
    """The logins of a facet or a row for which a new secret settles something."""
    held = work.keeper.worklist.as_now(work.vault, now=work.now)
    if body.sharing_with is not None:
        one = body.sharing_with
        get_card(work.vault, one)
        others = (other for other in held.sharing.get(one, ()) if other != one)
        return LoginIds(login_ids=[one, *others])
    rows = held.worklist.with_facet(body.facet)
    found = [
        one
        for row in rows
        if body.row_id in (None, row.row_id)
        for one in row.login_ids
        if _fits(held.worklist.findings[one], body.facet)
    ]
    return LoginIds(login_ids=found)


@router.get("/{login_id}")
def findings_of_login(login_id: str, work: WorkDep) -> list[RowFinding]:
    """What stands to be done for one login, gravest first."""
    get_card(work.vault, login_id)
    held = work.keeper.worklist.as_now(work.vault, now=work.now)
    found = held.worklist.findings.get(login_id, ())
    return _row_findings(found)


def _row_findings(findings: Sequence[Finding]) -> list[RowFinding]:
    return [
        RowFinding(
            kind=f.kind,
            evidence=f.evidence,
            why=f.why,
            by_new_secret=wants_secret(f) and not wants_field(f),
            by_passphrase=is_of_present(f),
        )
        for f in findings
    ]


def _fits(findings: Sequence[Finding], facet: Need | FindingKind | None) -> bool:
    return (facet is None or has_facet(findings, facet)) and any(map(wants_secret, findings))


def _work_row(row: Row, held: AsNow, open_rotations: Mapping[str, str]) -> WorkRow:
    first = row.login_ids[0]
    findings = _row_findings(row.findings)
    of_group = row.kind is RowKind.GROUP
    cards = held.standing.cards
    values: dict[str, object] = {
        "row_id": row.row_id,
        "kind": row.kind,
        "login_id": first,
        "loose_end_id": None,
        "rotation_id": open_rotations.get(first) if not of_group else None,
        "says": _of_group(row) if of_group else "",
        "findings": findings,
        "needs": list(row.needs),
        "is_first": row.is_first,
        "count": len(row.login_ids),
        "size": row.size,
        "members": [cards[one].title for one in row.login_ids[:NAMED_MOST]] if of_group else [],
        "elsewhere": [cards[one].title for one in row.elsewhere[:NAMED_MOST]],
        "shares_count": len(held.sharing.get(first, (first,))) - 1 if not of_group else 0,
    }
    if row.kind is RowKind.LOOSE_END:
        one = held.standing.loose_ends[first]
        return WorkRow(
            **{**values, "login_id": None, "loose_end_id": one.loose_end_id},
            title="Loose end",
            user_name=one.address,
            importance="normal",
            guess_number_log10=None,
            since_at=one.handed_out_at,
            reach=0,
        )
    card = cards[first]
    guesses = [
        f.guess_number_log10
        for f in held.worklist.findings[first]
        if f.guess_number_log10 is not None
    ]
    return WorkRow(
        **values,
        title=card.title,
        user_name=card.user_name,
        importance=card.importance.value,
        guess_number_log10=min(guesses, default=None),
        since_at=card.secret_since_at,
        reach=max(f.reach for f in held.worklist.findings[first]),
    )


def _of_group(row: Row) -> str:
    if row.cord is CordKind.SIMILAR:
        return f"{row.size:,} logins have similar secrets"
    said = next(f.evidence for f in row.findings if f.kind is FindingKind.REUSED)
    since = said.rpartition(", since ")[2]
    dated = re.fullmatch(r"[A-Z][a-z]+ \d{4}", since)
    return f"{row.size:,} logins share one secret" + (f", since {since}" if dated else "")


def _member(login_id: str, held: AsNow) -> MemberOut:
    card, findings = held.standing.cards[login_id], held.worklist.findings[login_id]
    return MemberOut(
        login_id=login_id,
        title=card.title,
        user_name=card.user_name,
        importance=card.importance.value,
        kinds=list(dict.fromkeys(f.kind for f in findings)),
        since_at=card.secret_since_at,
        reach=max(f.reach for f in findings),
    )


def _row(finding: Finding, card: LoginCard, rows: RowMaker) -> FindingRow:
    return FindingRow(
        kind=finding.kind,
        login_id=card.login_id,
        loose_end_id=None,
        title=card.title,
        user_name=card.user_name,
        importance=card.importance.value,
        evidence=finding.evidence,
        others=list(finding.others),
        guess_number_log10=finding.guess_number_log10,
        since_at=card.secret_since_at,
        rotation_id=rows.rotation_ids.get(card.login_id),
        reach=finding.reach,
        why=finding.why,
    )


def _loose_end(finding: Finding, one: LooseEnd) -> FindingRow:
    return FindingRow(
        kind=finding.kind,
        login_id=None,
        loose_end_id=one.loose_end_id,
        title="Loose end",
        user_name=one.address,
        importance="normal",
        evidence=finding.evidence,
        others=[],
        guess_number_log10=None,
        since_at=one.handed_out_at,
        rotation_id=None,
        reach=0,
        why=finding.why,
    )
