"""Which secrets are like each other: changed by a word, a number, a suffix, a letter."""

import pytest

from newknot.core.strength.resemblance import forms
from tests.support.vectors import vectors


@pytest.mark.parametrize(("one", "other", "says"), vectors("resembling.tsv"))
def test_a_changed_secret_resembles_its_former_and_others_do_not(
    one: str, other: str, says: str
) -> None:
    assert bool(forms(one) & forms(other)) is (says == "like")
