"""One text beside many contexts says what it says when it is measured for each."""

from random import Random
from typing import Any

import pytest

from newknot.core.strength import measure
from newknot.core.strength.kept import kept
from newknot.core.strength.measure import Measure, measured
from newknot.core.strength.reading import Reading
from newknot.core.strength.same_texts import SameTexts
from tests.support.vectors import vectors

TEXTS = ("Tallowpost77", "tsopwollaT!", "wiodynrs,", "x7-ilse-Q", "gravel-oven-mitten-2024")
MADE_OF_IT = """
xeotlr;nu xeotlr;nu77 adripvoyb mjvexryol czlunhoeb beohnulzc! yblekriwz 7a7769726b656c6279
endpcmtlbGJ5 zzwwiirrkkeellbbyy z.w.i.r.k.e.l.b.y zwirkelb2024 zwirkelbx wzirkelby zwirkellby!
zwirklby awirkelby Zwirkebly77
"""
KNOWN = (
    (),
    ("Tallow Post", "ilse3", "tallowpost.example"),
    ("Gravel", "Tallow"),
    ("",),
    ("nobody",),
)


def test_each_text_beside_each_context_is_as_if_measured_alone() -> None:
    random, held = Random(3), SameTexts()
    texts = [*TEXTS, *random.sample([row[0] for row in vectors("measures.tsv")], 16)]
    for text in texts:
        within = text[2:7] if len(text) > 7 else "xyz"
        for known in (*KNOWN, (within,), (within[::-1], "other")):
            assert held.of(text, known) == kept(measure(text, known)), (text, known)
    one_key_off = "wiodynrs,"
    assert held.of(one_key_off, ("Quistbeam",)) != held.of(one_key_off, ())


@pytest.mark.parametrize("text", MADE_OF_IT.split())
def test_what_is_known_of_the_user_is_found_in_what_was_made_of_it(text: str) -> None:
    """No list holds it, and nothing but its being known tells what was done to the text."""
    known, held = ("zwirkelby",), SameTexts()
    assert measure(text, known).guess_number_log10 < 5 < measure(text).guess_number_log10 - 4.5
    assert measure(text, ("quorvath",)) == measure(text)
    assert held.of(text, ()) == kept(measure(text)) and held.of(text, known) == kept(
        measure(text, known)
    )


def test_a_text_is_measured_once_where_nothing_known_occurs_in_it(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    asked: list[str] = []

    def counted(reading: Reading, *others: Any) -> Measure:
        asked.append(reading.text)
        return measured(reading, *others)

    monkeypatch.setattr("newknot.core.strength.same_texts.measured", counted)
    held = SameTexts()
    for at in range(9):
        held.of("lantern-00412", (f"Site {at}", "ilse@tallowpost.example"))
    assert asked == ["lantern-00412"]
    held.of("lantern-00412", ("The Lantern",))
    assert len(asked) == 2
