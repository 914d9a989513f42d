"""Sealed backups by one act."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.carry import BackupOut
from newknot.core.safeguards import Act
from newknot.usecases import backups as use

router = APIRouter(prefix="/backups", tags=["carry"])


@router.post("", status_code=201)
def make_backup(work: WorkDep) -> BackupOut:
    """Writes a sealed copy into the backup folder and opens it once."""
    work.require(Act.EXPORT)
    made = use.make_backup(work.vault, work.keeper.backup_folder, now=work.now)
    return BackupOut(
        name=made.name, path=str(made.path), size_bytes=made.size_bytes, made_at=made.made_at
    )


@router.get("/{name}", response_class=Response)
def backup_content(name: str, work: WorkDep) -> Response:
    """The sealed file, to be put elsewhere."""
    body = use.read_backup(work.keeper.backup_folder, name)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(body, media_type="application/octet-stream", headers=headers)
