"""Contradictions among all rules of a policy, and what frees it."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.generate import PasswordSpace, conflicts
from newknot.core.policy import SitePolicy


def made(**rules: Any) -> SitePolicy:
    base = {"min_length": 4, "max_length": 8, "classes": [{"name": "digit", "characters": "01"}]}
    return SitePolicy.from_dict({**base, **rules})


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
    found = conflicts(made(**rules))
    assert found is not None and found.is_decided
    assert set(found.rules) <= names | {"min_length"} and set(found.rules) & names
    assert found.frees.startswith(frees)


def test_what_is_satisfied_has_no_conflict_however_odd() -> None:
    assert conflicts(made(max_identical_run=1, max_sequence_run=1, min_length=1)) is None
    assert conflicts(made(forbidden=["000", "01"], last_from="0")) is None


def test_where_too_much_would_have_to_be_counted_it_is_said_undecided(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    odd = made(max_identical_run=1, first_from="0", last_from="0", max_length=5)
    assert conflicts(odd) is None
    monkeypatch.setattr("newknot.core.generate.conflicting_rules.COUNTS_MOST", 0)
    found = conflicts(odd)
    assert found is not None and not found.is_decided and found.rules == ()
    assert "no contradiction either" in found.says


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
    assert (conflicts(policy) is not None) == empty
