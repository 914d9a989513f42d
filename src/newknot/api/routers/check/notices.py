"""Breach notices from the feed that the user switched on."""

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.check.notices import FetchIn, NoticeOut, NoticesOut
from newknot.usecases.check.notices import fetch_notices

router = APIRouter(prefix="/notices", tags=["check"])


@router.post("/fetch")
def fetch(body: FetchIn, work: WorkDep) -> NoticesOut:
    """Fetches the feed unless that was done just now; answers all notices at hand."""
    held = fetch_notices(work.vault, now=work.now, at_once=body.at_once)
    return NoticesOut(
        fetched_at=held.fetched_at,
        unread_count=held.unread_count,
        notices=[
            NoticeOut(title=n.title, site=n.site, breached_on=n.breached_on, taken=list(n.taken))
            for n in held.notices
        ],
    )
