"""Reasons, robustness and laws of the measure; its accuracy is held against the open set."""

import time
import unicodedata
from math import log10
from pathlib import Path
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scripts.strength.evaluate import FAR, drawn, misordered_pairs, out_of_band
from scripts.strength.pin import CONTEXT
from scripts.strength.processes import processes

from newknot.core.shipped import shipped_lines
from newknot.core.strength import SegmentKind, measure
from newknot.core.strength.dictionaries import DICTIONARY_VERSION
from tests.support.vectors import examples

K = SegmentKind
VECTORS = Path(__file__).parents[2] / "vectors"
HOSTILE = [
    "", "\0", "\ud800\udfff", "e" + "\u0301" * 9_999, "a" * 10_000, "\u0130" * 50, "1-" * 5_000,
    "()" * 5_000, "9" * 128 + "x" * 900, "\U0001f600" * 10_000, "qwerty" * 1_700, "1/1/" * 2_500,
]  # fmt: skip


@pytest.mark.parametrize(("text", "kinds"), examples("kinds_of_stretches.json"))
def test_each_stretch_is_named(text: str, kinds: list[str]) -> None:
    assert [s.kind.value for s in measure(text).segments] == kinds


def test_segments_cover_the_text_and_give_the_number() -> None:
    measured = measure("Lampshade2019!xvqj")
    assert [s.start for s in measured.segments] == [0, *(s.end for s in measured.segments)][:-1]
    assert measured.segments[-1].end == 18
    assert measured.segments[0].taken_for == "lampshade"
    effort = sum(s.cost_log10 for s in measured.segments) + measured.order_log10
    assert abs(measured.guess_number_log10 + measured.scheme_log10 - effort) < 2


def test_each_attack_is_told_whether_and_when() -> None:
    falls = measure("copper kettle 5").against()
    assert [f.falls for f in falls] == [False, True, True, True]
    assert [f.takes_s_log10 for f in falls] == sorted(
        (f.takes_s_log10 for f in falls), reverse=True
    )
    assert falls[1].takes.split()[1].rstrip("s") in ("minute", "hour", "day")


def test_the_measure_holds_on_the_open_set() -> None:
    wrong, pairs = misordered_pairs()
    assert len(wrong) <= 0.03 * pairs
    outside, texts = out_of_band()
    assert len(outside) <= 0.12 * texts
    each = drawn(processes(), each=6)
    assert sum(d.error > FAR for d in each) <= 0.02 * len(each)
    assert sum(d.error < -FAR for d in each) <= 0.02 * len(each)
    for budget in (10.0, 14.0):
        falls = [d for d in each if d.process.outcomes_log10 < budget]
        assert sum(d.guesses_log10 >= budget for d in falls) <= 0.01 * len(each)


SHIPPED = (
    *("common_passwords.txt.gz", "english_words.txt.gz", "given_names.txt.gz", "surnames.txt.gz"),
    *("names_abroad.txt.gz", "places.txt.gz", "proper_names.txt.gz", "words_7776.txt"),
    *(f"languages/{code}.txt.gz" for code in ("de", "es", "fr", "it", "nl", "pl", "pt", "ru")),
)


def shipped_texts(random: Random) -> list[str]:
    """What the product itself knows: the first letters of all sayings, and a sample of the sayings
    and of all lists.
    """
    texts = [word for name in SHIPPED for word in random.sample(shipped_lines(name), 12)]
    for line in shipped_lines("quotations.txt"):
        words = line.split()
        initials = "".join(word[0] for word in words)
        texts += [initials, random.choice((initials[:-1], initials + "1"))]
        if random.random() < 0.2:
            texts += [line, "".join(words)]
    return texts


def test_a_number_changes_with_the_version_alone() -> None:
    """Else measures that vaults keep would be stale: scripts/strength/pin.py, and a new version."""
    head, *lines = (VECTORS / "measures.tsv").read_text("utf-8").splitlines()
    assert f" version {DICTIONARY_VERSION}," in head
    for line in lines:
        text, alone, known, least, reasons = line.split("\t")
        found, beside = measure(text), measure(text, CONTEXT)
        says = found.guess_number_log10, beside.guess_number_log10, found.least_log10
        assert says == pytest.approx((float(alone), float(known), float(least)), abs=0.002), text
        assert found.reasons == reasons, text


