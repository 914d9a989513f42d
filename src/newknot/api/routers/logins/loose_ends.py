"""Secrets that were handed out and belong to no login yet."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.drawing.draws import LooseEndOut, SecretOut
from newknot.api.schemas.logins.logins import RevealIn
from newknot.core.safeguards import Act
from newknot.usecases.logins.loose_ends import (
    dismiss_loose_end,
    list_loose_ends,
    loose_secret,
)

router = APIRouter(prefix="/loose-ends", tags=["generate"])


@router.get("")
def loose_ends(work: WorkDep) -> list[LooseEndOut]:
    """All loose ends, newest first, without their secrets."""
    return [
        LooseEndOut(
            loose_end_id=one.loose_end_id,
            handed_out_at=one.handed_out_at.isoformat(),
            address=one.address,
            length=one.length,
        )
        for one in list_loose_ends(work.vault)
    ]


@router.post("/{loose_end_id}/secret")
def loose_end_secret(loose_end_id: str, body: RevealIn, work: WorkDep) -> SecretOut:
    """The secret of a loose end, to copy it once more."""
    work.allow(body.purpose)
    found = loose_secret(work.vault, loose_end_id).secret
    work.given("secret of a loose end", body.purpose)
    return SecretOut(secret=found.reveal())


@router.delete("/{loose_end_id}", status_code=204)
def dismiss(loose_end_id: str, work: WorkDep) -> Response:
    """Lets a loose end go, on purpose."""
    work.require(Act.DELETE)
    dismiss_loose_end(work.vault, loose_end_id)
    return Response(status_code=204)
