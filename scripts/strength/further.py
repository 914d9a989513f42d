"""Further ways of making secrets, written before the finders of disguises were, which are judged by
them: what people write beside single words, and words that are not left as they are.
"""

import base64
import codecs
from collections.abc import Callable, Iterator
from datetime import date
from math import log10
from random import Random

from newknot.core.shipped import shipped_lines
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

MONTHS = tuple(date(2000, month, 1).strftime("%B") for month in range(1, 13))
ENGLISH = shipped_lines("english_words.txt.gz")[:6000]
WORDS = tuple(w for w in ENGLISH if len(w) >= 4 and w.isascii() and w.isalpha())
MIDDLE = tuple(w for w in WORDS if 5 <= len(w) <= 9)
NAMES = shipped_lines("given_names.txt.gz")[:1500]
PLACES = tuple(w for w in shipped_lines("places.txt.gz")[:1000] if w.isalpha())
VOWELS = "aeiou"
CASED = str.maketrans("aeios", "43105")
KEYPAD = str.maketrans("abcdefghijklmnopqrstuvwxyz", "22233344455566677778889999")
ONE_UP = str.maketrans("qwertyuiopasdfghjklzxcvbnm", "1234567890qwertyuioasdfghj")
LOOK_ALIKE = str.maketrans("aeocpx", "аеосрх")
YEARS, DAYS, MIDDLES, WORDS_N = 70, 365 * 60, len(MIDDLE), len(WORDS)

Make = Callable[[Random], str]


def _d(r: Random, count: int) -> str:
    return "".join(r.choices(DIGITS, k=count))


def _w(r: Random) -> str:
    return r.choice(WORDS)


def _m(r: Random) -> str:
    return r.choice(MIDDLE)


def _n(r: Random) -> str:
    return r.choice(NAMES)


def _y(r: Random) -> str:
    return str(r.randint(1950, 2019))


def _day(r: Random) -> tuple[int, int, int]:
    return r.randint(1, 28), r.randint(1, 12), r.randint(1950, 2009)


def _split(word: str, at: int, between: str) -> str:
    return word[:at] + between + word[at:]


