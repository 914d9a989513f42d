"""The way that costs least to whoever knows the kinds: where it stands for the likeliest."""

import string
from itertools import product
from math import log10
from random import Random

import pytest

from newknot.core.strength import measure
from newknot.core.strength.chain import DIGITS, LOWER, PRINTABLE
from newknot.core.strength.context import read_context
from newknot.core.strength.finders import Offers
from newknot.core.strength.reading import read
from newknot.core.strength.segments import SegmentKind
from newknot.core.strength.way import (
    OF_CHANCE_LOG10,
    SAVED_MOST_LOG10,
    Way,
    cheaper_way,
    likeliest_way,
)

OWN = read_context(())


def both(text: str) -> tuple[Way, Way]:
    reading = read(text)
    offers = Offers(reading, OWN).found(knowing=True)
    likely = likeliest_way(reading, offers)
    return likely, cheaper_way(reading, offers, likely, likely)


@pytest.mark.parametrize(
    ("text", "kinds"),
    [
        ("skiVerona1955", ["word", "place", "year"]),
        ("oboeKiel77", ["word", "name", "digits"]),
    ],
)
def test_parts_that_are_all_known_are_read_as_these(text: str, kinds: list[str]) -> None:
    likely, way = both(text)
    assert [segment.kind for segment in way.segments] == kinds
    assert way.unlikely_log10 > likely.unlikely_log10
    assert way.guesses_log10 < likely.guesses_log10 - 0.5
    assert likely.is_bound and not way.is_bound


def test_what_is_drawn_loses_little_by_it_and_stays_a_bound() -> None:
    random, alphabet = Random(3), string.ascii_letters + string.digits
    lost = []
    for _ in range(150):
        likely, way = both("".join(random.choices(alphabet, k=11)))
        lost.append(likely.guesses_log10 - way.guesses_log10)
        if way.leaves_to_chance:
            assert lost[-1] <= SAVED_MOST_LOG10 + 1e-9
            assert way.is_bound == likely.is_bound
            assert way.least_log10 <= likely.least_log10
    assert min(lost) >= 0
    assert sum(lost) / len(lost) < 1


def test_a_drawn_phrase_of_four_words_is_read_as_one() -> None:
    found = measure("gravel mitten oven pillar")
    assert {s.kind for s in found.segments} <= {SegmentKind.LIST_WORD, SegmentKind.SYMBOL}
    likely, way = both("gravel mitten oven pillar")
    assert way is likely


def test_what_it_costs_to_come_upon_it_is_no_part_of_what_the_scheme_takes() -> None:
    likely, way = both("12arturos&humberto")
    assert way.scheme_log10 <= likely.scheme_log10 + 1.5
    found = measure("12arturos&humberto")
    assert 0 < way.charge_log10 < way.scheme_log10
    assert found.scheme_log10 == way.scheme_log10 - way.charge_log10
    assert found.order_log10 == way.order_log10
    assert [s.end for s in found.segments] == [2, 8, 9, 10, 18]


def test_what_may_as_well_be_drawn_whole_is_no_phrase_of_scraps() -> None:
    random = Random(5)
    errors = []
    for alphabet, size in product((LOWER + DIGITS, PRINTABLE), (8, 11, 15)):
        for _ in range(60):
            found = measure("".join(random.choices(alphabet, k=size)))
            errors.append(found.guess_number_log10 - size * log10(len(alphabet)))
    assert sum(error < -3 for error in errors) < 0.05 * len(errors)
    assert sum(error < -5 for error in errors) < 0.02 * len(errors)


def test_chance_is_said_as_chance_and_is_no_ground_to_take_a_passphrase_on() -> None:
    found = measure("rd6#CIpT")
    assert [s.kind for s in found.segments] == [SegmentKind.RANDOM]
    assert found.guess_number_log10 == pytest.approx(8 * log10(95) - OF_CHANCE_LOG10, abs=0.01)
    # It is read otherwise all the same by whoever knows that it is a code, a sign and some letters.
    assert found.is_bound and found.scheme_log10 == 0 and found.least_log10 < 7
    # What is known of the user is no chance.
    assert measure("Zqx4Kd!w", ("zqx",)).guess_number_log10 < 6
