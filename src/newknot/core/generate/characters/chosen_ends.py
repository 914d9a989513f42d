"""Strings whose first or last character is one of a set, under rules that do not look at order.

Each end is chosen by the class that it comes from; what stands between is order-free with that
much less of the class demanded.
"""

from dataclasses import replace

from newknot.core.generate.characters.order_free import OrderFreeSpace
from newknot.core.generate.random_source import RandomSource
from newknot.core.policy.site_policy import CharacterClass, SitePolicy


class ChosenEnds:
    """All strings of `length` (2 at least) over the policy's classes with ends that it takes.

    Limits of use and of kinds, and rules on neighbours, are not looked at.
    """

    def __init__(self, policy: SitePolicy, length: int) -> None:
        self._ways: list[tuple[str, str, OrderFreeSpace, int]] = []
        classes = policy.usable_classes()
        for first, before in _ends(classes, policy.first_from):
            for last, between in _ends(before, policy.last_from):
                loose = replace(
                    policy, classes=between, excluded="", first_from=None, last_from=None
                )
                ends = bool(policy.first_from is not None) + bool(policy.last_from is not None)
                space = OrderFreeSpace(loose, length - ends)
                size = max(1, len(first)) * max(1, len(last)) * space.size
                self._ways.append((first, last, space, size))
        self.size = sum(size for *_, size in self._ways)

    def draw(self, random: RandomSource) -> str:
        """A string, each alike likely."""
        return self.unrank(random.randbelow(self.size))

    def unrank(self, rank: int) -> str:
        """The string of a rank in [0, size)."""
        for first, last, space, size in self._ways:
            if rank < size:
                rank, at = divmod(rank, max(1, len(first)))
                rank, end = divmod(rank, max(1, len(last)))
                return f"{first[at : at + 1]}{space.unrank(rank)}{last[end : end + 1]}"
            rank -= size
        raise AssertionError("rank beyond the count")


def _ends(
    classes: tuple[CharacterClass, ...], wanted: str | None
) -> list[tuple[str, tuple[CharacterClass, ...]]]:
    """The characters of one class that an end may be, and the classes without what it uses of them;
    for an end that is free, nothing.
    """
    if wanted is None:
        return [("", classes)]
    found = []
    for j, one in enumerate(classes):
        characters = "".join(c for c in one.characters if c in wanted)
        if not characters or one.maximum == 0:
            continue
        most = None if one.maximum is None else one.maximum - 1
        less = replace(one, minimum=max(0, one.minimum - 1), maximum=most)
        found.append((characters, (*classes[:j], less, *classes[j + 1 :])))
    return found
