"""Bringing logins in from CSV: read, preview, apply."""

import secrets

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.carry import (
    ImportApply,
    Imported,
    ImportPreview,
    ImportRowOut,
    ImportTable,
    MappingIn,
)
from newknot.exchange.csv_logins import TARGETS, CsvTable, guess_mapping, read_table
from newknot.usecases import imports as use
from newknot.usecases.errors import ImportUnknown

router = APIRouter(prefix="/imports", tags=["carry"])
TABLES_KEPT = 3


@router.post("", status_code=201)
async def read_file(request: Request, work: WorkDep) -> ImportTable:
    """Reads a CSV file given as the raw body; kept in memory until applied or locked."""
    body = await request.body()
    table = await run_in_threadpool(read_table, body)
    tables = work.keeper.imports
    for old in list(tables)[: max(0, len(tables) - TABLES_KEPT + 1)]:
        tables.pop(old, None)
    import_id = secrets.token_hex(16)
    tables[import_id] = table
    return ImportTable(
        import_id=import_id,
        encoding=table.encoding,
        separator=table.separator,
        columns=list(table.columns),
        mapping=list(guess_mapping(table.columns)),
        targets=list(TARGETS),
        row_count=len(table.rows) + len(table.broken),
    )


@router.post("/{import_id}/preview")
def preview(import_id: str, body: MappingIn, work: WorkDep) -> ImportPreview:
    """Every row as it would come in under a mapping."""
    rows = use.preview_import(work.vault, _table(work, import_id), tuple(body.mapping))
    return ImportPreview(
        rows=[
            ImportRowOut(
                line=row.line,
                status=row.status,
                reason=row.reason,
                title=row.title,
                user_name=row.user_name,
                address=row.address,
                has_secret=row.has_secret,
            )
            for row in rows
        ]
    )


@router.post("/{import_id}/apply")
def apply(import_id: str, body: ImportApply, work: WorkDep) -> Imported:
    """Brings the rows in, all or none, and lets the file go from memory."""
    count = use.apply_import(
        work.vault,
        _table(work, import_id),
        tuple(body.mapping),
        also_differing=body.also_differing,
        now=work.now,
    )
    work.keeper.imports.pop(import_id, None)
    return Imported(added_count=count)


@router.delete("/{import_id}", status_code=204)
def forget(import_id: str, work: WorkDep) -> Response:
    """Lets the file go from memory."""
    work.keeper.imports.pop(import_id, None)
    return Response(status_code=204)


def _table(work: Work, import_id: str) -> CsvTable:
    try:
        return work.keeper.imports[import_id]
    except KeyError:
        raise ImportUnknown() from None
