"""Ways of making secrets that were written before a second way of reading a text was: common and
rare ones, with some drawn by chance among them. Scored once before anything was changed for them.
"""

from collections.abc import Iterator
from math import log10
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
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

NAMES_N, PLACES_N = len(NAMES), len(PLACES)
SIGNS = "!?.#*$"
DRINKS = ("coffee", "tea", "cola", "wine", "beer", "milk", "juice", "water")
GAMES = ("chess", "darts", "tennis", "hockey", "rugby", "soccer", "poker", "bingo")
RULES = ("always", "never", "only", "just", "still", "again", "maybe", "once")
TONGUES = ("hola", "ciao", "hallo", "bonjour", "salut", "ahoj", "hej", "aloha")
SIZES = ("big", "small", "tiny", "huge", "old", "new", "fat", "long", "wild", "mad")
TITLES = ("King", "Queen", "Lord", "Lady", "Captain", "Doctor", "Saint", "Uncle")
GREEKS = ("alpha", "beta", "gamma", "delta", "omega", "sigma", "kappa", "theta")
STEPS = ("first", "second", "third", "final", "last", "next", "other", "main")
PETS = ("Rex", "Bello", "Mimi", "Felix", "Luna", "Max", "Bruno", "Kitty")
KEYS_APART = str.maketrans("aeiou", "qwrty")
SHIFTED = dict(zip(DIGITS, ")!@#$%^&*(", strict=True))
SHORT = {
    "for": "4",
    "to": "2",
    "you": "u",
    "are": "r",
    "be": "b",
    "and": "n",
    "ate": "8",
    "one": "1",
    "see": "c",
    "why": "y",
}
VERBS = ("walk", "sleep", "sing", "cook", "read", "run", "swim", "dance", "paint", "write")
FREQUENT = ("daily", "weekly", "at night", "on sunday", "all day", "in the morning", "alone", "now")


def _p(r: Random) -> str:
    return r.choice(PLACES)


def _common() -> Iterator[tuple[str, float, Make]]:
    """What many might do."""
    yield (
        "drink of the year",
        8 * YEARS * 6,
        lambda r: f"{r.choice(DRINKS).title()}{_y(r)}{r.choice(SIGNS)}",
    )
    yield "game and two digits", 8 * 100 * 6, lambda r: r.choice(GAMES) + _d(r, 2) + r.choice(SIGNS)
    yield "adverb word", 8 * WORDS_N * 10, lambda r: f"{r.choice(RULES)}{_w(r)}{_d(r, 1)}"
    yield "hello name", 8 * NAMES_N * 6, lambda r: f"{r.choice(TONGUES)}{_n(r).title()}!{_d(r, 1)}"
    yield "size and thing", 10 * WORDS_N * 100, lambda r: f"{r.choice(SIZES)}{_w(r)}{_d(r, 2)}"
    yield (
        "title of a name",
        8 * NAMES_N * 99,
        lambda r: f"{r.choice(TITLES)}{_n(r).title()}{_d(r, 2)}",
    )
    yield (
        "Greek letter and word",
        8 * WORDS_N * 10,
        lambda r: f"{r.choice(GREEKS)}{_w(r)}{_d(r, 1)}",
    )
    yield "step and word", 8 * WORDS_N, lambda r: f"my{r.choice(STEPS)}{_w(r)}"
    yield (
        "pet and its years",
        8 * 20 * 6,
        lambda r: f"{r.choice(PETS)}{r.randint(1, 20)}yrs{r.choice(SIGNS)}",
    )
    yield (
        "verb when",
        10 * 8 * 6,
        lambda r: f"I {r.choice(VERBS)} {r.choice(FREQUENT)}{r.choice(SIGNS)}",
    )
    yield (
        "name was born in",
        NAMES_N * PLACES_N,
        lambda r: f"{_n(r).title()}is from {_p(r).title()}",
    )
    yield (
        "word of month",
        WORDS_N * 12 * 10,
        lambda r: f"{_w(r).title()}{r.choice(MONTHS)[:3]}{_d(r, 1)}",
    )
    yield (
        "two digits of each parent",
        NAMES_N**2 * 1e4,
        lambda r: f"{_n(r)}{_d(r, 2)}{_n(r)}{_d(r, 2)}",
    )
    yield (
        "word by its twin",
        WORDS_N * 10,
        lambda r: (lambda w, d: f"{w}{d}{w.title()}")(_w(r), _d(r, 1)),
    )
    yield (
        "full stop after each",
        WORDS_N**3,
        lambda r: f"{_w(r).title()}. {_w(r).title()}. {_w(r).title()}.",
    )
    yield "plus one", WORDS_N * NAMES_N, lambda r: f"{_w(r)}+{_n(r)}=1"
    yield "best in town", WORDS_N * PLACES_N, lambda r: f"best{_w(r)}in{_p(r)}"
    yield (
        "year before and after",
        YEARS * WORDS_N,
        lambda r: (lambda y: f"{y}{_w(r)}{y[2:]}")(_y(r)),
    )
    yield (
        "name and shifted year",
        NAMES_N * YEARS,
        lambda r: _n(r) + "".join(SHIFTED[c] for c in _y(r)),
    )
    yield "birthday boy", NAMES_N * 28 * 12, lambda r: "{}bday{}{}".format(_n(r), *_day(r)[:2])
    yield (
        "capital initials, word",
        26**2 * WORDS_N,
        lambda r: "".join(r.choices(UPPER, k=2)) + _w(r),
    )
    yield (
        "word, initials, digits",
        WORDS_N * 26**2 * 100,
        lambda r: f"{_w(r)}{''.join(r.choices(LOWER, k=2))}{_d(r, 2)}",
    )
    yield "my name is", NAMES_N * 100, lambda r: f"mynameis{_n(r).title()}{_d(r, 2)}"
    yield "no word no word", WORDS_N**2, lambda r: f"no {_w(r)} no {_w(r)}"
    yield "and friends", NAMES_N * NAMES_N * 10, lambda r: f"{_n(r)}and{_n(r)}{_d(r, 1)}"


