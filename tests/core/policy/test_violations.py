"""Every rule that a text breaks, with where."""

import pytest

from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from newknot.core.policy.folding import folded
from tests.support.vectors import examples

CLASSES = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]


@pytest.mark.parametrize(("rules", "text", "broken"), examples("policy_violations.json"))
def test_the_rules_broken_are_listed_with_where(
    rules: dict[str, object], text: str, broken: list[list[object]]
) -> None:
    document = {"min_length": 1, "max_length": 20, "classes": CLASSES, **rules}
    found = SitePolicy.from_dict(document).violations(text)
    assert [[v.rule, v.start, v.end] for v in found] == broken


def test_no_sentence_quotes_the_text() -> None:
    policy = SitePolicy.from_dict(
        {"min_length": 20, "max_length": 30, "forbidden": ["hunt"], "min_classes": 3}
    )
    assert all("hunter" not in v.says for v in policy.violations("hunter"))


def test_a_letter_that_folds_to_two_is_as_it_is() -> None:
    assert folded("İß") == "İß" and folded("ẞÅ") == "ßå"
