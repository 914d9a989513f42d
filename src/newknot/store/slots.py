"""The tables of key slots: under the passphrase and under the recovery key, each kept twice."""

import sqlite3
from enum import Enum

from newknot.crypto import (
    KdfParameters,
    KeyParametersRefused,
    Slot,
    SlotDamaged,
    WrongPassphrase,
    whole,
)
from newknot.store.database import transaction


class SlotKind(Enum):
    """Which way to the vault key: statements that write, read and remove its slot."""

    @property
    def says(self) -> str:
        """What opens it, in words."""
        return "passphrase" if self is SlotKind.PASSPHRASE else "recovery sheet"

    PASSPHRASE = (
        """
INSERT OR REPLACE INTO slots
  (slot_copy, argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum)
VALUES (?, ?, ?, ?, ?, ?, ?, ?)
""",
        """
SELECT argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum
FROM slots ORDER BY slot_copy
""",
        "DELETE FROM slots",
    )
    RECOVERY = (
        """
INSERT OR REPLACE INTO recovery_slots
  (slot_copy, argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum)
VALUES (?, ?, ?, ?, ?, ?, ?, ?)
""",
        """
SELECT argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum
FROM recovery_slots ORDER BY slot_copy
""",
        "DELETE FROM recovery_slots",
    )


def write_slot(connection: sqlite3.Connection, slot: Slot, kind: SlotKind) -> None:
    """Both copies, within the caller's transaction."""
    insert, _, _ = kind.value
    p = slot.parameters
    for copy in (1, 2):
        connection.execute(
            insert,
            (
                copy,
                p.version,
                p.passes,
                p.memory_kib,
                p.lanes,
                slot.salt,
                slot.sealed_key,
                slot.checksum,
            ),
        )


def remove_slot(connection: sqlite3.Connection, kind: SlotKind) -> None:
    """Both copies gone, within the caller's transaction."""
    _, _, delete = kind.value
    connection.execute(delete)


def read_slots(connection: sqlite3.Connection, kind: SlotKind) -> list[Slot]:
    """The copies whose parameters are within bounds. Raises `SlotDamaged` where none is."""
    _, select, _ = kind.value
    slots: list[Slot] = []
    for version, passes, memory_kib, lanes, salt, sealed_key, checksum in connection.execute(
        select
    ):
        try:
            parameters = KdfParameters(passes, memory_kib, lanes, version)
        except KeyParametersRefused:
            continue
        slots.append(Slot(parameters, salt, sealed_key, checksum))
    if not slots:
        raise SlotDamaged()
    return slots


def slot_copies(connection: sqlite3.Connection, kind: SlotKind) -> list[Slot]:
    """Every copy that is there and within bounds, whole or not."""
    try:
        return read_slots(connection, kind)
    except SlotDamaged:
        return []


def mend_slots(connection: sqlite3.Connection, kind: SlotKind, slot: Slot) -> bool:
    """Writes both copies anew where one is not this whole slot. Whether there was a need."""
    if slot_copies(connection, kind) == [slot, slot]:
        return False
    with transaction(connection):
        remove_slot(connection, kind)
        write_slot(connection, slot, kind)
    return True


def usable_slot(connection: sqlite3.Connection, kind: SlotKind, vault_id: bytes) -> Slot:
    """The first whole copy of a slot. Raises `SlotDamaged` where neither is, `WrongPassphrase`
    where no recovery key was ever made.
    """
    _, select, _ = kind.value
    if kind is SlotKind.RECOVERY and connection.execute(select).fetchone() is None:
        raise WrongPassphrase()
    for slot in read_slots(connection, kind):
        if whole(slot, vault_id=vault_id):
            return slot
    raise SlotDamaged()
