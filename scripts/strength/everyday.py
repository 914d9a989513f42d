"""Everyday ways of making secrets: what people write about themselves, their week and their things.
Written after the rare ones were known, and scored once before anything was changed for them.
"""

from collections.abc import Iterator
from math import log10

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
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
FAMILY = ("mum", "dad", "son", "sister", "brother", "wife", "boss", "cat", "dog", "aunt")
MAKES = ("golf", "polo", "fiesta", "corsa", "civic", "panda", "mini", "beetle")
HOME = ("house", "flat", "home", "room", "office", "garden", "kitchen", "garage")
WISHES = ("happy", "merry", "good", "lucky", "sunny", "sweet", "lovely", "great")
WHO = ("i", "we", "you", "they", "he", "she")
DO = ("like", "want", "need", "hate", "love", "miss", "see", "know", "have", "make")
GROWN = ("jr", "sr", "ii", "iii", "the1st", "the2nd")
SHORT_DAYS = ("mo", "di", "mi", "do", "fr", "sa", "so")
KEEP = ("keepout", "private", "secret", "mykey", "access", "entry", "open", "unlock")
TRAVEL = ("summer", "winter", "ski", "beach", "city", "road", "boat", "camping")
EMPHASIS = ("very", "so", "really", "too", "super", "extra", "mega", "ultra")


def _cased(word: str, at: int) -> str:
    return word[:at] + word[at].upper() + word[at + 1 :]


def _about() -> Iterator[tuple[str, float, Make]]:
    """About oneself and others."""
    yield (
        "two names' beginnings and two ages",
        NAMES_N**2 * 80**2 / 25,
        lambda r: f"{_n(r)[:2].title()}{r.randint(1, 80)}{_n(r)[:2].title()}{r.randint(1, 80)}",
    )
    yield (
        "whose name",
        10 * NAMES_N * 100,
        lambda r: f"{r.choice(FAMILY)}{_n(r).title()}{_d(r, 2)}",
    )
    yield (
        "names of a family",
        NAMES_N**4,
        lambda r: "".join(_n(r).title() for _ in range(4)),
    )
    yield (
        "name, place, year",
        NAMES_N * PLACES_N * YEARS,
        lambda r: f"{_n(r)}{r.choice(PLACES).title()}{_y(r)}",
    )
    yield "junior", NAMES_N * 6 * 100, lambda r: f"{_n(r).title()}{r.choice(GROWN)}{_d(r, 2)}"
    yield (
        "initials, dot, name, sign",
        26 * NAMES_N * 6 * 100,
        lambda r: f"{r.choice(LOWER)}.{_n(r)}{_d(r, 2)}{r.choice(SIGNS)}",
    )
    yield (
        "wedding day",
        NAMES_N**2 * 28 * 12,
        lambda r: "{}{}{:02}{:02}".format(_n(r).title(), _n(r).title(), *_day(r)[:2]),
    )
    yield (
        "what one does",
        6 * 10 * WORDS_N * 6,
        lambda r: f"{r.choice(WHO)} {r.choice(DO)} {_w(r)}{r.choice(SIGNS)}",
    )
    yield (
        "what one does not",
        6 * 10 * WORDS_N * 100,
        lambda r: f"{r.choice(WHO)}dont{r.choice(DO)}{_w(r)}{_d(r, 2)}",
    )
    yield (
        "names swapped about",
        NAMES_N * 100,
        lambda r: (lambda n: n[::-1].title())(_n(r)) + _d(r, 2),
    )
    yield (
        "name with a figure",
        NAMES_N * 1e3,
        lambda r: _n(r).replace("a", "4").replace("e", "3").title() + _d(r, 3),
    )
    yield (
        "half of a name, year",
        NAMES_N * YEARS,
        lambda r: f"{_n(r)[:4].title()}{_y(r)}{_y(r)[:0]}",
    )


