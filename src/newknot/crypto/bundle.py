"""A sealed bundle: a JWE in compact form (RFC 7516), A256GCM under A256KW (RFC 7518).

The key-encryption key is Argon2id (RFC 9106) of a passphrase; its parameters stand in the
protected header as "kdf", the salt as text whose ASCII bytes are the salt, so that other tools can
open it. Or it is agreed with a recipient's public key: ECDH-ES+A256KW (RFC 7518, 4.6) on P-256.

The library of these standards is loaded with the first bundle: a start need not wait for it.
"""

import json
from base64 import urlsafe_b64decode, urlsafe_b64encode
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from argon2.low_level import ARGON2_VERSION

from newknot.core.errors import FieldInvalid, NewKnotError
from newknot.crypto.kdf import SALT_BYTES, KdfParameters, derive_key

if TYPE_CHECKING:
    from joserfc.jwe import JWERegistry
    from joserfc.jwk import ECKey, OctKey

TYPE = "newknot-bundle+json"
HEADER_MOST, BUNDLE_MOST = 4_096, 256 << 20
_ALGORITHM, _ENCRYPTION, _KDF = "A256KW", "A256GCM", "argon2id"
_AGREED = "ECDH-ES+A256KW"
_OTHER_WAY = "is not sealed in the way of these bundles"


class BundleRefused(NewKnotError):
    """What is no sealed bundle, or one that asks for too much. data: reason."""


class BundleClosed(NewKnotError):
    """A bundle that this passphrase does not open, or that was changed since it was sealed."""


def seal_bundle(
    text: bytes,
    *,
    passphrase: str,
    parameters: KdfParameters,
    random_bytes: Callable[[int], bytes],
) -> bytes:
    """The bundle of a text, as ASCII."""
    # 16 characters of Base64 are 96 bits in 16 bytes of ASCII: what any tool can be given as text.
    salt = urlsafe_b64encode(random_bytes(SALT_BYTES * 3 // 4)).decode("ascii")
    header = {
        "alg": _ALGORITHM,
        "enc": _ENCRYPTION,
        "typ": TYPE,
        "cty": "application/json",
        "kdf": {
            "name": _KDF,
            "v": ARGON2_VERSION,
            "m": parameters.memory_kib,
            "t": parameters.passes,
            "p": parameters.lanes,
            "salt": salt,
        },
    }
    key = derive_key(passphrase, salt=salt.encode("ascii"), parameters=parameters)
    return _sealed(header, text, _symmetric(key))


def new_recipient_key() -> str:
    """A private key for bundles to come, as a JWK (RFC 7517). Randomness is the system's."""
    from joserfc.jwk import ECKey

    return json.dumps(ECKey.generate_key("P-256", private=True).as_dict(private=True))


def public_key_of(private_key: str) -> str:
    """What is given to those who seal for it, as a JWK."""
    return json.dumps(_on_curve(json.loads(private_key)).as_dict(private=False))


def seal_bundle_to(text: bytes, *, public_key: str) -> bytes:
    """The bundle of a text that the holder of a key alone can open. Raises `FieldInvalid`."""
    from joserfc.errors import JoseError

    try:
        given = json.loads(public_key[:HEADER_MOST])
        key = _on_curve({name: given[name] for name in ("kty", "crv", "x", "y")})
        if key.curve_name != "P-256":
            raise ValueError
    except (JoseError, ValueError, KeyError, TypeError, RecursionError):
        raise FieldInvalid("public_key", "is no public key of a vault") from None
    header = {
        "alg": _AGREED,
        "enc": _ENCRYPTION,
        "typ": TYPE,
        "cty": "application/json",
    }
    return _sealed(header, text, key)


def open_bundle(file: bytes, *, passphrase: str, private_key: str | None = None) -> bytes:
    """The text of a bundle. What it asks for is bounded before any of it is done.

    Raises `BundleRefused`, `BundleClosed`, `KeyParametersRefused`.
    """
    text, header = _header(file)
    if header.get("enc") != _ENCRYPTION or "zip" in header:
        raise BundleRefused(reason=_OTHER_WAY)
    if header.get("alg") == _AGREED:
        if private_key is None:
            raise BundleClosed()
        return _opened(text, _on_curve(json.loads(private_key)))
    if header.get("alg") != _ALGORITHM:
        raise BundleRefused(reason=_OTHER_WAY)
    parameters, salt = _kdf(header.get("kdf"))
    return _opened(text, _symmetric(derive_key(passphrase, salt=salt, parameters=parameters)))


def is_for_a_key(file: bytes) -> bool:
    """Whether a bundle is opened by a key and not by a passphrase. Raises `BundleRefused`."""
    _, header = _header(file)
    return header.get("alg") == _AGREED


def _kdf(kdf: object) -> tuple[KdfParameters, bytes]:
    try:
        if not isinstance(kdf, dict) or kdf["name"] != _KDF:
            raise KeyError
        salt = str(kdf["salt"]).encode("ascii")
        numbers = [kdf[name] for name in ("t", "m", "p", "v")]
        if len(salt) != SALT_BYTES or not all(isinstance(number, int) for number in numbers):
            raise KeyError
    except (KeyError, UnicodeEncodeError):
        raise BundleRefused(reason=_OTHER_WAY) from None
    return KdfParameters(*numbers), salt


def _symmetric(key: bytes) -> "OctKey":
    from joserfc.jwk import OctKey

    return OctKey.import_key(key)


def _on_curve(key: dict[str, Any]) -> "ECKey":
    from joserfc.jwk import ECKey

    return ECKey.import_key(key)


def _sealed(header: dict[str, Any], text: bytes, key: "OctKey | ECKey") -> bytes:
    from joserfc import jwe

    sealed: str = jwe.encrypt_compact(header, text, key, registry=_registry())
    return sealed.encode("ascii")


def _opened(text: str, key: "OctKey | ECKey") -> bytes:
    from joserfc import jwe
    from joserfc.errors import JoseError

    try:
        found = jwe.decrypt_compact(text, key, registry=_registry())
    except (JoseError, ValueError, TypeError, KeyError):
        raise BundleClosed() from None
    plain: bytes = found.plaintext or b""
    return plain


def _header(file: bytes) -> tuple[str, dict[str, Any]]:
    body = file.strip()
    first, dot, _ = body.partition(b".")
    if len(file) > BUNDLE_MOST or body.count(b".") != 4 or not dot or len(first) > HEADER_MOST:
        raise BundleRefused(reason="is no sealed bundle (a JWE of five parts)")
    try:
        header = json.loads(urlsafe_b64decode(first + b"=" * (-len(first) % 4)))
        text = body.decode("ascii")
    except (ValueError, RecursionError):
        raise BundleRefused(reason="has a header that cannot be read") from None
    if not isinstance(header, dict):
        raise BundleRefused(reason="has a header that cannot be read")
    return text, header


def _registry() -> "JWERegistry":
    from joserfc.jwe import JWERegistry

    used = [_ALGORITHM, _AGREED, _ENCRYPTION]
    registry = JWERegistry(algorithms=used, strict_check_header=False)
    # Bundles are whole vaults: larger than tokens.
    registry.max_ciphertext_length = BUNDLE_MOST
    registry.max_protected_header_length = HEADER_MOST
    return registry
