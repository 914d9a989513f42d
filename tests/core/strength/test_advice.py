"""Advice is what measuring found, and never more than the draw can add."""

from math import log10

import pytest

from newknot.core.strength import advice, measure


@pytest.mark.parametrize("text", ["Lisbon47!", "dragonfly", "velvet orchard", "xK7!pq2Z"])
def test_every_advice_moves_the_number_and_promises_no_more_than_was_drawn(text: str) -> None:
    now = measure(text)
    given = {a.change: a.guess_number_log10 for a in advice(text, (), now)}
    assert given["two more drawn words"] > given["one more drawn word"]
    gains = {change: after - now.guess_number_log10 for change, after in given.items()}
    assert all(gain >= 1 for gain in gains.values())
    assert gains["one more drawn word"] <= log10(7776) + 0.001
    assert gains["four drawn characters at the end"] <= 4 * log10(94) + 0.001


def test_what_others_know_is_advised_against_only_where_it_is_in_the_secret() -> None:
    known = ("Ilse Quist",)
    with_it = [a.change for a in advice("quistlight1", known, measure("quistlight1", known))]
    assert any("others know" in change for change in with_it)
    without = [a.change for a in advice("kettlelight1", known, measure("kettlelight1", known))]
    assert not any("others know" in change for change in without)


@pytest.mark.parametrize("text", ["", "a" * 128, "xy " * 400])
def test_no_advice_where_a_change_would_not_be_read(text: str) -> None:
    assert advice(text, (), measure(text)) == []
