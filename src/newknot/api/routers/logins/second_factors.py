"""Second factors of logins: codes, the set-up of their key, backup codes."""

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import WorkDep
from newknot.api.schemas.logins.logins import RevealIn
from newknot.api.schemas.logins.second_factors import (
    BackupCodeOut,
    BackupCodesIn,
    CodeKeyIn,
    CodeOut,
    SecondFactorOut,
    StrikeIn,
)
from newknot.core.safeguards import Act
from newknot.core.secret import Secret
from newknot.usecases.logins import second_factors as use

router = APIRouter(prefix="/logins/{login_id}", tags=["second factor"])


@router.post("/code")
def login_code(login_id: str, body: RevealIn, work: WorkDep) -> CodeOut:
    """The second factor's code of this moment."""
    work.allow(body.purpose)
    found = use.current_code(work.vault, login_id, now=work.now)
    work.given("code of its second factor", body.purpose, login_id)
    return CodeOut(code=found.code, valid_s=found.valid_s, next_code=found.next_code)


@router.post("/second-factor")
def set_up(login_id: str, body: CodeKeyIn, work: WorkDep) -> SecondFactorOut:
    """Keeps a key as the site gives it, until the site accepted a code of it."""
    work.require(Act.EDIT)
    key = Secret(body.code_key.get_secret_value())
    card = use.set_up(work.vault, login_id, key, now=work.now)
    return SecondFactorOut(second_factor=card.second_factor)


@router.post("/second-factor/picture")
async def set_up_by_picture(login_id: str, request: Request, work: WorkDep) -> SecondFactorOut:
    """The same of a QR picture, given as the raw body."""
    work.require(Act.EDIT)
    picture = await request.body()
    card = await run_in_threadpool(
        use.set_up_by_picture, work.vault, login_id, picture, now=work.now
    )
    return SecondFactorOut(second_factor=card.second_factor)


@router.post("/second-factor/accepted")
def site_accepted(login_id: str, work: WorkDep) -> SecondFactorOut:
    """The site took a code: the set-up is at its end."""
    card = use.site_accepted(work.vault, login_id, now=work.now)
    return SecondFactorOut(second_factor=card.second_factor)


@router.put("/backup-codes", status_code=204)
def keep_backup_codes(login_id: str, body: BackupCodesIn, work: WorkDep) -> Response:
    """Keeps the codes of a text in place of those there were."""
    work.require(Act.EDIT)
    use.keep_backup_codes(work.vault, login_id, Secret(body.text.get_secret_value()), now=work.now)
    return Response(status_code=204)


@router.post("/backup-codes")
def backup_codes(login_id: str, body: RevealIn, work: WorkDep) -> list[BackupCodeOut]:
    """The codes, each struck off or not."""
    work.allow(body.purpose)
    found = use.backup_codes(work.vault, login_id)
    work.given("backup codes", body.purpose, login_id)
    return [BackupCodeOut(code=one.code.reveal(), used_at=one.used_at) for one in found]


@router.post("/backup-codes/{place}", status_code=204)
def strike_off(login_id: str, place: int, body: StrikeIn, work: WorkDep) -> Response:
    """Notes that a code was used, or was not."""
    use.strike_off(work.vault, login_id, place, used=body.used, now=work.now)
    return Response(status_code=204)
