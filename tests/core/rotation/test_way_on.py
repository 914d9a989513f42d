"""Which secret opens the site: every trial once, and in an order that ends."""

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.rotation.way_on import WayOnTrial, Which, next_trial, trials

TEXT = st.text("abAB12é #", min_size=1, max_size=90)


@given(TEXT, TEXT, st.one_of(st.none(), st.integers(1, 100)))
def test_each_text_is_tried_once_the_whole_ones_first(
    new: str, current: str, longest: int | None
) -> None:
    refused: list[WayOnTrial] = []
    while (trial := next_trial(new, current, refused, longest=longest)) is not None:
        refused.append(trial)
    texts = [one.of(new, current) for one in refused]
    assert len(texts) == len(set(texts)) <= len(new) + 7
    assert texts[0] == new and (current in texts[:2])
    assert refused == list(trials(new, current, longest=longest))
    kept = {new[:n] for n in range(4, len(new))} | {new.lower(), new.upper()}
    kept |= {new.replace(" ", ""), "".join(filter(str.isalnum, new)), new.replace("é", "e")}
    kept.add(new[:longest])
    assert kept - {"", new, current} == set(texts) - {new, current}


def test_what_the_site_says_it_takes_is_the_first_part_that_is_tried() -> None:
    found = list(trials("Kv7-rope-and-plank-88", "old", longest=11))
    assert found[2] == WayOnTrial(Which.START_OF_NEW, 11)
    assert found[2].of("Kv7-rope-and-plank-88", "old") == "Kv7-rope-an"
    assert [one.is_part for one in found] == [False, False, *[True] * (len(found) - 2)]
    assert "first 11 characters" in found[2].says
