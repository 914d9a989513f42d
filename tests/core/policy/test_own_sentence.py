"""The sentence of a policy is read back to the same policy; the interface writes the same ones."""

import json
from pathlib import Path
from typing import Any

import pytest

from newknot.core.policy import SitePolicy
from newknot.core.policy.own_sentence import read_own_sentence
from newknot.core.policy.rules_text import read_rules

TABLE = Path(__file__).parents[2] / "vectors" / "policy_sentences.json"


@pytest.mark.parametrize(
    "row", json.loads(TABLE.read_text("utf-8")), ids=lambda r: r["sentence"][:40]
)
def test_what_is_written_is_read_back_to_the_same_policy(row: dict[str, Any]) -> None:
    read = read_rules(row["sentence"])
    assert read.unsure == ()
    assert SitePolicy.from_dict(read.document) == SitePolicy.from_dict(row["policy"])


@pytest.mark.parametrize(
    "text",
    [
        "8 to 20 characters",
        "8 to 20 characters: nothing yet.",
        "8 to 20 characters: lower case; without 2 forbidden texts.",
        "8 to 20 characters: letters of yours; begins with one of joy.",
    ],
)
def test_what_does_not_say_all_is_no_such_sentence(text: str) -> None:
    assert read_own_sentence(text) is None
