"""Breach notices: a site's own word that something was taken, held against last changes."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime

from newknot.core.address import domain_of
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.calendar_day import day_of
from newknot.core.login import LoginCard

PASSWORDS = "passwords"


@dataclass(frozen=True, slots=True)
class Notice:
    """site: registrable domain. breached_on: the day by which a secret must be newer.

    taken: what was, in the notice's words; empty where it does not say. seen_at: when it was first
    known here.
    """

    notice_id: str
    title: str
    site: str
    breached_on: date
    taken: tuple[str, ...]
    seen_at: datetime | None = None

    @property
    def touches_secrets(self) -> bool:
        """Whether passwords are among what was taken, or may be."""
        return not self.taken or PASSWORDS in self.taken


def noticed(cards: Sequence[LoginCard], notices: Sequence[Notice]) -> Iterator[Finding]:
    """One finding for each login whose secret is older than its site's latest such notice: of a day
    no later than what it tells of, and not renewed since the notice is known.
    """
    latest: dict[str, Notice] = {}
    for notice in notices:
        held = latest.get(notice.site)
        if notice.touches_secrets and (held is None or held.breached_on < notice.breached_on):
            latest[notice.site] = notice
    if not latest:
        return
    for card in cards:
        found = latest.get(domain_of(card.address)) if card.has_secret else None
        if found is not None and _is_older(card.secret_since_at, found):
            taken = ", ".join(found.taken) or "it is not said what"
            yield Finding(
                FindingKind.NOTICE,
                card.login_id,
                f"{found.site} says that on {found.breached_on:%-d %B %Y} was taken: {taken}. "
                f"This secret is from {day_of(card.secret_since_at):%-d %B %Y}",
            )


def _is_older(since_at: datetime, notice: Notice) -> bool:
    is_known = notice.seen_at is not None and since_at > notice.seen_at
    return day_of(since_at) <= notice.breached_on and not is_known
