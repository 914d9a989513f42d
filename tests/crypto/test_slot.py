"""Slots tell a wrong passphrase from damage."""

import os
from dataclasses import replace

import pytest

from newknot.crypto import (
    KdfParameters,
    Slot,
    SlotDamaged,
    VaultKeys,
    WrongPassphrase,
    make_slot,
    new_vault_key,
    open_slot,
)

VAULT_ID = bytes(16)
KEY = new_vault_key(os.urandom)


@pytest.fixture(scope="module")
def slot() -> Slot:
    return make_slot(
        KEY,
        passphrase="seven lamps",
        vault_id=VAULT_ID,
        parameters=KdfParameters(passes=1, memory_kib=64, lanes=1),
        random_bytes=os.urandom,
    )


def test_the_passphrase_gives_the_key_and_another_does_not(slot: Slot) -> None:
    assert open_slot(slot, passphrase="seven lamps", vault_id=VAULT_ID) == KEY
    with pytest.raises(WrongPassphrase):
        open_slot(slot, passphrase="seven lamp", vault_id=VAULT_ID)


def test_damage_is_told_from_a_wrong_passphrase(slot: Slot) -> None:
    broken = [
        replace(slot, salt=bytes(16)),
        replace(slot, sealed_key=slot.sealed_key[:-1] + bytes([slot.sealed_key[-1] ^ 1])),
        replace(slot, checksum=bytes(16)),
        replace(slot, parameters=replace(slot.parameters, passes=2)),
    ]
    for one in broken:
        with pytest.raises(SlotDamaged):
            open_slot(one, passphrase="seven lamps", vault_id=VAULT_ID)
    with pytest.raises(SlotDamaged):
        open_slot(slot, passphrase="seven lamps", vault_id=bytes(15) + b"x")


def test_sub_keys_differ_by_use_and_vault() -> None:
    one, other = VaultKeys.of(KEY, vault_id=VAULT_ID), VaultKeys.of(KEY, vault_id=b"x" * 16)
    assert len({one.records, one.manifest, other.records, other.manifest, KEY}) == 5
    assert KEY.hex() not in repr(one) and "records=b" not in repr(one)
