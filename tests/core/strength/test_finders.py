"""What the finders see in a text, before the likeliest way is chosen."""

import pytest

from newknot.core.strength.context import read_context
from newknot.core.strength.finders import Offers
from newknot.core.strength.reading import read
from newknot.core.strength.segments import Found, SegmentKind
from tests.support.vectors import examples, vectors

K = SegmentKind


def offers(text: str, *own: str) -> list[Found]:
    return Offers(read(text), read_context(own)).found(knowing=True)


def seen(text: str, *own: str) -> set[tuple[SegmentKind, str]]:
    return {(f.kind, read(text).text[f.start : f.end]) for f in offers(text, *own)}


def least(text: str, kind: SegmentKind) -> float:
    whole = [f for f in offers(text) if f.kind is kind and f.end - f.start == len(text)]
    return min(f.which_log10 + f.kind_log10 for f in whole)


@pytest.mark.parametrize(("text", "kind", "stretch"), vectors("stretches.tsv"))
def test_a_stretch_is_seen_for_what_it_is(text: str, kind: str, stretch: str) -> None:
    assert (SegmentKind(kind), stretch) in seen(text)


@pytest.mark.parametrize(("text", "kind"), examples("nothing_there.json"))
def test_nothing_is_seen_where_nothing_is(text: str, kind: str) -> None:
    assert SegmentKind(kind) not in {k for k, _ in seen(text)}


def test_own_words_and_their_guises_are_seen() -> None:
    for text in ("xgantry", "g4ntry", "yrtnag", "Gantry"):
        assert K.CONTEXT in {k for k, _ in seen(text, "Gantry Rentals")}
    assert (K.CONTEXT, "14021979") in seen("x14021979", "14.02.1979")


@pytest.mark.parametrize(
    ("kind", "texts"),
    [
        (K.WORD, ["kettle", "Kettle", "KETTLE", "keTtLe"]),
        (K.WORD, ["the", "lantern", "thimble"]),
        (K.KEYBOARD_WALK, ["qwer", "qwsx", "qwsz"]),
        (K.SEQUENCE, ["abcd", "mnop", "pnlj"]),
        (K.DATE, ["14021979", "14.02.1912"]),
        (K.SYMBOL, ["!", "&", "^", "☂"]),
    ],
)
def test_the_rarer_costs_more(kind: SegmentKind, texts: list[str]) -> None:
    costs = [least(text, kind) for text in texts]
    assert costs == sorted(costs)
    assert len(set(costs)) == len(costs)
