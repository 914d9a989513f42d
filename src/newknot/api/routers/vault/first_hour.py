"""What a new vault does not have yet."""

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.vault.first_hour import FirstHourOut
from newknot.usecases.vault import first_hour as use

router = APIRouter(prefix="/first-hour", tags=["safeguards"])


@router.get("")
def first_hour(work: WorkDep) -> FirstHourOut:
    """Each step, and whether it is done."""
    found = use.first_hour(work.vault, work.keeper.corpora)
    return FirstHourOut(
        has_logins=found.has_logins,
        has_corpus=found.has_corpus,
        has_recovery_sheet=found.has_recovery_sheet,
        has_backup_place=found.has_backup_place,
        is_checked=found.is_checked,
        is_over=found.is_over,
    )


@router.post("/end", status_code=204)
def end(work: WorkDep) -> None:
    """Dismisses it for good."""
    use.end_first_hour(work.vault)
