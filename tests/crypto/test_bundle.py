"""Sealed bundles: opened by the published standards alone, refused wherever they were touched."""

import json
import os
from base64 import urlsafe_b64decode, urlsafe_b64encode
from pathlib import Path

import pytest
from argon2.low_level import Type, hash_secret_raw
from cryptography.hazmat.primitives.ciphers.aead import AESGCM
from cryptography.hazmat.primitives.keywrap import aes_key_unwrap
from joserfc import jwe
from joserfc.jwk import OctKey

from newknot.core.errors import FieldInvalid
from newknot.crypto import KeyParametersRefused
from newknot.crypto.bundle import (
    BundleClosed,
    BundleRefused,
    is_for_a_key,
    new_recipient_key,
    open_bundle,
    public_key_of,
    seal_bundle,
    seal_bundle_to,
)
from tests.conftest import CHEAP

VECTOR = Path(__file__).parent.parent / "vectors" / "jwe_rfc7516.json"
TEXT = b'{"secret": "rope-and-plank", "zo\xc3\xab": 1}'
PASSPHRASE = "orchard Zo\u0065\u0308 lantern"


def sealed(text: bytes = TEXT) -> bytes:
    return seal_bundle(text, passphrase=PASSPHRASE, parameters=CHEAP, random_bytes=os.urandom)


def plain(part: bytes) -> bytes:
    return urlsafe_b64decode(part + b"=" * (-len(part) % 4))


def with_header(bundle: bytes, **parts: object) -> bytes:
    first, *others = bundle.split(b".")
    header = json.loads(plain(first)) | parts
    text = urlsafe_b64encode(json.dumps(header).encode()).rstrip(b"=")
    return b".".join([text, *others])


def test_the_standards_alone_open_it() -> None:
    """RFC 7516, 5.2: the content key unwrapped (RFC 3394), then AES-GCM over the header as read."""
    bundle = sealed()
    assert b"rope" not in bundle
    header, wrapped, nonce, text, tag = bundle.split(b".")
    kdf = json.loads(plain(header))["kdf"]
    key = hash_secret_raw(
        "orchard Zoë lantern".encode(),
        kdf["salt"].encode("ascii"),
        time_cost=kdf["t"],
        memory_cost=kdf["m"],
        parallelism=kdf["p"],
        hash_len=32,
        type=Type.ID,
        version=kdf["v"],
    )
    content_key = aes_key_unwrap(key, plain(wrapped))
    assert AESGCM(content_key).decrypt(plain(nonce), plain(text) + plain(tag), header) == TEXT
    assert open_bundle(bundle + b"\n", passphrase=PASSPHRASE) == TEXT


def test_the_published_example_is_read_and_is_no_bundle() -> None:
    """RFC 7516, A.3.7: the library reads it; its weaker ways are not taken here."""
    example = json.loads(VECTOR.read_text("ascii"))
    key = OctKey.import_key(example["key"])
    found = jwe.decrypt_compact(example["jwe"], key, algorithms=["A128KW", "A128CBC-HS256"])
    assert found.plaintext == example["plaintext"].encode("ascii")
    with pytest.raises(BundleRefused):
        open_bundle(example["jwe"].encode("ascii"), passphrase=PASSPHRASE)


def test_cut_or_flipped_anywhere_it_does_not_open() -> None:
    bundle = sealed()
    with pytest.raises(BundleClosed):
        open_bundle(bundle, passphrase="another")
    for at in range(0, len(bundle), 7):
        for broken in (bundle[:at], bundle[:at] + bytes([bundle[at] ^ 2]) + bundle[at + 1 :]):
            with pytest.raises((BundleClosed, BundleRefused, KeyParametersRefused)):
                open_bundle(broken, passphrase=PASSPHRASE)


KDF = {"name": "argon2id", "v": 19, "m": 65536, "t": 3, "p": 4, "salt": "A" * 16}


@pytest.mark.parametrize(
    "parts",
    [
        *({"alg": "dir"}, {"alg": "PBES2-HS256+A128KW"}, {"enc": "A128CBC-HS256"}, {"zip": "DEF"}),
        *({"kdf": None}, {"kdf": KDF | {"m": 1 << 30}}, {"kdf": KDF | {"t": 1_000_000}}),
        *({"kdf": KDF | {"t": "3"}}, {"kdf": KDF | {"name": "scrypt"}}),
        *({"kdf": KDF | {"salt": "A" * 17}}, {"kdf": {"name": "argon2id"}}, {"more": "A" * 5_000}),
    ],
    ids=range(12),
)
def test_what_it_asks_for_is_bounded_before_it_is_done(parts: dict[str, object]) -> None:
    with pytest.raises((BundleRefused, KeyParametersRefused)):
        open_bundle(with_header(sealed(), **parts), passphrase=PASSPHRASE)
    for text in (b"", b"a.b.c.d", b"....", b"[.a.b.c.d", b"bnVsbA.a.b.c.d"):
        with pytest.raises(BundleRefused):
            open_bundle(text, passphrase=PASSPHRASE)


def test_a_bundle_is_as_large_as_a_vault_of_thousands() -> None:
    text = os.urandom(1 << 22).hex().encode()
    assert open_bundle(sealed(text), passphrase=PASSPHRASE) == text


def test_a_bundle_for_a_key_is_opened_by_that_key_alone() -> None:
    private, other = new_recipient_key(), new_recipient_key()
    public = public_key_of(private)
    assert '"d"' in private and '"d"' not in public
    bundle = seal_bundle_to(TEXT, public_key=public)
    assert is_for_a_key(bundle) and not is_for_a_key(sealed())
    assert open_bundle(bundle, passphrase="", private_key=private) == TEXT
    for key in (other, None):
        with pytest.raises(BundleClosed):
            open_bundle(bundle, passphrase=PASSPHRASE, private_key=key)
    odd = json.loads(plain(bundle.split(b".")[0]))["epk"] | {"x": "AAAA"}
    for epk in (odd, None, {"kty": "oct", "k": "AAAA"}):
        with pytest.raises(BundleClosed):
            open_bundle(with_header(bundle, epk=epk), passphrase="", private_key=private)
    for wrong in (
        "",
        "{}",
        "[]",
        '{"kty": "EC", "crv": "P-256", "x": "AA", "y": "AA"}',
        "[" * 9_999,
    ):
        with pytest.raises(FieldInvalid):
            seal_bundle_to(TEXT, public_key=wrong)
