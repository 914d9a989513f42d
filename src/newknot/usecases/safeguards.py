"""The safeguards: read and change them at the server, where they are enforced."""

from dataclasses import replace

from newknot.core.safeguards import Safeguards
from newknot.outside.reaching import checked_service
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault

__all__ = ["change_safeguards", "get_safeguards"]


def change_safeguards(vault: Vault, wanted: Safeguards, *, own_port: int) -> Safeguards:
    """Writes the safeguards; the day of the last backup is not the user's to set.

    Raises `FieldInvalid` where a service that is to be used has no address that can be.
    """
    with vault.transaction() as tx:
        fresh = replace(wanted, last_backup_at=get_safeguards(vault).last_backup_at)
        if wanted.range_used or wanted.range_address.strip():
            field, address = "range_address", wanted.range_address
            checked = checked_service(address, field=field, own_port=own_port)
            fresh = replace(fresh, range_address=checked)
        if wanted.feed_used or wanted.feed_address.strip():
            field, address = "feed_address", wanted.feed_address
            checked = checked_service(address, field=field, own_port=own_port)
            fresh = replace(fresh, feed_address=checked)
        put_safeguards(tx, vault, fresh)
    return fresh
