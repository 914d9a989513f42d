"""Mails of a tray as JSON: a list of {mail_id, host, user_name, subject, body, sent_at}."""

import json
import re
from datetime import UTC, datetime
from typing import Annotated

from pydantic import BaseModel, BeforeValidator, ValidationError

from newknot.core.address import domain_of
from newknot.core.errors import NewKnotError
from newknot.core.rotation.change_mail import ChangeMail, tells_of_change

MAILS_MOST = 5_000
TEXT_MOST, BODY_MOST = 200, 20_000
_LINK = re.compile(r"https?://[^\s<>\"]{1,1000}")


class MailsRefused(NewKnotError):
    """What came is no list of mails. data: reason."""


def _cut(value: object) -> str:
    return str(value)[:BODY_MOST]


class _Mail(BaseModel):
    sent_at: datetime
    mail_id: Annotated[str, BeforeValidator(_cut)] = ""
    host: Annotated[str, BeforeValidator(_cut)] = ""
    user_name: Annotated[str, BeforeValidator(_cut)] = ""
    subject: Annotated[str, BeforeValidator(_cut)] = ""
    body: Annotated[str, BeforeValidator(_cut)] = ""


def read_mails(body: bytes) -> list[ChangeMail]:
    """Those that tell of a change of a secret; what else is in the tray is not kept.

    Raises `MailsRefused`.
    """
    try:
        listed = json.loads(body.decode("utf-8"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise MailsRefused(reason="is not JSON in UTF-8") from None
    if not isinstance(listed, list) or len(listed) > MAILS_MOST:
        raise MailsRefused(reason=f"is no list of at most {MAILS_MOST:,} mails")
    return [mail for one in listed if (mail := _mail(one)) is not None]


def _mail(given: object) -> ChangeMail | None:
    try:
        one = _Mail.model_validate(given)
    except ValidationError:
        return None
    site = domain_of(one.host)
    if not site or not tells_of_change(one.subject, one.body):
        return None
    found = _LINK.search(one.body)
    link = found[0].rstrip(".,;)") if found and domain_of(found[0]) == site else ""
    return ChangeMail(
        one.mail_id[:TEXT_MOST],
        site,
        one.user_name[:TEXT_MOST],
        "".join(c for c in one.subject if c.isprintable())[:TEXT_MOST],
        one.sent_at if one.sent_at.tzinfo else one.sent_at.replace(tzinfo=UTC),
        link,
    )
