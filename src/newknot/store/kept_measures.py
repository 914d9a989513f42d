"""The measures of the logins' secrets as one sealed record, so that only what changed is measured.

By login id: the keyed fingerprint of what was measured (secret, context, dictionary version), the
guess number, and its reasons in words.
"""

from newknot.core.strength.kept import KeptMeasure
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id

Kept = dict[str, tuple[bytes, KeptMeasure]]


def put_kept_measures(tx: Transaction, vault: Vault, kept: Kept) -> None:
    """Writes the one record, new or over the former."""
    ids = vault.ids(Label.KEPT_MEASURES)
    document = {
        login_id: [of.hex(), found.guess_number_log10, found.reasons]
        for login_id, (of, found) in kept.items()
    }
    tx.put(Label.KEPT_MEASURES, ids[0] if ids else new_id(), packed(document))


def get_kept_measures(vault: Vault) -> Kept:
    """What was kept; nothing where nothing was, or where the record is damaged."""
    ids = vault.ids(Label.KEPT_MEASURES)
    if not ids:
        return {}
    try:
        document = unpacked(vault.get(Label.KEPT_MEASURES, ids[0]))
    except RecordDamaged:
        return {}
    return {
        login_id: (bytes.fromhex(of), KeptMeasure(guesses, reasons))
        for login_id, (of, guesses, reasons) in document.items()
    }
