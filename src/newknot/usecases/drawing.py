"""Drawing secrets to a policy, and stepping back to earlier draws."""

from math import log10

from newknot.core.generate import PasswordSpace, RandomSource
from newknot.core.login import Origin
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.usecases.draw_ring import Draw, DrawRing


def draw_password(ring: DrawRing, random: RandomSource, policy: SitePolicy, *, length: int) -> Draw:
    """A uniform draw, kept in the ring. Raises the errors of `PasswordSpace`."""
    space = PasswordSpace(policy, length)
    text = space.draw(random)
    low, _ = space.size_bounds
    return ring.add(Secret(text), Origin("drawn", space.entropy_bits), log10(low))


def best_length(policy: SitePolicy, *, wished: int) -> int:
    """The wished length, held to what the policy takes."""
    return max(policy.min_length, min(policy.max_length, wished))
