"""Whether the place of a vault is its owner's alone: what lies there sealed can still be replaced,
put back to a former day, or deleted by whoever may write to its folder.
"""

import os
import stat
from enum import StrEnum
from pathlib import Path


class PlaceDoubt(StrEnum):
    """What is to be said of a vault's place."""

    FOLDER_OF_ANOTHER = "folder_of_another"
    FOLDER_SHARED = "folder_shared"
    FILE_OF_ANOTHER = "file_of_another"
    FILE_SHARED = "file_shared"


SAYS = {
    PlaceDoubt.FOLDER_OF_ANOTHER: "the vault's folder belongs to another user",
    PlaceDoubt.FOLDER_SHARED: "other users may write to the vault's folder",
    PlaceDoubt.FILE_OF_ANOTHER: "the vault file belongs to another user",
    PlaceDoubt.FILE_SHARED: "other users may write to the vault file",
}
_OTHERS_WRITE = stat.S_IWGRP | stat.S_IWOTH


def place_doubts(vault: Path) -> list[PlaceDoubt]:
    """None where nobody but its user (and the machine's administrator) writes there; what cannot be
    looked at is not judged.
    """
    found: list[PlaceDoubt] = []
    for path, of_another, shared in (
        (vault.parent, PlaceDoubt.FOLDER_OF_ANOTHER, PlaceDoubt.FOLDER_SHARED),
        (vault, PlaceDoubt.FILE_OF_ANOTHER, PlaceDoubt.FILE_SHARED),
    ):
        try:
            facts = path.stat()
        except OSError:
            continue
        if facts.st_uid not in (0, os.getuid()):
            found.append(of_another)
        if facts.st_mode & _OTHERS_WRITE:
            found.append(shared)
    return found
