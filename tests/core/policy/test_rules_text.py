"""What sites say of themselves, taken as far as it is sure."""

from typing import Any

import pytest

from newknot.core.policy import SitePolicy
from newknot.core.policy.rules_text import read_rules, write_rules
from tests.support.vectors import examples


def shape(document: dict[str, Any]) -> list[Any]:
    """[least, most, class -> [number of characters, least number]]"""
    policy = SitePolicy.from_dict(document)
    classes = {c.name: [len(c.characters), c.minimum] for c in policy.classes}
    return [policy.min_length, policy.max_length, classes]


@pytest.mark.parametrize(("text", "expected"), examples("rules_of_sites.json"))
def test_what_is_sure_is_taken(text: str, expected: list[Any]) -> None:
    read = read_rules(text)
    assert shape(read.document) == expected
    assert read.unsure == ()


@pytest.mark.parametrize(("text", "unsure"), examples("unsure_rules.json"))
def test_what_is_not_sure_is_given_back(text: str, unsure: list[str]) -> None:
    read = read_rules(text)
    assert list(read.unsure) == unsure
    SitePolicy.from_dict(read.document)


@pytest.mark.parametrize(
    "text", ["", "x" * 50_000, "<" * 5000, "[" * 500 + ":required:", "\0; \ud800"]
)
def test_no_text_raises(text: str) -> None:
    SitePolicy.from_dict(read_rules(text).document)


def test_the_attribute_text_is_written_back() -> None:
    text = "minlength: 8; maxlength: 24; required: digit; allowed: lower, upper, [-.@_]; "
    text += "max-consecutive: 2;"
    policy = SitePolicy.from_dict(read_rules(text).document)
    assert write_rules(policy) == text
    assert SitePolicy.from_dict(read_rules(write_rules(policy)).document) == policy


@pytest.mark.parametrize(("text", "depth"), examples("remembered_secrets.json"))
def test_how_many_a_site_remembers_is_read_with_its_number(text: str, depth: int | None) -> None:
    document = read_rules(text).document
    assert document.get("history_depth") == depth
    assert SitePolicy.from_dict(document).history_depth == depth


@pytest.mark.parametrize(
    "text",
    [
        "minlength: \u00b2; maxlength: \u0661\u0662;",
        f"minlength: {'9' * 9000}; maxlength: 12;",
        f"<input minlength={'9' * 6000!r} maxlength='\u00b3'>",
        "<input pattern='[\x01-\U0010ffff]{1,9}'>",
        "<input pattern='[" + "a-\u9fff" * 900 + "]{1,99999}'>",
        "<input pattern='[\uff10-\uff19]{\u0661,\u0669}'>",
        "at least \u0661\u0662 characters, 999 to 998 characters",
        "at least 500 digits and at least 999 characters",
        "and " * 2500,
        "at least " * 1100,
    ],
)
def test_whatever_a_page_says_the_policy_stays_within_its_bounds(text: str) -> None:
    document = read_rules(text).document
    assert 1 <= document["min_length"] <= 256 and 1 <= document["max_length"] <= 256
    assert len(str(document)) < 3_000
