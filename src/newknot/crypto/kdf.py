"""Passphrase to key: Argon2id (RFC 9106), its parameters stored beside what they protect."""

import unicodedata
from dataclasses import dataclass

from argon2.low_level import ARGON2_VERSION, Type, hash_secret_raw

from newknot.crypto.errors import KeyParametersRefused

KEY_BYTES = 32
SALT_BYTES = 16


@dataclass(frozen=True, slots=True)
class KdfParameters:
    """Named after RFC 9106, section 3.1: t passes, m KiB of memory, p lanes."""

    passes: int
    memory_kib: int
    lanes: int
    version: int = ARGON2_VERSION

    def __post_init__(self) -> None:
        """Refuses what would take minutes, or protect nothing, before any work is done on it."""
        bounds = {"passes": (1, 16), "memory_kib": (64, 1 << 20), "lanes": (1, 16)}
        for field, (least, most) in bounds.items():
            if not least <= getattr(self, field) <= most:
                raise KeyParametersRefused(field=field)
        if self.version != ARGON2_VERSION or self.memory_kib < 8 * self.lanes:
            raise KeyParametersRefused(field="version")


INTERACTIVE = KdfParameters(passes=3, memory_kib=64 * 1024, lanes=4)
"""RFC 9106, section 4, the second recommended option: 64 MiB, 3 passes, 4 lanes."""


def derive_key(passphrase: str, *, salt: bytes, parameters: KdfParameters) -> bytes:
    """The 32-byte key of a passphrase (NFC, UTF-8) under the parameters and a 16-byte salt."""
    return hash_secret_raw(
        unicodedata.normalize("NFC", passphrase).encode("utf-8", "surrogatepass"),
        salt,
        time_cost=parameters.passes,
        memory_cost=parameters.memory_kib,
        parallelism=parameters.lanes,
        hash_len=KEY_BYTES,
        type=Type.ID,
        version=parameters.version,
    )
