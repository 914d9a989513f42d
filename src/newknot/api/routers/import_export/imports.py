"""Bringing logins in from CSV or the Credential Exchange Format: read, preview, apply, undo."""

import secrets

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.import_export.imports import (
    DifferenceOut,
    ImportApply,
    Imported,
    ImportPreview,
    ImportRowOut,
    ImportTable,
    MappingIn,
    Undone,
)
from newknot.exchange.csv_logins import TARGETS
from newknot.usecases.copies.backups import make_backup
from newknot.usecases.errors import ImportUnknown
from newknot.usecases.import_export import imports as use
from newknot.usecases.import_export import judging

router = APIRouter(prefix="/imports", tags=["import and export"])
FILES_KEPT = 3


@router.post("", status_code=201)
async def read_file(request: Request, work: WorkDep) -> ImportTable:
    """Reads a file given as the raw body; kept in memory until applied or locked."""
    body = await request.body()
    file = await run_in_threadpool(judging.read_file, body)
    files = work.keeper.imports
    for old in list(files)[: max(0, len(files) - FILES_KEPT + 1)]:
        files.pop(old, None)
    import_id = secrets.token_hex(16)
    files[import_id] = file
    table = file.table
    rows = len(file.logins) if table is None else len(table.rows) + len(table.broken)
    return ImportTable(
        import_id=import_id,
        kind=file.kind,
        encoding=table.encoding if table is not None else "utf-8",
        separator=table.separator if table is not None else "",
        columns=list(table.columns) if table is not None else [],
        mapping=list(judging.first_mapping(file)),
        targets=list(TARGETS),
        row_count=rows,
    )


@router.post("/{import_id}/preview")
def preview(import_id: str, body: MappingIn, work: WorkDep) -> ImportPreview:
    """Every row as it would come in under a mapping."""
    rows = judging.preview_import(work.vault, _file(work, import_id), tuple(body.mapping))
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
                left=list(row.left),
                can_take=row.of_login_id is not None,
                differs=[
                    DifferenceOut(field=d.field, here=d.here, there=d.there) for d in row.differs
                ],
            )
            for row in rows
        ]
    )


@router.post("/{import_id}/apply")
def apply(import_id: str, body: ImportApply, work: WorkDep) -> Imported:
    """Brings the rows in, all or none, and lets the file go from memory."""
    file = _file(work, import_id)
    make_backup(work.vault, work.keeper.folder_of(work.vault), now=work.now)
    with work.keeper.progress.of_one_act() as step:
        brought_in = use.apply_import(
            work.vault,
            file,
            tuple(body.mapping),
            also_lines=frozenset(body.also_lines),
            take_lines=frozenset(body.take_lines),
            not_lines=frozenset(body.not_lines),
            progress=step,
            now=work.now,
        )
    work.keeper.imports.pop(import_id, None)
    work.keeper.brought_in = brought_in
    return Imported(added_count=len(brought_in.added), taken_count=len(brought_in.taken))


@router.post("/undo")
def undo(work: WorkDep) -> Undone:
    """Takes back what was brought in last, since the vault was unlocked."""
    back = use.undo_import(work.vault, work.keeper.brought_in, now=work.now)
    work.keeper.brought_in = use.BroughtIn()
    return Undone(gone_count=back.gone, binned_count=back.binned, put_back_count=back.put_back)


@router.delete("/{import_id}", status_code=204)
def forget(import_id: str, work: WorkDep) -> Response:
    """Lets the file go from memory."""
    work.keeper.imports.pop(import_id, None)
    return Response(status_code=204)


def _file(work: Work, import_id: str) -> judging.ImportFile:
    try:
        return work.keeper.imports[import_id]
    except KeyError:
        raise ImportUnknown() from None
