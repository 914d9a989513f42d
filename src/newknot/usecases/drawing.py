"""Drawing secrets to a policy, and stepping back to earlier draws."""

from collections import OrderedDict
from math import log10
from threading import Lock

from newknot.core.generate import (
    PassphraseShape,
    PasswordSpace,
    RandomSource,
    draw_passphrase,
)
from newknot.core.login import Origin
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.usecases.draw_ring import Draw, DrawRing

SPACES_KEPT = 32


class SpaceShelf:
    """The spaces counted lately: counts and tables alone, never a draw. Emptied at lock."""

    def __init__(self) -> None:
        self._spaces: OrderedDict[tuple[SitePolicy, int], PasswordSpace] = OrderedDict()
        self._lock = Lock()

    def get(self, policy: SitePolicy, length: int) -> PasswordSpace:
        """The space of a policy and length. Raises the errors of `PasswordSpace`."""
        key = (policy, length)
        with self._lock:
            if key in self._spaces:
                self._spaces.move_to_end(key)
                return self._spaces[key]
        space = PasswordSpace(policy, length)
        with self._lock:
            self._spaces[key] = space
            while len(self._spaces) > SPACES_KEPT:
                self._spaces.popitem(last=False)
        return space

    def clear(self) -> None:
        """Lets all go: a policy may name the user in its forbidden texts."""
        with self._lock:
            self._spaces.clear()


def draw_password(
    ring: DrawRing, shelf: SpaceShelf, random: RandomSource, policy: SitePolicy, *, length: int
) -> Draw:
    """A uniform draw, kept in the ring. Raises the errors of `PasswordSpace`."""
    space = shelf.get(policy, length)
    text = space.draw(random)
    low, high = space.size_bounds
    origin = Origin("drawn", space.entropy_bits)
    return ring.add(Secret(text), origin, log10(low), is_exact=low == high)


def draw_words(ring: DrawRing, random: RandomSource, shape: PassphraseShape) -> Draw:
    """A passphrase, kept in the ring. Raises `FieldInvalid`."""
    drawn = draw_passphrase(random, shape)
    origin = Origin("drawn", drawn.entropy_bits)
    return ring.add(Secret(drawn.text), origin, log10(drawn.size), is_exact=True)


def best_length(policy: SitePolicy, *, wished: int) -> int:
    """The wished length, held to what the policy takes."""
    return max(policy.min_length, min(policy.max_length, wished))
