"""Shapes of mails."""

from datetime import datetime

from newknot.api.schemas.base import Shape


class MailOut(Shape):
    """A mail that tells of a change. rotation_id: of the rotation that explains it."""

    mail_id: str
    site: str
    user_name: str
    subject: str
    sent_at: datetime
    link: str
    login_ids: list[str]
    rotation_id: str | None
