"""Ways of making secrets that were written down afresh when *blind* to *offhand* had been made use
of: half of them what an office, a family or a hobby makes one write, half what only a few do.
Scored once before anything was changed for them.
"""

import hashlib
import urllib.parse
from collections.abc import Iterator
from math import comb, log10, perm
from random import Random

from scripts.strength.further import (
    MIDDLES,
    MONTHS,
    NAMES,
    PLACES,
    WORDS_N,
    YEARS,
    Make,
    _d,
    _day,
    _m,
    _n,
    _w,
    _y,
)
from scripts.strength.offhand import SEPARATORS, SIGNS, _i, _p
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

NAMES_N, PLACES_N = len(NAMES), len(PLACES)
ROLES = ("admin", "guest", "office", "sales", "support", "info", "test", "user")
SIZES = ("XS", "S", "M", "L", "XL", "XXL")
INSTRUMENTS = ("guitar", "piano", "violin", "drums", "flute", "cello", "bass", "banjo")
DRINKS = ("tea", "coffee", "beer", "wine", "juice", "cola", "water", "milk", "gin", "rum")
GREETINGS = ("hello", "hi", "hey", "dear", "goodmorning", "welcome", "bye", "goodnight")
POINTS = ("north", "south", "east", "west", "N", "S", "E", "W", "NE", "SW")
ADVERBS = ("very", "so", "really", "too", "not", "never", "always", "almost")
CODONS = ("ACG", "TGA", "CCT", "GAT", "TTC", "AGG", "CAT", "GTA")
TILES = ("1m", "2m", "3m", "5p", "6p", "7p", "9s", "1s")
DOTS = "⠁⠃⠉⠙⠑⠋⠛⠓⠊⠚⠅⠇⠍⠝⠕⠏⠟⠗⠎⠞⠥⠧⠺⠭⠽⠵"
NOTES = ("do", "re", "mi", "fa", "sol", "la", "si")
CLOCK = ("half past", "quarter to", "quarter past", "ten to", "five past")
NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
WIDE = str.maketrans({chr(c): chr(c + 0xFEE0) for c in range(33, 127)})
NEXT_VOWEL = str.maketrans("aeiou", "eioua")
OPENINGS = ("e4", "d4", "c4", "Nf3", "g3", "b3", "f4", "Nc3")
REPLIES = ("e5", "c5", "e6", "c6", "d5", "Nf6", "g6", "d6")