def _things() -> Iterator[tuple[str, float, Make]]:
    """Things, days and places."""
    yield (
        "car and plate",
        8 * 26**2 * 1e3,
        lambda r: f"{r.choice(MAKES)}{''.join(r.choices(UPPER, k=2))}{_d(r, 3)}",
    )
    yield (
        "car of a year",
        8 * YEARS * 6,
        lambda r: f"{r.choice(MAKES).title()}{_y(r)}{r.choice(SIGNS)}",
    )
    yield (
        "house and number",
        8 * 999 * WORDS_N,
        lambda r: f"{r.choice(HOME)}{r.randint(1, 999)}{_w(r)}",
    )
    yield (
        "day, month, sign",
        7 * 12 * 31 * 6,
        lambda r: f"{r.choice(DAYS)}{r.randint(1, 31)}{r.choice(MONTHS)}{r.choice(SIGNS)}",
    )
    yield "day and word", 7 * WORDS_N * 6, lambda r: f"{r.choice(DAYS)}{_w(r)}{r.choice(SIGNS)}"
    yield "short German days", 7**5, lambda r: "".join(r.choices(SHORT_DAYS, k=5))
    yield (
        "journey",
        8 * PLACES_N * YEARS,
        lambda r: f"{r.choice(TRAVEL)}{r.choice(PLACES).title()}{_y(r)}",
    )
    yield (
        "trip in month",
        PLACES_N * 12 * 100,
        lambda r: f"{r.choice(PLACES)}-{r.choice(MONTHS)[:3]}-{_d(r, 2)}",
    )
    yield "wish", 8 * WORDS_N * YEARS, lambda r: f"{r.choice(WISHES).title()}{_w(r).title()}{_y(r)}"
    yield "emphasis", 8 * WORDS_N * 100, lambda r: f"{r.choice(EMPHASIS)}{_w(r)}{_d(r, 2)}"
    yield "kept out", 8 * WORDS_N * 100, lambda r: f"{r.choice(KEEP)}{_w(r).title()}{_d(r, 2)}"
    yield (
        "number of one's house and place",
        999 * PLACES_N * 6,
        lambda r: f"{r.randint(1, 999)}{r.choice(PLACES).title()}{r.choice(SIGNS)}",
    )
    yield (
        "thing of colour of place",
        WORDS_N * PLACES_N * 10,
        lambda r: f"{_w(r)}from{r.choice(PLACES).title()}{_d(r, 1)}",
    )
    yield (
        "two places, two digits",
        PLACES_N**2 * 100,
        lambda r: f"{r.choice(PLACES).title()}{r.choice(PLACES).title()}{_d(r, 2)}",
    )
    yield (
        "word, phone's last digits, sign",
        WORDS_N * 1e4 * 6,
        lambda r: f"{_w(r).title()}{_d(r, 4)}{r.choice(SIGNS)}",
    )
    yield (
        "word, sign, word, sign",
        WORDS_N**2 * 36,
        lambda r: f"{_w(r)}{r.choice(SIGNS)}{_w(r)}{r.choice(SIGNS)}",
    )
    yield "digits, word, digits", WORDS_N * 1e4, lambda r: f"{_d(r, 2)}{_w(r).title()}{_d(r, 2)}"
    yield (
        "sign, word, year, sign",
        36 * WORDS_N * YEARS,
        lambda r: f"{r.choice(SIGNS)}{_w(r).title()}{_y(r)}{r.choice(SIGNS)}",
    )
    yield (
        "two words and the year's end",
        WORDS_N**2 * YEARS,
        lambda r: f"{_w(r).title()}{_w(r).title()}{_y(r)[2:]}",
    )
    yield (
        "word, dash, number, dash, word",
        WORDS_N**2 * 100,
        lambda r: f"{_w(r)}-{_d(r, 2)}-{_w(r)}",
    )


def _typed() -> Iterator[tuple[str, float, Make]]:
    """How it is typed."""
    yield (
        "one capital somewhere",
        MIDDLES * 5 * 100,
        lambda r: (lambda w: _cased(w, r.randrange(len(w))))(_m(r)) + _d(r, 2),
    )
    yield (
        "ending in capitals",
        MIDDLES * 100,
        lambda r: (lambda w: w[:-3] + w[-3:].upper())(_m(r)) + _d(r, 2),
    )
    yield (
        "o is 0, everything else as it is",
        MIDDLES * 100,
        lambda r: _m(r).replace("o", "0").replace("i", "1") + _d(r, 2),
    )
    yield (
        "sign for the first letter",
        MIDDLES * 6 * 100,
        lambda r: r.choice(SIGNS) + _m(r)[1:] + _d(r, 2),
    )
    yield (
        "words with digits for blanks",
        WORDS_N**3 * 100,
        lambda r: f"{_w(r)}{_d(r, 1)}{_w(r)}{_d(r, 1)}{_w(r)}",
    )
    yield (
        "word three times by case",
        MIDDLES,
        lambda r: (lambda w: w.upper() + w + w.title())(_m(r)),
    )
    yield (
        "first letters of five words and year",
        20.0**5 * YEARS,
        lambda r: "".join(_w(r)[0] for _ in range(5)) + _y(r),
    )
    yield (
        "left out the vowels of two words",
        WORDS_N**2 / 9,
        lambda r: "".join(c for c in f"{_w(r)} {_w(r)}" if c not in "aeiou"),
    )
    yield (
        "word and its length in words",
        WORDS_N * 2,
        lambda r: (
            lambda w: (
                w
                + (
                    "four",
                    "five",
                    "six",
                    "seven",
                    "eight",
                    "nine",
                    "ten",
                    "eleven",
                    "twelve",
                    "more",
                )[min(len(w), 13) - 4]
                + r.choice("!.")
            )
        )(_w(r)),
    )
    yield (
        "digits of a pad about a word",
        MIDDLES * 4,
        lambda r: (lambda d: d[0] + _m(r) + d[1])(
            r.choice((("147", "963"), ("123", "321"), ("159", "951"), ("789", "123")))
        ),
    )
    yield (
        "keys below a year",
        YEARS * WORDS_N,
        lambda r: _w(r) + _y(r).translate(str.maketrans(DIGITS, "pqwertyuio")),
    )
    yield "long row of one's own", 26**3, lambda r: "".join(c * 4 for c in r.choices(LOWER, k=3))


def everyday() -> list[Process]:
    """All of them."""
    ways = [*_about(), *_things(), *_typed()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
