"""Sealing: AES-256-GCM (NIST SP 800-38D) with random nonces, padding inside, circumstances bound.

A sealed text is nonce (12 bytes) || ciphertext || tag (16 bytes).
"""

from collections.abc import Callable
from struct import Struct

from cryptography.exceptions import InvalidTag
from cryptography.hazmat.primitives.ciphers.aead import AESGCM

from newknot.crypto.errors import SealBroken

NONCE_BYTES = 12
TAG_BYTES = 16
_LENGTH_BYTES = 4
ReadyKey = AESGCM
"""A key as the cipher uses it, which takes longer to make than a small text to open."""
_LENGTH, _NUMBER = Struct(">I"), Struct(">IQ")


def associated_data(*parts: bytes | str | int) -> bytes:
    """The parts, each with its length in 4 bytes before it, so that no two lists run together."""
    out = []
    for part in parts:
        if isinstance(part, int):
            out.append(_NUMBER.pack(8, part))
        else:
            raw = part.encode("utf-8") if isinstance(part, str) else part
            out += (_LENGTH.pack(len(raw)), raw)
    return b"".join(out)


def padded_size(size: int, step: int) -> int:
    """Steps up to four of them, then powers of two; counts the length prefix."""
    whole = size + _LENGTH_BYTES
    if whole <= 4 * step:
        return -(-whole // step) * step
    return 1 << (whole - 1).bit_length()


def seal(
    key: bytes, text: bytes, *, bound_to: bytes, step: int, random_bytes: Callable[[int], bytes]
) -> bytes:
    """The sealed text, padded to `step` bytes (or as `padded_size` says) before sealing."""
    nonce = random_bytes(NONCE_BYTES)
    body = len(text).to_bytes(_LENGTH_BYTES, "big") + text
    body += bytes(padded_size(len(text), step) - len(body))
    return nonce + AESGCM(key).encrypt(nonce, body, bound_to)


def ready_key(key: bytes) -> ReadyKey:
    """A key that opens many."""
    return AESGCM(key)


def open_sealed(key: bytes | ReadyKey, sealed: bytes, *, bound_to: bytes) -> bytes:
    """The text of a sealed one. Raises `SealBroken` for every way of being wrong."""
    if len(sealed) < NONCE_BYTES + TAG_BYTES + _LENGTH_BYTES:
        raise SealBroken()
    try:
        cipher = ready_key(key) if isinstance(key, bytes) else key
        body = cipher.decrypt(sealed[:NONCE_BYTES], sealed[NONCE_BYTES:], bound_to)
    except InvalidTag:
        raise SealBroken() from None
    size = int.from_bytes(body[:_LENGTH_BYTES], "big")
    if size > len(body) - _LENGTH_BYTES:
        raise SealBroken()
    return body[_LENGTH_BYTES : _LENGTH_BYTES + size]
