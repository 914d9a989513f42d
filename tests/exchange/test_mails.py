"""The mails of a tray: what is kept of each, and what is no list of them."""

import json
from datetime import UTC, datetime

import pytest

from newknot.core.rotation.change_mail import ChangeMail
from newknot.exchange.mails import MAILS_MOST, MailsRefused, read_mails


def read(*mails: object) -> list[ChangeMail]:
    whole = {"host": "gantry.example", "subject": "Password changed", "sent_at": "2026-11-20T10:00"}
    given = [whole | one if isinstance(one, dict) else one for one in mails]
    return read_mails(json.dumps(given).encode())


def test_of_a_mail_that_tells_of_a_change_what_can_be_shown_is_kept() -> None:
    body = "Was it you? https://my.gantry.example/confirm?t=1. https://other.example"
    (kept,) = read({"subject": "Your password\u202e\n changed", "body": body}, 4, {"subject": "Hi"})
    assert kept.subject == "Your password changed"
    assert kept.link == "https://my.gantry.example/confirm?t=1"
    assert kept.sent_at == datetime(2026, 11, 20, 10, tzinfo=UTC)
    (other,) = read({"body": "https://other.example/confirm"}, {"host": ""}, {"sent_at": "soon"})
    assert (other.site, other.link) == ("gantry.example", "")
    with pytest.raises(MailsRefused):
        read(*[0] * (MAILS_MOST + 1))
