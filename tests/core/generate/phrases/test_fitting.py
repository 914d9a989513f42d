"""Words and sentences fitted to a site, or the reason why not."""

import random
from typing import Any

import pytest

from newknot.core.generate import PassphraseShape, SentenceShape
from newknot.core.generate.phrases.fitting import fit_passphrase, fit_sentence, most_words
from newknot.core.generate.phrases.phrase_space import NoRoom
from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from tests.support.vectors import examples


class Source:
    randbelow = random.Random(8).randrange


def site(least: dict[str, int] | None = None, without: str = "", **rules: Any) -> SitePolicy:
    rows = [
        {"name": n, "characters": c, "minimum": (least or {}).get(n, 0)}
        for n, c in STANDARD_CLASSES.items()
        if n not in without.split()
    ]
    return SitePolicy.from_dict({"min_length": 8, "max_length": 64, "classes": rows, **rules})


@pytest.mark.parametrize(
    ("policy", "shape"),
    [
        (site(), PassphraseShape(4, "-")),
        (site(without="symbol"), PassphraseShape(4, "")),
        (site(least={"digit": 1, "upper": 1}), PassphraseShape(4, "digit", "first")),
        (site(least={"digit": 3}), PassphraseShape(4, "digit")),
        (site(excluded="-._", least={"symbol": 1}), PassphraseShape(4, "symbol")),
    ],
)
def test_the_nearest_shape_with_room_is_taken_and_said(
    policy: SitePolicy, shape: PassphraseShape
) -> None:
    fitted = fit_passphrase(PassphraseShape(4), policy)
    assert fitted.space.shape == shape
    assert fitted.notes
    for _ in range(30):
        assert policy.violations(fitted.space.draw(Source()).text) == ()


def test_a_wish_that_has_room_is_left_as_it_is() -> None:
    wish = PassphraseShape(5, "_", "one", "symbol")
    fitted = fit_passphrase(wish, site())
    assert (fitted.space.shape, fitted.notes) == (wish, ())


@pytest.mark.parametrize(("rules", "says"), examples("no_room_for_words.json"))
def test_why_there_is_no_room_for_words(rules: dict[str, Any], says: str) -> None:
    with pytest.raises(NoRoom) as refused:
        fit_passphrase(PassphraseShape(6), site(**rules))
    assert refused.value.data["says"] == says


def test_a_sentence_is_fitted_or_refused_with_the_rule() -> None:
    fitted = fit_sentence(SentenceShape(), site(least={"upper": 1}, excluded="."))
    assert fitted.space.shape == SentenceShape("short", "-", stop=False)
    assert len(fitted.notes) == 2
    with pytest.raises(NoRoom) as refused:
        fit_sentence(SentenceShape(), site(max_length=20))
    assert refused.value.data["says"] == "the greatest length leaves no room (max_length)"


def test_how_many_words_fit() -> None:
    assert most_words(PassphraseShape(6), site(max_length=11)) == 3
    assert most_words(PassphraseShape(6), site(without="lower")) == 0