def _rare() -> Iterator[tuple[str, float, Make]]:
    """What few do."""
    yield (
        "letters and counts",
        26.0**3 * 9**3,
        lambda r: "".join(r.choice(LOWER) + r.choice("123456789") for _ in range(3)),
    )
    yield "two syllables, number, two", 100.0**2 * 100, lambda r: f"{_c(r)}{_d(r, 2)}{_c(r)}"
    yield "vowels by the keys above", MIDDLES * 10, lambda r: _m(r).translate(KEYS_APART) + _d(r, 1)
    yield (
        "short forms in a row",
        10.0**5,
        lambda r: (
            "".join(r.choice(list(SHORT.values())) for _ in range(3))
            + r.choice(list(SHORT))
            + r.choice(list(SHORT))
        ),
    )
    yield "word cut at each end", MIDDLES * 100, lambda r: _m(r)[1:-1] + _d(r, 2)
    yield (
        "letters moved round by one",
        MIDDLES * 10,
        lambda r: (lambda w: w[1:] + w[0])(_m(r)) + _d(r, 1),
    )
    yield (
        "middle letter doubled up",
        MIDDLES * 10,
        lambda r: (lambda w: w[:2] + w[2].upper() * 2 + w[3:])(_m(r)) + _d(r, 1),
    )
    yield (
        "seat and row",
        40 * 6 * 1000,
        lambda r: f"row{r.randint(1, 40)}{r.choice('ABCDEF')}-{_d(r, 3)}",
    )
    yield (
        "score of two places",
        PLACES_N**2 * 36,
        lambda r: f"{_p(r)[:3].upper()}{r.randint(0, 5)}-{r.randint(0, 5)}{_p(r)[:3].upper()}",
    )
    yield "per hour", WORDS_N * 200, lambda r: f"{r.randint(1, 200)}{_w(r)}s/h"
    yield "word in stars", WORDS_N * 10, lambda r: f"***{_w(r)}{_d(r, 1)}***"
    yield "year with its digits apart", YEARS * WORDS_N, lambda r: "-".join(_y(r)) + _w(r)
    yield (
        "hours of work",
        24 * 24 * WORDS_N,
        lambda r: f"{r.randint(0, 23)}to{r.randint(0, 23)}{_w(r)}",
    )
    yield (
        "note to a file",
        WORDS_N * 100 * 4,
        lambda r: f"{_w(r)}_{_d(r, 2)}.{r.choice(('doc', 'txt', 'pdf', 'jpg'))}",
    )
    yield "question of a name", NAMES_N * WORDS_N, lambda r: f"is{_n(r).title()}{_w(r)}?"
    yield (
        "word less a letter, sign for it",
        MIDDLES * 5 * 6,
        lambda r: (lambda w, at: w[:at] + r.choice(SIGNS) + w[at + 1 :])(_m(r), r.randint(1, 4)),
    )
    yield (
        "three letters thrice the sign",
        26.0**3 * 6,
        lambda r: (lambda t, s: t + s + t + s + t)("".join(r.choices(LOWER, k=3)), r.choice(SIGNS)),
    )
    yield (
        "colour code and word",
        16.0**3 * WORDS_N,
        lambda r: f"#{''.join(r.choices('0123456789abcdef', k=3))}{_w(r)}",
    )
    yield (
        "first halves, capitals",
        WORDS_N**2,
        lambda r: _w(r)[:3].upper() + _w(r)[:3].upper() + "01",
    )
    yield (
        "word and keys beside it",
        WORDS_N * 30,
        lambda r: (
            _w(r)
            + r.choice(("qwe", "asd", "zxc", "wer", "sdf", "xcv", "rty", "fgh", "vbn", "yui"))
            + r.choice("123")
        ),
    )


def _chance() -> Iterator[tuple[str, float, Make]]:
    """Drawn, which must not be taken for less."""
    letters = LOWER + UPPER + DIGITS
    yield "8 of letters and digits, drawn", 62.0**8, lambda r: "".join(r.choices(letters, k=8))
    yield "10 of small letters, drawn", 26.0**10, lambda r: "".join(r.choices(LOWER, k=10))
    yield "12 of three kinds, drawn", 65.0**12, lambda r: "".join(r.choices(letters + "!-_", k=12))
    yield "9 digits, drawn", 1e9, lambda r: _d(r, 9)
    yield "four words, drawn", float(WORDS_N) ** 4, lambda r: " ".join(_w(r) for _ in range(4))


def _c(r: Random) -> str:
    return r.choice("bcdfghklmnprstvz") + r.choice("aeiou")


def untried() -> list[Process]:
    """All of them."""
    ways = [*_common(), *_rare(), *_chance()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
