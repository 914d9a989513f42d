"""Texts put together part by part at a site that limits how often a character may occur.

They are drawn from all texts that keep the other rules, again until one keeps the limit too. That
there are enough is proven by texts that keep it for certain: those of parts that each use a
character no more often than their share of the limit.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from newknot.core.errors import NewKnotError
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.phrases.phrase_space import Branch, Layer, NoRoom, PhraseSpace
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import SitePolicy

TRIES_MOST = 300


class LimitNotMet(NewKnotError):
    """No text within the limit of uses came up in so many draws. data: rule."""


class LimitedPhrases:
    """All texts of the layers that end in mode `last_mode` and satisfy the policy.

    size_bounds: (low, high), equal where nothing limits uses. Raises as `PhraseSpace`.
    """

    def __init__(
        self, layers: Sequence[Layer], policy: SitePolicy | None, *, last_mode: int = 0
    ) -> None:
        self._uses: int | None = None
        plain = policy
        if policy is not None:
            self._uses = 1 if policy.distinct else policy.max_uses
            plain = replace(policy, distinct=False, max_uses=None)
        self._rule = "distinct" if policy is not None and policy.distinct else "max_uses"
        self._space = PhraseSpace(layers, plain, last_mode=last_mode)
        low = high = self._space.size
        if self._uses is not None and high:
            low = PhraseSpace(_spare(layers, self._uses), plain, last_mode=last_mode).size
        self.size_bounds = low, high

    @property
    def size(self) -> int:
        """How many texts there surely are."""
        return self.size_bounds[0]

    @property
    def entropy_bits(self) -> float:
        """log2 of the lower bound, rounded down to hundredths. Raises `NoRoom`."""
        if not self.size:
            raise NoRoom(says="no text of this shape surely satisfies every rule")
        return floor_log2(self.size)

    def draw(self, random: RandomSource) -> list[str]:
        """The parts of a text; each text equally likely. Raises `NoRoom`, `LimitNotMet`."""
        if not self.size:
            raise NoRoom(says="no text of this shape surely satisfies every rule")
        for _ in range(TRIES_MOST):
            parts = self._space.draw(random)
            if self._uses is None or max(Counter("".join(parts)).values()) <= self._uses:
                return parts
        raise LimitNotMet(rule=self._rule)


def _spare(layers: Sequence[Layer], uses: int) -> list[Layer]:
    """The layers with those texts alone that use no character more often than is their share."""
    seen: Counter[str] = Counter()
    optional: set[str] = set()
    for layer in layers:
        texts = {text for branch in layer for text in branch.texts}
        characters = set("".join(texts))
        # What may be left out stands once in all.
        if "" in texts:
            optional |= characters
        else:
            seen.update(characters)
    seen.update(optional)

    def is_within(text: str) -> bool:
        return all(count * seen[c] <= uses for c, count in Counter(text).items())

    # Branches of one layer after another share their texts.
    spare = {id(b.texts): tuple(filter(is_within, b.texts)) for layer in layers for b in layer}
    return [tuple(Branch(spare[id(b.texts)], b.before, b.after) for b in layer) for layer in layers]
