"""Texts put together part by part: counted against listing, drawn evenly."""

import itertools
import random
from collections import Counter
from typing import Any, get_args

import pytest

from newknot.core.generate.phrases.passphrase import (
    Addition,
    Capitals,
    PassphraseShape,
    last_mode,
    passphrase_layers,
)
from newknot.core.generate.phrases.phrase_space import NoRoom, PhraseSpace, PhraseTooCostly
from newknot.core.policy import STANDARD_CLASSES, SitePolicy

WORDS = ("abc", "bee", "cab", "dda", "oboe")
BLANK = {"name": "blank", "characters": " "}
CHANCE = random.Random(7)


class Source:
    def __init__(self, seed: int) -> None:
        self.randbelow = random.Random(seed).randrange


def classes(**least: int) -> list[dict[str, Any]]:
    rows = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]
    return [{**r, "minimum": least.get(str(r["name"]), 0)} for r in [*rows, BLANK]]


def policy(**rules: Any) -> SitePolicy:
    return SitePolicy.from_dict({"min_length": 1, "max_length": 40, "classes": classes(), **rules})


def some_policy() -> SitePolicy:
    def maybe(value: Any, share: float = 0.35) -> Any:
        return value if CHANCE.random() < share else None

    rules: dict[str, Any] = {
        "min_length": CHANCE.randint(1, 12),
        "max_length": CHANCE.randint(8, 16),
        "classes": classes(
            upper=CHANCE.choice([0, 0, 1, 2]),
            digit=CHANCE.choice([0, 0, 1, 2]),
            symbol=CHANCE.choice([0, 0, 1]),
        ),
        "min_classes": CHANCE.choice([0, 0, 2, 3]),
        "max_identical_run": maybe(1),
        "max_sequence_run": maybe(2),
        "first_from": maybe("abcABC09-"),
        "last_from": maybe("abceABE0"),
        "forbidden": maybe(["eab", "c-b"]) or [],
        "excluded": maybe("d4") or "",
        "keeps_first": maybe(10, 0.1),
    }
    if CHANCE.random() < 0.2:
        rules["classes"][2]["maximum"] = 2
    return SitePolicy.from_dict(rules)


def listed(layers: Any, last: int) -> list[str]:
    """Every text of the layers, by going through all of them."""
    texts = [("", 0)]
    for layer in layers:
        texts = [
            (text + more, branch.after)
            for text, mode in texts
            for branch in layer
            if branch.before == mode
            for more in branch.texts
        ]
    return [text for text, mode in texts if mode == last]


def shapes() -> list[PassphraseShape]:
    kinds: list[tuple[Capitals, Addition]] = list(
        itertools.product(get_args(Capitals), ("none", "digit"))
    )
    return [
        PassphraseShape(words, separator, capitals, addition)
        for words, separator, (capitals, addition) in itertools.product(
            (1, 2, 3), (" ", "-", "", "digit"), kinds
        )
        # Three words are too many to list in every guise: touching ones, and one with a separator.
        if words < 3 or (addition == "none" and separator in ("", "-") and capitals != "first")
    ]


@pytest.mark.parametrize("shape", shapes(), ids=str)
def test_the_size_is_the_number_of_distinct_texts_that_the_policy_takes(
    shape: PassphraseShape,
) -> None:
    layers, _ = passphrase_layers(shape, WORDS, {})
    texts = listed(layers, last_mode(shape))
    assert len(set(texts)) == len(texts), "a text could be put together in two ways"
    assert PhraseSpace(layers, None, last_mode=last_mode(shape)).size == len(texts)
    for _ in range(2):
        rules = some_policy()
        kept = rules.keeps_first or 99
        fitting = {t for t in texts if not rules.violations(t) and len(t) <= kept}
        space = PhraseSpace(layers, rules, last_mode=last_mode(shape))
        assert space.size == len(fitting), rules
        if fitting:
            assert "".join(space.draw(Source(3))) in fitting
        else:
            with pytest.raises(NoRoom):
                space.draw(Source(3))


def test_every_text_is_drawn_equally_often() -> None:
    shape = PassphraseShape(2, "", "one", "digit")
    layers, _ = passphrase_layers(shape, WORDS[:3], {})
    rules = policy(max_length=7, max_sequence_run=2, forbidden=["eab"], excluded="56789")
    space = PhraseSpace(layers, rules, last_mode=last_mode(shape))
    draws = 40 * space.size
    source = Source(11)
    seen = Counter("".join(space.draw(source)) for _ in range(draws))
    assert len(seen) == space.size
    squares = sum((n - 40) ** 2 / 40 for n in seen.values())
    # Five standard deviations above the mean of a chi-square of size - 1.
    assert squares < space.size + 5 * (2 * space.size) ** 0.5


def test_a_word_that_is_kept_stays_and_the_others_are_drawn() -> None:
    shape = PassphraseShape(3, "-", "one")
    layers, at = passphrase_layers(shape, WORDS, {1: "cab"})
    space = PhraseSpace(layers, None, last_mode=last_mode(shape))
    assert space.size == 5 * 5 * 3
    source = Source(2)
    assert {space.draw(source)[at[1]].lower() for _ in range(40)} == {"cab"}


def test_what_would_take_too_long_is_refused() -> None:
    chance = random.Random(1)
    letters = "abcdefghijklmnopqrstuvwxyz"
    words = tuple({"".join(chance.choices(letters, k=n)) for n in (4, 6, 8) for _ in range(900)})
    layers, _ = passphrase_layers(PassphraseShape(20, "", "one", "symbol"), words, {})
    rules = policy(max_length=256, max_sequence_run=3, max_identical_run=2, min_classes=3)
    with pytest.raises(PhraseTooCostly):
        PhraseSpace(layers, rules, last_mode=3)
