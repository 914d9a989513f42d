"""The newest draws, sealed beside the settings at a lock: in no bundle and no merge."""

from contextlib import suppress
from typing import Any

from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import HISTORY, Transaction, Vault

PART = HISTORY


def get_kept_draws(vault: Vault) -> list[dict[str, Any]]:
    """Their documents, oldest first; none where the record is damaged."""
    ids = vault.ids(Label.SETTINGS)
    with suppress(RecordMissing, RecordDamaged):
        found: list[dict[str, Any]] = (
            unpacked(vault.get(Label.SETTINGS, ids[0], PART))["draws"] if ids else []
        )
        return found
    return []


def put_kept_draws(tx: Transaction, vault: Vault, draws: list[dict[str, Any]]) -> None:
    """Writes all of them over those there were."""
    if not vault.ids(Label.SETTINGS):
        put_safeguards(tx, vault, get_safeguards(vault))
    tx.put(Label.SETTINGS, vault.ids(Label.SETTINGS)[0], packed({"draws": draws}), part=PART)
