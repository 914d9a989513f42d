"""The check, its progress, and the worklist that it leaves."""

from dataclasses import asdict

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.check.checks import AskedOut, FindingRow, ProgressOut, Summary, Worklist
from newknot.api.schemas.check.reach import FallOfLogin, GroupOut, KnotOut, ReachMap, ResetOut
from newknot.api.shaping import RowMaker
from newknot.core.audit import Finding
from newknot.core.audit.reach import Reach
from newknot.core.login import LoginCard
from newknot.core.loose_end import LooseEnd
from newknot.core.safeguards import Act
from newknot.store.logins import get_card
from newknot.usecases.check import checks as use
from newknot.usecases.check import reach as use_reach
from newknot.usecases.check.corpora import lists_to_ask, service_of
from newknot.usecases.check.notices import get_notices
from newknot.usecases.check.standing import standing
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.vault.safeguards import get_safeguards

router = APIRouter(prefix="/checks", tags=["check"])


@router.post("")
def run_check(work: WorkDep) -> Worklist:
    """Checks the whole vault now; answers at its end."""
    work.require(Act.CHECK)
    work.keeper.look_at_corpora()
    with service_of(work.vault, work.keeper.progress) as service:
        lists, not_asked = lists_to_ask(work.vault, work.keeper.corpora, service)
        use.run_check(
            work.vault,
            lists=lists,
            not_asked=not_asked,
            progress=work.keeper.progress,
            now=work.now,
            memory=work.keeper.checked,
        )
    return worklist(work)


@router.get("/progress")
def progress(work: WorkDep) -> ProgressOut:
    """How far the check under way is."""
    p = work.keeper.progress
    return ProgressOut(running=p.running, done=p.done, total=p.total)


@router.post("/stop", status_code=204)
def stop(work: WorkDep) -> Response:
    """Stops the check under way; the last result stays."""
    work.keeper.progress.stop()
    return Response(status_code=204)


@router.get("/reach")
def reach_map(work: WorkDep) -> ReachMap:
    """Which logins share or resemble a secret, which mailbox resets which, and what falls."""
    groups, links = use_reach.cords(work.vault)
    counts = Reach(groups, links).counts()
    cards = {card.login_id: card for card in list_logins(work.vault)[0]}
    knots = [
        KnotOut(
            login_id=login_id,
            title=cards[login_id].title,
            user_name=cards[login_id].user_name,
            importance=cards[login_id].importance.value,
            reach=count,
        )
        for login_id, count in counts.items()
    ]
    return ReachMap(
        knots=sorted(knots, key=lambda k: (-k.reach, k.title, k.login_id)),
        groups=[GroupOut(kind=g.kind, login_ids=list(g.login_ids)) for g in groups],
        resets=[ResetOut(by=r.by, of=r.of, is_guess=r.is_guess) for r in links],
    )


@router.get("/reach/{login_id}")
def reach_of_login(login_id: str, work: WorkDep) -> list[FallOfLogin]:
    """All that falls if this login falls, nearest first, with the path."""
    get_card(work.vault, login_id)
    titles = {card.login_id: card.title for card in list_logins(work.vault)[0]}
    return [
        FallOfLogin(
            login_id=fall.login_id,
            title=titles[fall.login_id],
            by=fall.by,
            after_title=None if fall.after == login_id else titles[fall.after],
        )
        for fall in use_reach.falls_with(work.vault, login_id)
    ]


@router.get("/worklist")
def worklist(work: WorkDep) -> Worklist:
    """What still stands of the last check and what came up since, gravest first."""
    found = standing(work.vault, now=work.now)
    result = found.result
    renewed, renewable = (
        use.renewal(result, list(found.cards.values())) if result is not None else (0, 0)
    )
    changes = result.changes if result is not None else None
    held = get_notices(work.vault)
    rows = RowMaker(work.vault, now=work.now)
    return Worklist(
        checked_at=result.checked_at if result is not None else None,
        checked_count=result.checked_count if result is not None else 0,
        unread_count=len(result.unread) if result is not None else 0,
        unmeasured=[found.cards[i].title for i in result.unmeasured if i in found.cards]
        if result is not None
        else [],
        asked=[AskedOut(**asdict(one)) for one in result.asked] if result is not None else [],
        findings=[
            _loose_end(f, found.loose_ends[f.login_id])
            if f.login_id in found.loose_ends
            else _row(f, found.cards[f.login_id], rows)
            for f in found.to_do
        ],
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
