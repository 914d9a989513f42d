"""First letters of a line."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.generate.initials import initials
from newknot.core.strength.initial_letters import beginnings, initials_log10


@pytest.mark.parametrize(
    ("line", "text"),
    [
        ("The quick ferry left at 7, didn't it?", "Tqfla7,di?"),
        ("Über den 12 Brücken – schön!", "Üd12B–s!"),
        ("a", "a"),
    ],
)
def test_the_first_letters_numbers_and_marks_of_a_line(line: str, text: str) -> None:
    assert initials(line) == text


@pytest.mark.parametrize("line", ["", "   ", "x" * 1_001])
def test_a_line_without_words_or_beyond_reason_is_refused(line: str) -> None:
    with pytest.raises(FieldInvalid):
        initials(line)


def test_common_beginnings_are_cheaper_than_a_uniform_letter() -> None:
    assert sum(10**-cost for cost in beginnings().values()) == pytest.approx(1)
    assert initials_log10("tsoa") < initials_log10("zxqj")
    assert initials_log10("itwasthebestoft") < 15 * 1.415
