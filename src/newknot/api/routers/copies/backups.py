"""Sealed backups: made by one act, looked into, restored."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.copies.backups import BackupOut, RestoreLineOut
from newknot.core.safeguards import Act
from newknot.usecases.copies import backups as use

router = APIRouter(prefix="/backups", tags=["copies"])


@router.get("")
def list_backups(work: WorkDep) -> list[BackupOut]:
    """Those of this vault that lie in the folder for them, newest first."""
    return [_shaped(one) for one in use.list_backups(work.vault, work.keeper.folder_of(work.vault))]


@router.post("", status_code=201)
def make_backup(work: WorkDep) -> BackupOut:
    """Writes a sealed copy into the backup folder and reads it through to its last record."""
    work.require(Act.EXPORT)
    return _shaped(use.make_backup(work.vault, work.keeper.folder_of(work.vault), now=work.now))


@router.get("/{name}", response_class=Response)
def backup_content(name: str, work: WorkDep) -> Response:
    """The sealed file, to be put elsewhere."""
    body = use.read_backup(work.vault, work.keeper.folder_of(work.vault), name)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(body, media_type="application/octet-stream", headers=headers)


@router.post("/{name}/look")
def look_into_backup(name: str, work: WorkDep) -> list[RestoreLineOut]:
    """Everything that restoring it would change."""
    folder = work.keeper.folder_of(work.vault)
    return _lines(use.look_into_backup(work.vault, folder, name, now=work.now))


@router.post("/{name}/restore")
def restore_backup(name: str, work: WorkDep) -> list[RestoreLineOut]:
    """Puts everything back as it was then and loses no secret; the present state is backed up
    first.
    """
    work.require(Act.DELETE)
    folder = work.keeper.folder_of(work.vault)
    lines = use.restore_backup(work.vault, folder, name, now=work.now)
    work.keeper.checked.clear()
    return _lines(lines)


def _shaped(one: use.Backup) -> BackupOut:
    return BackupOut(
        name=one.name,
        path=str(one.path),
        size_bytes=one.size_bytes,
        made_at=one.made_at,
        is_read_through=one.changes >= 0,
    )


def _lines(lines: list[use.RestoreLine]) -> list[RestoreLineOut]:
    return [
        RestoreLineOut(
            login_id=one.record_id,
            kind=one.label.lower(),
            title=one.title,
            user_name=one.user_name,
            what=one.what,
            kept_secrets=one.kept_secrets,
            kept_texts=one.kept_texts,
        )
        for one in lines
    ]
