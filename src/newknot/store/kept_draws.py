"""The newest draws, sealed beside the settings at a lock, and the word list last chosen: in no
bundle and no merge.
"""

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
    found: list[dict[str, Any]] = _held(vault).get("draws", [])
    return found


def put_kept_draws(tx: Transaction, vault: Vault, draws: list[dict[str, Any]]) -> None:
    """Writes all of them over those there were."""
    _put(tx, vault, {"draws": draws})


def get_chosen_list(vault: Vault) -> tuple[str, int] | None:
    """(language, words) of the list that was chosen last; None where none was."""
    found = _held(vault).get("list")
    return (str(found[0]), int(found[1])) if found else None


def put_chosen_list(tx: Transaction, vault: Vault, language: str, size: int) -> None:
    """Remembers it."""
    _put(tx, vault, {"list": [language, size]})


def _held(vault: Vault) -> dict[str, Any]:
    ids = vault.ids(Label.SETTINGS)
    with suppress(RecordMissing, RecordDamaged):
        return unpacked(vault.get(Label.SETTINGS, ids[0], PART)) if ids else {}
    return {}


def _put(tx: Transaction, vault: Vault, part: dict[str, Any]) -> None:
    if not vault.ids(Label.SETTINGS):
        put_safeguards(tx, vault, get_safeguards(vault))
    document = packed({"draws": [], **_held(vault), **part})
    tx.put(Label.SETTINGS, vault.ids(Label.SETTINGS)[0], document, part=PART)