def _usual() -> Iterator[tuple[str, float, Make]]:
    """What an office, a family or a hobby makes one write."""
    yield "role and year", 8 * YEARS * 6, lambda r: r.choice(ROLES) + _y(r) + r.choice(SIGNS)
    yield (
        "Name.Word, two digits",
        NAMES_N * WORDS_N * 100,
        lambda r: f"{_n(r).title()}.{_w(r).title()}{_d(r, 2)}",
    )
    yield "greeting and name", 8 * NAMES_N * 6, lambda r: r.choice(GREETINGS) + _n(r) + "!"
    yield "word, size", WORDS_N * 6 * 10, lambda r: f"{_w(r)}-{r.choice(SIZES)}{_d(r, 1)}"
    yield "drink for two", 10 * NAMES_N, lambda r: f"{r.choice(DRINKS)}for{_n(r)}"
    yield "instrument, year", 8 * YEARS, lambda r: r.choice(INSTRUMENTS).title() + _y(r)
    yield (
        "month, short year, word",
        12 * 70 * WORDS_N,
        lambda r: f"{r.choice(MONTHS)[:3]}{r.randint(0, 69):02}{_w(r).title()}",
    )
    yield (
        "street and town",
        WORDS_N * PLACES_N * 100,
        lambda r: f"{r.randint(1, 100)} {_w(r)} road {_p(r)}",
    )
    yield "very word", 8 * WORDS_N * 10, lambda r: f"{r.choice(ADVERBS)}{_w(r).title()}{_d(r, 1)}"
    yield (
        "word in capitals, digits, word",
        WORDS_N**2 * 10,
        lambda r: f"{_w(r).upper()}{_d(r, 1)}{_w(r)}",
    )
    yield "name loves name", NAMES_N**2, lambda r: f"{_n(r)}loves{_n(r)}"
    yield "name + name = year", NAMES_N**2 * YEARS, lambda r: f"{_n(r)}+{_n(r)}={_y(r)}"
    yield (
        "word and the day it was changed",
        WORDS_N * 365,
        lambda r: "{}{:02}{:02}".format(_w(r).title(), *_day(r)[:2]),
    )
    yield "two digits, word, two digits", MIDDLES * 1e4, lambda r: _d(r, 2) + _m(r) + _d(r, 2)
    yield "the same digit four times", WORDS_N * 10, lambda r: _w(r).title() + _d(r, 1) * 4
    yield "word and its number, twice", WORDS_N * 100, lambda r: (lambda t: t + t)(_w(r) + _d(r, 2))
    yield "wind at place", 10 * PLACES_N * 100, lambda r: f"{_p(r)}{r.choice(POINTS)}{_d(r, 2)}"
    yield (
        "quarter past word",
        5 * 12 * WORDS_N,
        lambda r: f"{r.choice(CLOCK)} {r.randint(1, 12)} {_w(r)}",
    )
    yield (
        "room, sign, initials",
        1e3 * 6 * 26**2,
        lambda r: _d(r, 3) + r.choice(SIGNS) + _i(r, 2).upper(),
    )
    yield (
        "my nth word is word",
        10 * WORDS_N**2,
        lambda r: f"my {r.choice(NUMBERS)} {_w(r)} {_w(r)}",
    )
    yield "ordered by letter", comb(WORDS_N, 3), lambda r: "".join(sorted((_w(r), _w(r), _w(r))))
    yield "word w/o its first letter", MIDDLES * 100, lambda r: _m(r)[1:] + _d(r, 2)
    yield (
        "word, comma, word",
        WORDS_N**2 * 6,
        lambda r: f"{_w(r).title()}, {_w(r)}{r.choice(SIGNS)}",
    )
    yield "no, no, word", WORDS_N * 4, lambda r: r.choice(("no", "yes", "go", "ha")) * 2 + _w(r)
    yield "account and check digit", 1e7 * 6, lambda r: _checked(_d(r, 7)) + r.choice(SIGNS)


def _unusual() -> Iterator[tuple[str, float, Make]]:
    """What only a few do."""
    yield "syllables of notes", 7.0**5 * 100, lambda r: "".join(r.choices(NOTES, k=5)) + _d(r, 2)
    yield "letters of DNA", 8.0**4 * 10, lambda r: "".join(r.choices(CODONS, k=4)) + _d(r, 1)
    yield "tiles of a game", 8.0**5, lambda r: "".join(r.choices(TILES, k=5))
    yield "in dots for the blind", MIDDLES * 10, lambda r: _dots(_m(r)) + _d(r, 1)
    yield "in wide letters", MIDDLES * 100, lambda r: (_m(r) + _d(r, 2)).translate(WIDE)
    yield "opening moves", 8.0**4, lambda r: _opened(r)
    yield "start of a word's digest", WORDS_N, lambda r: _digest(_w(r))
    yield (
        "every sign escaped",
        WORDS_N * 6 * WORDS_N,
        lambda r: _quoted(_w(r), r.choice(SIGNS), _w(r)),
    )
    yield "in five-letter groups", MIDDLES**2, lambda r: _grouped(_m(r) + _m(r), 5)
    yield (
        "last half, first half",
        MIDDLES * 100 * 6,
        lambda r: _turned(_m(r)) + _d(r, 2) + r.choice(SIGNS),
    )
    yield "vowels one on, year", MIDDLES * YEARS, lambda r: _m(r).translate(NEXT_VOWEL) + _y(r)
    yield "keyword, then the alphabet", MIDDLES, lambda r: _keyed(_m(r))
    yield "word by its keys' columns", MIDDLES, lambda r: _columns(_m(r))
    yield (
        "word and its letters in order",
        MIDDLES,
        lambda r: (lambda w: w + "".join(sorted(w)))(_m(r)),
    )
    yield "its letters in order", MIDDLES * 100, lambda r: "".join(sorted(_m(r))) + _d(r, 2)
    yield "consonants, then vowels", MIDDLES * 10, lambda r: _by_kind(_m(r)) + _d(r, 1)
    yield "capitals by a year", MIDDLES * YEARS, lambda r: _m(r).title() + _shifted(_y(r))
    yield "a word's ends about digits", MIDDLES * 1e4, lambda r: _split(_m(r), _d(r, 4))
    yield "counted letters", MIDDLES * 6, lambda r: _counted(_m(r)) + r.choice(SIGNS)
    yield "one word in another", MIDDLES * WORDS_N, lambda r: _inside(_m(r), _w(r))
    yield "sentence of initials with signs", 26**6 * 36, lambda r: _marked(r)
    yield (
        "three of one beginning",
        MIDDLES * 10,
        lambda r: (lambda w: w[:3] + w[:4] + w)(_m(r)) + _d(r, 1),
    )
    yield "four cards in order", perm(13, 2) * 16, lambda r: _cards(r)
    yield "word less its last, word less its first", MIDDLES**2, lambda r: _m(r)[:-1] + _m(r)[1:]


