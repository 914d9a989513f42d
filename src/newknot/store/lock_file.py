"""One process a vault: a lock held for life on VAULT.lock, which tells where its holder answers."""

import fcntl
import os
from pathlib import Path

from newknot.store.errors import VaultFolderRefused, VaultInUse


class LockFile:
    """Taken in the constructor, kept until `release` or the end of the process.

    Raises `VaultInUse` with the holder's address, `VaultFolderRefused`.
    """

    def __init__(self, vault: Path, *, address: str) -> None:
        path = vault.with_name(vault.name + ".lock")
        try:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._descriptor = os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
        except OSError as error:
            raise VaultFolderRefused(reason=error.strerror or "cannot be written") from None
        try:
            fcntl.flock(self._descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            holder = os.pread(self._descriptor, 200, 0).decode("utf-8", "replace").strip()
            os.close(self._descriptor)
            raise VaultInUse(address=holder) from None
        os.ftruncate(self._descriptor, 0)
        os.pwrite(self._descriptor, address.encode("utf-8"), 0)

    def release(self) -> None:
        """Gives the lock up; the file stays."""
        os.close(self._descriptor)
