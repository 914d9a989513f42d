"""What is known of a user: in pieces, and never to the good of a secret."""

from random import Random

from newknot.core.strength import measure
from newknot.core.strength.context import WORDS_MOST, read_context
from tests.support.vectors import vectors

FORMER = {
    "ianosaes!": ("ano", "!seaso"),
    "qwertbioiogicoszxcv": ("rtbi", "vcxzso"),
    "srezodiiub!": ("!buiido",),
    "iloveiinnddiiccaattee": ("iinn", "acci"),
}
"""What is known found in them had hidden a view or a word that takes less."""


def test_a_phrase_is_known_in_its_pieces_and_as_a_whole() -> None:
    found = read_context(("Tallow_Post", "ilse3@Tallow.example", "é-2", "ab"))
    assert set(found.shapes.values()) == {
        *("tallow", "post", "tallowpost", "ilse3", "example", "ilse3tallowexample")
    }
    assert not found.was_cut and read_context(["word"] * (WORDS_MOST + 1)).was_cut


def test_knowing_more_never_takes_more() -> None:
    random = Random(21)
    texts = [row[0] for row in vectors("measures.tsv") if 5 < len(row[0]) < 30]
    known = dict(FORMER)
    for text in random.sample(texts, 250):
        at, n = random.randrange(len(text) - 3), random.randrange(3, 9)
        known[text] = (text[at : at + n], text[::-1][at : at + n])
    for text, own in known.items():
        alone = measure(text).guess_number_log10
        for some in (own, own[:1], own[1:]):
            assert measure(text, some).guess_number_log10 <= alone, (text, some)
