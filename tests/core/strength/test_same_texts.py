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
