"""Shapes of the check and its worklist."""

from datetime import date, datetime

from pydantic import Field, SecretStr

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


class Summary(Shape):
    """A former check's counts by kind."""

    checked_at: datetime
    counts: dict[str, int]


class Worklist(Shape):
    """checked_at None: never checked. renewed_count: findings settled since by a new secret."""

    checked_at: datetime | None
    checked_count: int
    unread_count: int
    corpus_name: str | None
    corpus_dated_on: date | None
    corpus_count: int | None
    findings: list[FindingRow]
    renewed_count: int
    earlier: list[Summary]


class ProgressOut(Shape):
    """How far the check under way is."""

    running: bool
    done: int
    total: int


class MeasureIn(Shape):
    """A text to be measured, and words that an acquaintance would try."""

    secret: SecretStr
    context: list[str] = Field(default_factory=list)


class SegmentOut(Shape):
    """A stretch [start, end) and what it was taken for."""

    start: int
    end: int
    kind: str
    label: str
    cost_log10: float


class MeasureOut(Shape):
    """A guess number with its reasons."""

    guess_number_log10: float
    reasons: str
    falls_to: str | None
    segments: list[SegmentOut]


class BudgetOut(Shape):
    """A named attack."""

    code: str
    label: str
    guesses_log10: float
    rate_per_s: float
    basis: str
