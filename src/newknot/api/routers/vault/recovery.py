"""The way back in: recovery sheets made, practised, voided, and used."""

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import KeeperDep, WorkDep
from newknot.api.routers.vault.vault import begun
from newknot.api.schemas.vault.recovery import (
    LookedAtOut,
    MadeSheets,
    PictureTexts,
    RecoverIn,
    RecoveryOut,
    SheetOut,
    SheetsIn,
    SheetsWish,
)
from newknot.api.schemas.vault.vault import SessionOut
from newknot.core.safeguards import Act
from newknot.exchange.qr_code import qr_rows
from newknot.outside.pictures import read_codes
from newknot.store.recovery import RecoveryFacts
from newknot.usecases.vault import new_keys
from newknot.usecases.vault import recovery as use

router = APIRouter(tags=["recovery"])


@router.get("/recovery")
def recovery(work: WorkDep) -> RecoveryOut | None:
    """What is kept of the sheets; null where there are none."""
    facts = use.get_recovery(work.vault)
    return None if facts is None else _shaped(facts)


@router.post("/recovery", status_code=201)
def make_sheets(body: SheetsWish, work: WorkDep) -> MadeSheets:
    """New sheets, their words given this once; those before them are void."""
    work.require(Act.EXPORT)
    sheets = use.make_sheets(
        work.vault,
        threshold=body.threshold,
        count=body.count,
        random=work.keeper.random,
        parameters=work.keeper.parameters,
        now=work.now,
    )
    work.given("recovery sheets", "made")
    return MadeSheets(sheets=[SheetOut(words=s, qr_rows=qr_rows(s)) for s in sheets])


@router.delete("/recovery", status_code=204)
def void_sheets(work: WorkDep) -> Response:
    """Makes all sheets void."""
    work.require(Act.EXPORT)
    use.void_sheets(work.vault)
    return Response(status_code=204)


@router.post("/recovery/practice")
def practise(body: SheetsIn, work: WorkDep) -> RecoveryOut:
    """Rehearses a recovery with the real sheets; only the day of it is noted."""
    return _shaped(use.practise(work.vault, body.texts(), now=work.now))


@router.post("/vault/recover/look")
def look_at(body: SheetsIn) -> list[LookedAtOut]:
    """Each sheet by itself and beside the others: which is wrong, and why. Opens nothing."""
    return [
        LookedAtOut(
            place=one.facts.place if one.facts is not None else None,
            threshold=one.facts.threshold if one.facts is not None else None,
            reason=one.reason,
        )
        for one in use.look_at(body.texts())
    ]


@router.post("/vault/recover/picture")
async def read_picture(request: Request) -> PictureTexts:
    """The texts of the QR codes of a picture, given as the raw body."""
    picture = await request.body()
    return PictureTexts(texts=await run_in_threadpool(read_codes, picture))


@router.post("/vault/recover")
def recover(body: RecoverIn, request: Request, response: Response, keeper: KeeperDep) -> SessionOut:
    """The vault opened by its sheets and put under a new passphrase; wrong ones are slowed."""
    halves = new_keys.recover(
        keeper, body.texts(), body.passphrase.get_secret_value(), drawn=body.drawn
    )
    return begun(halves, request, response, keeper)


def _shaped(facts: RecoveryFacts) -> RecoveryOut:
    return RecoveryOut(
        made_at=facts.made_at,
        threshold=facts.threshold,
        count=facts.count,
        practised_at=facts.practised_at,
    )
