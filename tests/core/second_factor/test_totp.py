"""Codes by time: the published values, keys as sites give them, and what is none."""

import json
from base64 import b32encode
from datetime import UTC, datetime
from pathlib import Path

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.second_factor import CodeKey

CODES = json.loads((Path(__file__).parents[2] / "vectors/totp_rfc6238.json").read_text())["codes"]
BYTES = {"SHA1": 20, "SHA256": 32, "SHA512": 64}
AT = datetime(2026, 11, 25, 12, tzinfo=UTC)


@pytest.mark.parametrize(("at_s", "algorithm", "code"), CODES)
def test_the_codes_are_those_of_the_standard(at_s: int, algorithm: str, code: str) -> None:
    coded = b32encode((b"1234567890" * 7)[: BYTES[algorithm]]).decode().rstrip("=")
    address = f"otpauth://totp/Gantry:ilse?secret={coded}&algorithm={algorithm}&digits=8&period=30"
    found = CodeKey.read(address).code(datetime.fromtimestamp(at_s, UTC))
    assert (found.code, found.valid_s) == (code, 30 - at_s % 30)


@pytest.mark.parametrize(
    "text", ["jbsw y3dp ehpk 3pxp", "JBSWY3DP-EHPK3PXP", " JBSWY3DPEHPK3PXP= "]
)
def test_a_bare_key_is_read_however_it_is_set(text: str) -> None:
    key = CodeKey.read(text)
    assert key.code(AT) == CodeKey.read("JBSWY3DPEHPK3PXP").code(AT)
    assert CodeKey.read(key.address).address == key.address


@pytest.mark.parametrize(
    "text",
    [
        *("", "xx", "1189 1189 0000", "otpauth://totp/x", "x" * 3_000),
        "otpauth://hotp/x?secret=JBSWY3DPEHPK3PXP",
        "otpauth://totp/x?secret=JBSWY3DPEHPK3PXP&period=0",
        "otpauth://totp/x?secret=JBSWY3DPEHPK3PXP&period=many",
        "otpauth://totp/x?secret=JBSWY3DPEHPK3PXP&algorithm=NONE",
        "otpauth://totp/x?secret=JBSWY3DPEHPK3PXP&digits=99",
    ],
)
def test_what_is_no_key_is_refused_by_name(text: str) -> None:
    with pytest.raises(FieldInvalid) as caught:
        CodeKey.read(text)
    assert caught.value.data["field"] == "code_key"
