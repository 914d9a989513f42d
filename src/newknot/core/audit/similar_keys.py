"""The keys of a secret: what it still has in common with one that was made of it.

Each key begins with its kind; two secrets that share a key are alike in that way. Of a drawn secret
there are only those that chance does not share.
"""

import re
import unicodedata
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from functools import cache

from newknot.core.address import domain_of
from newknot.core.shipped import shipped_lines
from newknot.core.strength.reading import read, shape_of_letters


class Alike(StrEnum):
    """In which way, the nearest first."""

    SHAPE = "shape"
    SITE = "site"
    LETTERS = "letters"
    DATE = "date"
    REVERSED = "reversed"
    TWICE = "twice"
    EDIT = "edit"
    WORDS = "words"
    PLAIN = "plain"
    HEAD = "head"


SAYS = {
    Alike.SHAPE: "the same but for look-alike characters",
    Alike.SITE: "the same with each site's name built in",
    Alike.PLAIN: "the same with a site's name built in",
    Alike.LETTERS: "the same word",
    Alike.DATE: "the same with another month or year",
    Alike.REVERSED: "the same backwards",
    Alike.TWICE: "the same written twice",
    Alike.EDIT: "one character differs",
    Alike.HEAD: "the same with another ending",
}

LETTERS_LEAST, REST_LEAST, HEAD_LEAST = 4, 4, 5
"""Letters that a word has at least to be one; characters beside a site's name; letters of what an
ending was exchanged of.
"""
_NAME_LEAST, _SHORT_NAME_LEAST, _TOUCHING_LEAST, _SHORT_REST_LEAST = 4, 2, 3, 6
"""Short names count where they stand apart; from three letters on at either end too."""
_EDITED_LEAST, _EDITED_MOST = 6, 40
_REVERSED_LEAST, _WORDS_LEAST, _WORD_LEAST = 5, 3, 3
_NAMES_MOST = 12
_EDIT = f"{Alike.EDIT} "

_VOWELS = re.compile(r"[aeiou]")
_WORD = re.compile(r"[^\W\d_]+")
_RUNS = re.compile(r"[A-Z]?[a-z]+|[A-Z]+(?![a-z])|[^\W\d_]+|\d+|[\W_]+")
_TWICE = re.compile(r"(.{4,32}?)[\W_]?\1")
_INNER_CAPITAL = re.compile(r"(?<=[a-z])(?=[A-Z])")
_YEAR = re.compile(r"(?<!\d)(?:19|20)\d\d(?!\d)")
_MONTH = re.compile(
    r"january|february|march|april|june|july|august|september|october|november|december|"
    r"januar|februar|märz|juni|juli|oktober|dezember|spring|summer|autumn|winter|"
    r"(?<![^\W\d_])(?:jan|feb|mar|apr|may|jun|jul|aug|sept?|oct|nov|dec)(?![^\W\d_])"
)
_SHORT_YEAR = re.compile(r"(\x01[\W_]?)\d\d(?!\d)")
_NUMBERED = re.compile(
    r"(?<!\d)(?:0?[1-9]|1[0-2])([-./])(\x02)|(\x02)([-./])(?:0[1-9]|1[0-2])(?!\d)"
)


@dataclass(frozen=True, slots=True)
class SiteNames:
    """What a site is called: whole names, and short ones, which count where they stand apart."""

    whole: frozenset[str]
    short: frozenset[str]


def site_names(*, title: str, address: str) -> SiteNames:
    """By its address and its title: their names and words, initials and beginnings."""
    label = domain_of(address).partition(".")[0]
    words = [w.casefold() for w in _WORD.findall(title)]
    names = {label, label.replace("-", ""), "".join(words), *label.split("-"), *words}
    initials = "".join(w[0] for w in words) if len(words) > 1 else ""
    firsts = {name[:n] for name in (label, *words[:1]) for n in (2, 3, 4, 5) if len(name) > n}
    whole = {name for name in names if len(name) >= _NAME_LEAST}
    shorter = (initials, _VOWELS.sub("", label), *firsts, *names)
    short = {one for one in shorter if len(one) >= _SHORT_NAME_LEAST}
    return SiteNames(frozenset(whole), frozenset(short - whole))


def keys_of(text: str, names: Iterable[SiteNames], *, drawn: bool) -> tuple[str, ...]:
    """All keys of a secret that serves at the sites of these names."""
    reading = read(text)
    return tuple(dict.fromkeys(_keys(text, reading.low, reading.shaped, names, drawn)))


