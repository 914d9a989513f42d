"""The check, its progress, and what falls with what."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.routers.check.worklist import worklist, worklist_basis
from newknot.api.schemas.check.checks import CheckIn, ProgressOut
from newknot.api.schemas.check.reach import FallOfLogin, GroupOut, KnotOut, ReachMap, ResetOut
from newknot.api.schemas.check.worklist import Worklist
from newknot.core.audit.reach import Reach
from newknot.core.safeguards import Act
from newknot.store.logins import get_card
from newknot.usecases.check import checks as use
from newknot.usecases.check import reach as use_reach
from newknot.usecases.check.corpora import lists_to_ask, service_of
from newknot.usecases.logins.logins import list_logins

router = APIRouter(prefix="/checks", tags=["check"])


@router.post("")
def run_check(work: WorkDep, body: CheckIn | None = None) -> Worklist:
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
    return worklist(work) if body is None or body.whole else worklist_basis(work)


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
