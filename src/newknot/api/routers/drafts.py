"""Half-typed forms, each asked for by its own call: one may hold a secret."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.drafts import DraftIn, DraftOut
from newknot.usecases import drafts as use

router = APIRouter(prefix="/drafts", tags=["vault"])


@router.get("/{form}")
def draft(form: str, work: WorkDep) -> DraftOut | None:
    """What was half-typed in a form within the last seven days; null where nothing was."""
    found = use.draft_of(work.vault, form, now=work.now)
    return None if found is None else DraftOut(content=found.content, saved_at=found.saved_at)


@router.put("/{form}", status_code=204)
def keep(form: str, body: DraftIn, work: WorkDep) -> Response:
    """Keeps it, in place of what the form held before."""
    use.keep_draft(work.vault, form, body.content, now=work.now)
    return Response(status_code=204)


@router.delete("/{form}", status_code=204)
def forget(form: str, work: WorkDep) -> Response:
    """It was saved, or discarded."""
    use.forget_draft(work.vault, form)
    return Response(status_code=204)
