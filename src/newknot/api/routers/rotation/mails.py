"""The mail tray: looked into when asked."""

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.rotation.mails import MailOut
from newknot.usecases.rotation import mails as use

router = APIRouter(prefix="/mails", tags=["rotation"])


@router.post("")
def look_into_tray(work: WorkDep) -> list[MailOut]:
    """Mails that tell of a change at a login's site, newest first."""
    held = use.look_into_tray(work.vault, now=work.now)
    return [
        MailOut(
            mail_id=one.mail.mail_id,
            site=one.mail.site,
            user_name=one.mail.user_name,
            subject=one.mail.subject,
            sent_at=one.mail.sent_at,
            link=one.mail.link,
            login_ids=list(one.login_ids),
            rotation_id=one.rotation_id,
        )
        for one in use.placed_mails(work.vault, held)
    ]
