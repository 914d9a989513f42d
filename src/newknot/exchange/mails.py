"""Mails of a tray as JSON: a list of {mail_id, host, user_name, subject, body, sent_at}."""

import json
import re
from collections.abc import Mapping
from datetime import UTC, datetime

from newknot.core.address import domain_of
from newknot.core.errors import NewKnotError
from newknot.core.rotation.change_mail import ChangeMail, tells_of_change

MAILS_MOST = 5_000
TEXT_MOST = 200
_LINK = re.compile(r"https?://[^\s<>\"]{1,1000}")


class MailsRefused(NewKnotError):
    """What came is no list of mails. data: reason."""


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


def _mail(one: object) -> ChangeMail | None:
    if not isinstance(one, Mapping):
        return None
    subject, body = str(one.get("subject", "")), str(one.get("body", ""))[:20_000]
    try:
        sent_at = datetime.fromisoformat(str(one.get("sent_at")))
    except ValueError:
        return None
    site = domain_of(str(one.get("host", "")))
    if not site or not tells_of_change(subject, body):
        return None
    found = _LINK.search(body)
    link = found[0].rstrip(".,;)") if found and domain_of(found[0]) == site else ""
    return ChangeMail(
        str(one.get("mail_id", ""))[:TEXT_MOST],
        site,
        str(one.get("user_name", ""))[:TEXT_MOST],
        "".join(c for c in subject if c.isprintable())[:TEXT_MOST],
        sent_at if sent_at.tzinfo else sent_at.replace(tzinfo=UTC),
        link,
    )