def _chance() -> Iterator[tuple[str, float, Make]]:
    """Drawn, which must not be taken for less."""
    yield "13 of letters, drawn", 26.0**13, lambda r: _i(r, 13)
    yield (
        "three groups of five, drawn",
        36.0**15,
        lambda r: "-".join("".join(r.choices(UPPER + DIGITS, k=5)) for _ in range(3)),
    )
    yield (
        "four words of the six thousand, drawn",
        float(WORDS_N) ** 4,
        lambda r: r.choice(SEPARATORS).join(_w(r) for _ in range(4)),
    )


def _checked(digits: str) -> str:
    """With a check digit behind (ISO/IEC 7812-1, annex B)."""
    total = sum(sum(divmod(int(d) * (2 - at % 2), 10)) for at, d in enumerate(reversed(digits)))
    return digits + str(-total % 10)


def _dots(word: str) -> str:
    return "".join(DOTS[ord(c) - 97] for c in word)


def _opened(r: Random) -> str:
    return f"1.{r.choice(OPENINGS)} {r.choice(REPLIES)} 2.{r.choice(OPENINGS)} {r.choice(REPLIES)}"


def _digest(word: str) -> str:
    return hashlib.sha256(word.encode()).hexdigest()[:10]


def _quoted(word: str, sign: str, other: str) -> str:
    return urllib.parse.quote(f"{word} {sign}{other}", safe="")


def _grouped(text: str, size: int) -> str:
    return " ".join(text[at : at + size] for at in range(0, len(text), size))


def _turned(word: str) -> str:
    half = len(word) // 2
    return word[half:] + word[:half]


def _keyed(word: str) -> str:
    """A keyword's letters once, and the rest of the alphabet: the first twelve."""
    return "".join(dict.fromkeys(word + LOWER))[:12]


def _columns(word: str) -> str:
    rows = ("qwertyuiop", "asdfghjkl", "zxcvbnm")
    return "".join(str(next(row.index(c) for row in rows if c in row)) for c in word)


def _by_kind(word: str) -> str:
    return "".join(c for c in word if c not in "aeiou") + "".join(c for c in word if c in "aeiou")


def _shifted(digits: str) -> str:
    return digits.translate(str.maketrans(DIGITS, ")!@#$%^&*("))


def _split(word: str, digits: str) -> str:
    return word[:2] + digits + word[2:]


def _counted(word: str) -> str:
    return "".join(f"{c}{word.count(c)}" for c in dict.fromkeys(word))


def _inside(outer: str, inner: str) -> str:
    return f"{outer[:2]}({inner}){outer[2:]}"


def _marked(r: Random) -> str:
    letters = _i(r, 6)
    return f"{letters[0].upper()}{letters[1:3]},{letters[3:]}{r.choice(SIGNS)}{r.choice(SIGNS)}"


def _cards(r: Random) -> str:
    first, second = r.sample("23456789TJQKA", 2)
    return "".join(
        rank + suit
        for rank, suit in zip((first, first, second, second), r.choices("shdc", k=4), strict=True)
    )


def afresh() -> list[Process]:
    """All of them."""
    ways = [*_usual(), *_unusual(), *_chance()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
