"""What was done to a text as a whole is undone, said, and costs its choice."""

import base64
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.strength import measure

PLAIN = "orchard47"
ROWS = ("1234567890", "qwertyuiop", "asdfghjkl;", "zxcvbnm,.")


def typed(text: str, by: int) -> str:
    """The text with the hands one key to a side."""
    at = {c: (row, i) for row in ROWS for i, c in enumerate(row)}
    return "".join(at[c][0][at[c][1] + by] for c in text)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        (PLAIN[::-1] + "drahcro", "written backwards"),
        (typed(PLAIN, 1), "typed one key to the right"),
        (typed("thunder58", -1), "typed one key to the left"),
        ("щксрфкв47", "with a Russian keyboard set"),
        ("ljvfiybq47", "on a Russian keyboard's keys"),
        ("bepuneq47", "shifted by 13 in the alphabet"),
        ("vyjohyk47", "shifted by 7 in the alphabet"),
        ("lixsziw47", "with its alphabet reversed"),
        ("zZ_orchard47_Zz", "between the same letters"),
        ("oOorchard47oO", "between the same letters"),
        ("oorrcchhaarrdd4477", "each character twice"),
        (PLAIN.encode().hex(), "in hexadecimal"),
        (base64.b64encode(PLAIN.encode()).decode(), "in base 64"),
        ("".join(map("".join, zip("orchard", "lantern", strict=True))), "two texts woven into one"),
        ("l.a.n.t.e.r.n", "with one sign between"),
        ("bbobolbolt", "growing letter by letter"),
        ("bbobolbolt7", "growing letter by letter"),
        ("qlqaqnqtqeqrqn", "with one letter before each"),
        ("lqaqnqtqeqrqnq", "with one letter behind each"),
        ("lapantepern", "with a syllable in each vowel"),
        ("l1nt2rn", "its vowels as numbers"),
        ("l1nt2rn15", "its vowels as numbers, with digits behind"),
        ("fac-to-ry25", "with a sign put in"),
        ("r8e0f4u7sed", "with digits put in"),
        ("ainrvgri30", "every third letter after the other"),
        ("zkhool39", "with k and z for c and s"),
        ("daboar834", "its last letter in front"),
        ("Atercoolerw6", "its first letter behind"),
        ("prudact47", "with the next vowel for each"),
        ("Oorchardo47", "between its own letter"),
        ("htdrykk7", "each letter one further on than the one before"),
        ("vyilrltau7", "from its ends inwards"),
        ("lanclaimded", "one word put into another"),
        ("k-e-t-t-l-e-4", "with one sign between"),
        ("r o p e w a l k", "with a blank between"),
        ("uwjrhwpp", "typed one key too high and to the right"),
        ("hduktyf", "typed two keys to the right"),
        ("lnenatr47", "every second letter after the others"),
        ("l1a2n3t4e5r6n7", "each letter with its place behind it"),
        ("l8a9n0t1e2r3n4", "each letter with its place behind it"),
        ("31113344154233", "by its places in a square of letters"),
        ("орхардс47", "in Cyrillic or Greek letters by their sounds"),
        ("θυνδερ58", "in Cyrillic or Greek letters by their sounds"),
        (base64.b32encode(PLAIN.encode()).decode(), "in base 32"),
        (base64.b64encode(b"lantern").decode()[::-1], "in base 64, written backwards"),
        ("erqahug58", "shifted by 13 in the alphabet, written backwards"),
        (base64.b64encode(b"bepuneq47").decode(), "shifted by 13 in the alphabet, in base 64"),
        (b"bepuneq47".hex(), "shifted by 13 in the alphabet, in hexadecimal"),
        ("s.h.u.a.l.y.u", "shifted by 7 in the alphabet, with one sign between"),
    ],
)
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
