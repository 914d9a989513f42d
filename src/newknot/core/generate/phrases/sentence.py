"""Sentences that are grammatical, absurd and picturable, with exact bits.

    short   The {adjective} {noun} {past verb} {2 to 99} {adjective} {nouns} in the {place}.
    middle  ... {noun} {adverb} {past verb} ... in the {adjective} {place}.
    long    short, and: while the {noun} {past verb} the {noun}.
    longest short, and: while the {adjective} {noun} ... in the {place}.

Forms of one kind are distinct and hold letters alone, so each text is put together in one way.
"""

from dataclasses import dataclass
from typing import Literal

from newknot.core.errors import FieldInvalid
from newknot.core.generate.phrases.limited_uses import LimitedPhrases
from newknot.core.generate.phrases.phrase_space import Branch
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import SitePolicy
from newknot.core.shipped import shipped_lines

_START = "The {adj} {noun}"
TEMPLATES = {
    "short": f"{_START} {{verb}} {{number}} {{adj}} {{nouns}} in the {{place}}",
    "middle": f"{_START} {{adv}} {{verb}} {{number}} {{adj}} {{nouns}} in the {{adj}} {{place}}",
    "long": f"{_START} {{verb}} {{number}} {{adj}} {{nouns}} in the {{place}}"
    " while the {noun} {verb} the {noun}",
    "longest": f"{_START} {{verb}} {{number}} {{adj}} {{nouns}} in the {{place}}"
    " while the {adj} {noun} {verb} {number} {adj} {nouns} in the {place}",
}
JOINERS = (" ", "-", ".", "_")
Template = Literal["short", "middle", "long", "longest"]


@dataclass(frozen=True, slots=True)
class SentenceShape:
    """A template; what stands between its words; the stop at its end; the capital at its start."""

    template: Template = "short"
    joiner: str = " "
    stop: bool = True
    capital: bool = True

    def __post_init__(self) -> None:
        if self.template not in TEMPLATES:
            raise FieldInvalid("template", f"is none of {', '.join(TEMPLATES)}")
        if self.joiner not in JOINERS:
            raise FieldInvalid("joiner", "is not among those offered")


class SentenceSpace:
    """All sentences of a shape that a policy allows. size: how many, at least that where it is not
    exact. Raises the errors of `LimitedPhrases`.
    """

    def __init__(self, shape: SentenceShape, policy: SitePolicy | None = None) -> None:
        self.shape = shape
        texts: list[tuple[str, ...]] = []
        for i, part in enumerate(TEMPLATES[shape.template].split()):
            if i:
                texts.append((shape.joiner,))
            if part.startswith("{"):
                texts.append(_words(part.strip("{}")))
            else:
                texts.append((part if shape.capital else part.lower(),))
        if shape.stop:
            texts.append((".",))
        self._space = LimitedPhrases([(Branch(one),) for one in texts], policy)
        self.size = self._space.size
        self.is_exact = self._space.size_bounds[0] == self._space.size_bounds[1]

    @property
    def entropy_bits(self) -> float:
        """log2 of the size, rounded down. Raises `NoRoom`."""
        return self._space.entropy_bits

    def draw(self, random: RandomSource) -> str:
        """A sentence, each equally likely. Raises `NoRoom`."""
        return "".join(self._space.draw(random))


def _words(kind: str) -> tuple[str, ...]:
    """The forms that stand for a kind, in order."""
    if kind == "number":
        return tuple(str(n) for n in range(2, 100))
    lines = [line.split() for line in shipped_lines(f"sentence_{kind.rstrip('s')}.txt")]
    plural_or_past = kind in ("nouns", "verb")
    return tuple(forms[-1 if plural_or_past else 0] for forms in lines)
