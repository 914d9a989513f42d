"""The private key that opens bundles sealed for this vault, as one sealed record."""

from newknot.core.secret import Secret
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import SECRETS, Transaction, Vault, new_id


def put_bundle_key(tx: Transaction, private_key: Secret) -> None:
    """Writes it; a vault has one for life."""
    document = {"private_key": private_key.reveal()}
    tx.put(Label.BUNDLE_KEY, new_id(), packed(document), part=SECRETS)


def get_bundle_key(vault: Vault) -> Secret | None:
    """The key; None where none was made yet. Raises `RecordDamaged`."""
    ids = vault.ids(Label.BUNDLE_KEY)
    if not ids:
        return None
    return Secret(unpacked(vault.get(Label.BUNDLE_KEY, ids[0], SECRETS))["private_key"])
