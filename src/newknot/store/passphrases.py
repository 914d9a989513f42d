"""The vault's passphrases, present and earlier, known only by keyed fingerprints of their forms."""

from dataclasses import dataclass
from datetime import datetime

from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


@dataclass(frozen=True, slots=True)
class KnownPassphrase:
    """When it was first seen, and fingerprints of its forms."""

    since_at: datetime
    fingerprints: frozenset[bytes]


def put_passphrases(tx: Transaction, vault: Vault, known: list[KnownPassphrase]) -> None:
    """Writes the one record, oldest first, new or over the former."""
    ids = vault.ids(Label.PASSPHRASES)
    document = {
        "passphrases": [
            [one.since_at.isoformat(), sorted(f.hex() for f in one.fingerprints)] for one in known
        ]
    }
    tx.put(Label.PASSPHRASES, ids[0] if ids else new_id(), packed(document))


def get_passphrases(vault: Vault) -> list[KnownPassphrase]:
    """All that were seen, oldest first; none where the record is damaged."""
    ids = vault.ids(Label.PASSPHRASES)
    if not ids:
        return []
    try:
        document = unpacked(vault.get(Label.PASSPHRASES, ids[0]))
    except RecordDamaged:
        return []
    return [
        KnownPassphrase(datetime.fromisoformat(at), frozenset(map(bytes.fromhex, prints)))
        for at, prints in document["passphrases"]
    ]
