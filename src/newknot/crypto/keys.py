"""The vault key and the keys derived from it for each use (HKDF, RFC 5869)."""

from collections.abc import Callable
from dataclasses import dataclass, field

from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.hkdf import HKDF

from newknot.crypto.kdf import KEY_BYTES


def new_vault_key(random_bytes: Callable[[int], bytes]) -> bytes:
    """A random key of 256 bits, the root of a vault."""
    return random_bytes(KEY_BYTES)


@dataclass(frozen=True, slots=True)
class VaultKeys:
    """A key each for records, the manifest, and fingerprints: none tells another."""

    records: bytes = field(repr=False)
    manifest: bytes = field(repr=False)
    fingerprints: bytes = field(repr=False)

    @staticmethod
    def of(vault_key: bytes, *, vault_id: bytes) -> "VaultKeys":
        """The sub-keys of a vault key, bound to the vault's id."""
        return VaultKeys(
            records=_expand(vault_key, vault_id, b"newknot records 1"),
            manifest=_expand(vault_key, vault_id, b"newknot manifest 1"),
            fingerprints=_expand(vault_key, vault_id, b"newknot fingerprints 1"),
        )


def _expand(vault_key: bytes, salt: bytes, info: bytes) -> bytes:
    return HKDF(algorithm=SHA256(), length=KEY_BYTES, salt=salt, info=info).derive(vault_key)
