"""Contradictions among all rules of a policy, and what frees it."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.generate import PasswordSpace, conflicts
from newknot.core.policy import SitePolicy
from tests.support.random_policies import random_policies


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
    assert len({found.frees, *found.also_frees}) == 1 + len(found.also_frees)


def test_what_is_satisfied_has_no_conflict_however_odd() -> None:
    assert conflicts(made(max_identical_run=1, max_sequence_run=1, min_length=1)) is None
    assert conflicts(made(forbidden=["000", "01"], last_from="0")) is None


def test_each_single_change_that_frees_it_is_said() -> None:
    found = conflicts(made(min_length=5, max_length=5, distinct=True))
    assert found is not None
    assert [found.frees, *found.also_frees] == [
        "from 2 characters",
        "with each character up to 3 times",
    ]


def test_of_policies_like_real_ones_none_stays_undecided() -> None:
    found = [(one, conflicts(one)) for one in random_policies(3, 150)]
    assert all(conflict is None or conflict.is_decided for _, conflict in found)
    assert 30 < sum(conflict is not None for _, conflict in found) < 90


def test_where_too_much_would_have_to_be_tried_it_is_said_undecided() -> None:
    # One of twenty letters, each used once, may stand before no other, and not at the end.
    letters = "abcdefghijklmnopqrst"
    hard = SitePolicy.from_dict(
        {
            "min_length": 20,
            "max_length": 20,
            "classes": [{"name": "letters", "characters": letters}],
            "distinct": True,
            "forbidden": [f"a{c}" for c in letters[1:]],
            "last_from": letters[1:],
        }
    )
    found = conflicts(hard)
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
