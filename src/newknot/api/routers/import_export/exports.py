"""Taking out: logins in open formats, and their history without secrets."""

import secrets
from dataclasses import asdict

from fastapi import APIRouter, Response

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.import_export.exports import (
    ClearFileIn,
    ClearFileOut,
    ClearFilePath,
    LossesOut,
)
from newknot.core.safeguards import Act
from newknot.exchange.csv_logins import write_logins
from newknot.exchange.cxf import write_cxf
from newknot.exchange.history_csv import write_history
from newknot.store.taken_out import ClearFile
from newknot.usecases.import_export import clear_files as watch
from newknot.usecases.import_export import exports as use
from newknot.usecases.import_export.losses import losses_of

router = APIRouter(prefix="/exports", tags=["import and export"])


@router.post("/csv")
def logins_csv(work: WorkDep) -> Response:
    """All logins as CSV, every secret in the clear."""
    work.require(Act.EXPORT)
    file = _csv(work)
    work.given("all logins", "taken out as CSV in the clear")
    return Response(file, media_type="text/csv; charset=utf-8")


@router.post("/cxf")
def logins_cxf(work: WorkDep) -> Response:
    """All logins in the Credential Exchange Format, every secret in the clear."""
    work.require(Act.EXPORT)
    file = _cxf(work)
    work.given("all logins", "taken out as CXF in the clear")
    return Response(file, media_type="application/json")


@router.get("/losses")
def losses(work: WorkDep) -> LossesOut:
    """What neither open format carries of this vault, counted; and what is damaged."""
    return LossesOut.model_validate(asdict(losses_of(work.vault)))


@router.get("/files")
def clear_files(work: WorkDep) -> list[ClearFileOut]:
    """Files with secrets in the clear that still lie on this machine."""
    return [_shaped(one) for one in watch.clear_files_there(work.vault)]


@router.post("/files", status_code=201)
def write_clear_file(body: ClearFileIn, work: WorkDep) -> ClearFileOut:
    """Writes such a file for the owner alone, beside the vault; it is watched until it is gone."""
    work.require(Act.EXPORT)
    content = _csv(work) if body.kind == "csv" else _cxf(work)
    name = "logins.csv" if body.kind == "csv" else "logins.cxf.json"
    folder = work.keeper.path.parent / "taken-out"
    made = watch.write_clear_file(work.vault, folder, name, content, now=work.now)
    work.given("all logins", f"taken out as {body.kind.upper()} in the clear")
    return _shaped(made)


@router.post("/files/delete", status_code=204)
def delete_clear_file(body: ClearFilePath, work: WorkDep) -> Response:
    """Deletes one of them for good."""
    watch.delete_clear_file(work.vault, body.path)
    return Response(status_code=204)


@router.post("/history")
def history_csv(work: WorkDep) -> Response:
    """When each secret served: no secret is in it."""
    work.require(Act.EXPORT)
    rows = (
        (
            one.title,
            one.user_name,
            one.field,
            one.since_at.isoformat(timespec="seconds"),
            one.until_at.isoformat(timespec="seconds") if one.until_at is not None else "",
            "yes" if one.used else "never used",
            one.made,
            str(one.length),
        )
        for one in use.served_secrets(work.vault)
    )
    return Response(write_history(rows), media_type="text/csv; charset=utf-8")


def _csv(work: Work) -> bytes:
    return write_logins(use.carried_logins(work.vault))


def _cxf(work: Work) -> bytes:
    logins = use.carried_logins(work.vault)
    return write_cxf(logins, now=work.now, new_id=lambda: secrets.token_bytes(16))


def _shaped(one: ClearFile) -> ClearFileOut:
    return ClearFileOut(path=str(one.path), written_at=one.written_at)
