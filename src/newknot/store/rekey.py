"""A vault under a new key: every record sealed anew into a new file, put in place whole."""

import secrets
from collections.abc import Collection
from pathlib import Path

from newknot.crypto import KdfParameters, VaultKeys, associated_data, make_slot, new_vault_key, seal
from newknot.store.database import connect, migrate, transaction
from newknot.store.errors import VaultDamaged
from newknot.store.manifest import FORMAT, Entry, Key, Label, Manifest
from newknot.store.records import write_record
from newknot.store.slots import SlotKind, write_slot
from newknot.store.transaction import STEP_BYTES
from newknot.store.vault import INSERT_VAULT, Vault


def write_under_new_key(
    vault: Vault,
    building: Path,
    *,
    passphrase: str,
    parameters: KdfParameters,
    without: Collection[Label],
) -> None:
    """The file of this vault under a new random key and a passphrase, at another path.

    without: kinds that mean nothing under another key. Nothing is written where a record of the
    vault is damaged: raises `VaultDamaged`.
    """
    for leftover in building.parent.glob(building.name + "*"):
        leftover.unlink()
    key = new_vault_key(secrets.token_bytes)
    keys = VaultKeys.of(key, vault_id=vault.vault_id)
    slot = make_slot(
        key,
        passphrase=passphrase,
        vault_id=vault.vault_id,
        parameters=parameters,
        random_bytes=secrets.token_bytes,
    )
    connection = connect(building)
    try:
        migrate(connection)
        with transaction(connection):
            connection.execute(INSERT_VAULT, (vault.vault_id,))
            write_slot(connection, slot, SlotKind.PASSPHRASE)
            changes: dict[Key, Entry | None] = {}
            if vault.damaged:
                raise VaultDamaged(part="one of its records")
            for (record_id, part), entry in vault.entries().items():
                if entry.label in without:
                    continue
                text = vault.get(entry.label, record_id.hex(), part)
                bound = associated_data(
                    FORMAT, vault.vault_id, entry.label.name, record_id, part, entry.revision
                )
                sealed = seal(
                    keys.records,
                    text,
                    bound_to=bound,
                    step=STEP_BYTES[part],
                    random_bytes=secrets.token_bytes,
                )
                write_record(connection, record_id, part, entry.revision, sealed)
                changes[record_id, part] = Entry(entry.label, entry.revision, sealed[-16:])
            manifest = Manifest(keys.manifest, vault.vault_id)
            # Beyond the anchor of this machine, so that it is not taken for an older copy.
            manifest.counter = vault.counter
            manifest.write(connection, changes, secrets.token_bytes)
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
    except BaseException:
        connection.close()
        for leftover in building.parent.glob(building.name + "*"):
            leftover.unlink()
        raise
    connection.close()


def put_in_place(vault: Vault, path: Path, building: Path) -> None:
    """Closes the vault and puts the new file over its own, in one step of the file system."""
    vault.close()
    # Left behind, the log of the former file would be read into the new one.
    for beside in (path.with_name(path.name + "-wal"), path.with_name(path.name + "-shm")):
        beside.unlink(missing_ok=True)
    building.replace(path)
