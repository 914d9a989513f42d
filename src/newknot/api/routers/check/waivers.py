"""Waivers: findings accepted for a reason."""

from fastapi import APIRouter

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.check.waivers import LiftIn, WaiverIn, WaiverOut
from newknot.core.calendar_day import day_of
from newknot.core.safeguards import Act
from newknot.usecases.check import waivers as use

router = APIRouter(prefix="/waivers", tags=["waivers"])


@router.get("")
def list_waivers(work: WorkDep) -> list[WaiverOut]:
    """All waivers, newest first, those taken back included."""
    return _shaped(work)


@router.post("", status_code=201)
def give(body: WaiverIn, work: WorkDep) -> list[WaiverOut]:
    """Accepts findings of the last check. Needs the same proof as editing."""
    work.require(Act.EDIT)
    use.give_waivers(
        work.vault,
        [(f.kind, f.login_id) for f in body.findings],
        reason=body.reason,
        note=body.note,
        until_on=body.until_on,
        now=work.now,
    )
    return _shaped(work)


@router.post("/lift")
def lift(body: LiftIn, work: WorkDep) -> list[WaiverOut]:
    """Takes waivers back: their findings show again."""
    work.require(Act.EDIT)
    use.lift_waivers(work.vault, body.waiver_ids, now=work.now)
    return _shaped(work)


def _shaped(work: Work) -> list[WaiverOut]:
    every, today = use.list_waivers(work.vault), day_of(work.now)
    standing = work.keeper.worklist.as_now(work.vault, now=work.now).standing
    found = use.found_now(every, standing, today=today)
    titles = {one: card.title for one, card in standing.cards.items()}
    return [
        WaiverOut(
            waiver_id=w.waiver_id,
            login_id=w.login_id,
            title=titles.get(w.login_id),
            kind=w.kind,
            reason=w.reason,
            note=w.note,
            evidence=w.evidence,
            given_at=w.given_at,
            until_on=w.until_on,
            lifted_at=w.lifted_at,
            holds=w.holds(today),
            found_now=found[w.waiver_id],
        )
        for w in every
    ]
