"""Contradictions among lengths and classes, told by arithmetic."""

from typing import Any

import pytest

from newknot.core.policy.contradiction import contradiction
from tests.core.generate.test_conflicting_rules import made
from tests.support.vectors import examples


@pytest.mark.parametrize(("rules", "says"), examples("contradictions.json"))
def test_a_contradiction_is_said_in_one_sentence(rules: dict[str, Any], says: str) -> None:
    found = contradiction(made(**rules))
    assert found is not None and found.is_decided
    assert found.says == says
