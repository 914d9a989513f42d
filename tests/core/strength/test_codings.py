"""What was written in a code comes back, and nothing comes of what was not."""

import base64
from string import ascii_lowercase

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.strength import codings

WORDS = st.text(alphabet=ascii_lowercase, min_size=6, max_size=30)
# Moving by 47 makes one printable text of another.
READERS = [
    one for name, one in vars(codings).items() if name.startswith("from_") and name != "from_47"
]


@given(WORDS)
def test_what_was_written_in_a_code_comes_back(word: str) -> None:
    raw = word.encode()
    assert codings.from_hexadecimal(raw.hex().upper()) == word
    assert codings.from_base64(base64.urlsafe_b64encode(raw).decode().rstrip("=")) == word
    assert codings.from_base32(base64.b32encode(raw).decode().lower()) == word
    assert codings.from_binary(" ".join(f"{byte:08b}" for byte in raw)) == word
    assert codings.from_numbers(".".join(map(str, raw))) == word
    assert codings.from_escapes("".join(f"\\x{byte:02x}" for byte in raw)) == word
    assert codings.from_47("".join(chr(33 + (c - 33 + 47) % 94) for c in raw)) == word
    bare = word.replace("j", "i")
    places = map(ascii_lowercase.replace("j", "").index, bare)
    assert codings.from_square("".join(f"{n // 5 + 1}{n % 5 + 1}" for n in places)) == bare


@pytest.mark.parametrize("read", READERS)
@pytest.mark.parametrize("text", ["", "6", "lantern!", "GF2", "3f3f3f3f3", "orch ard", "\ud7ff"])
def test_nothing_comes_of_what_stands_in_no_code(read: object, text: str) -> None:
    assert callable(read)
    assert read(text) is None
