"""The safeguards with their state."""

from fastapi import APIRouter

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.vault.safeguards import (
    CorpusOut,
    SafeguardsIn,
    SafeguardsOut,
    Verified,
)
from newknot.core.keeping_rule import KeepingRule
from newknot.core.safeguards import Act, Safeguards
from newknot.store.errors import RecordMissing
from newknot.usecases.check.corpora import verified
from newknot.usecases.revisions import revision_of_settings, unless_changed
from newknot.usecases.vault.safeguards import change_safeguards, get_safeguards

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
        range_address=body.range_address,
        range_used=body.range_used,
        feed_address=body.feed_address,
        feed_used=body.feed_used,
        mail_address=body.mail_address,
        mail_used=body.mail_used,
        history_keep_days=body.history_keep_days,
        kept_out=tuple(body.kept_out),
        backup_every_h=body.backup_every_h,
        backup_place=body.backup_place,
        keeping=KeepingRule(body.backup_daily, body.backup_weekly, body.backup_monthly),
    )
    with unless_changed(
        work.vault, lambda: revision_of_settings(get_safeguards(work.vault)), body.revision
    ):
        fresh = change_safeguards(work.vault, wanted, own_port=work.port)
    work.keeper.touch(fresh.lock_after_s)
    return _shaped(work, fresh)


@router.post("/corpora/{file_name}/verify")
def verify_corpus(file_name: str, work: WorkDep) -> Verified:
    """Reads a whole corpus against its checksums; a damaged one is an error that says where."""
    for one in work.keeper.corpora:
        if one.path.name == file_name:
            return Verified(is_whole=verified(one, work.keeper.progress))
    raise RecordMissing()


def _shaped(work: Work, held: Safeguards) -> SafeguardsOut:
    problem = work.keeper.backup_problem
    return SafeguardsOut(
        lock_after_s=held.lock_after_s,
        clipboard_clear_s=held.clipboard_clear_s,
        reveal_allowed=held.reveal_allowed,
        proof_minutes=held.proof_minutes,
        proof_before=held.proof_before,
        corpus_used=held.corpus_used,
        last_backup_at=held.last_backup_at,
        range_address=held.range_address,
        range_used=held.range_used,
        feed_address=held.feed_address,
        feed_used=held.feed_used,
        mail_address=held.mail_address,
        mail_used=held.mail_used,
        history_keep_days=held.history_keep_days,
        kept_out=list(held.kept_out),
        backup_every_h=held.backup_every_h,
        backup_place=held.backup_place,
        backup_daily=held.keeping.daily,
        backup_weekly=held.keeping.weekly,
        backup_monthly=held.keeping.monthly,
        corpora=[
            *(
                CorpusOut(
                    file_name=one.path.name,
                    name=one.title.name,
                    dated_on=one.title.dated_on,
                    unique_count=one.title.unique_count,
                    reason="",
                )
                for one in work.keeper.corpora
            ),
            *(
                CorpusOut(
                    file_name=name, name=name, dated_on=None, unique_count=None, reason=reason
                )
                for name, reason in work.keeper.refused_corpora
            ),
        ],
        revision=revision_of_settings(held),
        vault_path=str(work.keeper.path),
        backup_folder=str(work.keeper.folder_of(work.vault)),
        backup_problem=problem.code if problem is not None else "",
        backup_problem_data=problem.data if problem is not None else {},
    )
