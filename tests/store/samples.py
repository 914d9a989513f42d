"""Values that sealed nouns are tried with."""

import sqlite3
from datetime import UTC, datetime
from pathlib import Path

from newknot.core.login import Origin
from newknot.store.vault import Label, Vault, new_id

AT = datetime(2026, 11, 25, 12, 30, 5, 123456, tzinfo=UTC)
ODD = "Zoë \u202e “quoted” 灯\n\t'; --"
DRAWN, OWN = Origin("drawn", 126.07), Origin("own")


def put(vault: Vault, text: bytes, record_id: str | None = None, part: int = 1) -> str:
    """Writes one part of a login, as it is."""
    record_id = record_id or new_id()
    with vault.transaction() as tx:
        tx.put(Label.LOGIN, record_id, text, part=part)
    return record_id


def raw(folder: Path) -> sqlite3.Connection:
    """The vault's file, without its keys."""
    return sqlite3.connect(folder / "own.vault", isolation_level=None)
