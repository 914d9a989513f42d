"""What a backup is called: whose it is, when it was made, and after how many changes."""

import re
from dataclasses import dataclass
from datetime import UTC, datetime

_NAME = re.compile(r"newknot-(?:([0-9a-f]{8})-)?(\d{8}-\d{6})(?:-\d{1,3})?(?:-c(\d{1,18}))?\.vault")
_TIME = "%Y%m%d-%H%M%S"


@dataclass(frozen=True, slots=True)
class BackupName:
    """vault: the start of the vault's id; empty from before names bore it. changes: the vault's
    change counter, -1 from before. Later copies have more changes, whatever the clock said.
    """

    vault: str
    made_at: datetime
    changes: int

    @property
    def place(self) -> tuple[int, datetime]:
        """What backups are ordered by."""
        return self.changes, self.made_at


def read_name(name: str) -> BackupName | None:
    """None of a file that is called otherwise."""
    found = _NAME.fullmatch(name)
    if found is None:
        return None
    try:
        made_at = datetime.strptime(found[2], _TIME).replace(tzinfo=UTC)
    except ValueError:
        return None
    return BackupName(found[1] or "", made_at, int(found[3]) if found[3] else -1)


def name_of(one: BackupName, number: int = 0) -> str:
    """number: where there are several of one second."""
    more = f"-{number}" if number else ""
    return f"newknot-{one.vault}-{one.made_at:{_TIME}}{more}-c{one.changes}.vault"
