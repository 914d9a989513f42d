"""Seals open to what was sealed, and to nothing else."""

import os

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.crypto import SealBroken, associated_data, open_sealed, seal
from newknot.crypto.seal import padded_size

KEY = bytes(range(32))


def sealed(text: bytes, bound: bytes = b"here", step: int = 64) -> bytes:
    return seal(KEY, text, bound_to=bound, step=step, random_bytes=os.urandom)


@given(st.binary(max_size=2000), st.binary(max_size=40))
def test_what_is_sealed_opens_the_same(text: bytes, bound: bytes) -> None:
    assert open_sealed(KEY, sealed(text, bound), bound_to=bound) == text


@given(st.binary(max_size=100), st.data())
def test_any_flipped_bit_is_noticed(text: bytes, data: st.DataObject) -> None:
    whole = sealed(text)
    at = data.draw(st.integers(0, 8 * len(whole) - 1))
    flipped = bytearray(whole)
    flipped[at // 8] ^= 1 << at % 8
    with pytest.raises(SealBroken):
        open_sealed(KEY, bytes(flipped), bound_to=b"here")


@pytest.mark.parametrize("cut", [0, 1, 12, 27, 31, 50, -1])
def test_a_cut_or_moved_seal_is_broken(cut: int) -> None:
    with pytest.raises(SealBroken):
        open_sealed(KEY, sealed(b"text")[:cut], bound_to=b"here")
    with pytest.raises(SealBroken):
        open_sealed(KEY, sealed(b"text"), bound_to=b"elsewhere")
    with pytest.raises(SealBroken):
        open_sealed(bytes(32), sealed(b"text"), bound_to=b"here")


def test_lists_of_parts_do_not_run_together() -> None:
    assert associated_data("ab", "c") != associated_data("a", "bc")
    assert associated_data(1, b"") != associated_data(b"", 1)


def test_lengths_are_hidden_in_steps_then_powers_of_two() -> None:
    assert len(sealed(b"x" * 60)) == len(sealed(b""))
    assert [padded_size(n, 1024) for n in (0, 1020, 1021, 4092, 4093, 8188, 9000)] == [
        1024, 1024, 2048, 4096, 8192, 8192, 16384,
    ]  # fmt: skip


def test_nonces_do_not_repeat() -> None:
    assert len({sealed(b"same")[:12] for _ in range(500)}) == 500
