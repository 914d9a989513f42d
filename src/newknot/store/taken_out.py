"""Files with secrets in the clear that were written on this machine, as one sealed record."""

from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


@dataclass(frozen=True, slots=True)
class ClearFile:
    """Where it was written, and when."""

    path: Path
    written_at: datetime


def put_clear_files(tx: Transaction, vault: Vault, files: list[ClearFile]) -> None:
    """Writes the one record, new or over the former."""
    ids = vault.ids(Label.TAKEN_OUT)
    document = {"files": [[str(one.path), iso(one.written_at)] for one in files]}
    tx.put(Label.TAKEN_OUT, ids[0] if ids else new_id(), packed(document))


def get_clear_files(vault: Vault) -> list[ClearFile]:
    """Those that were written and not yet known to be gone."""
    ids = vault.ids(Label.TAKEN_OUT)
    try:
        found = unpacked(vault.get(Label.TAKEN_OUT, ids[0]))["files"] if ids else []
    except RecordDamaged:
        return []
    return [ClearFile(Path(path), datetime.fromisoformat(at)) for path, at in found]
