"""Waivers as the API shapes them."""

from datetime import date, datetime

from pydantic import Field

from newknot.api.schemas.base import Shape
from newknot.core.audit import FindingKind
from newknot.core.audit.waiver import WaiverReason
from newknot.usecases.check.waivers import FoundNow


class FindingKey(Shape):
    """A finding, by its kind and login."""

    kind: FindingKind
    login_id: str


class WaiverIn(Shape):
    """Findings to be accepted, and why. until_on: the last day, or none."""

    findings: list[FindingKey] = Field(min_length=1, max_length=1_000)
    reason: WaiverReason
    note: str = ""
    until_on: date | None = None


class WaiverOut(Shape):
    """A waiver. title: the login's, null where it is gone. holds: not lifted, its day not past.
    found_now: what stands of it, null where it holds no more.
    """

    waiver_id: str
    login_id: str
    title: str | None
    kind: FindingKind
    reason: WaiverReason
    note: str
    evidence: str
    given_at: datetime
    until_on: date | None
    lifted_at: datetime | None
    holds: bool
    found_now: FoundNow | None


class LiftIn(Shape):
    """Waivers to be taken back."""

    waiver_ids: list[str] = Field(min_length=1, max_length=1_000)
