"""Contradictions among lengths and classes, told by arithmetic."""

from typing import Any

import pytest

from newknot.core.policy.contradiction import contradiction
from tests.core.generate.test_conflicting_rules import made


@pytest.mark.parametrize(
    ("rules", "says"),
    [
        ({"min_length": 9}, "at least 9 but at most 8 characters"),
        ({"classes": []}, "no character is left to draw from"),
        ({"excluded": "01"}, "no character is left to draw from"),
        (
            {"classes": [{"name": "digit", "characters": "01", "minimum": 3, "maximum": 2}]},
            "digit: at least 3, at most 2",
        ),
        (
            {
                "classes": [
                    {"name": "digit", "characters": "01", "minimum": 3},
                    {"name": "symbol", "characters": "!?", "minimum": 8},
                ]
            },
            "3 digit + 8 symbol need 11, the site takes 8",
        ),
        ({"min_classes": 2}, "2 kinds of character wanted, 1 are there"),
        (
            {"classes": [{"name": "digit", "characters": "01", "maximum": 3}]},
            "the classes together allow 3 characters, 4 are needed",
        ),
    ],
)
def test_a_contradiction_is_said_in_one_sentence(rules: dict[str, Any], says: str) -> None:
    found = contradiction(made(**rules))
    assert found is not None and found.is_decided
    assert found.says == says
