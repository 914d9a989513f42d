"""Contradictions among lengths and classes."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.generate import PasswordSpace
from newknot.core.policy import SitePolicy


def made(**rules: Any) -> SitePolicy:
    base = {"min_length": 4, "max_length": 8, "classes": [{"name": "digit", "characters": "01"}]}
    return SitePolicy.from_dict({**base, **rules})


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
    found = made(**rules).conflicts()
    assert found is not None and found.is_decided
    assert found.says == says


@pytest.mark.parametrize(
    ("rules", "names", "frees"),
    [
        (
            {"max_identical_run": 1, "excluded": "0"},
            {"max_identical_run", "excluded"},
            "from 1 characters",
        ),
        ({"distinct": True}, {"distinct"}, "from 2 characters"),
        ({"forbidden": ["0", "1"]}, {"forbidden"}, "without “no forbidden text”"),
        ({"first_from": "x"}, {"first_from"}, "without “its beginning"),
        ({"max_uses": 1, "min_length": 3}, {"max_uses", "min_length"}, "from 2 characters"),
    ],
)
def test_a_smallest_set_is_named_and_one_change_that_frees_it(
    rules: dict[str, Any], names: set[str], frees: str
) -> None:
    found = made(**rules).conflicts()
    assert found is not None and found.is_decided
    assert set(found.rules) <= names | {"min_length"} and set(found.rules) & names
    assert found.frees.startswith(frees)


def test_what_is_satisfied_has_no_conflict_however_odd() -> None:
    assert made(max_identical_run=1, max_sequence_run=1, min_length=1).conflicts() is None
    assert made(forbidden=["000", "01"], last_from="0").conflicts() is None


@given(
    st.integers(1, 6),
    st.integers(0, 3),
    st.lists(st.tuples(st.integers(0, 4), st.none() | st.integers(0, 4)), min_size=1, max_size=3),
)
def test_a_conflict_is_found_just_where_no_length_has_a_string(
    length: int, min_classes: int, bounds: list[tuple[int, int | None]]
) -> None:
    classes = [
        {"name": str(i), "characters": ["ab", "cd", "ef"][i], "minimum": low, "maximum": high}
        for i, (low, high) in enumerate(bounds)
    ]
    policy = made(min_length=length, max_length=length, classes=classes, min_classes=min_classes)
    empty = PasswordSpace(policy, length).size_bounds == (0, 0)
    assert (policy.conflicts() is not None) == empty
