"""Ways of making secrets that were written down when *afresh* had been made use of: advice that
people are given and how they follow it, what stands on things in a house, and games with letters.
Scored once before anything was changed for them.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import (
    MIDDLE,
    MIDDLES,
    MONTHS,
    NAMES,
    PLACES,
    WORDS,
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
from scripts.strength.offhand import SELDOM_N, SEPARATORS, SIGNS, _i, _p, _s
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

NAMES_N, PLACES_N = len(NAMES), len(PLACES)
SITES = ("bank", "mail", "shop", "work", "forum", "tax", "phone", "school", "gym", "rail")
BRACKETS = ("()", "[]", "{}", "<>")
FINGERS = ("qaz", "wsx", "edc", "rfv", "tgb", "yhn", "ujm")
KIN = ("mum", "dad", "gran", "aunt", "uncle", "sister", "brother", "son")
VERBS = ("love", "hate", "miss", "need", "want", "like", "see", "know")
TREES = ("oak", "ash", "elm", "fir", "pine", "beech", "maple", "willow")
VOICES = ("Allegro", "Forte", "Piano", "Largo", "Presto", "Andante")
COURTS = ("king", "queen", "bishop", "knight", "rook", "pawn")
LEET = str.maketrans("aeiost", "@3!0$7")
PHONE = ("0170", "0151", "0160", "0176")
MORE = ("plus", "and", "with", "without", "versus", "or")


def _advised() -> Iterator[tuple[str, float, Make]]:
    """What people are told to do, as they do it."""
    yield (
        "Word of the site, first",
        10 * WORDS_N * 100,
        lambda r: f"{r.choice(SITES)}{_w(r).title()}{_d(r, 2)}",
    )
    yield (
        "site in brackets",
        10 * 4 * WORDS_N * 10,
        lambda r: _bracketed(r.choice(SITES), r) + _w(r) + _d(r, 1),
    )
    yield (
        "word, sign, site, year",
        WORDS_N * 6 * 10 * YEARS,
        lambda r: f"{_w(r)}{r.choice(SIGNS)}{r.choice(SITES)}{_y(r)}",
    )
    yield (
        "a capital, a sign, a digit behind",
        MIDDLES * 60,
        lambda r: _m(r).title() + r.choice(SIGNS) + _d(r, 1),
    )
    yield (
        "a sign in front, a digit behind",
        MIDDLES * 60,
        lambda r: r.choice(SIGNS) + _m(r) + _d(r, 1),
    )
    yield (
        "the digit in the middle of two words",
        WORDS_N**2 * 100,
        lambda r: _w(r) + _d(r, 2) + _w(r).title(),
    )
    yield (
        "three words, digits and a sign",
        float(WORDS_N) ** 3 * 60,
        lambda r: _w(r) + _w(r) + _w(r) + _d(r, 1) + r.choice(SIGNS),
    )
    yield (
        "swapped letters and a year",
        MIDDLES * YEARS,
        lambda r: _m(r).title().translate(LEET) + _y(r),
    )
    yield (
        "the month it was changed in",
        WORDS_N * 12 * 10,
        lambda r: f"{_w(r)}{r.randint(1, 12):02}{r.randint(2017, 2026)}",
    )
    yield "next of the last one", WORDS_N * 100, lambda r: f"{_w(r).title()}#{r.randint(1, 99):03}"
    yield (
        "first syllables of four words",
        len({word[:2] for word in MIDDLE}) ** 4.0,
        lambda r: "".join(_m(r)[:2].title() for _ in range(4)),
    )
    yield "initials of a sentence and its year", 26.0**7 * YEARS, lambda r: _i(r, 7) + _y(r)
    yield "seldom word, digits in front", SELDOM_N * 1e3, lambda r: _d(r, 3) + _s(r)
    yield (
        "I verb my word",
        8 * WORDS_N * 6,
        lambda r: f"I{r.choice(VERBS)}my{_w(r)}{r.choice(SIGNS)}",
    )
    yield "word plus word", 6 * WORDS_N**2, lambda r: f"{_w(r)}{r.choice(MORE)}{_w(r)}"
    yield (
        "kin and a day",
        8 * 365,
        lambda r: "{}{:02}{:02}".format(r.choice(KIN).title(), *_day(r)[:2]),
    )


def _written() -> Iterator[tuple[str, float, Make]]:
    """What stands on things."""
    yield "mobile number", 4 * 1e7, lambda r: r.choice(PHONE) + _d(r, 7)
    yield (
        "shelf, box, row",
        26 * 1e4 * 26,
        lambda r: f"{r.choice(UPPER)}{_d(r, 2)}-{_d(r, 2)}{r.choice(UPPER)}",
    )
    yield (
        "best before",
        WORDS_N * 12 * 10,
        lambda r: f"{_w(r)} {r.randint(1, 12):02}/{r.randint(20, 29)}",
    )
    yield "meter reading", WORDS_N * 1e5, lambda r: f"{_w(r)} {_d(r, 5)} kWh"
    yield "key of a locker", 1e3 * 26 * 4, lambda r: _bracketed(_d(r, 3) + r.choice(UPPER), r)
    yield "tempo and opus", 6 * 150 * 6, lambda r: f"{r.choice(VOICES)}Op.{r.randint(1, 150)}"
    yield (
        "tree at house",
        8 * 200 * PLACES_N,
        lambda r: f"{r.choice(TREES)}{r.randint(1, 200)}{_p(r)}",
    )
    yield "price of word", WORDS_N * 1e4, lambda r: f"{_w(r)}{_d(r, 2)},{_d(r, 2)}"
    yield (
        "train at time",
        1440 * PLACES_N,
        lambda r: f"{r.randint(0, 23):02}:{r.randint(0, 59):02} {_p(r)}",
    )
    yield "seat, name", 40 * 6 * NAMES_N, lambda r: f"{r.randint(1, 40)}{r.choice('ABCDEF')}{_n(r)}"
    yield "serial of eight", 26.0**2 * 1e6, lambda r: "".join(r.choices(UPPER, k=2)) + _d(r, 6)
    yield (
        "month.word.month",
        12**2 * WORDS_N,
        lambda r: f"{r.choice(MONTHS)[:3].lower()}.{_w(r)}.{r.choice(MONTHS)[:3].lower()}",
    )


def _played() -> Iterator[tuple[str, float, Make]]:
    """Games with letters."""
    yield (
        "each vowel doubled",
        MIDDLES * 100,
        lambda r: "".join(c * 2 if c in "aeiou" else c for c in _m(r)) + _d(r, 2),
    )
    yield (
        "each vowel in capitals and a sign",
        MIDDLES * 6,
        lambda r: "".join(c.upper() if c in "aeiou" else c for c in _m(r)) + r.choice(SIGNS),
    )
    yield (
        "word with its initial in front",
        MIDDLES * 1e3,
        lambda r: (lambda w: f"{w[0].upper()}-{w}{_d(r, 3)}")(_m(r)),
    )
    yield "word spelt with dashes and digits", MIDDLES * 100, lambda r: "-".join(_m(r) + _d(r, 2))
    yield "two words, second backwards", WORDS_N**2, lambda r: _w(r) + _w(r)[::-1]
    yield (
        "fingers and word",
        7 * 7 * WORDS_N,
        lambda r: r.choice(FINGERS) + r.choice(FINGERS) + _w(r),
    )
    yield "vowels first", MIDDLES * 100, lambda r: _sorted_by(_m(r), "aeiou") + _d(r, 2)
    yield "shifted one, then a year", MIDDLES * YEARS, lambda r: _one_on(_m(r)) + _y(r)
    yield (
        "word, its vowels again",
        MIDDLES * 10,
        lambda r: (lambda w: w + "".join(c for c in w if c in "aeiou"))(_m(r)) + _d(r, 1),
    )
    yield "two words, capitals by turns", WORDS_N**2, lambda r: _by_turns(_w(r) + _w(r))
    yield "chessmen", 6.0**3 * 100, lambda r: "".join(r.choices(COURTS, k=3)) + _d(r, 2)
    yield (
        "every letter and its next",
        MIDDLES,
        lambda r: "".join(c + chr((ord(c) - 96) % 26 + 97) for c in _m(r)),
    )
    yield (
        "last letters of words",
        len({word[-2:] for word in WORDS}) ** 4.0,
        lambda r: "".join(_w(r)[-2:] for _ in range(4)),
    )
    yield (
        "word between its halves",
        MIDDLES * 10,
        lambda r: (lambda w: w[: len(w) // 2] + w + w[len(w) // 2 :])(_m(r)) + _d(r, 1),
    )


def _chance() -> Iterator[tuple[str, float, Make]]:
    """Drawn, which must not be taken for less."""
    yield (
        "10 of letters and digits, drawn",
        62.0**10,
        lambda r: "".join(r.choices(LOWER + UPPER + DIGITS, k=10)),
    )
    yield (
        "three of the six thousand, drawn",
        float(WORDS_N) ** 3,
        lambda r: r.choice(SEPARATORS).join(_w(r) for _ in range(3)),
    )


def _bracketed(text: str, r: Random) -> str:
    brackets = r.choice(BRACKETS)
    return f"{brackets[0]}{text}{brackets[1]}"


def _sorted_by(word: str, first: str) -> str:
    return "".join(sorted(word, key=lambda c: c not in first))


def _one_on(word: str) -> str:
    return "".join(chr((ord(c) - 96) % 26 + 97) for c in word)


def _by_turns(text: str) -> str:
    return "".join(c.upper() if at % 2 else c for at, c in enumerate(text))


def thereafter() -> list[Process]:
    """All of them."""
    ways = [*_advised(), *_written(), *_played(), *_chance()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
