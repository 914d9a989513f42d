"""Sealed backups of the whole vault: made by one act or by schedule, kept by a rule, restored."""

import re
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from errno import EDQUOT, ENOSPC
from pathlib import Path

from newknot.core.keeping_rule import KeepingRule, kept
from newknot.core.merging.merge import CARD, LOGIN, Contents, Parts
from newknot.core.merging.restoring import Restore, restored
from newknot.store.copies import (
    CopyFaulty,
    opened_copy,
    remove_copy,
    require_whole_copy,
    unreadable_of,
    vault_id_of,
    write_copy,
)
from newknot.store.database import create_private
from newknot.store.errors import DiskFull, RecordDamaged, RecordMissing, VaultFolderRefused
from newknot.store.logins import get_card
from newknot.store.merging import read_contents, write_restore
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault, new_id
from newknot.usecases.copies.backup_names import BackupName, name_of, read_name
from newknot.usecases.errors import BackupNotVerified, BackupOfOtherKey, BackupUnknown

_OLD_VERSION = re.compile(r"\.version-\d+$")
FAILED_SUFFIX = ".failed"
"""What a copy is called that was found not to give everything back."""


@dataclass(frozen=True, slots=True)
class Backup:
    """A sealed copy of the vault. size_bytes; path on this machine. changes: how many the vault had
    seen; -1 where that is not known.
    """

    name: str
    path: Path
    size_bytes: int
    made_at: datetime
    changes: int = -1

    @property
    def place(self) -> tuple[int, datetime, str]:
        """What copies are ordered by: what was made after what, whatever the clock said."""
        return self.changes, self.made_at, self.name


@dataclass(frozen=True, slots=True)
class RestoreLine:
    """One record that a restore would change. what: back, gone, differs, or made (a loose end).

    record_id: of a login, its own; title and user name: of the login that it is, or is of, or what
    else it is called. kept_secrets, kept_texts: how many newer ones its history would
    keep.
    """

    record_id: str
    label: str
    title: str
    user_name: str
    what: str
    kept_secrets: int = 0
    kept_texts: int = 0


def make_backup(vault: Vault, folder: Path, *, now: datetime) -> Backup:
    """Writes a copy, reads it through to its last record, and notes the day among the safeguards;
    those of this vault that the rule does not keep are deleted then.

    The copy is opened by the passphrase that the vault has now. One that does not give everything
    back is put apart, and nothing is deleted in its favour. Raises `BackupNotVerified`,
    `VaultFolderRefused`, `DiskFull`.
    """
    try:
        before = vault.counter
        path = _free_path(vault, folder, now)
        write_copy(vault, path)
        try:
            require_whole_copy(vault, path, least_counter=before)
        except CopyFaulty as error:
            _put_apart(vault, folder, path)
            title = _title_of(vault, error.record_id)
            raise BackupNotVerified(part=error.part, title=title) from None
        # Noted only now: the day shown is that of the last good one.
        with vault.transaction() as tx:
            put_safeguards(tx, vault, replace(get_safeguards(vault), last_backup_at=now))
        made = Backup(path.name, path, path.stat().st_size, now, before)
        _drop_old(vault, folder, get_safeguards(vault).keeping, made)
        return made
    except OSError as error:
        if error.errno in (ENOSPC, EDQUOT):
            raise DiskFull() from None
        raise VaultFolderRefused(reason=error.strerror or "cannot be used") from None


def back_up_before(vault: Vault, folder: Path, *, now: datetime) -> None:
    """A backup before an act that may be regretted. Where the vault itself holds what cannot be
    read, a copy that gives back all the rest is enough, and lies apart: else nothing could be
    brought back of what was lost. Raises as making a backup does.
    """
    before = vault.counter
    try:
        make_backup(vault, folder, now=now)
    except BackupNotVerified as refused:
        lost, apart = unreadable_of(vault), _apart(vault, folder)
        if not lost or not apart:
            raise
        try:
            require_whole_copy(vault, apart[0], least_counter=before, but_for=lost)
        except CopyFaulty:
            raise refused from None


def backup_if_due(vault: Vault, folder: Path, *, now: datetime) -> Backup | None:
    """One by schedule; None where none is due, or the schedule is off. One that is dated after now
    was made by a clock that ran ahead, and puts nothing off.
    """
    safeguards = get_safeguards(vault)
    if not safeguards.backup_every_h or vault.is_older_copy:
        return None
    last = safeguards.last_backup_at
    if last is not None and last <= now < last + timedelta(hours=safeguards.backup_every_h):
        return None
    return make_backup(vault, folder, now=now)


def list_backups(vault: Vault, folder: Path) -> list[Backup]:
    """All copies of this vault, newest first: those in the folder, and those that were kept beside
    the vault before it was brought to a newer version.
    """
    # Those from before a migration have no count, and are older than any that has one.
    every = [*_by_rule(vault, folder), *_before_migrations(vault)]
    return sorted(every, key=lambda one: one.place, reverse=True)


def _before_migrations(vault: Vault) -> list[Backup]:
    found: list[Backup] = []
    for path in vault.path.parent.glob(f"{vault.path.name}.version-*"):
        if _OLD_VERSION.search(path.name) and vault_id_of(path) == vault.vault_id:
            facts = path.stat()
            at = datetime.fromtimestamp(facts.st_mtime, UTC)
            found.append(Backup(path.name, path, facts.st_size, at))
    return found


