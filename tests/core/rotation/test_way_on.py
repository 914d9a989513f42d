"""Which secret opens the site: every trial once, and in an order that ends."""

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.rotation.way_on import CUTS, WayOnTrial, Which, next_trial, trials

TEXT = st.text("abAB12é #<", min_size=1, max_size=40)


@given(TEXT, TEXT, st.one_of(st.none(), st.integers(1, 100)))
def test_each_text_is_tried_once_the_whole_ones_first(
    new: str, current: str, longest: int | None
) -> None:
    every = list(trials(new, current, longest=longest))
    assert all(
        next_trial(new, current, every[:n], longest=longest) == one
        for n, one in enumerate(every[:40])
    )
    assert next_trial(new, current, every, longest=longest) is None
    texts = [one.of(new, current) for one in every]
    assert len(texts) == len(set(texts))
    assert texts[0] == new and (current in texts[:2])
    kept = {new.lower(), new.upper(), new.replace(" ", ""), new.replace("é", "e")}
    kept |= {"".join(filter(str.isalnum, new)), new.replace("<", ""), new[:longest]}
    within = {new[a:z] for a in range(len(new)) for z in range(a + 4, len(new) + 1)}
    starts = {new[:n] for n in {*range(4, len(new)), *(n for n in CUTS if n < len(new)), longest}}
    kept |= within | {one.lower() for one in starts} | {one.upper() for one in starts}
    kept |= {new[:n] for n in range(4, len(new))}
    assert kept - {"", new, current} == set(texts) - {new, current}


def test_what_the_site_says_it_takes_is_the_first_part_that_is_tried() -> None:
    found = list(trials("Kv7-rope-and-plank-88", "old", longest=11))
    assert found[2] == WayOnTrial(Which.START_OF_NEW, 11)
    assert found[2].of("Kv7-rope-and-plank-88", "old") == "Kv7-rope-an"
    assert [one.is_part for one in found] == [False, False, *[True] * (len(found) - 2)]
    assert "first 11 characters" in found[2].says
