"""How a text is read: one shape for look-alikes, cut alike in both normal forms."""

import unicodedata

import pytest

from newknot.core.strength.reading import read, shape_of_letters


@pytest.mark.parametrize(
    ("text", "shape"),
    [("P@ssw0rd", "password"), ("7a|1l!", "taiiii"), ("Łódź", "iodz"), ("ÅSTRÖM", "astrom")],
)
def test_look_alikes_have_one_shape(text: str, shape: str) -> None:
    assert read(text).shaped == shape


def test_a_text_and_its_foldings_are_as_long() -> None:
    for text in ("\u0130stanbul", "straße", "\u1f82" * 2_000, "\ufdfa" * 300, "e\u0301" * 1_500):
        for form in ("NFC", "NFD"):
            reading = read(unicodedata.normalize(form, text))
            assert len(reading.low) == len(reading.shaped) == min(128, len(reading.text))
            assert reading == read(text)


def test_a_list_is_shaped_as_its_words_are() -> None:
    assert shape_of_letters("zażółć\nlöffel\nїжак") == "\n".join(
        map(shape_of_letters, ("zażółć", "löffel", "їжак"))
    )
