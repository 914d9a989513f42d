"""The slot table keeps one slot twice."""

import os
from pathlib import Path

import pytest

from newknot.crypto import SlotDamaged, make_slot
from newknot.store.database import connect, migrate
from newknot.store.slots import SlotKind, read_slots, write_slot
from tests.conftest import CHEAP


def test_both_copies_are_read_and_unbelievable_ones_left_out(tmp_path: Path) -> None:
    kind = SlotKind.PASSPHRASE
    connection = connect(tmp_path / "a.vault")
    migrate(connection)
    slot = make_slot(
        bytes(32), passphrase="x", vault_id=bytes(16), parameters=CHEAP, random_bytes=os.urandom
    )
    write_slot(connection, slot, kind)
    assert read_slots(connection, kind) == [slot, slot]
    connection.execute("UPDATE slots SET passes = 4000000 WHERE slot_copy = 1")
    assert read_slots(connection, kind) == [slot]
    connection.execute("UPDATE slots SET lanes = -1")
    with pytest.raises(SlotDamaged):
        read_slots(connection, kind)
    connection.close()