def test_no_text_fails_the_measure() -> None:
    """Whole, upside down, cut and doubled: shipped words and random characters of all planes."""
    random = Random(7)
    alphabets = ("ab1 ", "qwertyuiop[]", "0123456789/.-:", "aA1!\u00e9\u0130\u6587\ud800\U0001f600")
    drawn_ones = [
        "".join(random.choices(random.choice(alphabets), k=random.randrange(40)))
        for _ in range(120)
    ]
    for text in (*shipped_texts(random), *drawn_ones):
        for guise in (text, text[::-1].title(), text[: len(text) // 2]):
            found = measure(guise, context=(text,) if random.random() < 0.1 else ())
            assert found.guess_number_log10 >= 0
            assert [0, *(s.end for s in found.segments)][:-1] == [s.start for s in found.segments]
            assert not found.segments or found.segments[-1].end == found.measured_characters


def test_own_words_cost_next_to_nothing() -> None:
    plain = measure("quistlight1").guess_number_log10
    assert measure("quistlight1", ("Ilse Quist", "light")).guess_number_log10 < plain - 2


def test_a_word_more_never_weakens_a_passphrase() -> None:
    words = ["velvet", "orchard", "lantern", "copper", "mitten", "gravel"]
    numbers = [measure("-".join(words[:n])).guess_number_log10 for n in range(1, 7)]
    assert numbers == sorted(numbers)


def test_more_context_never_strengthens() -> None:
    for text in ("gantryquist7", "velvet-gantry", "Rentals2019"):
        more = measure(text, ("Gantry", "Rentals")).guess_number_log10
        assert more <= measure(text).guess_number_log10


@settings(max_examples=50)
@given(st.text())
def test_no_text_raises_and_both_normal_forms_measure_the_same(text: str) -> None:
    composed, decomposed = (unicodedata.normalize(form, text) for form in ("NFC", "NFD"))
    assert measure(composed) == measure(decomposed)


@pytest.mark.parametrize("text", HOSTILE, ids=range(len(HOSTILE)))
def test_hostile_texts_are_measured_in_bounded_time(text: str) -> None:
    measure("warm")
    began = time.process_time()
    assert 0 <= measure(text).guess_number_log10 < 10_000
    assert time.process_time() - began < 1


def test_beyond_what_is_read_nothing_counts_and_a_copy_is_nearly_free() -> None:
    letters = "".join(Random(3).choices("abcdefghijklmnopqrstuvwxyz", k=1_500))
    assert measure(letters) == measure(letters[:1_024])
    once, twice = measure(letters[:200]), measure(letters[:200] * 2)
    assert twice.guess_number_log10 < once.guess_number_log10 + 6
    assert measure("a" * 1_024).guess_number_log10 < 8


def test_ten_thousand_context_words_are_cut_and_it_is_said() -> None:
    words = [f"word{i}" for i in range(10_000)]
    assert measure("word9999", words) == measure("word9999", words[:65])
    assert measure("word9999", words).context_was_cut
    assert measure("word", ["x" * 201]).context_was_cut
    assert not measure("word9999", words[:64]).context_was_cut


@pytest.mark.parametrize(
    ("text", "reasons"),
    [
        ("tuesdayfriday", "days of the week"),
        ("10.0.47.9", "four octets"),
        ("101316192225", "counting by 3"),
        ("cfiloru", "a sequence in steps of 3"),
        ("23:47", "a time of day"),
    ],
)
def test_what_is_known_is_named_in_plain_words(text: str, reasons: str) -> None:
    assert measure(text).reasons == reasons


def test_a_bound_is_what_a_text_is_worth_if_nobody_guesses_how_it_was_made() -> None:
    odd, phrase, long = map(measure, ("x7Kp2mQz", "seven lamps over wet gravel", "x7Kp2mQz" * 3))
    assert odd.is_bound and odd.least_log10 < 10 < odd.guess_number_log10
    assert not phrase.is_bound and phrase.least_log10 == phrase.guess_number_log10 > 10
    assert long.least_log10 <= long.guess_number_log10
    drawn = measure("k3Vq9zTm1Lx7Rb2Hn5")
    assert drawn.is_bound and 10 < drawn.least_log10 < drawn.guess_number_log10


FRAMED = ["SELECT lantern FROM harbour;", "dear gantry, harbour", "if(lantern==harbour)"]


@pytest.mark.parametrize("text", FRAMED)
def test_what_words_are_put_into_costs_one_choice(text: str) -> None:
    found = measure(text)
    assert found.segments[0].label == "a form to put words into"
    literals = [s.cost_log10 for s in found.segments if s.kind is SegmentKind.SHAPE]
    assert sum(literals) < 3.2


def test_what_is_drawn_in_groups_is_worth_its_characters() -> None:
    assert measure("NA5O-NM5M").guess_number_log10 == pytest.approx(8 * log10(36), abs=0.7)
    assert measure("CkettleD").guess_number_log10 < 9


def test_what_is_no_common_password_comes_after_the_commonest() -> None:
    assert measure("123456").guess_number_log10 < 1 < measure("dragon").guess_number_log10 < 2
    assert measure("k").guess_number_log10 < 2
    assert measure("gantry", ["Gantry"]).guess_number_log10 < 2
    after = [measure(text).guess_number_log10 for text in ("1988", "onceuponatime", "5550123")]
    assert 2 < after[0] < after[1] < after[2] < 3
