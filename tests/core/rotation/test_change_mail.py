"""Mails of changes: which a rotation explains, and which none does."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from newknot.core.login import Importance, LoginCard
from newknot.core.rotation import Rotation, RotationEvent, RotationState, RotationStep
from newknot.core.rotation.change_mail import ChangeMail, fits, tells_of_change, unexplained
from tests.support.vectors import examples

NOW = datetime(2026, 5, 3, 12, tzinfo=UTC)
AGO = NOW - timedelta(days=90)
CARD = LoginCard(
    login_id="a", title="Gantry Rentals", user_name="ilse", address="https://gantryrentals.example",
    notes="", fields=(), secret_field_names=(), folder="", owner="", tags=(),
    importance=Importance.NORMAL, expires_on=None, resets_by=None, created_at=AGO, changed_at=AGO,
    secret_since_at=AGO, has_secret=True,
)  # fmt: skip
STEPS = (
    RotationStep(RotationEvent.STAGE, NOW - timedelta(minutes=2)),
    RotationStep(RotationEvent.HAND_OUT, NOW),
)
ROTATION = Rotation("r", CARD.login_id, RotationState.AT_SITE, NOW, NOW, STEPS)
SUBJECT = "Your password was changed"
MAIL = ChangeMail("1", "gantryrentals.example", "ilse", SUBJECT, NOW + timedelta(minutes=1), "")


@pytest.mark.parametrize(
    ("mail", "rotation", "fitting"),
    [
        (MAIL, ROTATION, True),
        (replace(MAIL, user_name=""), ROTATION, True),
        (replace(MAIL, user_name="ILSE"), ROTATION, True),
        (replace(MAIL, user_name="other"), ROTATION, False),
        (replace(MAIL, site="gantry.example"), ROTATION, False),
        (replace(MAIL, site=""), ROTATION, False),
        (replace(MAIL, sent_at=NOW - timedelta(minutes=4)), ROTATION, True),
        (replace(MAIL, sent_at=NOW - timedelta(minutes=6)), ROTATION, False),
        (replace(MAIL, sent_at=NOW + timedelta(days=9)), ROTATION, True),
        (
            replace(MAIL, sent_at=NOW + timedelta(days=9)),
            replace(ROTATION, state=RotationState.VERIFIED),
            False,
        ),
        (MAIL, replace(ROTATION, steps=STEPS[:1]), False),
        (MAIL, replace(ROTATION, login_id="b"), False),
    ],
)
def test_a_rotation_explains_mails_while_its_secret_is_at_the_site(
    mail: ChangeMail, rotation: Rotation, fitting: bool
) -> None:
    assert fits(mail, CARD, rotation) is fitting


def test_a_mail_that_nothing_explains_is_said_until_the_secret_is_changed_anew() -> None:
    def said(card: LoginCard = CARD, *rotations: Rotation) -> list[str]:
        return [f.login_id for f in unexplained([card], rotations, [MAIL])]

    assert said() == [CARD.login_id]
    assert said(CARD, ROTATION) == []
    assert said(replace(CARD, secret_since_at=NOW + timedelta(minutes=9))) == []
    assert said(replace(CARD, secret_since_at=NOW - timedelta(minutes=9))) == []
    assert said(replace(CARD, created_at=NOW + timedelta(days=1))) == []
    (finding,) = unexplained([CARD], [], [MAIL])
    assert "3 May 2026, 12:01 UTC" in finding.evidence and MAIL.subject in finding.evidence


@pytest.mark.parametrize(("subject", "body", "tells"), examples("mails_of_changes.json"))
def test_mails_of_changes_are_told_by_their_words(subject: str, body: str, tells: bool) -> None:
    assert tells_of_change(subject, body) is tells
