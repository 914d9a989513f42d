"""Back in from nothing: a backup or a bundle opened where the vault's file is not there.

A backup is put in the vault's place as it is, and entered there by its own passphrase (that of its
day) or recovery key. A bundle is opened into a new vault, under the bundle's passphrase.
"""

import os
from dataclasses import dataclass
from datetime import UTC, datetime
from errno import EDQUOT, ENOSPC
from pathlib import Path

from newknot.crypto import WrongPassphrase
from newknot.crypto.bundle import BundleClosed, open_bundle
from newknot.exchange.bundle import read_content
from newknot.store.copies import vault_version_of
from newknot.store.database import create_private, migrations
from newknot.store.errors import DiskFull, VaultExists, VaultFolderRefused, VaultNewer
from newknot.store.vault import Vault
from newknot.usecases.copies.backup_names import read_name
from newknot.usecases.copies.bundles import merge_in
from newknot.usecases.errors import BackupUnknown, NoCopy, NothingHeld
from newknot.usecases.vault.keeper import Keeper
from newknot.usecases.vault.vault_passphrase import note_passphrase

BACKUP, BUNDLE = "backup", "bundle"
_SQLITE, _JWE = b"SQLite format 3\0", b"eyJ"


@dataclass(frozen=True, slots=True)
class CopyBeside:
    """A sealed copy that lies where backups of this vault lie. made_at: when it was written."""

    name: str
    made_at: datetime


def knew_a_vault(keeper: Keeper) -> bool:
    """Whether a vault was ever opened on this machine."""
    return any(keeper.state_folder.glob("*.anchor"))


def copies_beside(keeper: Keeper) -> list[CopyBeside]:
    """Copies that could take the place of the missing file, newest first."""
    found = [
        CopyBeside(path.name, datetime.fromtimestamp(path.stat().st_mtime, UTC))
        for path in _paths_beside(keeper)
        if vault_version_of(path) is not None
    ]
    return sorted(found, key=_place, reverse=True)


def _place(one: CopyBeside) -> tuple[int, datetime, str]:
    named = read_name(one.name)
    return named.changes if named is not None else -1, one.made_at, one.name


def place_beside(keeper: Keeper, name: str) -> None:
    """Puts one of them in the vault's place. Raises `BackupUnknown`, and as `place_copy`."""
    for path in _paths_beside(keeper):
        if path.name == name:
            place_copy(keeper, path.read_bytes())
            return
    raise BackupUnknown()


def place_copy(keeper: Keeper, body: bytes) -> str:
    """Takes a sealed copy in where no vault's file is; says what it is. A backup is then entered
    as any vault; a bundle waits for its passphrase. One that was not entered gives way to the next.

    Raises `VaultExists`, `NoCopy`, `VaultNewer`, `DiskFull`, `VaultFolderRefused`.
    """
    _require_none(keeper)
    if body.startswith(_JWE):
        keeper.waiting_bundle = body
        return BUNDLE
    if not body.startswith(_SQLITE):
        raise NoCopy()
    building = keeper.path.with_name(keeper.path.name + ".placed")
    building.unlink(missing_ok=True)
    create_private(building)
    try:
        _write(building, body)
        version = vault_version_of(building)
        if version is None:
            raise NoCopy()
        if version > len(migrations()):
            raise VaultNewer(version=version)
        building.replace(keeper.path)
    finally:
        building.unlink(missing_ok=True)
    keeper.placed = True
    return BACKUP


def open_waiting_bundle(keeper: Keeper, passphrase: str) -> tuple[str, str]:
    """A new vault under the bundle's passphrase with all that the bundle holds, whole or not at
    all; both halves of its first session. Raises `NothingHeld`, `WrongPassphrase`,
    `TooManyGuesses`, `BundleRefused`, `BundleContentRefused`, `VaultExists`.
    """
    _require_none(keeper)
    if keeper.waiting_bundle is None:
        raise NothingHeld()
    with keeper.one_guess():
        try:
            text = open_bundle(keeper.waiting_bundle, passphrase=passphrase, private_key=None)
        except BundleClosed:
            keeper.brake.wrong(keeper.clock.boot_s())
            raise WrongPassphrase() from None
    keeper.brake.right()
    content = read_content(text)
    vault = Vault.create(
        keeper.path,
        passphrase=passphrase,
        parameters=keeper.parameters,
        state_folder=keeper.state_folder,
    )
    try:
        keeper.hold_file(keeper.path)
        now = keeper.clock.now()
        merge_in(vault, content, take_out_of_bin=frozenset(), now=now)
        note_passphrase(vault, passphrase, now=now)
    except BaseException:
        vault.close()
        keeper.path.unlink(missing_ok=True)
        raise
    keeper.waiting_bundle = None
    return keeper.take(vault)


def _require_none(keeper: Keeper) -> None:
    """A vault that is there is never written over; a copy that was placed and not entered may."""
    if keeper.is_unlocked or (keeper.exists and not keeper.placed):
        raise VaultExists()


def _paths_beside(keeper: Keeper) -> list[Path]:
    versions = keeper.path.parent.glob(f"{keeper.path.name}.version-*")
    return [*keeper.backup_folder.glob("newknot-*.vault"), *versions]


def _write(path: Path, body: bytes) -> None:
    try:
        with open(path, "wb") as file:
            file.write(body)
            file.flush()
            os.fsync(file.fileno())
    except OSError as error:
        if error.errno in (ENOSPC, EDQUOT):
            raise DiskFull() from None
        raise VaultFolderRefused(reason=error.strerror or "cannot be written") from None
