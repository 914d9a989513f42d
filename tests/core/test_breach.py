"""The corpus layout and the look-up in it."""

from datetime import date
from hashlib import sha1

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.breach import (
    CorpusInvalid,
    CorpusView,
    InMemory,
    encode_corpus,
    lookup,
    times_text,
)
from newknot.core.breach.times import level_of

DAY = date(2026, 5, 1)


def digest(i: int) -> bytes:
    return sha1(str(i).encode(), usedforsecurity=False).digest()


@settings(max_examples=30, deadline=None)
@given(st.dictionaries(st.integers(0, 10**6), st.integers(1, 2**33), max_size=400))
def test_each_hash_is_found_at_its_level_and_no_other_hash(counts: dict[int, int]) -> None:
    body = encode_corpus(((digest(i), n) for i, n in counts.items()), name="list", dated_on=DAY)
    view = CorpusView(InMemory(body))
    assert view.title.unique_count == len(counts)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(lookup, "HELD_MOST", 0)
        unheld = CorpusView(InMemory(body))
    asked = [digest(i) for i in (*counts, *range(-50, 0))]
    assert unheld.occurrences_many(asked) == view.occurrences_many(asked)
    found = view.occurrences_many([digest(i) for i in counts])
    assert found == [1 << level_of(n) for n in counts.values()]
    assert not any(view.occurrences_many([digest(-i) for i in range(1, 200)]))


def test_order_and_split_of_counts_do_not_change_the_file() -> None:
    pairs = [(digest(i), i + 1) for i in range(5000)]
    whole = encode_corpus(pairs, name="list", dated_on=DAY)
    split = [(d, 1) for d, n in pairs if n > 1] + [(d, n - (n > 1)) for d, n in reversed(pairs)]
    assert encode_corpus(split, name="list", dated_on=DAY) == whole
    assert len(whole) / 5000 < 6.4


def test_a_file_that_is_not_a_whole_corpus_is_refused() -> None:
    body = encode_corpus([(digest(1), 1), (digest(2), 9)], name="list", dated_on=DAY)
    for broken in (b"", body[:-1], body + b"x", b"X" + body[1:], body[:9] + b"\x09" + body[10:]):
        with pytest.raises(CorpusInvalid):
            CorpusView(InMemory(broken))
    for at in range(0, len(body), 7):
        flipped = body[:at] + bytes([body[at] ^ 1]) + body[at + 1 :]
        with pytest.raises(CorpusInvalid):
            CorpusView(InMemory(flipped)).verify()


@pytest.mark.parametrize(
    ("count", "says"),
    [
        (1, "once"),
        (3, "2 to 4 times"),
        (1500, "1,000 to 2,000 times"),
        (600, "510 to 1,000 times"),
        (12, "8 to 16 times"),
        (10**6, "30,000 times or more"),
    ],
)
def test_counts_are_said_no_more_exactly_than_known(count: int, says: str) -> None:
    assert times_text(1 << level_of(count)) == says
