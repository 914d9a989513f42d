"""Words at a site that limits how often a character may occur: against listing."""

import itertools
from collections import Counter

import pytest

from newknot.core.generate.phrases.limited_uses import LimitedPhrases
from newknot.core.generate.phrases.passphrase import (
    Addition,
    PassphraseShape,
    last_mode,
    passphrase_layers,
)
from newknot.core.generate.phrases.phrase_space import NoRoom
from tests.core.generate.phrases.test_phrase_space import WORDS, Source, policy


@pytest.mark.parametrize("uses", [1, 2, 3, 4])
@pytest.mark.parametrize("addition", ["none", "digit"])
def test_a_limit_of_uses_is_bounded_and_every_draw_keeps_it(uses: int, addition: Addition) -> None:
    words = ("cab", "fee", "jig", "moss", "pun", "thaw", "vex", "kyd")
    shape = PassphraseShape(2, "-", "none", addition)
    layers, _ = passphrase_layers(shape, words, {})
    rules = policy(max_uses=uses)
    every = [f"{a}-{b}" for a, b in itertools.product(words, repeat=2)]
    if addition == "digit":
        pairs = itertools.product(words, words, "0123456789")
        every = [t for a, b, d in pairs for t in (f"{d}{a}-{b}", f"{a}{d}-{b}", f"{a}-{b}{d}")]
    kept = [t for t in every if max(Counter(t).values()) <= uses]
    space = LimitedPhrases(layers, rules, last_mode=last_mode(shape))
    low, high = space.size_bounds
    assert 0 < low <= len(kept) <= high == len(every) or (low == 0 and uses == 1)
    assert (low == high) == (uses >= 4)
    if low:
        drawn = {"".join(space.draw(Source(i))) for i in range(200)}
        assert drawn <= set(kept) and len(drawn) > 20


def test_a_limit_that_no_text_surely_keeps_is_said() -> None:
    layers, _ = passphrase_layers(PassphraseShape(6, " "), WORDS, {})
    space = LimitedPhrases(layers, policy(distinct=True))
    assert space.size == 0
    with pytest.raises(NoRoom):
        assert space.entropy_bits
    with pytest.raises(NoRoom):
        space.draw(Source(1))
