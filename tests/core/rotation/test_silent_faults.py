"""Silent faults, against sites that really have them."""

from math import ceil, log2

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.policy import SitePolicy
from newknot.core.policy.kept_text import kept_says, kept_text
from newknot.core.rotation.silent_faults import CUT_TRIES_MOST, Tried, next_trial, told

TEXTS = st.text("abcdefXYZ0189-", min_size=1, max_size=40)


def tried_at(text: str, keeps: int | None, *, folds: bool) -> list[Tried]:
    """All answers of a site that keeps so much of what it is given."""

    def kept(typed: str) -> str:
        cut = typed[:keeps]
        return cut.lower() if folds else cut

    tried: list[Tried] = []
    while (trial := next_trial(text, tried)) is not None:
        tried.append(Tried(trial, kept(trial.of(text)) == kept(text)))
        assert len(tried) <= CUT_TRIES_MOST + 1
    return tried


@given(TEXTS, st.none() | st.integers(1, 45), st.booleans())
def test_what_a_site_keeps_is_found_exactly_or_bounded_and_never_too_low(
    text: str, keeps: int | None, folds: bool
) -> None:
    tried = tried_at(text, keeps, folds=folds)
    found = told(text, tried)
    really = keeps if keeps is not None and keeps < len(text) else None
    if really is None or found.is_exact:
        assert found.keeps_first == really
    else:
        assert found.keeps_first is not None and really <= found.keeps_first < len(text)
    if found.is_exact and found.keeps_first is None and text.swapcase() != text:
        assert found.folds_case == folds


@pytest.mark.parametrize("length", [8, 12, 20, 32])
def test_halving_is_exact_within_six_tries_up_to_32_characters(length: int) -> None:
    text = "".join(chr(97 + i % 26) for i in range(length))
    assert 1 + ceil(log2(length)) <= CUT_TRIES_MOST
    for keeps in range(1, length):
        found = told(text, tried_at(text, keeps, folds=False))
        assert (found.keeps_first, found.is_exact) == (keeps, True)


def test_what_is_kept_is_said_only_where_it_is_less() -> None:
    policy = SitePolicy.from_dict(
        {"min_length": 1, "max_length": 40, "keeps_first": 4, "folds_case": True}
    )
    assert kept_text(policy, "AbCdEf") == "abcd"
    says = "its site keeps only the first 4 of 6 characters and takes upper and lower case as one"
    assert kept_says(policy, "AbCdEf") == says
    assert kept_says(policy, "abc") == kept_says(None, "AbCdEf") == ""
