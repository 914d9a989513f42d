"""The report of what to do, as a table or a page. It holds no secret."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.check.reports import ReportIn, ReportLineOut, ReportOut
from newknot.core.calendar_day import day_of
from newknot.core.safeguards import Act
from newknot.exchange.findings_report import ReportLine, write_csv, write_html
from newknot.usecases.check.reports import report

router = APIRouter(prefix="/reports", tags=["check"])


@router.post("")
def report_lines(body: ReportIn, work: WorkDep) -> ReportOut:
    """The lines, to look at before they go anywhere."""
    return ReportOut(
        lines=[
            ReportLineOut(
                group=line.group,
                title=line.title,
                user_name=line.user_name,
                address=line.address,
                kind=line.kind,
                evidence=line.evidence,
                to_do=line.to_do,
            )
            for line in _lines(body, work)
        ]
    )


@router.post("/csv")
def report_csv(body: ReportIn, work: WorkDep) -> Response:
    """The report as CSV."""
    work.require(Act.EXPORT)
    file = write_csv(
        _lines(body, work), grouped_by=body.grouped_by, with_user_names=body.with_user_names
    )
    return Response(file, media_type="text/csv; charset=utf-8")


@router.post("/html")
def report_html(body: ReportIn, work: WorkDep) -> Response:
    """The report as a page to print."""
    work.require(Act.EXPORT)
    file = write_html(
        _lines(body, work),
        grouped_by=body.grouped_by,
        with_user_names=body.with_user_names,
        on=day_of(work.now),
    )
    return Response(file, media_type="application/octet-stream")


def _lines(body: ReportIn, work: WorkDep) -> list[ReportLine]:
    return report(work.vault, body.grouped_by, with_user_names=body.with_user_names, now=work.now)
