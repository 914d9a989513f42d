"""What was half-typed in a form, sealed beside the settings: there after a lock, in no bundle."""

from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import SECRETS, Transaction, Vault

PART = SECRETS


@dataclass(frozen=True, slots=True)
class FormDraft:
    """content: whatever the form gave; it may hold a secret."""

    content: Any
    saved_at: datetime


def get_drafts(vault: Vault) -> dict[str, FormDraft]:
    """By form; none where the record is damaged."""
    ids = vault.ids(Label.SETTINGS)
    with suppress(RecordMissing, RecordDamaged):
        found = unpacked(vault.get(Label.SETTINGS, ids[0], PART))["drafts"] if ids else {}
        return {
            form: FormDraft(content, datetime.fromisoformat(at))
            for form, (content, at) in found.items()
        }
    return {}


def put_drafts(tx: Transaction, vault: Vault, drafts: dict[str, FormDraft]) -> None:
    """Writes all of them over those there were."""
    ids = vault.ids(Label.SETTINGS)
    assert ids, "settings are written first"
    text = packed({"drafts": {f: [d.content, d.saved_at.isoformat()] for f, d in drafts.items()}})
    tx.put(Label.SETTINGS, ids[0], text, part=PART)
