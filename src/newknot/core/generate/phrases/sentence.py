"""Sentences that are grammatical, absurd and picturable, with exact bits.

    short   The {adjective} {noun} {past verb} {2 to 99} {adjective} {nouns} in the {place}.
    middle  ... {noun} {adverb} {past verb} ... in the {adjective} {place}.
    long    short, and: while the {noun} {past verb} the {noun}.
    longest short, and: while the {adjective} {noun} ... in the {place}.

In German, French and Spanish those who act are many too, so that no article and no ending depends
on a word's gender; qualities have one form for all, and places one preposition. So they are in
Russian, with numbers after which all that is counted has one form, whether it acts or is acted on:
of 5 to 199 those that do not end as 1 to 4 do.

Forms of one kind are distinct and hold letters alone, so each text is put together in one way.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from newknot.core.errors import FieldInvalid
from newknot.core.generate.phrases.limited_uses import LimitedPhrases
from newknot.core.generate.phrases.phrase_space import Branch
from newknot.core.generate.phrases.word_list import Language
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import SitePolicy
from newknot.core.shipped import shipped_lines

Template = Literal["short", "middle", "long", "longest"]
_START = "The {adj} {noun}"
_SHORT = f"{_START} {{verb}} {{number}} {{adj}} {{nouns}} in the {{place}}"
_DE = "{number} {adj:e} {noun}"
_DE_SHORT = f"Die {{number}} {{adj:en}} {{noun}} {{verb}} {_DE} im"
_ROMANCE = "{number} {noun} {adjs}"
_FR_SHORT = f"Les {_ROMANCE} {{verb}} {_ROMANCE} dans le {{place}}"
_ES_SHORT = f"Mis {_ROMANCE} {{verb}} {_ROMANCE} en el {{place}}"
_RU = "{number} {adj:ых} {noun}"
_RU_SHORT = f"Мои {_RU} {{verb}} {_RU} в"
_MANY = "{number} {noun} {verb} {number} {noun}"
TEMPLATES: dict[Language, dict[Template, str]] = {
    "en": {
        "short": _SHORT,
        "middle": f"{_START} {{adv}} {{verb}} {{number}} {{adj}} {{nouns}}"
        " in the {adj} {place}",
        "long": f"{_SHORT} while the {{noun}} {{verb}} the {{noun}}",
        "longest": f"{_SHORT} while the {{adj}} {{noun}} {{verb}} {{number}} {{adj}} {{nouns}}"
        " in the {place}",
    },
    "de": {
        "short": f"{_DE_SHORT} {{place}}",
        "middle": f"{_DE_SHORT} {{adj:en}} {{place}}",
        "long": f"{_DE_SHORT} {{place}} und {_MANY}",
        "longest": f"{_DE_SHORT} {{adj:en}} {{place}} und {_DE} {{verb}} {_DE}"
        " im {adj:en} {place}",
    },
    "fr": {
        "short": _FR_SHORT,
        "middle": f"{_FR_SHORT} {{adj}}",
        "long": f"{_FR_SHORT} pendant que {_MANY}",
        "longest": f"{_FR_SHORT} {{adj}} pendant que {_ROMANCE} {{verb}} {_ROMANCE}"
        " dans le {place} {adj}",
    },
    "es": {
        "short": _ES_SHORT,
        "middle": f"{_ES_SHORT} {{adj}}",
        "long": f"{_ES_SHORT} mientras {_MANY}",
        "longest": f"{_ES_SHORT} {{adj}} mientras {_ROMANCE} {{verb}} {_ROMANCE}"
        " en el {place} {adj}",
    },
    "ru": {
        "short": f"{_RU_SHORT} {{place}}",
        "middle": f"{_RU_SHORT} {{adj:ом}} {{place}}",
        "long": f"{_RU_SHORT} {{place}} и {_MANY}",
        "longest": f"{_RU_SHORT} {{adj:ом}} {{place}} и {_RU} {{verb}} {_RU}"
        " в {adj:ом} {place}",
    },
}
JOINERS = (" ", "-", ".", "_")


@dataclass(frozen=True, slots=True)
class SentenceShape:
    """A template; what stands between its words; the stop at its end; the capital at its start
    (German keeps those of its nouns); the language.
    """

    template: Template = "short"
    joiner: str = " "
    stop: bool = True
    capital: bool = True
    language: Language = "en"

    def __post_init__(self) -> None:
        if self.language not in TEMPLATES:
            raise FieldInvalid("language", f"is none of {', '.join(TEMPLATES)}")
        if self.template not in TEMPLATES[self.language]:
            raise FieldInvalid("template", f"is none of {', '.join(TEMPLATES['en'])}")
        if self.joiner not in JOINERS:
            raise FieldInvalid("joiner", "is not among those offered")


class SentenceSpace:
    """All sentences of a shape that a policy allows. size: how many, at least that where it is not
    exact. Raises the errors of `LimitedPhrases`.
    """

    def __init__(self, shape: SentenceShape, policy: SitePolicy | None = None) -> None:
        self.shape = shape
        texts: list[tuple[str, ...]] = []
        for i, part in enumerate(TEMPLATES[shape.language][shape.template].split()):
            if i:
                texts.append((shape.joiner,))
            if part.startswith("{"):
                texts.append(_words(part.strip("{}"), shape.language))
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


def _words(kind: str, language: Language) -> tuple[str, ...]:
    """The forms that stand for a kind, in order."""
    if kind == "number":
        if language == "ru":
            return tuple(str(n) for n in range(5, 200) if not _counts_few(n))
        return tuple(str(n) for n in range(2, 100))
    if language == "en":
        lines = [line.split() for line in shipped_lines(f"sentence_{kind.rstrip('s')}.txt")]
        plural_or_past = kind in ("nouns", "verb")
        return tuple(forms[-1 if plural_or_past else 0] for forms in lines)
    kind, _, ending = kind.partition(":")
    known = (line.split() for line in shipped_lines(f"languages/sentence_{language}.txt"))
    words = (word for of, word in known if of == kind.removesuffix("s"))
    if kind == "adjs":
        return tuple(_PLURAL[language](word) for word in words)
    return tuple(f"{word}{ending}" for word in words)


def _counts_few(n: int) -> bool:
    """Whether a number ends as one to four do: what it counts then stands in another form."""
    return n % 10 in range(1, 5) and n % 100 // 10 != 1


def _spanish_plural(word: str) -> str:
    if word[-1] in "aeiou":
        return f"{word}s"
    return f"{word[:-1]}ces" if word[-1] == "z" else f"{word}es"


_PLURAL: dict[str, Callable[[str], str]] = {
    "fr": lambda word: f"{word}s",
    "es": _spanish_plural,
}
