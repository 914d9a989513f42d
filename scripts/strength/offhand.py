"""Ways of making secrets that were thought of offhand, at one sitting, after all other sets: habits
of typing, of labels and notes, of what lies on a desk. Scored once before anything was changed for
them.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from newknot.core.shipped import shipped_lines
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
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

NAMES_N, PLACES_N = len(NAMES), len(PLACES)
SIGNS = "!?.#*$"
SEPARATORS = "-_./:"
COMMON = shipped_lines("english_words.txt.gz")[:1000]
SELDOM = tuple(
    w for w in shipped_lines("english_words.txt.gz")[6000:26000] if 5 <= len(w) <= 9 and w.isalpha()
)
SELDOM_N, COMMON_N = len(SELDOM), len(COMMON)
ROOMS = (
    "kitchen",
    "garage",
    "office",
    "cellar",
    "attic",
    "bedroom",
    "garden",
    "hall",
    "studio",
    "shed",
)
METALS = ("gold", "silver", "iron", "copper", "bronze", "steel", "tin", "zinc")
HOURS = ("morning", "noon", "evening", "night", "midnight", "dawn")
SMILES = (":)", ":-)", ";-)", ":D", "<3", "^^")
ENDS = ("forever", "4ever", "rules", "rocks", "sucks", "only", "fan", "lover")
DEVICES = ("laptop", "phone", "tablet", "router", "printer", "camera", "server", "modem")
ORDINALS = ("1st", "2nd", "3rd", "4th", "5th", "6th", "7th", "8th", "9th", "10th")
ROMAN = ("II", "III", "IV", "VI", "VII", "VIII", "IX", "XI", "XII", "XIV", "XV", "XIX")
NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
UNITS = ("kg", "km", "cm", "ml", "mph", "gb", "min", "sec", "pcs", "eur")


def _p(r: Random) -> str:
    return r.choice(PLACES)


def _s(r: Random) -> str:
    return r.choice(SELDOM)


def _i(r: Random, count: int) -> str:
    return "".join(r.choices(LOWER, k=count))


def _common() -> Iterator[tuple[str, float, Make]]:
    """What many might do."""
    yield "seldom word, two digits", SELDOM_N * 100, lambda r: _s(r) + _d(r, 2)
    yield "Seldom word, sign", SELDOM_N * 6, lambda r: _s(r).title() + r.choice(SIGNS)
    yield "two seldom words", SELDOM_N**2, lambda r: _s(r) + _s(r)
    yield "seldom word and year", SELDOM_N * YEARS, lambda r: _s(r).title() + _y(r)
    yield "seldom word, swapped", SELDOM_N * 10, lambda r: _s(r).translate(SWAPPED) + _d(r, 1)
    yield "name ends", NAMES_N * 8 * 100, lambda r: _n(r) + r.choice(ENDS) + _d(r, 2)
    yield "hash of a word", WORDS_N * 100, lambda r: f"#{_w(r)}{_d(r, 2)}"
    yield "word and a smile", WORDS_N * 6, lambda r: _w(r).title() + r.choice(SMILES)
    yield "metal and word", 8 * WORDS_N * 10, lambda r: r.choice(METALS) + _w(r) + _d(r, 1)
    yield "room and number", 10 * 1000, lambda r: f"{r.choice(ROOMS)}{_d(r, 3)}"
    yield "device of name", 8 * NAMES_N * 10, lambda r: f"{_n(r)}s{r.choice(DEVICES)}{_d(r, 1)}"
    yield "the nth word", 10 * WORDS_N, lambda r: f"the{r.choice(ORDINALS)}{_w(r)}"
    yield (
        "name of a line of kings",
        NAMES_N * 12 * 6,
        lambda r: _n(r).title() + r.choice(ROMAN) + r.choice(SIGNS),
    )
    yield (
        "number word, twice, word",
        10 * WORDS_N,
        lambda r: (lambda n: n + _w(r) + n)(r.choice(NUMBERS)),
    )
    yield (
        "Word_initials_year",
        WORDS_N * 26**2 * YEARS,
        lambda r: f"{_w(r).title()}_{_i(r, 2).upper()}_{_y(r)}",
    )
    yield "place, postcode", PLACES_N * 1e5, lambda r: f"{_p(r).title()} {_d(r, 5)}"
    yield (
        "four of the commonest words",
        COMMON_N**4,
        lambda r: "".join(r.choice(COMMON) for _ in range(4)),
    )
    yield (
        "three of the commonest, apart",
        COMMON_N**3 * 5,
        lambda r: r.choice(SEPARATORS).join(r.choice(COMMON) for _ in range(3)),
    )
    yield "word, amount", WORDS_N * 100 * 10, lambda r: f"{_w(r)}{_d(r, 2)}{r.choice(UNITS)}"
    yield (
        "initials, day, sign",
        26**2 * 365 * 60 * 6,
        lambda r: _i(r, 2).upper() + "{:02}.{:02}.{}".format(*_day(r)) + r.choice(SIGNS),
    )
    yield (
        "month, day, word",
        365 * WORDS_N,
        lambda r: f"{r.choice(MONTHS)[:3]}{r.randint(1, 30)}{_w(r)}",
    )
    yield (
        "time of the day of word",
        6 * WORDS_N * 10,
        lambda r: _w(r) + r.choice(HOURS).title() + _d(r, 1),
    )
    yield "name @ place", NAMES_N * PLACES_N, lambda r: f"{_n(r)}@{_p(r)}"
    yield "word:word", WORDS_N**2, lambda r: f"{_w(r)}:{_w(r)}"
    yield "(word) and digits", WORDS_N * 1000, lambda r: f"({_w(r)}){_d(r, 3)}"


def _rare() -> Iterator[tuple[str, float, Make]]:
    """What few do."""
    yield (
        "first and last letter",
        WORDS_N**3,
        lambda r: "".join(w[0].upper() + w[-1] for w in (_w(r), _w(r), _w(r))),
    )
    yield (
        "word without its vowels, year",
        MIDDLES * YEARS,
        lambda r: "".join(c for c in _m(r) if c not in "aeiou") + _y(r),
    )
    yield "letters apart by dots", MIDDLES * 10, lambda r: ".".join(_m(r)) + _d(r, 1)
    yield "digits between letters", MIDDLES * 1e4, lambda r: _woven(_m(r), _d(r, 4))
    yield (
        "capitals from the middle",
        MIDDLES * 10,
        lambda r: (lambda w: w[:3] + w[3:].upper())(_m(r)) + _d(r, 1),
    )
    yield "last letter thrice", MIDDLES * 10, lambda r: (lambda w: w + w[-1] * 2)(_m(r)) + _d(r, 1)
    yield (
        "word, its length",
        MIDDLES * WORDS_N,
        lambda r: (lambda w, v: f"{w}{len(w)}{v}{len(v)}")(_m(r), _w(r)),
    )
    yield (
        "halves changed over",
        MIDDLES * 100,
        lambda r: (lambda w: w[len(w) // 2 :] + w[: len(w) // 2])(_m(r)) + _d(r, 2),
    )
    yield "two words, letter by letter", MIDDLES**2, lambda r: _woven(_m(r), _m(r))
    yield "word backwards in a phrase", WORDS_N**2, lambda r: f"{_w(r)[::-1]} {_w(r)}"
    yield (
        "label of a box",
        26 * 26 * 1e6,
        lambda r: f"{''.join(r.choices(UPPER, k=2))}-{_d(r, 3)}-{_d(r, 3)}",
    )
    yield "version of a word", WORDS_N * 10 * 10, lambda r: f"{_w(r)}-v{_d(r, 1)}.{_d(r, 1)}"
    yield (
        "sum of a word",
        WORDS_N * 90 * 9,
        lambda r: (lambda a, b: f"{_w(r)}{a}+{b}={a + b}")(r.randint(10, 99), r.randint(1, 9)),
    )
    yield (
        "word of letters and their place",
        26**4,
        lambda r: "".join(c + str(ord(c) - 96) for c in _i(r, 4)),
    )
    yield "syllable thrice, digits", 16 * 5 * 100, lambda r: _c(r) * 3 + _d(r, 2)
    yield "two syllables twice", (16 * 5) ** 2 * 10, lambda r: (_c(r) + _c(r)) * 2 + _d(r, 1)
    yield (
        "address of a flat",
        200 * WORDS_N * 40,
        lambda r: f"{r.randint(1, 200)}/{r.randint(1, 40)} {_w(r).title()} St",
    )
    yield (
        "chapter and verse of a name",
        NAMES_N * 150 * 50,
        lambda r: f"{_n(r).title()} {r.randint(1, 150)}:{r.randint(1, 50)}",
    )
    yield "to do", WORDS_N**2, lambda r: f"[x] {_w(r)} {_w(r)}"
    yield "name in quotation marks", NAMES_N * 1000, lambda r: f'"{_n(r).title()}"{_d(r, 3)}'
    yield "word=digits;", WORDS_N * 1e4, lambda r: f"{_w(r)}={_d(r, 4)};"
    yield (
        "initial for each word but one",
        WORDS_N * 26**3 * 100,
        lambda r: _i(r, 2) + _w(r) + _i(r, 1) + _d(r, 2),
    )


def _chance() -> Iterator[tuple[str, float, Make]]:
    """Drawn, which must not be taken for less."""
    yield (
        "three of letters, three of digits, drawn",
        26.0**6 * 1000,
        lambda r: _i(r, 3) + _d(r, 3) + _i(r, 3),
    )
    yield (
        "five seldom words, drawn",
        float(SELDOM_N) ** 5,
        lambda r: "-".join(_s(r) for _ in range(5)),
    )
    yield (
        "11 of capitals and digits, drawn",
        36.0**11,
        lambda r: "".join(r.choices(UPPER + DIGITS, k=11)),
    )


def _c(r: Random) -> str:
    return r.choice("bcdfghklmnprstvz") + r.choice("aeiou")


def _woven(a: str, b: str) -> str:
    longer = max(len(a), len(b))
    return "".join(a[i : i + 1] + b[i : i + 1] for i in range(longer))


SWAPPED = str.maketrans("aeios", "43105")


def offhand() -> list[Process]:
    """All of them."""
    ways = [*_common(), *_rare(), *_chance()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
