"""How an address resembles a site that is known, without being it: the ways of luring addresses.

A name that is a word of its own is no misspelling of another, and what holds a common word holds no
other's name by that alone. Letters that look alike are those of Unicode's confusables (UTS #39, by
`confusable_homoglyphs`), and the few pairs within ASCII that are used for it.
"""

import re
import unicodedata
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cache, lru_cache

from rapidfuzz.distance import OSA

from newknot.core.address.site import Site, spelled, suffix_of
from newknot.core.shipped import shipped_lines

ONE_LETTER_LEAST, JOINED_LEAST, LEFT_OUT_LEAST, OWN_NAME_LEAST = 4, 5, 7, 7
"""Letters of a known name from which on it is looked for so; with the last, that it is one of its
own where no dictionary has it.
"""
_REPEATED = re.compile(r"(.)\1+")
_ASCII_PAIRS = (("rn", "m"), ("vv", "w"), ("cl", "d"), ("0", "o"), ("1", "l"), ("i", "l"))


class Likeness(StrEnum):
    """In which way, the most deceptive first."""

    OTHER_ALPHABET = "other_alphabet"
    LOOK_ALIKE = "look_alike"
    ONE_LETTER = "one_letter"
    LETTERS_OFF = "letters_off"
    OTHER_ENDING = "other_ending"
    NAME_JOINED = "name_joined"
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
    if _is_slip(_folded(name), _folded(known)):
        return Likeness.ONE_LETTER
    if _letters_off(_folded(name), _folded(known)):
        return Likeness.LETTERS_OFF
    if len(known) < ONE_LETTER_LEAST:
        return None
    parts = list(_parts(spelled(site.host), ending))
    if any(_is_joined(part, known) for part in parts):
        return Likeness.NAME_JOINED
    return Likeness.NAME_INSIDE if _is_inside(parts, site, domain, known) else None


def _is_slip(name: str, known: str) -> bool:
    """One letter more, less, other, or two exchanged; but for a word of its own that does not
    merely end otherwise.
    """
    if min(len(name), len(known)) < ONE_LETTER_LEAST:
        return False
    if name in _words() and not (name.startswith(known) or known.startswith(name)):
        return False
    return OSA.distance(name, known, score_cutoff=1) <= 1


def _letters_off(name: str, known: str) -> bool:
    """Letters doubled, or doubled ones single; or up to two left out between first and last."""
    if len(known) < JOINED_LEAST or name in _words():
        return False
    if _REPEATED.sub(r"\1", name) == _REPEATED.sub(r"\1", known):
        return True
    if len(known) < LEFT_OUT_LEAST or name[0] != known[0] or name[-1] != known[-1]:
        return False
    rest = iter(known)
    return 0 < len(known) - len(name) <= 2 and all(letter in rest for letter in name)


def _is_joined(part: str, known: str) -> bool:
    """The name with something before or after it: what lures, or, to a name that is no word, any
    word or number. Compared as it is spelled, and as the eye takes it.
    """
    if len(known) < JOINED_LEAST:
        return False
    for text, name in ((_folded(part), _folded(known)), (_skeleton(part), _skeleton(known))):
        before, found, after = text.partition(name)
        if not found or not (before or after):
            continue
        if all(one in _lures() or one.isdigit() for one in (before, after) if one):
            return True
        alone = before or after if not (before and after) else ""
        if _is_own_name(known) and len(alone) > 2 and alone in _words():
            return True
    return False


def _is_inside(parts: Sequence[str], site: Site, domain: str, known: str) -> bool:
    """The name as a part of another's address: a common word only with what lures beside it, or
    with its own ending.
    """
    if known not in parts:
        return False
    if f".{domain}." in f".{spelled(site.host)}.":
        return True
    return _is_own_name(known) or any(part in _lures() for part in parts)


@lru_cache(maxsize=20_000)
def _is_own_name(name: str) -> bool:
    return len(name) >= OWN_NAME_LEAST and name not in _words()


@cache
def _lures() -> frozenset[str]:
    """What is joined to a name to make it look like a part of it."""
    return frozenset(shipped_lines("lure_words.txt"))


@cache
def _words() -> frozenset[str]:
    return frozenset(shipped_lines("english_words.txt.gz"))


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
    # Its table is read when it is loaded: most names never need it.
    from confusable_homoglyphs import confusables

    found = confusables.is_confusable(character, greedy=True)
    for glyph in found[0]["homoglyphs"] if found else ():
        if glyph["c"].isascii() and glyph["c"].isalnum():
            return str(glyph["c"]).lower()
    return character


def forget_names() -> None:
    """Lets go of all names compared before."""
    for held in (_split, _skeleton, _folded, _is_own_name):
        held.cache_clear()
