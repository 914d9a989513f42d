"""Shapes of the check and its worklist."""

from datetime import date, datetime

from newknot.api.schemas.base import Shape
from newknot.core.audit import FindingKind


class FindingRow(Shape):
    """A row of the worklist, of a login or of a loose end. since_at: the age of its secret."""

    kind: FindingKind
    login_id: str | None
    loose_end_id: str | None
    title: str
    user_name: str
    importance: str
    evidence: str
    others: list[str]
    guess_number_log10: float | None
    since_at: datetime
    rotation_id: str | None
    reach: int
    why: str


class Summary(Shape):
    """A former check's counts by kind."""

    checked_at: datetime
    counts: dict[str, int]


class AskedOut(Shape):
    """A breach corpus as the check asked it. unchecked_count: secrets it could not be asked about,
    null for all, reason says why; sent_count: prefixes that left this machine for it.
    """

    name: str
    dated_on: date | None
    unique_count: int | None
    unchecked_count: int | None
    reason: str
    sent_count: int


class Worklist(Shape):
    """checked_at None: never checked. renewed_count of renewable_count logins have a new secret
    since a check first found one wanting. waived_count: findings accepted, which are not in the
    list. new_count, gone_count: against the check before; None where there was none. notices_at:
    when breach notices were last fetched. unmeasured: titles of logins whose secret could
    not be measured.
    """

    checked_at: datetime | None
    checked_count: int
    unread_count: int
    unmeasured: list[str]
    asked: list[AskedOut]
    findings: list[FindingRow]
    renewed_count: int
    renewable_count: int
    waived_count: int
    new_count: int | None
    gone_count: int | None
    notices_used: bool
    notices_at: datetime | None
    earlier: list[Summary]


class ProgressOut(Shape):
    """How far the check under way is."""

    running: bool
    done: int
    total: int
