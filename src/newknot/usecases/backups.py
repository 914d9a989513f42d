"""A sealed backup of the whole vault by one act."""

import re
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path

from newknot.store.database import create_private
from newknot.store.errors import VaultFolderRefused
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault
from newknot.usecases.errors import BackupNotVerified, BackupUnknown

_NAME = re.compile(r"newknot-\d{8}-\d{6}(-\d+)?\.vault")


@dataclass(frozen=True, slots=True)
class Backup:
    """A backup file that was opened and found whole. size_bytes; path on this machine."""

    name: str
    path: Path
    size_bytes: int
    made_at: datetime


def make_backup(vault: Vault, folder: Path, *, now: datetime) -> Backup:
    """Writes a copy, opens it with the vault's key, and notes the day among the safeguards.

    The copy is opened by the same passphrase as the vault. Raises `BackupNotVerified`,
    `VaultFolderRefused`.
    """
    with vault.transaction() as tx:
        put_safeguards(tx, vault, replace(get_safeguards(vault), last_backup_at=now))
    path = _free_path(folder, now)
    counter = vault.backup_to(path)
    if not vault.opens(path, counter=counter):
        path.unlink()
        raise BackupNotVerified()
    return Backup(path.name, path, path.stat().st_size, now)


def read_backup(folder: Path, name: str) -> bytes:
    """The bytes of a backup made here. Raises `BackupUnknown`."""
    if not _NAME.fullmatch(name) or not (folder / name).is_file():
        raise BackupUnknown()
    return (folder / name).read_bytes()


def _free_path(folder: Path, now: datetime) -> Path:
    stem = f"newknot-{now:%Y%m%d-%H%M%S}"
    for number in range(1000):
        path = folder / (f"{stem}-{number}.vault" if number else f"{stem}.vault")
        if not path.exists():
            create_private(path)
            return path
    raise VaultFolderRefused(reason="holds a thousand backups of this second")
