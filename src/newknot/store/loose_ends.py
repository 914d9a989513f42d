"""Loose ends as sealed records: when and where apart from the secret."""

from datetime import datetime

from newknot.core.login import Origin
from newknot.core.loose_end import LooseEnd
from newknot.core.secret import Secret
from newknot.store.errors import RecordDamaged
from newknot.store.logins import origin_document, origin_of
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import SECRETS, Transaction, Vault


def put_loose_end(tx: Transaction, loose_end: LooseEnd, secret: Secret, origin: Origin) -> None:
    """Writes a loose end with its secret."""
    card = {
        "handed_out_at": iso(loose_end.handed_out_at),
        "address": loose_end.address,
        "length": loose_end.length,
    }
    sealed = {"secret": secret.reveal(), "origin": origin_document(origin)}
    tx.put(Label.LOOSE_END, loose_end.loose_end_id, packed(card))
    tx.put(Label.LOOSE_END, loose_end.loose_end_id, packed(sealed), part=SECRETS)


def list_loose_ends(vault: Vault) -> list[LooseEnd]:
    """All readable loose ends, newest first."""
    found: list[LooseEnd] = []
    for loose_end_id in vault.ids(Label.LOOSE_END):
        try:
            d = unpacked(vault.get(Label.LOOSE_END, loose_end_id))
        except RecordDamaged:
            continue
        at = datetime.fromisoformat(d["handed_out_at"])
        found.append(LooseEnd(loose_end_id, at, d["address"], d["length"]))
    return sorted(found, key=lambda one: one.handed_out_at, reverse=True)


def get_loose_secret(vault: Vault, loose_end_id: str) -> tuple[Secret, Origin]:
    """The secret of a loose end. Raises `RecordMissing`, `RecordDamaged`."""
    d = unpacked(vault.get(Label.LOOSE_END, loose_end_id, SECRETS))
    return Secret(d["secret"]), origin_of(d["origin"])


def remove_loose_end(tx: Transaction, loose_end_id: str) -> None:
    """Deletes a loose end. Raises `RecordMissing`."""
    tx.remove(Label.LOOSE_END, loose_end_id)
