"""The anchor: the last change counter seen on this machine, kept apart from the vault file.

It shows when a whole older vault file (or one that lost its write-ahead log) was put back.
"""

import json
from dataclasses import dataclass
from enum import StrEnum
from pathlib import Path


class Standing(StrEnum):
    """How a vault file stands to the anchor."""

    CURRENT = "current"
    OLDER = "older"


@dataclass(frozen=True, slots=True)
class Anchor:
    """A small file in the state folder, one for each vault id; it holds no secret."""

    folder: Path
    vault_id: bytes

    @property
    def path(self) -> Path:
        """Where the anchor of this vault lies."""
        return self.folder / f"{self.vault_id.hex()}.anchor"

    def standing(self, *, counter: int, head_tag: bytes) -> Standing:
        """OLDER where a later counter, or the same one with another head, was seen before.

        An unreadable anchor says nothing: CURRENT.
        """
        try:
            seen = json.loads(self.path.read_text("utf-8"))
            seen_counter, seen_tag = int(seen["counter"]), str(seen["head_tag"])
        except (OSError, ValueError, KeyError, TypeError):
            return Standing.CURRENT
        if seen_counter > counter or (seen_counter == counter and seen_tag != head_tag.hex()):
            return Standing.OLDER
        return Standing.CURRENT

    def write(self, *, counter: int, head_tag: bytes) -> None:
        """Notes the state after a commit: whole or not at all."""
        self.folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        temporary = self.path.with_suffix(".new")
        with open(temporary, "w", encoding="utf-8") as file:
            temporary.chmod(0o600)
            json.dump({"counter": counter, "head_tag": head_tag.hex()}, file)
        temporary.replace(self.path)
