"""Secrets in the clear on this machine: written for the owner alone, watched until gone."""

import os
from datetime import datetime
from pathlib import Path

from newknot.store.database import create_private
from newknot.store.errors import DiskFull, VaultFolderRefused
from newknot.store.taken_out import ClearFile, get_clear_files, put_clear_files
from newknot.store.vault import Vault
from newknot.usecases.errors import NothingHeld


def write_clear_file(
    vault: Vault, folder: Path, name: str, content: bytes, *, now: datetime
) -> ClearFile:
    """Writes a file that only its owner may read, whole or not at all, once it is noted that it is
    there to be watched. Raises `VaultFolderRefused`, `DiskFull`.
    """
    stem, _, ending = name.partition(".")
    path = folder / f"{stem}-{now:%Y%m%d-%H%M%S}.{ending}"
    create_private(path)
    one = ClearFile(path, now)
    with vault.transaction() as tx:
        put_clear_files(tx, vault, [*get_clear_files(vault), one])
    try:
        with open(path, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
    except OSError:
        path.unlink(missing_ok=True)
        raise DiskFull() from None
    return one


def clear_files_there(vault: Vault) -> list[ClearFile]:
    """Those that still lie where they were written; what is gone is no longer watched."""
    held = get_clear_files(vault)
    there = [one for one in held if one.path.exists()]
    if there != held and not vault.is_older_copy:
        with vault.transaction() as tx:
            put_clear_files(tx, vault, there)
    return there


def delete_clear_file(vault: Vault, path: str) -> None:
    """Overwrites and deletes a file that was written here; other paths are not touched: raises
    `NothingHeld`. What a disk or a file system kept elsewhere is beyond reach.
    """
    for one in clear_files_there(vault):
        if str(one.path) == path:
            try:
                with open(one.path, "r+b") as file:
                    file.write(bytes(one.path.stat().st_size))
                    file.flush()
                    os.fsync(file.fileno())
                one.path.unlink()
            except OSError as error:
                raise VaultFolderRefused(reason=error.strerror or "cannot be written") from None
            clear_files_there(vault)
            return
    raise NothingHeld()
