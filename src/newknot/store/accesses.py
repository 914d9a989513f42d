"""When which secret was shown, copied or taken out: sealed, the newest 5,000, never a secret.

They lie beside the list of files in the clear, in parts of their own: the last few in one that is
written at each, the others in one that is written when those are full.
"""

from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import CARD, HISTORY, SECRETS, Transaction, Vault, new_id

KEPT_MOST = 5_000
NEW_MOST = 100
NEW, OLD = SECRETS, HISTORY
RENEWED = "code of its second factor shown"
"""A code on the screen is renewed twice a minute: within `RENEWED_FOR` that is one."""
RENEWED_FOR = timedelta(minutes=10)


@dataclass(frozen=True, slots=True)
class Access:
    """says: what happened, in words; login_id empty where it was none's."""

    at: datetime
    says: str
    login_id: str = ""


def note_access(tx: Transaction, vault: Vault, access: Access) -> None:
    """Writes one; the oldest goes where there would be too many."""
    ids = vault.ids(Label.TAKEN_OUT)
    record_id = ids[0] if ids else new_id()
    if not ids:
        tx.put(Label.TAKEN_OUT, record_id, packed({"files": []}), part=CARD)
    new = _entries(vault, record_id, NEW)
    if new and _is_renewed(access, new[-1]):
        return
    new = [*new, [iso(access.at), access.says, access.login_id]]
    if len(new) > NEW_MOST:
        old = [*_entries(vault, record_id, OLD), *new[:-1]][-(KEPT_MOST - NEW_MOST) :]
        tx.put(Label.TAKEN_OUT, record_id, packed({"accesses": old}), part=OLD)
        new = new[-1:]
    tx.put(Label.TAKEN_OUT, record_id, packed({"accesses": new}), part=NEW)


def _is_renewed(access: Access, last: list[Any]) -> bool:
    if access.says != RENEWED or last[1:] != [access.says, access.login_id]:
        return False
    return access.at - datetime.fromisoformat(last[0]) < RENEWED_FOR


def list_accesses(vault: Vault) -> list[Access]:
    """All of them, in the order in which they happened."""
    return [
        Access(datetime.fromisoformat(at), says, login_id)
        for record_id in vault.ids(Label.TAKEN_OUT)[:1]
        for part in (OLD, NEW)
        for at, says, login_id in _entries(vault, record_id, part)
    ]


def _entries(vault: Vault, record_id: str, part: int) -> list[list[Any]]:
    with suppress(RecordMissing, RecordDamaged):
        found: list[list[Any]] = unpacked(vault.get(Label.TAKEN_OUT, record_id, part))["accesses"]
        return found
    return []
