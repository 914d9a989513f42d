"""The table of key slots: one slot, kept twice."""

import sqlite3

from newknot.crypto import KdfParameters, KeyParametersRefused, Slot, SlotDamaged

_INSERT = """
INSERT OR REPLACE INTO slots
  (slot_copy, argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum)
VALUES (?, ?, ?, ?, ?, ?, ?, ?)
"""
_SELECT = """
SELECT argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum
FROM slots ORDER BY slot_copy
"""


def write_slot(connection: sqlite3.Connection, slot: Slot) -> None:
    """Both copies, within the caller's transaction."""
    p = slot.parameters
    for copy in (1, 2):
        connection.execute(
            _INSERT,
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


def read_slots(connection: sqlite3.Connection) -> list[Slot]:
    """The copies whose parameters are within bounds. Raises `SlotDamaged` where none is."""
    slots: list[Slot] = []
    for version, passes, memory_kib, lanes, salt, sealed_key, checksum in connection.execute(
        _SELECT
    ):
        try:
            parameters = KdfParameters(passes, memory_kib, lanes, version)
        except KeyParametersRefused:
            continue
        slots.append(Slot(parameters, salt, sealed_key, checksum))
    if not slots:
        raise SlotDamaged()
    return slots
