"""A place that others may write to is said; one's own is not."""

import os
from pathlib import Path

import pytest

from newknot.store.vault_place import SAYS, PlaceDoubt, place_doubts


@pytest.mark.parametrize(
    ("folder_mode", "file_mode", "expected"),
    [
        (0o700, 0o600, []),
        (0o755, 0o644, []),
        (0o770, 0o600, ["folder_shared"]),
        (0o1777, 0o600, ["folder_shared"]),
        (0o700, 0o620, ["file_shared"]),
        (0o702, 0o602, ["folder_shared", "file_shared"]),
    ],
)
def test_who_may_write_is_told(
    tmp_path: Path, folder_mode: int, file_mode: int, expected: list[str]
) -> None:
    vault = tmp_path / "vaults" / "own.vault"
    vault.parent.mkdir()
    vault.write_bytes(b"")
    vault.chmod(file_mode)
    vault.parent.chmod(folder_mode)
    assert place_doubts(vault) == expected


def test_whose_it_is_is_told(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    vault = tmp_path / "own.vault"
    vault.write_bytes(b"")
    vault.chmod(0o600)
    # To another user what is ours is another's; the administrator's is nobody's threat.
    if os.getuid() == 0:
        os.chown(vault, 4711, -1)
        assert place_doubts(vault) == [PlaceDoubt.FILE_OF_ANOTHER]
        os.chown(tmp_path, 4711, -1)
    else:
        monkeypatch.setattr(os, "getuid", lambda: 4711)
    assert place_doubts(vault) == [PlaceDoubt.FOLDER_OF_ANOTHER, PlaceDoubt.FILE_OF_ANOTHER]
    assert place_doubts(tmp_path / "missing" / "own.vault") == []
    assert set(SAYS) == set(PlaceDoubt)
