"""Ways of making secrets that were written after letters alone, groups and digits put in were
known, and scored once before anything was changed for them: home-made rules of many kinds.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import (
    MIDDLES,
    MONTHS,
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

NAMES_N, PLACES_N = 1500, len(PLACES)
VERBS = ("run", "jump", "eat", "drink", "sing", "read", "ride", "swim", "play", "cook")
UNITS = ("kg", "km", "cm", "min", "pcs", "ltr", "mph", "euro")
FOODS = ("tea", "milk", "bread", "rice", "soup", "cake", "eggs", "fish", "beer", "wine")
BRACKETS = (("(", ")"), ("[", "]"), ("{", "}"), ("<", ">"))
FINGERS = ("qaz", "wsx", "edc", "rfv", "tgb", "yhn", "ujm")
LETTERS_IN_SIGNS = str.maketrans("aesiolt", "@€$!01+")
SHIFTED = str.maketrans(DIGITS, ")!@#$%^&*(")


def _p(r: Random) -> str:
    return r.choice(PLACES).lower()


def _capital_at(word: str, at: int) -> str:
    return word[:at] + word[at:].capitalize()


def _pairs_swapped(word: str) -> str:
    return "".join(word[at : at + 2][::-1] for at in range(0, len(word), 2))


def _put(word: str, at: int, what: str) -> str:
    return word[:at] + what + word[at:]


def _each_next(word: str) -> str:
    return "".join(chr((ord(c) - 97 + at) % 26 + 97) for at, c in enumerate(word, 1))


def _outside_in(word: str) -> str:
    half = (len(word) + 1) // 2
    return "".join(a + b for a, b in zip(word[:half], word[half:][::-1] + " ", strict=False))


def _phrases() -> Iterator[tuple[str, float, Make]]:
    """Short phrases with a number in them."""
    yield (
        "I verb every day",
        10 * WORDS_N * 24,
        lambda r: f"i{r.choice(VERBS)}{_w(r)}at{r.randint(1, 24)}",
    )
    yield (
        "to do",
        10 * WORDS_N * 30,
        lambda r: f"{r.choice(VERBS).title()} {r.randint(1, 30)} {_w(r)}",
    )
    yield (
        "shopping",
        10**2 * 20**2,
        lambda r: f"{r.randint(1, 20)}{r.choice(FOODS)}{r.randint(1, 20)}{r.choice(FOODS)}",
    )
    yield ("meal", 10**3, lambda r: "&".join(r.sample(FOODS, 3)).title())
    yield (
        "so much of it",
        WORDS_N * 100 * 8,
        lambda r: f"{_w(r)}{r.randint(1, 100)}{r.choice(UNITS)}",
    )
    yield ("years in", 60 * PLACES_N * 12, lambda r: f"{r.randint(1, 12)} years in {_p(r)} {_y(r)}")
    yield (
        "born there",
        PLACES_N * YEARS * 26,
        lambda r: f"{_p(r).title()}*{_y(r)}{r.choice(LOWER)}",
    )
    yield ("from there to there", PLACES_N**2, lambda r: f"{_p(r)}->{_p(r)}")
    yield ("there, zip", PLACES_N * 1e5, lambda r: f"{_p(r).title()}{_d(r, 5)}")
    yield (
        "trip",
        PLACES_N * 12 * 40,
        lambda r: f"{_p(r).title()}{r.choice(MONTHS)[:3]}{r.randint(1980, 2019)}",
    )
    yield (
        "with two brackets",
        WORDS_N**2 * 4,
        lambda r: "{1}{0}{2}{3}".format(_w(r), *r.choice(BRACKETS), _w(r)),
    )
    yield ("equal to", WORDS_N**2, lambda r: f"{_w(r)}!={_w(r)}")
    yield ("a word, three dots", WORDS_N**2, lambda r: f"{_w(r)}...{_w(r)}?")
    yield ("said by", NAMES_N * WORDS_N, lambda r: f'{_n(r)}: "{_w(r)}"')
    yield ("word by word, less", WORDS_N**2 * 90, lambda r: f"{_w(r)}{_d(r, 2)}{_w(r)[:3]}")
    yield (
        "three words, first letters up",
        WORDS_N**3,
        lambda r: f"{_w(r).title()}{_w(r)}{_w(r).title()}",
    )
    yield (
        "day's word",
        7 * WORDS_N * 31,
        lambda r: (
            r.choice(("mon", "tue", "wed", "thu", "fri", "sat", "sun"))
            + f"{r.randint(1, 31)}{_w(r)}"
        ),
    )
    yield ("two years of a name", NAMES_N * YEARS**2, lambda r: f"{_n(r)}{_y(r)[2:]}{_y(r)}")


def _changed() -> Iterator[tuple[str, float, Make]]:
    """Words changed by a rule."""
    yield (
        "signs for letters",
        WORDS_N * 100,
        lambda r: _w(r).translate(LETTERS_IN_SIGNS) + _d(r, 2),
    )
    yield (
        "capital in the middle",
        MIDDLES * 3 * YEARS,
        lambda r: _capital_at(_m(r), r.randint(2, 4)) + _y(r),
    )
    yield ("pairs exchanged", MIDDLES * 100, lambda r: _pairs_swapped(_m(r)) + _d(r, 2))
    yield ("word in a word", MIDDLES * WORDS_N, lambda r: _put(_m(r), 3, _w(r)))
    yield ("year in a word", MIDDLES * YEARS, lambda r: _put(_m(r), 3, _y(r)))
    yield ("signs in a word", MIDDLES * 25, lambda r: _put(_m(r), 2, r.choice("!?*#-") * 2))
    yield ("each letter one more", MIDDLES * 10, lambda r: _each_next(_m(r)) + _d(r, 1))
    yield ("from outside in", MIDDLES * 10, lambda r: _outside_in(_m(r)).strip() + _d(r, 1))
    yield (
        "year with shift held",
        WORDS_N * YEARS,
        lambda r: _w(r).title() + _y(r).translate(SHIFTED),
    )
    yield (
        "year between brackets",
        WORDS_N * YEARS * 4,
        lambda r: "{1}{0}{2}{3}".format(_y(r), *r.choice(BRACKETS), _w(r)),
    )
    yield (
        "word, dash, backwards",
        MIDDLES * 3,
        lambda r: (lambda w: w + r.choice("-_.") + w[::-1])(_m(r)),
    )
    yield (
        "half a word twice",
        MIDDLES * 100,
        lambda r: (lambda w: w[:4] + w[:4] + _d(r, 2))(_m(r)),
    )
    yield (
        "letters numbered behind",
        MIDDLES,
        lambda r: (lambda w: w + "".join(str((ord(c) - 96) % 10) for c in w))(_m(r)),
    )
    yield (
        "vowels left out twice",
        WORDS_N**2,
        lambda r: "".join(c for c in _w(r) + _w(r) if c not in "aeiou"),
    )
    yield (
        "capitals but one",
        MIDDLES * 5 * 10,
        lambda r: (lambda w: w[:2].upper() + w[2] + w[3:].upper() + _d(r, 1))(_m(r)),
    )
    yield ("ending in z", WORDS_N * 100, lambda r: _w(r).rstrip("s") + "zz" + _d(r, 2))


def _keys() -> Iterator[tuple[str, float, Make]]:
    """Keys, numbers and codes."""
    yield ("columns of keys", 7 * 6 * 2, lambda r: "".join(r.sample(FINGERS, 2)) + r.choice("!1"))
    yield (
        "columns and word",
        7 * WORDS_N * 100,
        lambda r: r.choice(FINGERS).upper() + _w(r) + _d(r, 2),
    )
    yield (
        "day and time",
        365 * 60 * 1440,
        lambda r: "{:02}.{:02}.{} ".format(*_day(r)) + f"{r.randint(0, 23)}:{r.randint(0, 59):02}",
    )
    yield (
        "two of a kind",
        1e4 * 26,
        lambda r: f"{_d(r, 2)}{r.choice(UPPER)}{_d(r, 2)}{r.choice(UPPER)}",
    )
    yield (
        "letters thrice",
        26**3 * 100,
        lambda r: "".join(c * 3 for c in r.choices(LOWER, k=3)) + _d(r, 2),
    )
    yield ("from and to", 1e4, lambda r: f"{_d(r, 2)}-{_d(r, 2)}={r.choice('xyz')}")
    yield ("digits by dots", 1e6, lambda r: f"{_d(r, 2)}.{_d(r, 2)}.{_d(r, 2)}")
    yield ("PIN twice", 1e4 * 3, lambda r: (lambda d: d + r.choice(".-#") + d)(_d(r, 4)))
    yield ("PIN and name", 1e4 * NAMES_N, lambda r: f"{_d(r, 4)}{_n(r).upper()}")
    yield ("initials and PIN", 26**2 * 1e6, lambda r: f"{''.join(r.choices(UPPER, k=2))}{_d(r, 6)}")
    yield (
        "letter, number, by turns",
        26**3 * 1e3,
        lambda r: "".join(r.choice(LOWER) + _d(r, 1) for _ in range(3)),
    )
    yield ("star, PIN, hash", 1e6, lambda r: f"*{_d(r, 6)}#")


def afterwards() -> list[Process]:
    """All of them."""
    ways = [*_phrases(), *_changed(), *_keys()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
