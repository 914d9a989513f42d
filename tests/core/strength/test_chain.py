"""The likeliest way a text was made: near a probability, and as cheap as the best of all ways."""

from itertools import product
from math import inf, log10
from random import Random

import pytest

from newknot.core.strength.chain import FOLLOWS, likeliest
from newknot.core.strength.context import read_context
from newknot.core.strength.finders import Offers
from newknot.core.strength.reading import Reading, read
from newknot.core.strength.segments import Found, Part, SegmentKind

OWN = read_context(())


def cost(text: str) -> float:
    cover = likeliest(read(text), Offers(read(text), OWN).found(knowing=True))
    return cover.which_log10 + cover.kinds_log10


def test_all_short_texts_together_are_no_likelier_than_one() -> None:
    alphabet = "abehostx1279!-"
    texts = ("".join(t) for size in (1, 2, 3) for t in product(alphabet, repeat=size))
    assert sum(10 ** -cost(text) for text in texts) < 1


def test_few_drawn_texts_look_much_likelier_than_they_are() -> None:
    random = Random(5)
    for alphabet, size in (("abcdefghijklmnopqrstuvwxyz", 8), ("0123456789abcdef", 12)):
        whole = size * log10(len(alphabet))
        costs = [cost("".join(random.choices(alphabet, k=size))) for _ in range(300)]
        assert sum(c < whole - 2 for c in costs) <= 9


def ways(found: list[Found], end: int, part: Part, share: float) -> float:
    """The cheapest way to a part that ends there, by trying all of them, where a share of what the
    kinds and their order cost is counted.
    """
    if end == 0:
        return 0.0 if part is Part.START else inf
    return min(
        (
            ways(found, f.start, before, share)
            + f.which_log10
            + share * (f.kind_log10 - log10(FOLLOWS[before][Part(f.part)]))
            for f in found
            for before in Part
            if f.end == end and f.part is part and part in FOLLOWS[before]
        ),
        default=inf,
    )


@pytest.mark.parametrize("share", [1.0, 0.25])
def test_the_likeliest_way_is_the_cheapest_of_all(share: float) -> None:
    random = Random(11)
    parts = [Part.WORD, Part.DIGITS, Part.SYMBOL, Part.PATTERN, Part.LIST, Part.LINK]
    for _ in range(40):
        size = random.randint(1, 6)
        offers = []
        for _ in range(random.randint(4, 14)):
            start = random.randrange(size)
            end = random.randint(start + 1, size)
            part, which = random.choice(parts), random.random() * (end - start)
            offers.append(Found(start, end, part, which, random.random(), SegmentKind.WORD))
        # Characters of no alphabet, so that drawn ones never win.
        text = "\U0001f9ff" * size
        cover = likeliest(Reading(text, text, text), offers, share)
        ends = {p: -share * log10(1 - sum(FOLLOWS[p].values())) for p in parts}
        best = min(ways(offers, size, p, share) + ends[p] for p in parts)
        if best < 3.5:
            assert abs(cover.which_log10 + share * cover.kinds_log10 - best) < 1e-9
            assert [s.start for s in cover.segments[1:]] == [s.end for s in cover.segments[:-1]]


def test_an_empty_text_has_no_way() -> None:
    assert likeliest(read(""), ()).segments == ()
