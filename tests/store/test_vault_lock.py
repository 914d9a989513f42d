"""One process a vault, whatever path names it."""

import os
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from newknot.store.errors import VaultFolderRefused, VaultInUse
from newknot.store.vault_lock import VaultLock

HERE = "http://127.0.0.1:47806/"
HOLD = """
import sys
from pathlib import Path
from newknot.store.vault_lock import VaultLock
held = VaultLock(Path(sys.argv[1]), address=sys.argv[2], addresses=Path(sys.argv[3]))
print("held", flush=True)
for line in sys.stdin:
    Path(sys.argv[1] + ".new").replace(sys.argv[1])
    held.hold_file(Path(sys.argv[1]))
    print("held", flush=True)
"""


@contextmanager
def held(vault: Path, addresses: Path) -> Iterator["subprocess.Popen[bytes]"]:
    """Another process that holds the vault, and puts `NAME.new` in its place at each line."""
    with subprocess.Popen(
        [sys.executable, "-c", HOLD,
         str(vault), HERE, str(addresses)],
        stdin=subprocess.PIPE, stdout=subprocess.PIPE,
    ) as holder:  # fmt: skip
        assert holder.stdout is not None
        assert holder.stdout.readline() == b"held\n"
        yield holder
        holder.kill()


def taken(vault: Path, addresses: Path) -> str:
    """Where the holder answers, as told to one who would hold it too."""
    with pytest.raises(VaultInUse) as caught:
        VaultLock(vault, address="elsewhere", addresses=addresses)
    return str(caught.value.data["address"])


def test_another_process_is_told_where_the_first_answers_and_may_follow_it(tmp_path: Path) -> None:
    vault = tmp_path / "own.vault"
    # Nothing of a longer address is left, and nobody else reads it.
    VaultLock(vault, address=f"{HERE}/of/before", addresses=tmp_path / "run").release()
    assert vault.with_name("own.vault.lock").stat().st_mode & 0o777 == 0o600
    with held(vault, tmp_path / "run"):
        assert taken(vault, tmp_path / "run") == HERE
    VaultLock(vault, address="elsewhere", addresses=tmp_path / "run").release()


def test_every_name_of_the_file_is_the_same_vault(tmp_path: Path) -> None:
    (tmp_path / "a").mkdir()
    (tmp_path / "b").mkdir()
    vault, other = tmp_path / "a" / "own.vault", tmp_path / "b" / "other.vault"
    vault.touch()
    (tmp_path / "c").symlink_to(tmp_path / "a")
    (tmp_path / "soft.vault").symlink_to(vault)
    other.hardlink_to(vault)
    with held(vault, tmp_path / "run") as holder:
        names = (tmp_path / "c" / "own.vault", tmp_path / "soft.vault", other)
        assert [taken(name, tmp_path / "run") for name in names] == [HERE] * 3
        vault.with_name("own.vault.new").touch()
        assert holder.stdin is not None and holder.stdout is not None
        holder.stdin.write(b"\n")
        holder.stdin.flush()
        assert holder.stdout.readline() == b"held\n"
        other.unlink()
        other.hardlink_to(vault)
        assert taken(other, tmp_path / "run") == HERE
    VaultLock(other, address="elsewhere", addresses=tmp_path / "run").release()


def test_where_the_holder_answers_may_stay_unknown(tmp_path: Path) -> None:
    vault, other = tmp_path / "own.vault", tmp_path / "other.vault"
    vault.touch()
    other.hardlink_to(vault)
    (tmp_path / "run").touch()
    with held(vault, tmp_path / "run"):
        assert taken(other, tmp_path / "run") == ""
    with held(vault, tmp_path / "told"):
        (told,) = (tmp_path / "told").glob("*.address")
        told.write_bytes(b"\xff")
        assert taken(other, tmp_path / "told") == ""


def test_what_is_no_file_is_refused(tmp_path: Path) -> None:
    (tmp_path / "own.vault").mkdir()
    with pytest.raises(VaultFolderRefused) as caught:
        VaultLock(tmp_path / "own.vault", address=HERE, addresses=tmp_path / "run")
    assert "not a file" in str(caught.value.data["reason"])


def refused(*_: object) -> int:
    raise PermissionError(13, "Permission denied")


def test_one_that_is_held_here_is_held_and_given_up(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    vault, other = tmp_path / "own.vault", tmp_path / "other.vault"
    first = VaultLock(vault, address=HERE, addresses=tmp_path / "run")
    vault.touch()
    first.hold_file(vault)
    first.hold_file(vault)
    other.hardlink_to(vault)
    assert taken(vault, tmp_path / "run") == taken(other, tmp_path / "run") == HERE
    other.unlink()
    (tmp_path / "new").touch()
    (tmp_path / "new").replace(vault)
    with monkeypatch.context() as refusing:
        refusing.setattr(os, "open", refused)
        with pytest.raises(VaultFolderRefused, match="vault_folder_refused"):
            first.hold_file(vault)
    first.hold_file(vault)
    other.hardlink_to(vault)
    assert taken(other, tmp_path / "run") == HERE
    first.release()
    VaultLock(other, address="elsewhere", addresses=tmp_path / "run").release()


def test_a_folder_that_takes_no_lock_is_named(tmp_path: Path) -> None:
    (tmp_path / "file").touch()
    (tmp_path / "round.vault").symlink_to("round.vault")
    for odd in (tmp_path / "file" / "own.vault", tmp_path / "round.vault"):
        with pytest.raises(VaultFolderRefused):
            VaultLock(odd, address=HERE, addresses=tmp_path / "run")
