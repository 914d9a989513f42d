"""How an address resembles a site that is known, without being it: the ways of luring addresses.

Letters that look alike are those of Unicode's confusables (UTS #39, by `confusable_homoglyphs`),
and the few pairs within ASCII that are used for it.
"""

import unicodedata
from collections.abc import Collection, Iterator
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from confusable_homoglyphs import confusables
from rapidfuzz.distance import OSA

from newknot.core.address.site import Site, spelled, suffix_of

ONE_LETTER_LEAST = 4
_ASCII_PAIRS = (("rn", "m"), ("vv", "w"), ("cl", "d"), ("0", "o"), ("1", "l"), ("i", "l"))


class Likeness(StrEnum):
    """In which way, the most deceptive first."""

    OTHER_ALPHABET = "other_alphabet"
    LOOK_ALIKE = "look_alike"
    ONE_LETTER = "one_letter"
    OTHER_ENDING = "other_ending"
    NAME_INSIDE = "name_inside"


@dataclass(frozen=True, slots=True)
class Resembling:
    """A domain that is known, and how the address resembles it."""

    domain: str
    how: Likeness


def resembling(site: Site, domains: Collection[str]) -> list[Resembling]:
    """Which of the registrable domains the site resembles; none where it is one of them."""
    if site.domain in domains or site.is_loopback:
        return []
    found = [
        Resembling(domain, how)
        for domain in domains
        if (how := _likeness(site, domain)) is not None
    ]
    order = list(Likeness)
    return sorted(found, key=lambda one: (order.index(one.how), one.domain))


def _likeness(site: Site, domain: str) -> Likeness | None:
    name, ending = _split(spelled(site.domain))
    known, _ = _split(spelled(domain))
    if not known or not name:
        return None
    if name == known:
        return Likeness.OTHER_ENDING
    if _skeleton(name) == _skeleton(known):
        is_ascii = name.isascii() and known.isascii()
        return Likeness.LOOK_ALIKE if is_ascii else Likeness.OTHER_ALPHABET
    long_enough = min(len(name), len(known)) >= ONE_LETTER_LEAST
    if long_enough and OSA.distance(_folded(name), _folded(known), score_cutoff=1) <= 1:
        return Likeness.ONE_LETTER
    parts = set(_parts(spelled(site.host), ending))
    return Likeness.NAME_INSIDE if len(known) >= ONE_LETTER_LEAST and known in parts else None


def _parts(host: str, ending: str) -> Iterator[str]:
    for label in host.removesuffix(f".{ending}").split("."):
        yield label
        yield from label.split("-")


@lru_cache(maxsize=20_000)
def _split(domain: str) -> tuple[str, str]:
    """The name that was registered, and the public suffix."""
    ending = suffix_of(domain)
    return domain.removesuffix(f".{ending}") if ending != domain else "", ending


@lru_cache(maxsize=20_000)
def _skeleton(name: str) -> str:
    """What the eye takes a name for: in ASCII as far as it can be, look-alikes as one."""
    text = _folded(name)
    for pair, one in _ASCII_PAIRS:
        text = text.replace(pair, one)
    return text


@lru_cache(maxsize=20_000)
def _folded(name: str) -> str:
    decomposed = unicodedata.normalize("NFKD", name.lower())
    return "".join(_ascii_of(c) for c in decomposed if not unicodedata.combining(c))


def _ascii_of(character: str) -> str:
    if character.isascii():
        return character
    found = confusables.is_confusable(character, greedy=True)
    for glyph in found[0]["homoglyphs"] if found else ():
        if glyph["c"].isascii() and glyph["c"].isalnum():
            return str(glyph["c"]).lower()
    return character


def forget_names() -> None:
    """Lets go of all names compared before."""
    for held in (_split, _skeleton, _folded):
        held.cache_clear()
