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


ALPHABET = {"de": "a-z", "fr": "a-z", "es": "a-z", "ru": "а-я"}


@pytest.mark.parametrize("language", ALPHABET)
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
        pattern = f"[{ALPHABET[language]}]+"
        if language == "de" and kind in ("noun", "place"):
            pattern = f"[A-Z]{pattern}"
        assert all(re.fullmatch(pattern, word) and len(word) in range(3, 16) for word in words)
        pairs = combinations(words, 2)
        assert not [pair for pair in pairs if OSA.distance(*pair, score_cutoff=1) <= 1]


SIZES_ABROAD = {"noun": 256, "adj": 128, "verb": 128, "place": 64}
ABROAD = [("short", 56.22), ("middle", 63.22), ("long", 92.45), ("longest", 126.45)]
RUSSIAN = [("short", 56.97), ("middle", 63.97), ("long", 93.95), ("longest", 127.95)]
ENGLISH = [("short", 63.61), ("middle", 81.61), ("long", 92.61), ("longest", 127.22)]


@pytest.mark.parametrize(
    ("language", "template", "bits"),
    [
        *(("en", *one) for one in ENGLISH),
        *((language, *one) for language in ("de", "fr", "es") for one in ABROAD),
        *(("ru", *one) for one in RUSSIAN),
    ],
)
def test_a_template_has_its_bits_and_its_shape(language: Any, template: Any, bits: float) -> None:
    space = SentenceSpace(SentenceShape(template, language=language))
    assert space.entropy_bits == bits
    # After a number that ends as these do, Russian has one form for all that is counted.
    number = "(?:1?[1-9]|10)?[05-9]|1?1[1-4]" if language == "ru" else "[0-9]{1,2}"
    shape = re.sub(r"\{number\}", f"(?:{number})", TEMPLATES[language][template])
    shape = re.sub(r"\{adj:(\w+)\}", r"[^\\W\\d_]+\1", shape)
    shape = re.sub(r"\{\w+\}", r"[^\\W\\d_]+", shape) + r"\."
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


@pytest.mark.parametrize("wrong", [{"template": "huge"}, {"joiner": ""}, {"language": "it"}])
def test_a_shape_that_is_none_is_refused(wrong: dict[str, str]) -> None:
    with pytest.raises(FieldInvalid):
        SentenceShape(**wrong)  # type: ignore[arg-type]


@pytest.mark.parametrize(("language", "read"), [("en", 300), *((one, 100) for one in ALPHABET)])
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
