"""Passphrases: words drawn uniformly from a shipped list, joined and dressed, within a policy.

No word of a list is the start of another and none holds a capital, digit or symbol, and what is
added stands before the first word or right after one: so each text is put together in one way
only, and the bits are those of the count.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from newknot.core.errors import FieldInvalid
from newknot.core.generate.phrases.limited_uses import LimitedPhrases
from newknot.core.generate.phrases.phrase_space import Branch, Layer
from newknot.core.generate.phrases.word_list import Language, word_list
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.character_classes import DIGITS, SYMBOLS
from newknot.core.policy.site_policy import SitePolicy

WORDS_MOST = 20
SEPARATORS = (" ", "-", ".", "_", "")
RANDOM_SEPARATORS = {"digit": DIGITS, "symbol": SYMBOLS}
Addition = Literal["none", "digit", "symbol"]
Capitals = Literal["none", "first", "one"]
_ADDED, _RAISED = 1, 2
"""Modes: the addition stands already; the word in capitals stands already."""


@dataclass(frozen=True, slots=True)
class PassphraseShape:
    """How words become a text.

    separator: one of `SEPARATORS`, or `digit` or `symbol` for a random one at each gap.
    capitals: `first` letters (no bits), or `one` whole word by chance. addition: one random digit
    or symbol before the first word or after any, the place by chance. language: of the list.
    """

    words: int = 6
    separator: str = " "
    capitals: Capitals = "none"
    addition: Addition = "none"
    list_size: int = 7776
    language: Language = "en"

    def __post_init__(self) -> None:
        if not 1 <= self.words <= WORDS_MOST:
            raise FieldInvalid("words", f"is not between 1 and {WORDS_MOST}")
        if self.separator not in SEPARATORS and self.separator not in RANDOM_SEPARATORS:
            raise FieldInvalid("separator", "is not among those offered")
        if self.capitals not in ("none", "first", "one"):
            raise FieldInvalid("capitals", "is none of none, first and one")
        if self.addition not in ("none", "digit", "symbol"):
            raise FieldInvalid("addition", "is none of none, digit and symbol")
        word_list(self.list_size, self.language)


@dataclass(frozen=True, slots=True)
class Passphrase:
    """Drawn words, as they stand in the list, and their text."""

    words: tuple[str, ...]
    text: str


class PassphraseSpace:
    """All passphrases of a shape that a policy allows, some words held to what they are.

    kept: list words by place (from 0). size: how many there are, at least that where it is not
    exact. Raises `FieldInvalid`, and the errors of `LimitedPhrases`;
    a site that treats upper and lower alike and a word in capitals by chance do not go together.
    """

    def __init__(
        self,
        shape: PassphraseShape,
        policy: SitePolicy | None = None,
        *,
        kept: Mapping[int, str] | None = None,
    ) -> None:
        if policy is not None and policy.folds_case and shape.capitals == "one":
            raise FieldInvalid("capitals", "count for nothing at a site that treats both alike")
        self.shape = shape
        listed = word_list(shape.list_size, shape.language)
        layers, self._word_layers = passphrase_layers(shape, listed, kept or {})
        self._space = LimitedPhrases(layers, policy, last_mode=last_mode(shape))
        self.size = self._space.size
        self.is_exact = self._space.size_bounds[0] == self._space.size_bounds[1]

    @property
    def entropy_bits(self) -> float:
        """log2 of the size, rounded down. Raises `NoRoom`."""
        return self._space.entropy_bits

    def draw(self, random: RandomSource) -> Passphrase:
        """A passphrase, each equally likely. Raises `NoRoom`."""
        parts = self._space.draw(random)
        words = tuple(parts[t].lower() for t in self._word_layers)
        return Passphrase(words, "".join(parts))


def last_mode(shape: PassphraseShape) -> int:
    """The mode in which all stands that is to stand once."""
    return _ADDED * (shape.addition != "none") + _RAISED * (shape.capitals == "one")


def passphrase_layers(
    shape: PassphraseShape, listed: Sequence[str], kept: Mapping[int, str]
) -> tuple[list[Layer], list[int]]:
    """The layers of a shape over listed words, and which of them are words."""
    modes = range(4)
    for place, word in kept.items():
        if not 0 <= place < shape.words:
            raise FieldInvalid("kept", "is not a place in this passphrase")
        if word not in listed:
            raise FieldInvalid("kept", "is no word of this list")
    raised, shown = tuple(w.upper() for w in listed), tuple(listed)
    if shape.capitals == "first":
        shown = tuple(w.capitalize() for w in listed)
    separators: tuple[str, ...] = (shape.separator,)
    if shape.separator in RANDOM_SEPARATORS:
        separators = tuple(RANDOM_SEPARATORS[shape.separator])
    layers: list[Layer] = []
    word_layers: list[int] = []

    def add(*branches: Branch) -> None:
        layers.append(branches)

    def addition() -> None:
        if shape.addition != "none":
            stay = (Branch(("",), m, m) for m in modes)
            put = (Branch(added, m, m | _ADDED) for m in modes if not m & _ADDED)
            add(*stay, *put)

    added = tuple(RANDOM_SEPARATORS.get(shape.addition, ""))
    addition()
    for place in range(shape.words):
        here, here_raised = shown, raised
        if place in kept:
            at = listed.index(kept[place])
            here, here_raised = (shown[at],), (raised[at],)
        plain = [Branch(here, m, m) for m in modes]
        if shape.capitals == "one":
            plain += [Branch(here_raised, m, m | _RAISED) for m in modes if not m & _RAISED]
        word_layers.append(len(layers))
        add(*plain)
        addition()
        if place < shape.words - 1 and separators != ("",):
            add(*(Branch(separators, m, m) for m in modes))
    return layers, word_layers
