"""Time-based one-time codes (TOTP, RFC 6238), from a key as sites give it."""

import hashlib
import re
from binascii import Error as Base32Error
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from urllib.parse import parse_qs, unquote, urlsplit

from pyotp import TOTP

from newknot.core.errors import FieldInvalid

_SPACED = re.compile(r"[\s-]+")
_DIGESTS = {"SHA1": hashlib.sha1, "SHA256": hashlib.sha256, "SHA512": hashlib.sha512}
_ADDRESS_MOST = 2_000


class _Totp(TOTP):
    """Keys of fewer bits than RFC 4226 asks for are taken: many sites issue them."""

    min_secret_length_bits = 40


@dataclass(frozen=True, slots=True)
class Code:
    """A code, for how many more seconds it is taken, and the one that follows it."""

    code: str
    valid_s: int
    next_code: str


class CodeKey:
    """The key and the parameters of a login's codes."""

    def __init__(self, totp: TOTP) -> None:
        self._totp = totp

    @staticmethod
    def read(text: str) -> "CodeKey":
        """Of an `otpauth://totp/` address, or of the bare key in Base32 with blanks in any case.

        Raises `FieldInvalid` naming `code_key`.
        """
        given = text.strip()
        if len(given) > _ADDRESS_MOST:
            raise FieldInvalid("code_key", f"is longer than {_ADDRESS_MOST:,} characters")
        try:
            found = _of_address(given) if given.lower().startswith("otpauth:") else _totp(given)
            if not 5 <= found.interval <= 300:
                raise FieldInvalid("code_key", "has a period that is not between 5 and 300 seconds")
            return CodeKey(found)
        except (ValueError, Base32Error):
            raise FieldInvalid(
                "code_key", "is no key of time codes (Base32, or otpauth:)"
            ) from None

    @property
    def address(self) -> str:
        """The whole as an `otpauth://totp/` address."""
        return self._totp.provisioning_uri(
            name=self._totp.name or "", issuer_name=self._totp.issuer
        )

    def code(self, now: datetime) -> Code:
        """The code of this moment."""
        passed = int(now.timestamp()) % self._totp.interval
        following = now + timedelta(seconds=self._totp.interval)
        return Code(self._totp.at(now), self._totp.interval - passed, self._totp.at(following))


def _totp(key: str, **parameters: Any) -> TOTP:
    return _Totp(_SPACED.sub("", key).upper().rstrip("="), **parameters)


def _of_address(address: str) -> TOTP:
    parts = urlsplit(address)
    if parts.netloc.lower() != "totp":
        raise FieldInvalid("code_key", "is for codes by count, not by time")
    given = {name: values[0] for name, values in parse_qs(parts.query).items()}
    issuer, colon, name = unquote(parts.path).lstrip("/").rpartition(":")
    digest = _DIGESTS.get(given.get("algorithm", "SHA1").upper())
    if digest is None:
        raise FieldInvalid("code_key", "names an algorithm that is not known here")
    return _totp(
        given.get("secret", ""),
        digits=int(given.get("digits", "6")),
        interval=int(given.get("period", "30")),
        digest=digest,
        name=name.strip() or None,
        issuer=given.get("issuer") or (issuer if colon else None),
    )
