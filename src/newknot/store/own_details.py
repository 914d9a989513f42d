"""The account holder's own details as one sealed record."""

from newknot.core.own_details import OwnDetails
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


def put_own_details(tx: Transaction, vault: Vault, details: OwnDetails) -> None:
    """Writes the one record, new or over the former."""
    ids = vault.ids(Label.OWN_DETAILS)
    document = {"lines": list(details.lines), "rates": dict(details.rates)}
    tx.put(Label.OWN_DETAILS, ids[0] if ids else new_id(), packed(document))


def get_own_details(vault: Vault) -> OwnDetails:
    """The details as set; none where none were, or where the record is damaged."""
    ids = vault.ids(Label.OWN_DETAILS)
    if not ids:
        return OwnDetails()
    try:
        d = unpacked(vault.get(Label.OWN_DETAILS, ids[0]))
    except RecordDamaged:
        return OwnDetails()
    return OwnDetails(tuple(d["lines"]), d["rates"])
