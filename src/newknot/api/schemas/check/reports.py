"""Shapes of the report."""

from newknot.api.schemas.base import Shape
from newknot.usecases.check.reports import GroupedBy


class ReportIn(Shape):
    """What the lines stand together by, and whether user names are in it."""

    grouped_by: GroupedBy
    with_user_names: bool


class ReportLineOut(Shape):
    """One finding in words."""

    group: str
    title: str
    user_name: str
    address: str
    kind: str
    evidence: str
    to_do: str


class ReportOut(Shape):
    """All lines, those of a group together."""

    lines: list[ReportLineOut]