def _by_rule(vault: Vault, folder: Path) -> list[Backup]:
    """Those that the rule counts: made by an act or by schedule, into the folder."""
    found: list[Backup] = []
    for path in folder.glob("newknot-*.vault") if folder.is_dir() else ():
        named = read_name(path.name)
        if named is None or not _is_of(vault, path, named.vault):
            continue
        size_bytes = path.stat().st_size
        found.append(Backup(path.name, path, size_bytes, named.made_at, named.changes))
    return found


def read_backup(vault: Vault, folder: Path, name: str) -> bytes:
    """The bytes of a backup made here. Raises `BackupUnknown`."""
    return _path_of(vault, folder, name).read_bytes()


def look_into_backup(vault: Vault, folder: Path, name: str, *, now: datetime) -> list[RestoreLine]:
    """Everything that restoring it would change, before anything is. Raises `BackupUnknown`,
    `BackupOfOtherKey`.
    """
    ours, then = read_contents(vault), _contents_of(vault, folder, name)
    restore = restored(ours, then, now=now.isoformat(), new_id=new_id)
    return _lines(ours, then, restore)


def restore_backup(vault: Vault, folder: Path, name: str, *, now: datetime) -> list[RestoreLine]:
    """Puts everything back as it was in the backup, in one transaction, and loses no secret; the
    settings stay, and the present state is backed up first. Raises as looking into it does.
    """
    then = _contents_of(vault, folder, name)
    back_up_before(vault, folder, now=now)
    with vault.transaction() as tx:
        ours = read_contents(vault)
        restore = restored(ours, then, now=now.isoformat(), new_id=new_id)
        write_restore(tx, vault, ours, restore)
    return _lines(ours, then, restore)


def _contents_of(vault: Vault, folder: Path, name: str) -> Contents:
    copy = opened_copy(vault, _path_of(vault, folder, name))
    if copy is None:
        raise BackupOfOtherKey()
    try:
        return read_contents(copy)
    finally:
        copy.forget()


def _lines(ours: Contents, then: Contents, restore: Restore) -> list[RestoreLine]:
    lines: list[RestoreLine] = []
    for one in restore.changes:
        parts = _parts_of(one.label, one.record_id, restore, ours, then)
        card = parts.get(CARD, {})
        if one.of_login_id and one.label != LOGIN:
            card = _parts_of(LOGIN, one.of_login_id, restore, ours, then).get(CARD, card)
        title = str(card.get("title") or card.get("name") or card.get("address") or "")
        user_name = str(card.get("user_name", ""))
        lines.append(
            RestoreLine(
                one.record_id,
                one.label,
                title,
                user_name,
                one.what,
                one.kept_secrets,
                one.kept_texts,
            )
        )
    order = {LOGIN: 0}
    return sorted(lines, key=lambda one: (order.get(one.label, 1), one.title.casefold(), one.label))


def _parts_of(
    label: str, record_id: str, restore: Restore, ours: Contents, then: Contents
) -> Parts:
    for records in (then.records, restore.written, ours.records):
        found = records.get(label, {}).get(record_id)
        if found is not None:
            return found
    return {}


def _drop_old(vault: Vault, folder: Path, rule: KeepingRule, made: Backup) -> None:
    """The rule counts this vault's own."""
    backups = sorted(_by_rule(vault, folder), key=lambda one: one.place, reverse=True)
    stay = kept((one.made_at for one in backups), rule)
    for one, stays in zip(backups, stay, strict=True):
        if not stays and one.name != made.name:
            one.path.unlink(missing_ok=True)


def _is_of(vault: Vault, path: Path, named_id: str) -> bool:
    """By its name; one from before names bore the vault says it itself."""
    if named_id:
        return named_id == _short_id(vault)
    return vault_id_of(path) == vault.vault_id


def _short_id(vault: Vault) -> str:
    return vault.vault_id[:4].hex()


def _apart(vault: Vault, folder: Path) -> list[Path]:
    return list(folder.glob(f"newknot-{_short_id(vault)}-*.vault{FAILED_SUFFIX}"))


def _put_apart(vault: Vault, folder: Path, path: Path) -> None:
    """One at most is kept to be looked at: the last."""
    for former in _apart(vault, folder):
        former.unlink(missing_ok=True)
    path.rename(path.with_name(path.name + FAILED_SUFFIX))
    remove_copy(path)


def _title_of(vault: Vault, record_id: str) -> str:
    """The login that a record is of, where that is known."""
    try:
        return get_card(vault, record_id).title
    except (RecordMissing, RecordDamaged):
        return ""


def _path_of(vault: Vault, folder: Path, name: str) -> Path:
    for one in _before_migrations(vault):
        if one.name == name:
            return one.path
    if read_name(name) is None or not (folder / name).is_file():
        raise BackupUnknown()
    return folder / name


def _free_path(vault: Vault, folder: Path, now: datetime) -> Path:
    named = BackupName(_short_id(vault), now, vault.counter)
    for number in range(1000):
        path = folder / name_of(named, number)
        if not path.exists():
            create_private(path)
            return path
    raise VaultFolderRefused(reason="holds a thousand backups of this second")
