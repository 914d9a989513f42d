"""The check, its progress, and the worklist that it leaves."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.checks import FindingRow, ProgressOut, Summary, Worklist
from newknot.api.schemas.reach import FallOfLogin, GroupOut, KnotOut, ReachMap, ResetOut
from newknot.api.shaping import RowMaker
from newknot.core.audit.reach import Reach
from newknot.core.safeguards import Act
from newknot.store.logins import get_card
from newknot.usecases import checks as use
from newknot.usecases import reach as use_reach
from newknot.usecases.logins import list_logins
from newknot.usecases.safeguards import get_safeguards
from newknot.usecases.waivers import open_and_waived

router = APIRouter(prefix="/checks", tags=["check"])


@router.post("")
def run_check(work: WorkDep) -> Worklist:
    """Checks the whole vault now; answers at its end."""
    work.require(Act.CHECK)
    corpus = work.keeper.corpus if get_safeguards(work.vault).corpus_used else None
    use.run_check(work.vault, corpus=corpus, progress=work.keeper.progress, now=work.now)
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
    """The last check's findings that still stand, gravest first."""
    result = use.get_check(work.vault)
    if result is None:
        return Worklist(
            checked_at=None,
            checked_count=0,
            unread_count=0,
            corpus_name=None,
            corpus_dated_on=None,
            corpus_count=None,
            findings=[],
            renewed_count=0,
            waived_count=0,
            new_count=None,
            gone_count=None,
            earlier=[],
        )
    changes = result.changes
    cards, _ = list_logins(work.vault)
    by_id = {card.login_id: card for card in cards}
    rows = RowMaker(work.vault)
    standing, settled = use.current_findings(result, cards)
    to_do, waived = open_and_waived(work.vault, standing, cards, now=work.now)
    return Worklist(
        checked_at=result.checked_at,
        checked_count=result.checked_count,
        unread_count=len(result.unread),
        corpus_name=result.corpus_name,
        corpus_dated_on=result.corpus_dated_on,
        corpus_count=result.corpus_count,
        findings=[
            FindingRow(
                kind=f.kind,
                login_id=f.login_id,
                title=by_id[f.login_id].title,
                user_name=by_id[f.login_id].user_name,
                importance=by_id[f.login_id].importance.value,
                evidence=f.evidence,
                others=list(f.others),
                guess_number_log10=f.guess_number_log10,
                secret_since_at=by_id[f.login_id].secret_since_at,
                rotation_id=rows.rotation_ids.get(f.login_id),
                reach=f.reach,
                why=f.why,
            )
            for f in to_do
        ],
        renewed_count=len({f.login_id for f in settled}),
        waived_count=len(waived),
        new_count=changes[0] if changes else None,
        gone_count=changes[1] if changes else None,
        earlier=[Summary(checked_at=s.checked_at, counts=s.counts) for s in result.earlier],
    )
