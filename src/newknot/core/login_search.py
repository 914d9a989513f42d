"""Find as you type: every word typed has to stand somewhere in the login, accents aside."""

import unicodedata
from collections.abc import Iterable, Sequence
from typing import TypeVar

from newknot.core.login import LoginCard

T = TypeVar("T")


def folded(text: str) -> str:
    """Small letters without marks (canonical decomposition, UAX 15)."""
    if text.isascii():
        return text.lower()
    apart = unicodedata.normalize("NFD", text)
    return "".join(c for c in apart if not unicodedata.category(c).startswith("M")).lower()


def haystack(card: LoginCard) -> str:
    """All that a login is found by, folded."""
    said = (card.title, card.user_name, card.address, card.folder, card.owner, *card.tags)
    return folded("\n".join(said))


def words_of(typed: str) -> list[str]:
    """What has to stand in a haystack."""
    return folded(typed).split()


def nearest(found: Iterable[tuple[str, T]], typed: str, most: int) -> list[T]:
    """Of (title, one) those whose title begins as typed, then those that hold it, then the rest;
    each as they came.
    """
    sought = folded(typed.strip())
    ranks: Sequence[list[T]] = ([], [], [])
    for title, one in found:
        at = folded(title).find(sought)
        ranks[0 if at == 0 else 1 if at > 0 else 2].append(one)
        if len(ranks[0]) >= most:
            break
    return [one for rank in ranks for one in rank][:most]
