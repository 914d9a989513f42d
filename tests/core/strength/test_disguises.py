"""Words in disguise: each is found and said, at little more than the word; chance wears none."""

import hashlib
from random import Random

import pytest

from newknot.core.strength import measure
from newknot.core.strength.finders.shapes import SHAPES
from newknot.core.strength.segments import SegmentKind
from tests.support.vectors import vectors


@pytest.mark.parametrize(("text", "says"), vectors("disguises.tsv"))
def test_each_disguise_is_undone_and_said(text: str, says: str) -> None:
    found = measure(text)
    assert says in [one.label for one in found.segments if one.kind is SegmentKind.DISGUISED]
    assert found.guess_number_log10 < 11 and not found.is_bound


@pytest.mark.parametrize(("text", "says"), vectors("shapes.tsv"))
def test_each_shape_is_named(text: str, says: str) -> None:
    """By what it is called, and a sum that is right far below one that is not."""
    assert says in [one.label for one in measure(text).segments]
    wrong = measure("47+85=975").guess_number_log10
    assert measure("47+85=132").guess_number_log10 < wrong - 1.5


def test_no_shape_is_passed_over_for_want_of_a_sign_that_it_can_be_without() -> None:
    random = Random(11)
    signs = ("0129ad:.", "15khmq/%", "29stnd°-", "xvdie= §", "aeb7-' ,", "$€*l5s.,")
    texts = ["".join(random.choices(pick, k=7)) for pick in signs for _ in range(3_000)]
    texts += [
        text.lower() for table in ("shapes.tsv", "measures.tsv") for text, *_ in vectors(table)
    ]
    for shape in SHAPES:
        for text in texts:
            if shape.pattern.search(text):
                assert not shape.signs or set(text) & set(shape.signs), (shape.name, text)
                assert not shape.has_digits or any(map(str.isdecimal, text)), (shape.name, text)


@pytest.mark.parametrize(("text", "view"), vectors("coded_texts.tsv"))
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


def test_the_reasons_name_no_word_of_which_a_digest_is() -> None:
    words = ("password", "garden", "mary", "")
    digests = [hashlib.sha1(w.encode(), usedforsecurity=False).hexdigest()[:12] for w in words]
    assert {measure(text).reasons for text in digests} == {"SHA-1 digest of a word"}
