"""Mails that tell of a change of a secret, held against the rotations that would explain them."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from newknot.core.address import domain_of
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.login import LoginCard
from newknot.core.rotation.machine import OPEN_STATES, RotationEvent
from newknot.core.rotation.rotation import Rotation

BEFORE = timedelta(minutes=5)
AFTER = timedelta(hours=1)
_SECRET = re.compile(r"pass(word|phrase|code)|\bPIN\b", re.IGNORECASE)
_CHANGE = re.compile(r"chang|reset|replac|updat|confirm|\bnew\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class ChangeMail:
    """site: registrable domain of the sender. user_name: to whom, empty where it is not said.

    link: an address of the same site to be opened to confirm; empty where there is none.
    """

    mail_id: str
    site: str
    user_name: str
    subject: str
    sent_at: datetime
    link: str


def tells_of_change(subject: str, body: str) -> bool:
    """Whether a mail is about a password that was or is to be changed."""
    return any(_SECRET.search(text) and _CHANGE.search(text) for text in (subject, body))


def is_about(mail: ChangeMail, card: LoginCard) -> bool:
    """Whether a mail may be about a login: its site, and its user name where that is said."""
    if not mail.site or mail.site != domain_of(card.address):
        return False
    return not mail.user_name or mail.user_name.casefold() == card.user_name.casefold()


def fits(mail: ChangeMail, card: LoginCard, rotation: Rotation) -> bool:
    """Whether a rotation explains a mail: it came while the new secret was at the site."""
    handed = [step.at for step in rotation.steps if step.event is RotationEvent.HAND_OUT]
    if not handed or rotation.login_id != card.login_id or not is_about(mail, card):
        return False
    until = None if rotation.state in OPEN_STATES else rotation.changed_at + AFTER
    return handed[0] - BEFORE <= mail.sent_at and (until is None or mail.sent_at <= until)


def unexplained(
    cards: Sequence[LoginCard], rotations: Sequence[Rotation], mails: Sequence[ChangeMail]
) -> Iterator[Finding]:
    """One finding for each login that a mail tells a change of which nothing here explains, until
    its secret is changed anew.
    """
    by_site: dict[str, list[ChangeMail]] = {}
    for mail in mails:
        by_site.setdefault(mail.site, []).append(mail)
    for card in cards:
        there = by_site.get(domain_of(card.address), ())
        own = [r for r in rotations if r.login_id == card.login_id] if there else []
        strange = [
            mail
            for mail in there
            if is_about(mail, card)
            and card.created_at < mail.sent_at
            and card.secret_since_at < mail.sent_at
            and not any(fits(mail, card, rotation) for rotation in own)
            and mail.sent_at - card.secret_since_at > AFTER
        ]
        if strange:
            last = max(strange, key=lambda mail: mail.sent_at)
            yield Finding(
                FindingKind.UNEXPLAINED_CHANGE,
                card.login_id,
                f"A mail of {last.sent_at:%-d %B %Y, %H:%M} UTC from {last.site} says “"
                f"{last.subject}”, and no rotation here explains it",
            )
