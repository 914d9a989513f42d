"""Sentences: distinct forms, exact bits, texts of the template's shape."""

import random
import re
from pathlib import Path

import pytest

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


@pytest.mark.parametrize(
    ("template", "bits"),
    [("short", 63.61), ("middle", 81.61), ("long", 92.61), ("longest", 127.22)],
)
def test_a_template_has_its_bits_and_its_shape(template: str, bits: float) -> None:
    space = SentenceSpace(SentenceShape(template))  # type: ignore[arg-type]
    assert space.entropy_bits == bits
    shape = re.sub(r"\{number\}", r"[0-9]{1,2}", TEMPLATES[template])
    shape = re.sub(r"\{\w+\}", "[a-z]+", shape) + r"\."
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


@pytest.mark.parametrize("wrong", [{"template": "huge"}, {"joiner": ""}])
def test_a_shape_that_is_none_is_refused(wrong: dict[str, str]) -> None:
    with pytest.raises(FieldInvalid):
        SentenceShape(**wrong)  # type: ignore[arg-type]


def test_fewer_than_one_in_fifty_of_those_that_were_read_read_oddly() -> None:
    """The judgements are of what the shipped lists give: new lists are to be read anew."""

    class Judged:
        randbelow = random.Random(72).randrange

    lines = (VECTORS / "sentences_judged.tsv").read_text("utf-8").splitlines()
    judged = [line.split("\t") for line in lines if line[:1] != "#"]
    space = SentenceSpace(SentenceShape("short"))
    assert [said for _, said, *_ in judged] == [space.draw(Judged()) for _ in judged]
    assert {verdict for verdict, *_ in judged} == {"ok", "odd"}
    assert sum(verdict == "odd" for verdict, *_ in judged) < len(judged) / 50 == 6
