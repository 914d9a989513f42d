"""Sealed backups of the whole vault: made by one act or by schedule, kept by a rule, restored."""

import re
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from newknot.core.carry.keeping import KeepingRule, kept
from newknot.core.carry.merge import CARD, LOGIN, Contents, Parts
from newknot.core.carry.stamps import Document, unstamped
from newknot.store.contents import read_contents, write_contents
from newknot.store.database import create_private
from newknot.store.errors import VaultFolderRefused
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault
from newknot.usecases.errors import BackupNotVerified, BackupOfOtherKey, BackupUnknown

_NAME = re.compile(r"newknot-(\d{8}-\d{6})(-\d+)?\.vault")


@dataclass(frozen=True, slots=True)
class Backup:
    """A backup file that was opened and found whole. size_bytes; path on this machine."""

    name: str
    path: Path
    size_bytes: int
    made_at: datetime


@dataclass(frozen=True, slots=True)
class RestoreLine:
    """One login that a restore would change. what: back, gone or differs."""

    login_id: str
    title: str
    user_name: str
    what: str


def make_backup(vault: Vault, folder: Path, *, now: datetime) -> Backup:
    """Writes a copy, opens it with the vault's key, and notes the day among the safeguards; those
    that the rule does not keep are deleted then.

    The copy is opened by the same passphrase as the vault. Raises `BackupNotVerified`,
    `VaultFolderRefused`.
    """
    path = _free_path(folder, now)
    try:
        if not vault.opens(path, counter=vault.backup_to(path)):
            raise BackupNotVerified()
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    # Noted only now: the day shown is that of the last good one.
    with vault.transaction() as tx:
        put_safeguards(tx, vault, replace(get_safeguards(vault), last_backup_at=now))
    _drop_old(folder, get_safeguards(vault).keeping)
    return Backup(path.name, path, path.stat().st_size, now)


def backup_if_due(vault: Vault, folder: Path, *, now: datetime) -> Backup | None:
    """One by schedule; None where none is due, or the schedule is off."""
    safeguards = get_safeguards(vault)
    if not safeguards.backup_every_h or vault.is_older_copy:
        return None
    last = safeguards.last_backup_at
    if last is not None and now - last < timedelta(hours=safeguards.backup_every_h):
        return None
    return make_backup(vault, folder, now=now)


def list_backups(folder: Path) -> list[Backup]:
    """All that lie in the folder, newest first."""
    found: list[Backup] = []
    for path in folder.glob("newknot-*.vault") if folder.is_dir() else ():
        named = _NAME.fullmatch(path.name)
        if named is not None:
            at = datetime.strptime(named[1], "%Y%m%d-%H%M%S").replace(tzinfo=UTC)
            found.append(Backup(path.name, path, path.stat().st_size, at))
    return sorted(found, key=lambda one: (one.made_at, one.name), reverse=True)


def read_backup(folder: Path, name: str) -> bytes:
    """The bytes of a backup made here. Raises `BackupUnknown`."""
    return _path_of(folder, name).read_bytes()


def look_into_backup(vault: Vault, folder: Path, name: str) -> list[RestoreLine]:
    """What restoring it would change of the logins, before anything is. Raises `BackupUnknown`,
    `BackupOfOtherKey`.
    """
    return _lines(read_contents(vault), _contents_of(vault, folder, name))


def restore_backup(vault: Vault, folder: Path, name: str, *, now: datetime) -> list[RestoreLine]:
    """Puts everything back as it was in the backup, in one transaction; the present state is backed
    up first. Raises as looking into it does.
    """
    then = _contents_of(vault, folder, name)
    make_backup(vault, folder, now=now)
    ours = read_contents(vault)
    with vault.transaction() as tx:
        write_contents(tx, vault, then)
    return _lines(ours, then)


def _contents_of(vault: Vault, folder: Path, name: str) -> Contents:
    copy = vault.opened_copy(_path_of(folder, name))
    if copy is None:
        raise BackupOfOtherKey()
    try:
        return read_contents(copy)
    finally:
        copy.close()


def _lines(ours: Contents, then: Contents) -> list[RestoreLine]:
    here, there = ours.records.get(LOGIN, {}), then.records.get(LOGIN, {})
    lines: list[RestoreLine] = []
    for login_id in here.keys() | there.keys():
        a, b = here.get(login_id), there.get(login_id)
        if _plain(a) != _plain(b):
            what = "back" if a is None else "gone" if b is None else "differs"
            card = (b or a or {}).get(CARD, {})
            title, user_name = str(card.get("title", "")), str(card.get("user_name", ""))
            lines.append(RestoreLine(login_id, title, user_name, what))
    return sorted(lines, key=lambda one: (one.title.casefold(), one.login_id))


def _plain(parts: Parts | None) -> dict[str, Document | None] | None:
    """A login as the user knows it: an empty history is none."""
    if parts is None:
        return None
    plain = {part: unstamped(document) for part, document in parts.items()}
    return {part: one for part, one in plain.items() if one != {"earlier": []}}


def _drop_old(folder: Path, rule: KeepingRule) -> None:
    backups = list_backups(folder)
    stay = kept((one.made_at for one in backups), rule)
    for one in backups:
        if one.made_at not in stay:
            one.path.unlink(missing_ok=True)


def _path_of(folder: Path, name: str) -> Path:
    if not _NAME.fullmatch(name) or not (folder / name).is_file():
        raise BackupUnknown()
    return folder / name


def _free_path(folder: Path, now: datetime) -> Path:
    stem = f"newknot-{now:%Y%m%d-%H%M%S}"
    for number in range(1000):
        path = folder / (f"{stem}-{number}.vault" if number else f"{stem}.vault")
        if not path.exists():
            create_private(path)
            return path
    raise VaultFolderRefused(reason="holds a thousand backups of this second")
