"""Order, reasons and robustness of the measure."""

import time
import unicodedata

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.strength import SegmentKind, measure


@pytest.mark.parametrize(
    ("weaker", "stronger"),
    [
        ("password", "copperwinter"),
        ("123456", "604817"),
        ("qwertz7", "vplzkw7"),
        ("Sunday2019", "Sxqday2v19"),
        ("aaaaaaaaaaaa", "akdowpqmzxvn"),
        ("abcabcabcabc", "abczqwfjkmpl"),
        ("P@ssw0rd", "Tq7vLm2x"),
        ("14.02.1979", "8305172946"),
        ("gnirpsmorf", "xkqvjzwphm"),
        ("lantern", "lantern-orchard"),
        ("lantern-orchard", "lantern-orchard-velvet-gravel"),
    ],
)
def test_the_weaker_of_a_pair_has_fewer_guesses(weaker: str, stronger: str) -> None:
    assert measure(weaker).guess_number_log10 < measure(stronger).guess_number_log10


@pytest.mark.parametrize(
    ("text", "kinds"),
    [
        ("dragonfly", [SegmentKind.COMMON_PASSWORD]),
        ("Lantern2019", [SegmentKind.WORD, SegmentKind.YEAR]),
        ("asdfghjk", [SegmentKind.KEYBOARD_WALK]),
        ("14.02.1979", [SegmentKind.DATE]),
        ("xvqjxvqjxvqj", [SegmentKind.RANDOM, SegmentKind.COPY]),
        ("cegikmoqsu", [SegmentKind.SEQUENCE]),
    ],
)
def test_each_stretch_is_named(text: str, kinds: list[SegmentKind]) -> None:
    assert [s.kind for s in measure(text).segments] == kinds


def test_segments_cover_the_text_without_gap() -> None:
    segments = measure("Lantern2019!xvqj").segments
    assert [s.start for s in segments] == [0, *(s.end for s in segments)][:-1]
    assert segments[-1].end == 16


def test_own_words_cost_next_to_nothing() -> None:
    plain = measure("quistlight1").guess_number_log10
    assert measure("quistlight1", ("Ilse Quist", "light")).guess_number_log10 < plain - 2


@pytest.mark.parametrize("length", [8, 12, 20])
def test_unpatterned_characters_are_not_under_rated_by_a_thousand(length: int) -> None:
    text = "Vq7x!Kz2mW#9pLr4&TjB"[:length]
    assert measure(text).guess_number_log10 > length * 1.9 - 3


@given(st.text())
def test_no_text_raises_and_both_normal_forms_measure_the_same(text: str) -> None:
    composed, decomposed = (unicodedata.normalize(form, text) for form in ("NFC", "NFD"))
    assert measure(composed).guess_number_log10 == measure(decomposed).guess_number_log10


@pytest.mark.parametrize(
    "text",
    ["", "\0", "\ud800\udfff", "e" + "\u0301" * 5000, "a" * 10_000, "\u0130" * 50, "1-" * 5000],
)
def test_hostile_texts_are_measured_in_bounded_time(text: str) -> None:
    began = time.process_time()
    assert measure(text).guess_number_log10 >= 0
    assert time.process_time() - began < 2


def test_ten_thousand_context_words_are_cut() -> None:
    words = [f"word{i}" for i in range(10_000)]
    assert measure("word9999", words) == measure("word9999", words[:64])
