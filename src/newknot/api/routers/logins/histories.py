"""Earlier secrets: revealed, compared, restored, and deleted on purpose."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.drawing.draws import SecretOut
from newknot.api.schemas.logins.histories import ComparedOut, PastRetention
from newknot.api.schemas.logins.logins import RevealIn
from newknot.core.safeguards import Act
from newknot.usecases.logins import history as use

router = APIRouter(tags=["history"])


@router.post("/logins/{login_id}/history/{earlier_id}/secret")
def earlier_secret(login_id: str, earlier_id: str, body: RevealIn, work: WorkDep) -> SecretOut:
    """An earlier secret."""
    work.allow(body.purpose)
    found = use.earlier_of(work.vault, login_id, earlier_id).secret
    work.given("earlier secret", body.purpose, login_id)
    return SecretOut(secret=found.reveal())


@router.post("/logins/{login_id}/history/compare")
def compare_history(login_id: str, work: WorkDep) -> list[ComparedOut]:
    """The current secret and each earlier one by lengths and guess numbers."""
    return [
        ComparedOut(
            earlier_id=one.earlier_id,
            length=one.length,
            guess_number_log10=one.guess_number_log10,
            entropy_bits=one.entropy_bits,
            shared_start=one.shared_start,
            shared_end=one.shared_end,
        )
        for one in use.compare_history(work.vault, login_id)
    ]


@router.post("/logins/{login_id}/history/{earlier_id}/restore", status_code=204)
def restore_earlier(login_id: str, earlier_id: str, work: WorkDep) -> Response:
    """Puts a further field, or the key of its codes, back; a login's secret goes by a rotation."""
    work.require(Act.EDIT)
    use.restore_earlier(work.vault, login_id, earlier_id, now=work.now)
    return Response(status_code=204)


@router.delete("/logins/{login_id}/history/{earlier_id}", status_code=204)
def delete_earlier(login_id: str, earlier_id: str, work: WorkDep) -> Response:
    """Deletes one earlier secret for good."""
    work.require(Act.DELETE)
    use.delete_earlier(work.vault, login_id, earlier_id)
    return Response(status_code=204)


@router.get("/history/past-retention")
def past_retention(work: WorkDep) -> PastRetention:
    """How many earlier secrets are past what the safeguards set, of how many logins."""
    steady = work.keeper.dates_hold()
    found = use.history_past_retention(work.vault, now=work.now, steady=steady)
    return PastRetention(secret_count=sum(map(len, found.values())), login_count=len(found))


@router.delete("/history/past-retention")
def delete_past_retention(work: WorkDep) -> PastRetention:
    """Deletes them for good; answers what is left of them."""
    work.require(Act.DELETE)
    steady = work.keeper.dates_hold()
    use.delete_past_retention(work.vault, now=work.now, steady=steady)
    return past_retention(work)