def _common() -> Iterator[tuple[str, float, Make]]:
    """What many people do."""
    yield "two words, two digits", WORDS_N**2 * 100, lambda r: (_w(r) + _w(r)).title() + _d(r, 2)
    yield "name, day and month", 1500 * 365, lambda r: _n(r) + "{:02}{:02}".format(*_day(r))
    yield "name & name", 1500**2, lambda r: f"{_n(r).title()}&{_n(r).title()}"
    yield "ilove name", 1500 * 100, lambda r: "ilove" + _n(r) + _d(r, 2)
    seasons = ("Spring", "Summer", "Autumn", "Winter")
    yield (
        "season, year, sign",
        4 * YEARS * 5,
        lambda r: r.choice(seasons) + _y(r) + r.choice("!?.#*"),
    )
    yield "month and year", 12 * YEARS, lambda r: r.choice(MONTHS) + _y(r)
    yield (
        "initials and day",
        26**3 * DAYS,
        lambda r: "".join(r.choices(LOWER, k=3)) + "{:02}{:02}{}".format(*_day(r)),
    )
    yield "word digit word", WORDS_N**2 * 10, lambda r: _w(r) + _d(r, 1) + _w(r)
    yield "three beginnings", 6000**3, lambda r: "".join(_w(r)[:3].title() for _ in range(3))
    yield "abc123 and word", WORDS_N * 3, lambda r: r.choice(("abc123", "qwe123", "1a2b3c")) + _w(r)
    yield "day in words", DAYS, lambda r: "{}{}{}".format(*_in_words(r))
    yield "day in words, apart", DAYS, lambda r: "{1} {0}, {2}".format(*_in_words(r))
    yield (
        "word and keys",
        WORDS_N * 5,
        lambda r: _w(r) + r.choice(("qwe", "asd", "1q2w", "qaz", "zxc")),
    )
    yield "capitals, two digits", WORDS_N * 100, lambda r: _w(r).upper() + _d(r, 2)
    yield (
        "letter, place, year",
        26 * len(PLACES) * 60,
        lambda r: r.choice(LOWER) + r.choice(PLACES).lower() + str(r.randint(40, 99)),
    )
    stems = ("I have", "I want", "We have")
    yield (
        "I have … things",
        8 * WORDS_N * 9,
        lambda r: f"{r.choice(stems)} {r.randint(2, 9)} {_w(r)}{r.choice('!.?')}",
    )
    yield (
        "word and face",
        WORDS_N * 6,
        lambda r: _w(r) + r.choice((":)", ":-)", "<3", ";)", ":D", "^_^")),
    )
    short, ends = ("gr8", "l8", "b4", "w8", "m8", "str8"), ("2u", "4u", "2day", "4me", "4ever")
    yield "short forms", 30 * WORDS_N, lambda r: r.choice(short) + _w(r) + r.choice(ends)
    yield (
        "swapped, year, sign",
        MIDDLES * YEARS * 4,
        lambda r: _m(r).title().translate(CASED) + _y(r) + r.choice("!?.#"),
    )
    yield "name's word", 1500 * WORDS_N, lambda r: f"{_n(r).title()}'s{_w(r)}"
    yield "the word word", WORDS_N**2, lambda r: "the" + _w(r).title() + _w(r).title()
    ways = ("Street", "Road", "Lane", "Avenue", "Way")
    yield (
        "house and street",
        99 * WORDS_N * 5,
        lambda r: f"{r.randint(1, 99)} {_w(r).title()} {r.choice(ways)}",
    )
    yield (
        "name and full day",
        1500 * DAYS,
        lambda r: _n(r).title() + "{:02}.{:02}.{}".format(*_day(r)),
    )
    yield (
        "word of a page's address",
        WORDS_N**2 * 3,
        lambda r: "www." + _w(r) + _w(r) + r.choice((".com", ".org", ".net")),
    )


def _in_words(r: Random) -> tuple[int, str, int]:
    day, month, year = _day(r)
    return day, MONTHS[month - 1], year


