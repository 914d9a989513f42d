"""Sentences: distinct forms, exact bits, texts of the template's shape."""

import random
import re
from itertools import combinations
from pathlib import Path
from typing import Any

import pytest
from rapidfuzz.distance import OSA

from newknot.core.errors import FieldInvalid
from newknot.core.generate import SentenceShape, SentenceSpace
from newknot.core.generate.phrases.sentence import TEMPLATES
from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from newknot.core.shipped import shipped_lines

CHANCE = random.Random(3)
VECTORS = Path(__file__).parents[3] / "vectors"


class Source:
    randbelow = CHANCE.randrange


@pytest.mark.parametrize(
    ("kind", "size"), [("noun", 1024), ("adj", 1024), ("verb", 512), ("adv", 256), ("place", 256)]
)
def test_the_forms_of_a_kind_are_distinct_letters(kind: str, size: int) -> None:
    forms = [line.split() for line in shipped_lines(f"sentence_{kind}.txt")]
    for which in (0, -1):
        shown = [f[which] for f in forms]
        assert len(set(shown)) == len(shown) == size
        assert all(re.fullmatch("[a-z]{3,16}", form) for form in shown)


@pytest.mark.parametrize("language", ["de", "fr", "es"])
def test_the_words_of_another_language_are_distinct_and_typed_on_any_keyboard(
    language: str,
) -> None:
    of_kind: dict[str, list[str]] = {}
    for line in shipped_lines(f"languages/sentence_{language}.txt"):
        kind, word = line.split()
        of_kind.setdefault(kind, []).append(word)
    assert {k: len(set(w)) for k, w in of_kind.items()} == SIZES_ABROAD
    for kind, words in of_kind.items():
        assert len(words) == len(set(words))
        pattern = "[A-Z][a-z]+" if language == "de" and kind in ("noun", "place") else "[a-z]+"
        assert all(re.fullmatch(pattern, word) and len(word) in range(3, 16) for word in words)
        pairs = combinations(words, 2)
        assert not [pair for pair in pairs if OSA.distance(*pair, score_cutoff=1) <= 1]


SIZES_ABROAD = {"noun": 256, "adj": 128, "verb": 128, "place": 64}
ABROAD = [("short", 56.22), ("middle", 63.22), ("long", 92.45), ("longest", 126.45)]
ENGLISH = [("short", 63.61), ("middle", 81.61), ("long", 92.61), ("longest", 127.22)]


@pytest.mark.parametrize(
    ("language", "template", "bits"),
    [
        *(("en", *one) for one in ENGLISH),
        *((language, *one) for language in ("de", "fr", "es") for one in ABROAD),
    ],
)
def test_a_template_has_its_bits_and_its_shape(language: Any, template: Any, bits: float) -> None:
    space = SentenceSpace(SentenceShape(template, language=language))
    assert space.entropy_bits == bits
    shape = re.sub(r"\{number\}", r"[0-9]{1,2}", TEMPLATES[language][template])
    shape = re.sub(r"\{adj:(\w+)\}", r"[a-z]+\1", shape)
    shape = re.sub(r"\{\w+\}", "[A-Za-z]+", shape) + r"\."
    for _ in range(20):
        assert re.fullmatch(shape, space.draw(Source()))


def test_a_sentence_to_a_policy_keeps_it() -> None:
    rows = [{"name": n, "characters": c} for n, c in STANDARD_CLASSES.items()]
    policy = SitePolicy.from_dict(
        {"min_length": 8, "max_length": 64, "classes": rows, "max_identical_run": 1}
    )
    space = SentenceSpace(SentenceShape("short", "-"), policy)
    assert space.size < SentenceSpace(SentenceShape("short", "-")).size
    for _ in range(100):
        assert policy.violations(space.draw(Source())) == ()


@pytest.mark.parametrize("wrong", [{"template": "huge"}, {"joiner": ""}, {"language": "ru"}])
def test_a_shape_that_is_none_is_refused(wrong: dict[str, str]) -> None:
    with pytest.raises(FieldInvalid):
        SentenceShape(**wrong)  # type: ignore[arg-type]


@pytest.mark.parametrize(("language", "read"), [("en", 300), ("de", 100), ("fr", 100), ("es", 100)])
def test_fewer_than_one_in_fifty_of_those_that_were_read_read_oddly(
    language: Any, read: int
) -> None:
    """The judgements are of what the shipped lists give: new lists are to be read anew."""

    class Judged:
        randbelow = random.Random(72).randrange

    lines = (VECTORS / "sentences_judged.tsv").read_text("utf-8").splitlines()
    judged = [one for line in lines if (one := line.split("\t"))[1:2] == [language]]
    space = SentenceSpace(SentenceShape("short", language=language))
    assert [said for _, _, said, *_ in judged] == [space.draw(Judged()) for _ in range(read)]
    assert {verdict for verdict, *_ in judged} <= {"ok", "odd"}
    assert sum(verdict == "odd" for verdict, *_ in judged) < read / 50
