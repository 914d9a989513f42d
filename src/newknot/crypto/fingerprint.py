"""Keyed fingerprints: whether two texts are the same can be told by the key's holder alone."""

from collections.abc import Iterable
from hashlib import sha256
from hmac import digest

FINGERPRINT_BYTES = 16


def fingerprint(key: bytes, *parts: str) -> bytes:
    """HMAC-SHA256 (RFC 2104) over the parts, each with its length, cut to 128 bits."""
    return digest(key, b"".join(map(_with_length, parts)), sha256)[:FINGERPRINT_BYTES]


def fingerprints(key: bytes, purpose: str, texts: Iterable[str]) -> dict[str, bytes]:
    """`fingerprint(key, purpose, text)` of each text."""
    begins = _with_length(purpose)
    return {
        text: digest(key, begins + _with_length(text), sha256)[:FINGERPRINT_BYTES] for text in texts
    }


def _with_length(part: str) -> bytes:
    raw = part.encode("utf-8", "surrogatepass")
    return len(raw).to_bytes(4, "big") + raw
