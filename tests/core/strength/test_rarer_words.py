"""The greater list of words, found together in one pass."""

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.strength import measure
from newknot.core.strength.rarer_words import (
    LONGEST,
    SHORTEST,
    hash_of,
    is_rarer,
    rarer_words,
)

KNOWN = ("spinnaker", "trebuchet", "crampon", "haiyard", "παραθυρο")


@given(st.lists(st.sampled_from((*KNOWN, "7", "-", "xq", "zzzz")), max_size=8))
def test_each_stretch_that_is_one_is_found_where_it_stands(parts: list[str]) -> None:
    shaped = "".join(parts)
    found = {(start, end) for start, end, _ in rarer_words(shaped)}
    stretches = (
        (start, end)
        for start in range(len(shaped))
        for end in range(start + SHORTEST, min(len(shaped), start + LONGEST) + 1)
    )
    assert found == {
        (a, b) for a, b in stretches if shaped[a:b].isalpha() and is_rarer(shaped[a:b])
    }


def test_the_common_ones_cost_less_and_what_is_none_is_not_found() -> None:
    costs = {word: cost for word in KNOWN for a, b, cost in rarer_words(word) if b - a == len(word)}
    assert len(costs) == len(KNOWN) and 4 < min(costs.values()) < max(costs.values()) < 6.4
    assert not is_rarer("xqzvkj") and not list(rarer_words("abc")) and not list(rarer_words(""))
    assert hash_of("ab") != hash_of("ba")


def test_a_rare_noun_with_digits_is_within_reach() -> None:
    words = "spinnaker trebuchet balustrade sextant gimlet luthier escutcheon halyard ocarina"
    for word in words.split():
        assert measure(f"{word}88").guess_number_log10 < 10, word
