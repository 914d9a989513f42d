"""A key slot: the vault key sealed under a passphrase, with a plain checksum beside it.

The checksum tells damage from a wrong passphrase: a slot whose checksum fits and whose seal
does not open was given the wrong passphrase.
"""

from collections.abc import Callable
from dataclasses import dataclass
from hashlib import blake2b
from hmac import compare_digest

from newknot.core.errors import NewKnotError
from newknot.crypto.errors import SealBroken
from newknot.crypto.kdf import KEY_BYTES, SALT_BYTES, KdfParameters, derive_key
from newknot.crypto.seal import associated_data, open_sealed, seal

CHECKSUM_BYTES = 16


class WrongPassphrase(NewKnotError):
    """The slot is whole, and this passphrase does not open it."""


class SlotDamaged(NewKnotError):
    """The slot's checksum or its parameters are not what was written."""


@dataclass(frozen=True, slots=True)
class Slot:
    """Argon2id parameters, salt, the sealed vault key, and the checksum over them all."""

    parameters: KdfParameters
    salt: bytes
    sealed_key: bytes
    checksum: bytes


def _bound(vault_id: bytes, parameters: KdfParameters, salt: bytes) -> bytes:
    p = parameters
    return associated_data(
        "newknot slot 1", vault_id, p.version, p.passes, p.memory_kib, p.lanes, salt
    )


def _checksum(bound: bytes, sealed_key: bytes) -> bytes:
    return blake2b(bound + sealed_key, digest_size=CHECKSUM_BYTES).digest()


def make_slot(
    vault_key: bytes,
    *,
    passphrase: str,
    vault_id: bytes,
    parameters: KdfParameters,
    random_bytes: Callable[[int], bytes],
) -> Slot:
    """A slot that gives the vault key to whoever knows the passphrase."""
    salt = random_bytes(SALT_BYTES)
    bound = _bound(vault_id, parameters, salt)
    key = derive_key(passphrase, salt=salt, parameters=parameters)
    sealed = seal(key, vault_key, bound_to=bound, step=64, random_bytes=random_bytes)
    return Slot(parameters, salt, sealed, _checksum(bound, sealed))


def whole(slot: Slot, *, vault_id: bytes) -> bool:
    """Whether the slot is as it was written (which says nothing about any passphrase)."""
    bound = _bound(vault_id, slot.parameters, slot.salt)
    return compare_digest(_checksum(bound, slot.sealed_key), slot.checksum)


def open_slot(slot: Slot, *, passphrase: str, vault_id: bytes) -> bytes:
    """The vault key. Raises `SlotDamaged` or `WrongPassphrase`."""
    if not whole(slot, vault_id=vault_id):
        raise SlotDamaged()
    bound = _bound(vault_id, slot.parameters, slot.salt)
    key = derive_key(passphrase, salt=slot.salt, parameters=slot.parameters)
    try:
        vault_key = open_sealed(key, slot.sealed_key, bound_to=bound)
    except SealBroken:
        raise WrongPassphrase() from None
    if len(vault_key) != KEY_BYTES:
        raise SlotDamaged()
    return vault_key