def _disguised() -> Iterator[tuple[str, float, Make]]:
    """Words that are not left as they are."""
    one, ten = MIDDLES * 10, MIDDLES * 100
    yield "backwards and year", MIDDLES * YEARS, lambda r: _m(r)[::-1] + _y(r)
    yield (
        "without vowels, year",
        MIDDLES * YEARS,
        lambda r: "".join(c for c in _m(r) if c not in VOWELS) + _y(r),
    )
    yield "signs between", MIDDLES * 4, lambda r: r.choice(".-_ ").join(_m(r))
    yield "letters twice", MIDDLES, lambda r: "".join(c + c for c in _m(r))
    yield "moved behind", ten, lambda r: (lambda w: w[1:] + w[0] + "ay" + _d(r, 2))(_m(r))
    yield (
        "halves exchanged",
        one,
        lambda r: (lambda w: w[len(w) // 2 :] + w[: len(w) // 2] + _d(r, 1))(_m(r)),
    )
    yield (
        "one vowel",
        one * 5,
        lambda r: _m(r).translate(str.maketrans(VOWELS, r.choice(VOWELS) * 5)) + _d(r, 1),
    )
    yield (
        "vowels masked",
        MIDDLES * 5,
        lambda r: _m(r).translate(str.maketrans(VOWELS, r.choice("*.-_#") * 5)),
    )
    yield (
        "alternating",
        ten * 2,
        lambda r: "".join(c.upper() if at % 2 else c for at, c in enumerate(_m(r))) + _d(r, 2),
    )
    yield "broken by digits", ten * 3, lambda r: _split(_m(r), r.randint(2, 4), _d(r, 2))
    yield "broken by a dash", ten, lambda r: _split(_m(r), 3, "-") + _d(r, 2)
    yield "on a keypad", MIDDLES, lambda r: _m(r).translate(KEYPAD)
    yield "in binary", 26**4, lambda r: "".join(f"{ord(c):08b}" for c in r.choices(LOWER, k=4))
    yield "wide letters", one, lambda r: "".join(chr(ord(c) + 0xFEE0) for c in _m(r) + _d(r, 1))
    yield "look-alike letters", one, lambda r: _m(r).translate(LOOK_ALIKE) + _d(r, 1)
    yield "letters in order", ten, lambda r: "".join(sorted(_m(r))) + _d(r, 2)
    yield (
        "word and its reverse",
        WORDS_N * 2,
        lambda r: (lambda w: w + r.choice(("", "-")) + w[::-1])(_w(r)),
    )
    yield "in brackets each", one, lambda r: "".join(f"[{c}]" for c in _m(r).upper())
    yield "one row up", WORDS_N * 10, lambda r: _w(r).translate(ONE_UP) + _d(r, 1)
    yield (
        "drawn out",
        MIDDLES * 20,
        lambda r: (lambda w, at: w[:at] + w[at] * r.randint(3, 6) + w[at + 1 :])(
            _m(r), r.randrange(5)
        ),
    )
    yield (
        "two halves",
        MIDDLES**2,
        lambda r: (lambda a, b: a[: len(a) // 2 + 1] + b[len(b) // 2 :])(_m(r), _m(r)),
    )
    yield "shifted by 13", WORDS_N * 100, lambda r: codecs.encode(_w(r), "rot13") + _d(r, 2)
    yield (
        "in base 64",
        WORDS_N * 10,
        lambda r: base64.b64encode((_w(r) + _d(r, 1)).encode()).decode(),
    )


def _numbers() -> Iterator[tuple[str, float, Make]]:
    """Numbers and codes."""
    yield "colour", 16**6, lambda r: "#" + "".join(r.choices(DIGITS + "abcdef", k=6))
    yield (
        "place on the map",
        90 * 180 * 1e8,
        lambda r: f"{r.uniform(0, 90):.4f},{r.uniform(0, 180):.4f}",
    )
    yield "price", 3 * 99 * 100, lambda r: f"{r.choice('$€£')}{r.randint(1, 99)}.{_d(r, 2)}"
    yield (
        "sum",
        90 * 90,
        lambda r: (lambda a, b: f"{a}+{b}={a + b}")(r.randint(10, 99), r.randint(10, 99)),
    )
    yield (
        "product",
        90 * 90,
        lambda r: (lambda a, b: f"{a}x{b}={a * b}")(r.randint(10, 99), r.randint(10, 99)),
    )
    yield (
        "time of day",
        12 * 60 * 2,
        lambda r: f"{r.randint(1, 12)}:{r.randint(0, 59):02}{r.choice(('am', 'pm'))}",
    )
    yield "move", 64**2 * 3, lambda r: r.choice("-x ").join(_square(r) for _ in range(2))
    yield (
        "three moves",
        (6 * 64) ** 3,
        lambda r: " ".join(r.choice("NBRQK") + _square(r) for _ in range(3)),
    )
    yield (
        "notes",
        7**6,
        lambda r: "".join(r.choices(("do", "re", "mi", "fa", "sol", "la", "ti"), k=6)),
    )
    yield "four initials, year", 26**4 * YEARS, lambda r: "".join(r.choices(UPPER, k=4)) + _y(r)
    yield "digits by dashes", 1e9, lambda r: f"{_d(r, 3)}-{_d(r, 2)}-{_d(r, 4)}"
    yield (
        "every other key",
        600,
        lambda r: (
            r.choice(("qwertyuiop", "asdfghjkl", "1234567890"))[r.randint(0, 1) :: 2] + _d(r, 2)
        ),
    )


def _square(r: Random) -> str:
    return r.choice("abcdefgh") + r.choice("12345678")


def further() -> Iterator[Process]:
    """All of them."""
    for ways in (_common(), _disguised(), _numbers()):
        for name, outcomes, make in ways:
            yield Process(name, log10(outcomes), make)
