"""The safeguards: read and change them at the server, where they are enforced."""

from newknot.core.safeguards import Safeguards
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault

__all__ = ["change_safeguards", "get_safeguards"]


def change_safeguards(vault: Vault, wanted: Safeguards) -> Safeguards:
    """Writes the safeguards; the day of the last backup is not the user's to set."""
    with vault.transaction() as tx:
        held = get_safeguards(vault)
        fresh = Safeguards(
            lock_after_s=wanted.lock_after_s,
            clipboard_clear_s=wanted.clipboard_clear_s,
            reveal_allowed=wanted.reveal_allowed,
            proof_minutes=wanted.proof_minutes,
            proof_before=wanted.proof_before,
            corpus_used=wanted.corpus_used,
            last_backup_at=held.last_backup_at,
        )
        put_safeguards(tx, vault, fresh)
    return fresh
