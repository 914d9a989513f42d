"""What the finders yield on a text, before the cheapest cover is chosen."""

from newknot.core.strength.finders import found
from newknot.core.strength.segments import SegmentKind


def kinds(text: str, context: dict[str, int] | None = None) -> set[tuple[SegmentKind, str]]:
    return {(s.kind, text[s.start : s.end]) for s in found(text, context or {})}


def test_swapped_and_reversed_words_are_seen() -> None:
    assert (SegmentKind.WORD, "l@nt3rn") in kinds("l@nt3rn")
    assert (SegmentKind.WORD, "nretnal") in kinds("nretnal")


def test_capital_patterns_cost_more_than_plain() -> None:
    plain, first, odd = (
        min(s.cost_log10 for s in found(t, {}) if s.kind is SegmentKind.WORD and s.end == 7)
        for t in ("lantern", "Lantern", "laNTern")
    )
    assert plain < first < odd


def test_walks_dates_years_and_edges() -> None:
    assert (SegmentKind.KEYBOARD_WALK, "azert") in kinds("xazert")
    assert (SegmentKind.DATE, "2019-02-14") in kinds("2019-02-14")
    assert (SegmentKind.YEAR, "1987") in kinds("ab1987")
    assert (SegmentKind.SYMBOL, "!") in kinds("ab!")
    assert (SegmentKind.SYMBOL, "!") not in kinds("a!b")
    assert (SegmentKind.CONTEXT, "gantry") in kinds("xgantryx", {"gantry": 2})


def test_a_date_that_is_none_is_not_taken_for_one() -> None:
    assert not any(kind is SegmentKind.DATE for kind, _ in kinds("45.45.1979"))
