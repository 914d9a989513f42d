"""PINs without the obvious ones."""

import itertools
import random

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate.pin import PIN_LENGTHS, PinSpace, obvious_pins

OBVIOUS = (
    "0000 1111 1212 6969 1234 4321 7890 2468 0369 1001 1221 1984 2024 3112 1231 2580 0852 1397"
)


class Source:
    randbelow = random.Random(6).randrange


@pytest.mark.parametrize("pin", OBVIOUS.split())
def test_what_a_thief_tries_first_is_left_out(pin: str) -> None:
    assert pin in obvious_pins(4)


@pytest.mark.parametrize("pin", ["123456", "654321", "112233", "121212", "123123", "311299"])
def test_obvious_six_digits_are_left_out(pin: str) -> None:
    assert pin in obvious_pins(6)


@pytest.mark.parametrize("length", PIN_LENGTHS)
def test_the_size_is_what_is_left_of_all(length: int) -> None:
    space = PinSpace(length)
    obvious = obvious_pins(length)
    assert all(len(pin) == length and pin.isdigit() for pin in obvious)
    assert space.size == 10**length - len(obvious) > 0.5 * 10**length
    assert all(space.draw(Source()) not in obvious for _ in range(50))


def test_every_other_pin_is_drawn() -> None:
    space = PinSpace(3)
    seen = {space.draw(Source()) for _ in range(20_000)}
    everything = {"".join(d) for d in itertools.product("0123456789", repeat=3)}
    assert seen == everything - obvious_pins(3)


@pytest.mark.parametrize("length", [0, 2, 13, 10**9])
def test_a_length_beyond_reason_is_refused(length: int) -> None:
    with pytest.raises(FieldInvalid):
        PinSpace(length)
