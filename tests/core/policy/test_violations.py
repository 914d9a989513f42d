"""Every rule that a text breaks, with where."""

import pytest

from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from newknot.core.policy.folding import folded

CLASSES = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]


@pytest.mark.parametrize(
    ("rules", "text", "broken"),
    [
        ({}, "abcdefgh", []),
        ({"min_length": 9}, "abcdefgh", [("min_length", None, None)]),
        ({"max_length": 6}, "abcdefgh", [("max_length", 6, 8)]),
        (
            {"classes": [{"name": "digit", "characters": "0123456789", "minimum": 1}]},
            "",
            [("min_length", None, None), ("classes", None, None)],
        ),
        ({}, "abc\u00e9efgh", [("classes", 3, 4)]),
        ({"excluded": "e"}, "abcdefgh", [("excluded", 4, 5)]),
        ({"min_classes": 2}, "abcdefgh", [("min_classes", None, None)]),
        (
            {"max_identical_run": 2},
            "abbbaaaa",
            [("max_identical_run", 1, 4), ("max_identical_run", 4, 8)],
        ),
        ({"max_identical_run": 1}, "aAaAbBbB", []),
        ({"max_sequence_run": 3}, "xabCd321", [("max_sequence_run", 1, 5)]),
        ({"max_sequence_run": 2}, "yzab90ab", []),
        (
            {"max_sequence_run": 2},
            "abcbaxxx",
            [("max_sequence_run", 0, 3), ("max_sequence_run", 2, 5)],
        ),
        ({"first_from": "x"}, "abcdefgh", [("first_from", 0, 1)]),
        ({"last_from": "x"}, "abcdefgh", [("last_from", 7, 8)]),
        ({"forbidden": ["CDE"]}, "abcdefgh", [("forbidden", 2, 5)]),
        ({"distinct": True}, "abcdefga", [("distinct", None, None)]),
        ({"max_uses": 2}, "aabbccdd", []),
        ({"max_uses": 2}, "aaabbccd", [("max_uses", None, None)]),
    ],
)
def test_the_rules_broken_are_listed_with_where(
    rules: dict[str, object], text: str, broken: list[tuple[str, int | None, int | None]]
) -> None:
    document = {"min_length": 1, "max_length": 20, "classes": CLASSES, **rules}
    found = SitePolicy.from_dict(document).violations(text)
    assert [(v.rule, v.start, v.end) for v in found] == broken


def test_no_sentence_quotes_the_text() -> None:
    policy = SitePolicy.from_dict(
        {"min_length": 20, "max_length": 30, "forbidden": ["hunt"], "min_classes": 3}
    )
    assert all("hunter" not in v.says for v in policy.violations("hunter"))


def test_a_letter_that_folds_to_two_is_as_it_is() -> None:
    assert folded("İß") == "İß" and folded("ẞÅ") == "ßå"
