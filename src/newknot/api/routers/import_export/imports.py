"""Bringing logins in from CSV or the Credential Exchange Format: read, preview, apply, undo."""

import secrets

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.import_export.exports import ClearFileOut
from newknot.api.schemas.import_export.imports import (
    DifferenceOut,
    ImportApply,
    Imported,
    ImportPreview,
    ImportRowOut,
    ImportTable,
    LeftOut,
    MappingIn,
    Undone,
)
from newknot.core.safeguards import Act
from newknot.exchange.csv_logins import TARGETS
from newknot.usecases.copies.backups import back_up_before
from newknot.usecases.errors import ImportUnknown, NothingHeld
from newknot.usecases.import_export import imports as use
from newknot.usecases.import_export import judging
from newknot.usecases.import_export.clear_files import write_clear_file

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
    with work.keeper.progress.if_idle() as step:
        rows = judging.preview_import(
            work.vault,
            _file(work, import_id),
            tuple(body.mapping),
            progress=step,
            now=work.now,
        )
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
                can_take=row.takes_secret,
                can_take_fields=row.of_login_id is not None,
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
    work.require(Act.EDIT)
    file = _file(work, import_id)
    back_up_before(work.vault, work.keeper.folder_of(work.vault), now=work.now)
    with work.keeper.progress.of_one_act() as step:
        done = use.apply_import(
            work.vault,
            file,
            tuple(body.mapping),
            also_lines=frozenset(body.also_lines),
            take_lines=frozenset(body.take_lines),
            take_fields={one.line: one.fields for one in body.take_fields},
            not_lines=frozenset(body.not_lines),
            progress=step,
            now=work.now,
        )
    work.keeper.imports.pop(import_id, None)
    work.keeper.left_out = judging.rows_of(file, {row.line for row in done.left_out})
    return Imported(
        added_count=len(done.brought_in.added),
        taken_count=len(done.brought_in.taken),
        left_out=[
            LeftOut(line=r.line, title=r.title, user_name=r.user_name, reason=r.reason)
            for r in done.left_out
        ],
    )


@router.post("/left-out/file", status_code=201)
def write_left_out(work: WorkDep) -> ClearFileOut:
    """Writes the rows that the last import left out into a file beside the vault, in the clear, for
    the owner alone; it is watched until it is gone.
    """
    work.require(Act.EXPORT)
    if work.keeper.left_out is None:
        raise NothingHeld()
    folder = work.keeper.path.parent / "taken-out"
    made = write_clear_file(work.vault, folder, "left-out.csv", work.keeper.left_out, now=work.now)
    work.given("rows that were left out", "taken out as CSV in the clear")
    return ClearFileOut(path=str(made.path), written_at=made.written_at)


@router.post("/undo")
def undo(work: WorkDep) -> Undone:
    """Takes back what was brought in last; a lock in between does not matter."""
    work.require(Act.EDIT)
    back = use.undo_import(work.vault, now=work.now)
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
