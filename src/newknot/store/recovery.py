"""What is kept of the recovery sheets: when they were made and practised, never their words."""

from dataclasses import dataclass
from datetime import datetime

from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, moment, packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


@dataclass(frozen=True, slots=True)
class RecoveryFacts:
    """threshold of count sheets open the vault; practised_at: the last rehearsal that did."""

    made_at: datetime
    threshold: int
    count: int
    practised_at: datetime | None = None


def put_recovery(tx: Transaction, vault: Vault, facts: RecoveryFacts | None) -> None:
    """Writes the one record, new or over the former; None where there are no sheets."""
    ids = vault.ids(Label.RECOVERY)
    document = (
        {}
        if facts is None
        else {
            "made_at": iso(facts.made_at),
            "threshold": facts.threshold,
            "count": facts.count,
            "practised_at": iso(facts.practised_at),
        }
    )
    tx.put(Label.RECOVERY, ids[0] if ids else new_id(), packed(document))


def get_recovery(vault: Vault) -> RecoveryFacts | None:
    """What is kept of the sheets; None where there are none, or the record is damaged."""
    ids = vault.ids(Label.RECOVERY)
    if not ids:
        return None
    try:
        d = unpacked(vault.get(Label.RECOVERY, ids[0]))
    except RecordDamaged:
        return None
    if not d:
        return None
    return RecoveryFacts(
        datetime.fromisoformat(d["made_at"]), d["threshold"], d["count"], moment(d["practised_at"])
    )
