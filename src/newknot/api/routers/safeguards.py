"""The safeguards with their state."""

from fastapi import APIRouter

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.safeguards import CorpusOut, SafeguardsIn, SafeguardsOut
from newknot.core.safeguards import Act, Safeguards
from newknot.usecases.safeguards import change_safeguards, get_safeguards

router = APIRouter(prefix="/safeguards", tags=["safeguards"])


@router.get("")
def safeguards(work: WorkDep) -> SafeguardsOut:
    """Every safeguard as it stands."""
    return _shaped(work, get_safeguards(work.vault))


@router.put("")
def change(body: SafeguardsIn, work: WorkDep) -> SafeguardsOut:
    """Changes them, from this call on. Needs the same proof as deleting."""
    work.require(Act.DELETE)
    wanted = Safeguards(
        lock_after_s=body.lock_after_s,
        clipboard_clear_s=body.clipboard_clear_s,
        reveal_allowed=body.reveal_allowed,
        proof_minutes=body.proof_minutes,
        proof_before=dict(body.proof_before),
        corpus_used=body.corpus_used,
    )
    fresh = change_safeguards(work.vault, wanted)
    work.keeper.touch(fresh.lock_after_s)
    return _shaped(work, fresh)


def _shaped(work: Work, held: Safeguards) -> SafeguardsOut:
    corpus = work.keeper.corpus
    return SafeguardsOut(
        lock_after_s=held.lock_after_s,
        clipboard_clear_s=held.clipboard_clear_s,
        reveal_allowed=held.reveal_allowed,
        proof_minutes=held.proof_minutes,
        proof_before=held.proof_before,
        corpus_used=held.corpus_used,
        last_backup_at=held.last_backup_at,
        corpus=None
        if corpus is None
        else CorpusOut(
            name=corpus.title.name,
            dated_on=corpus.title.dated_on,
            unique_count=corpus.title.unique_count,
        ),
        vault_path=str(work.keeper.path),
        backup_folder=str(work.keeper.backup_folder),
    )
