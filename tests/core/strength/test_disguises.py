"""Words in disguise: each is found and said, at little more than the word; chance wears none."""

from random import Random

import pytest

from newknot.core.strength import measure
from newknot.core.strength.segments import SegmentKind

PUT_IN = "a word with something put in"
DISGUISED = [
    ("orch!ard47", PUT_IN),
    ("lan#tern7", PUT_IN),
    ("ket90tle", PUT_IN),
    ("orch--ard", PUT_IN),
    ("ternlan5", "a word turned about"),
    ("anternlay", "a word, its beginning moved behind"),
    ("lanteeeern", "a word with a letter drawn out"),
    ("schooooool", "a word with a letter drawn out"),
    ("strngth1987", "a word without its vowels"),
    ("lintirn4", "a word with one vowel for all"),
    ("l*nt*rn", "a word with a sign for its vowels"),
    ("naattiioonns", "a word with letters twice"),
    ("altnren", "a word with its letters exchanged by pairs"),
    ("5268376", "a word in numbers for its letters"),
    ("12-1-14-20-5-18-14", "a word in numbers for its letters"),
    ("sisters!(^(", "digits with the shift key held"),
    ("megasoulsish", "a suffix"),
    ("superlantern7", "a prefix"),
    ("aceghmost12", "letters in the order of the alphabet"),
]
OF_A_SHAPE = [
    ("47+85=132", "a sum"),
    ("52.3702,4.8952", "a place on the map"),
    ("Qc5 Bc6 Nc6", "moves of a chess game"),
    ("7:45pm", "a time of day"),
    ("1985-06-01T14:28", "a date with its time"),
    ("rgb(229,70,213)", "numbers of one octet each"),
    ("J.R.Miller88", "initials"),
    ("SW1A 1AAlondon", "a postcode"),
    ("k1a0b6", "a postcode"),
    ("=SUM(O42:T65)", "cells of a sheet"),
    ("lantern 5h32m10s", "how long it took"),
    ("lantern 16°C", "degrees"),
    ("140%lantern", "a percentage"),
    ("§65 Abs.5", "a section of a law"),
    ("1984-1999", "years from and to"),
    ("lantern'38", "a short year"),
    ("DIN A4 kettle", "a size of a norm"),
    ("lantern 387/400", "a part of a whole"),
    ("lantern 1.6 TDI", "an engine's size"),
    ("lantern Q3", "a quarter or week of a year"),
    ("0x5F2B6", "a hexadecimal number"),
    ("lantern IV kettle", "a number among others"),
    ("2893243614004417", "square numbers"),
    ("43475359617", "prime numbers"),
    ("3927812437290", "each 3 times the one before"),
    ("14591423375", "each the sum of the two before"),
]
"""By what they are called, and no more than three orders above how many there are."""


@pytest.mark.parametrize(("text", "says"), DISGUISED)
def test_each_disguise_is_undone_and_said(text: str, says: str) -> None:
    found = measure(text)
    assert says in [one.label for one in found.segments if one.kind is SegmentKind.DISGUISED]
    assert found.guess_number_log10 < 11 and not found.is_bound


@pytest.mark.parametrize(("text", "says"), OF_A_SHAPE)
def test_each_shape_is_named(text: str, says: str) -> None:
    assert says in [one.label for one in measure(text).segments]
    wrong = measure("47+85=975").guess_number_log10
    assert measure("47+85=132").guess_number_log10 < wrong - 1.5


@pytest.mark.parametrize(
    ("text", "view"),
    [
        (".-.. .- -. - . .-. -.", "in Morse code"),
        ("011010110110010101110100011101000110110001100101", "in binary"),
        ("108 97 110 116 101 114 110", "in character numbers"),
        ("4777288833555", "by a telephone's keys, pressed until it came"),
        ("ｌａｎｔｅｒｎ", "in letters of another make"),
        ("оrсhаrd47", "in letters of another make"),
        ("[O][R][C][H][A][R][D]", "with signs between"),
    ],
)
def test_what_stands_for_letters_is_read_as_such(text: str, view: str) -> None:
    found = measure(text)
    assert found.view == view and found.guess_number_log10 < 10


def test_a_season_costs_what_few_seasons_do() -> None:
    assert (
        measure("Autumn2015*").guess_number_log10 < measure("Thimble2015*").guess_number_log10 - 1
    )


def test_what_chance_drew_wears_none() -> None:
    random, letters = Random(8), "abcdefghijkmnpqrstuvwxyz"
    texts = ["".join(random.choices(letters, k=12)) for _ in range(200)]
    kinds = [{one.kind for one in measure(text).segments} for text in texts]
    assert sum(SegmentKind.DISGUISED in found for found in kinds) <= 2
