"""Shapes of the check and its worklist."""

from datetime import date, datetime

from newknot.api.schemas.base import Shape
from newknot.core.audit import FindingKind


class FindingRow(Shape):
    """A row of the worklist."""

    kind: FindingKind
    login_id: str
    title: str
    user_name: str
    importance: str
    evidence: str
    others: list[str]
    guess_number_log10: float | None
    secret_since_at: datetime
    rotation_id: str | None
    reach: int
    why: str


class Summary(Shape):
    """A former check's counts by kind."""

    checked_at: datetime
    counts: dict[str, int]


class Worklist(Shape):
    """checked_at None: never checked. renewed_count: findings settled since by a new secret;
    waived_count: findings accepted, which are not in the list. new_count, gone_count: against the
    check before; None where there was none.
    """

    checked_at: datetime | None
    checked_count: int
    unread_count: int
    corpus_name: str | None
    corpus_dated_on: date | None
    corpus_count: int | None
    findings: list[FindingRow]
    renewed_count: int
    waived_count: int
    new_count: int | None
    gone_count: int | None
    earlier: list[Summary]


class ProgressOut(Shape):
    """How far the check under way is."""

    running: bool
    done: int
    total: int
