"""Capitals that people choose cost less than any."""

import pytest

from newknot.core.strength import measure
from newknot.core.strength.case_pattern import SHARES


def test_the_shares_of_capitals_are_one_together() -> None:
    assert sum(SHARES) == pytest.approx(1)


@pytest.mark.parametrize(
    ("text", "like"),
    [("P@ssw0rd", "p@ssw0rd"), ("Ch0c0l4te", "ch0c0l4te"), ("lanteRN47", "LanteRn47"),
     ("lanterN47", "lanTern47"), ("lAntErn47", "lAnteRn47"), ("laNteRn47", "lANterN47")],
)  # fmt: skip
def test_capitals_by_a_rule_cost_less_than_others(text: str, like: str) -> None:
    found, other = (measure(one).guess_number_log10 for one in (text, like))
    assert found < other + 0.7 * like.islower() and found < 6
