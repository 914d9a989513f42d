"""Key presses and taps, counted by hand."""

import pytest

from newknot.core.generate.typing_effort import key_presses, phone_taps
from tests.support.vectors import vectors


@pytest.mark.parametrize(("text", "presses", "taps"), vectors("typing_effort.tsv"))
def test_the_counts_of_a_text(text: str, presses: str, taps: str) -> None:
    assert (key_presses(text), phone_taps(text)) == (int(presses), int(taps))
