"""What was done to a text as a whole is undone, said, and costs its choice."""

from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.strength import measure
from tests.support.vectors import vectors

PLAIN = "orchard47"


@pytest.mark.parametrize(("text", "says"), vectors("views.tsv"))
def test_each_view_is_undone_and_said(text: str, says: str) -> None:
    found = measure(text)
    assert found.view == says and found.reasons.endswith(says)
    plain = measure(PLAIN).guess_number_log10
    assert plain - 1 < found.guess_number_log10 < plain + 6
    ends = [s.end for s in found.segments]
    assert [0, *ends] == [*(s.start for s in found.segments), found.measured_characters]


def test_what_is_explained_as_it_stands_is_not_looked_at_otherwise() -> None:
    for text in ("orchard47", "qwerty123", "lantern!", "19790401", "aaaaaaaa"):
        assert measure(text).view == ""


def test_a_text_by_chance_is_worth_what_it_was() -> None:
    random = Random(5)
    letters = "abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789!-#_"
    texts = ["".join(random.choices(letters, k=n)) for n in (10, 14, 20) for _ in range(60)]
    assert sum(measure(text).view != "" for text in texts) <= 3


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=24), st.lists(st.text(min_size=3, max_size=10), max_size=3))
def test_what_is_known_of_a_text_never_raises_its_number(text: str, known: list[str]) -> None:
    for one in (text, text + "".join(known)):
        assert measure(one, known).guess_number_log10 <= measure(one).guess_number_log10 + 1e-9


@pytest.mark.parametrize(
    ("text", "least"), [("qxvkqxvkpt", 7.5), ("mzkpmzkpqz", 7.5), ("manmanager", 4), ("yIxtW0", 8)]
)
def test_what_comes_again_is_paid_for_once(text: str, least: float) -> None:
    assert measure(text).guess_number_log10 > least


@pytest.mark.parametrize("text", ["governmenjt01", "governmenjt22", "pineaple42", "governmnet77"])
def test_a_slip_before_digits_is_found(text: str) -> None:
    assert measure(text).guess_number_log10 < 9
    assert "digits" in measure(text).reasons


@pytest.mark.parametrize(
    "text", ["2468101214161820", "5101520253035", "100908070605", "0306091215", "lantern7142128"]
)
def test_numbers_that_count_by_a_step_are_a_sequence(text: str) -> None:
    found = measure(text)
    assert "counting by" in found.reasons and found.guess_number_log10 < 9


@pytest.mark.parametrize(
    ("text", "bound"),
    [("orchard47", False), ("Kv7!xQ2#mNw9", True), ("glimbartz", True), ("", False)],
)
def test_what_nothing_explains_is_said_to_be_a_bound(text: str, bound: bool) -> None:
    assert measure(text).is_bound is bound


@pytest.mark.parametrize("text", ["zZ_orchard47_Zz", "oOorchard47oO", "o*r*c*h*a*r*d*47"])
def test_what_was_undone_is_said_without_what_was_typed(text: str) -> None:
    said = measure(text).reasons
    assert "between" in said and not any(part in said for part in ("zZ", "Zz", "oO", "*", "_"))