def _keys(
    text: str, low: str, shaped: str, names: Iterable[SiteNames], drawn: bool
) -> Iterator[str]:
    yield f"{Alike.SHAPE} {shaped}"
    # What Unicode writes in two ways is one.
    yield f"{Alike.SHAPE} {shape_of_letters(unicodedata.normalize('NFKC', low))}"
    parted = _parted(text)
    yield from _words(words_of(text), drawn)
    if _EDITED_LEAST <= len(low) <= _EDITED_MOST:
        yield _EDIT + low
        for at in range(len(low)):
            yield _EDIT + low[:at] + low[at + 1 :]
    if drawn:
        return
    letters = letters_of(low)
    if len(letters) >= LETTERS_LEAST:
        yield f"{Alike.LETTERS} {letters}"
    yield from _without_site(low, names)
    yield from _dated(parted)
    for one in {letters, shaped}:
        if len(one) >= _REVERSED_LEAST:
            yield f"{Alike.REVERSED} {min(one, one[::-1])}"
    yield from _once(low, letters)
    yield from _heads(text)
    yield from _first_of_two(low)


def letters_of(low: str) -> str:
    """The letters of a text alone."""
    return "".join(filter(str.isalpha, low))


def words_of(text: str) -> list[str]:
    """Its words in lower case: letters in a row, parted at capitals, three or more of them."""
    return [word for word in _WORD.findall(_parted(text)) if len(word) >= _WORD_LEAST]


def _parted(text: str) -> str:
    return _INNER_CAPITAL.sub("\x03", text).lower()


def _words(words: list[str], drawn: bool) -> Iterator[str]:
    if len(words) < _WORDS_LEAST + drawn:
        return
    yield f"{Alike.WORDS} {' '.join(words)}"
    for at in range(len(words)):
        yield f"{Alike.WORDS} {' '.join(words[:at] + words[at + 1 :])}"


def _without_site(low: str, names: Iterable[SiteNames]) -> Iterator[str]:
    """What is left when a name of its site is taken out; the whole stands beside it, since the
    other may have none.
    """
    whole = plain(low)
    if len(whole) >= _SHORT_REST_LEAST:
        yield f"{Alike.PLAIN} {whole}"
    for one in list(names)[:_NAMES_MOST]:
        for name in one.whole:
            if name in low:
                rest = plain(low.replace(name, ""))
                if len(rest) >= REST_LEAST:
                    yield from (f"{Alike.SITE} {rest}", f"{Alike.PLAIN} {rest}")
        for name in one.short:
            for start in _places(low, name):
                rest = plain(low[:start] + low[start + len(name) :])
                if len(rest) >= _SHORT_REST_LEAST:
                    yield from (f"{Alike.SITE} {rest}", f"{Alike.PLAIN} {rest}")


def _places(low: str, name: str) -> Iterator[int]:
    """Where a short name stands apart, or begins or ends the text."""
    start = low.find(name)
    while start >= 0:
        end = start + len(name)
        before, after = low[start - 1 : start], low[end : end + 1]
        apart = not before.isalpha() and not after.isalpha()
        if apart or (len(name) >= _TOUCHING_LEAST and not (before and after)):
            yield start
        start = low.find(name, start + 1)


def plain(low: str) -> str:
    """The letters and digits of a text."""
    return "".join(filter(str.isalnum, low))


def _dated(low: str) -> Iterator[str]:
    moved = _YEAR.sub("\x02", _MONTH.sub("\x01", low))
    moved = _NUMBERED.sub("\x01\x02", _SHORT_YEAR.sub("\\1\x02", moved))
    moved = moved.replace("\x03", "")
    rest = sum(c.isalnum() for c in moved)
    both = "\x01" in moved and "\x02" in moved
    # A month or a year alone is anybody's.
    one = "\x01" in moved or "\x02" in moved
    if both or ("\x01" in moved and rest) or (one and rest >= LETTERS_LEAST):
        yield f"{Alike.DATE} {moved}"


def _once(low: str, letters: str) -> Iterator[str]:
    """Itself, and itself once where it is written twice."""
    for one in {low, letters}:
        if len(one) >= LETTERS_LEAST:
            yield f"{Alike.TWICE} {one}"
        found = _TWICE.fullmatch(one)
        if found is not None:
            yield f"{Alike.TWICE} {found[1]}"


def _heads(text: str) -> Iterator[str]:
    """Itself without its last word or number, and the symbols around that."""
    runs = _RUNS.findall(text)
    _drop_symbols(runs)
    if len(runs) > 1:
        runs.pop()
        _drop_symbols(runs)
        head = "".join(runs).lower()
        letters = sum(c.isalpha() for c in head)
        if letters >= HEAD_LEAST and 2 * len(head) >= len(text) - 2:
            yield f"{Alike.HEAD} {head}"


def _drop_symbols(runs: list[str]) -> None:
    while runs and not any(c.isalnum() for c in runs[-1]):
        runs.pop()


def _first_of_two(low: str) -> Iterator[str]:
    """The first of two words that touch."""
    if not low.isalpha() or low in _dictionary():
        return
    for at in range(HEAD_LEAST, len(low) - _WORD_LEAST + 1):
        if low[:at] in _dictionary() and low[at:] in _dictionary():
            yield f"{Alike.HEAD} {low[:at]}"


@cache
def _dictionary() -> frozenset[str]:
    return frozenset(shipped_lines("english_words.txt.gz"))
