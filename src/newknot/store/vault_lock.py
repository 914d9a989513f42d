"""One process a vault, whatever path names it: a lock on the identity of the file, held for life.

Two locks (flock(2), which SQLite's own byte locks know nothing of): on `NAME.lock` in the vault's
folder, so that a vault that is not made yet is held too; and on the vault file itself, which links
of both kinds and bind mounts share. The vault file is opened for its lock before SQLite opens it,
and closed after: closing a file drops every byte lock that the process has on it.
"""

import fcntl
import os
import stat
from pathlib import Path

from newknot.store.errors import VaultFolderRefused, VaultInUse

NOT_A_FILE = "the vault's place is taken by something that is not a file"


class VaultLock:
    """Taken in the constructor, kept until `release` or the end of the process.

    addresses: a folder for small files that tell where the holder of a vault file answers.
    Raises `VaultInUse` with the holder's address, `VaultFolderRefused`.
    """

    def __init__(self, vault: Path, *, address: str, addresses: Path) -> None:
        self.vault = vault
        self.address = address
        self._addresses = addresses
        self._file: int | None = None
        self._identity: tuple[int, int] | None = None
        path = vault.with_name(vault.name + ".lock")
        try:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._place = os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
        except OSError as error:
            raise VaultFolderRefused(reason=error.strerror or "cannot be written") from None
        try:
            fcntl.flock(self._place, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            holder = os.pread(self._place, 200, 0).decode("utf-8", "replace").strip()
            os.close(self._place)
            raise VaultInUse(address=holder) from None
        os.ftruncate(self._place, 0)
        os.pwrite(self._place, address.encode("utf-8"), 0)
        try:
            self.hold_file(vault)
        except BaseException:
            os.close(self._place)
            raise

    def hold_file(self, vault: Path) -> None:
        """Takes the file that lies there now, where it is not held already; none is no error.

        To be called before SQLite opens a file that may be another, and after a file was put in
        place. Raises `VaultInUse`, `VaultFolderRefused`.
        """
        try:
            found = vault.stat()
        except FileNotFoundError:
            return
        except OSError as error:
            raise VaultFolderRefused(reason=error.strerror or "cannot be read") from None
        if not stat.S_ISREG(found.st_mode):
            raise VaultFolderRefused(reason=NOT_A_FILE)
        identity = (found.st_dev, found.st_ino)
        if identity == self._identity:
            return
        try:
            descriptor = os.open(vault, os.O_RDONLY | os.O_CLOEXEC | os.O_NONBLOCK)
        except OSError as error:
            raise VaultFolderRefused(reason=error.strerror or "cannot be read") from None
        try:
            fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            os.close(descriptor)
            raise VaultInUse(address=self._holder_of(identity)) from None
        former, self._file, self._identity = self._file, descriptor, identity
        if former is not None:
            os.close(former)
        self._tell(identity)

    def release(self) -> None:
        """Gives the locks up; the lock file stays."""
        if self._file is not None:
            os.close(self._file)
            self._file = self._identity = None
        os.close(self._place)

    def _told_in(self, identity: tuple[int, int]) -> Path:
        return self._addresses / f"{identity[0]:x}-{identity[1]:x}.address"

    def _holder_of(self, identity: tuple[int, int]) -> str:
        try:
            return self._told_in(identity).read_text("utf-8")[:200].strip()
        except (OSError, UnicodeDecodeError):
            return ""

    def _tell(self, identity: tuple[int, int]) -> None:
        try:
            self._addresses.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._told_in(identity).write_text(self.address, "utf-8")
        except OSError:
            return  # the lock holds without it; only where its holder answers is not known then
