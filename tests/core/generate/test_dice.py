"""Dice and coins: every place by as many results, and what does not count is said."""

import itertools

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate.dice import Dice


@pytest.mark.parametrize(
    ("sides", "places"), [(6, 36), (6, 7), (2, 5), (3, 4), (10, 37), (12, 100), (20, 19), (100, 37)]
)
def test_each_place_is_picked_by_equally_many_results(sides: int, places: int) -> None:
    dice = Dice(sides, places)
    picked = [0] * places
    again = 0
    for faces in itertools.product(range(1, sides + 1), repeat=dice.throws):
        try:
            picked[dice.place_of(" ".join(map(str, faces)))] += 1
        except FieldInvalid as error:
            assert "throw again" in str(error.data["reason"])
            again += 1
    assert len(set(picked)) == 1 and picked[0] > 0
    assert again == round((1 - dice.counting) * sides**dice.throws) <= 0.1 * sides**dice.throws


@pytest.mark.parametrize(
    ("sides", "places", "throws"),
    [(6, 7776, 5), (2, 4096, 12), (2, 7776, 13), (20, 7776, 3), (10, 7776, 5), (1000, 4096, 2)],
)
def test_no_more_throws_than_are_needed(sides: int, places: int, throws: int) -> None:
    assert Dice(sides, places).throws == throws


@pytest.mark.parametrize(
    "faces", ["", "6", "1234", "12347", "12340", "1234x", "１２３４５", "1 2 3 4"]
)
def test_what_is_no_throw_is_refused(faces: str) -> None:
    with pytest.raises(FieldInvalid):
        Dice(6, 7776).place_of(faces)


def test_coins_are_read_as_letters_or_digits() -> None:
    coin = Dice(2, 8)
    assert coin.place_of("HTT") == coin.place_of("1 2 2") == coin.place_of("122") == 3
