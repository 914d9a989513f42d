"""Ways of making secrets that were written after all of *newest* was known. Scored once before
anything was changed for them.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import MIDDLES, PLACES, WORDS_N, YEARS, Make, _d, _m, _n, _w, _y
from scripts.strength.processes import LOWER, UPPER, Process

NAMES_N, PLACES_N = 1500, len(PLACES)
TITLES = ("king", "queen", "lord", "lady", "captain", "doctor", "saint", "uncle", "aunt", "master")
FEELING = ("happy", "sad", "angry", "tired", "proud", "lucky", "crazy", "sweet", "lonely", "brave")
WHERE = ("under", "behind", "over", "beside", "without", "before", "after", "near")
DISHES = ("pizza", "sushi", "pasta", "curry", "salad", "tacos", "noodles", "waffles", "kebab")
STRONG = ("super", "mega", "ultra", "hyper", "turbo", "maxi", "mini", "extra")
SHORT = ("asap", "lol", "omg", "fyi", "btw", "imho", "brb", "afk", "diy", "rip")
LEFT_RIGHT = (("qwert", "yuiop"), ("asdfg", "hjkl;"), ("zxcvb", "nm,./"))


def _p(r: Random) -> str:
    return r.choice(PLACES).lower()


def _every(word: str, step: int) -> str:
    return "".join(c.upper() if at % step == 0 else c for at, c in enumerate(word))


def _said() -> Iterator[tuple[str, float, Make]]:
    """Said of people and things."""
    yield "title and name", 10 * NAMES_N * 10, lambda r: r.choice(TITLES) + _n(r).title() + _d(r, 1)
    yield (
        "feeling thing",
        10 * WORDS_N * 100,
        lambda r: r.choice(FEELING) + _w(r).title() + _d(r, 2),
    )
    yield "where what", 8 * WORDS_N**2, lambda r: f"{_w(r)} {r.choice(WHERE)} {_w(r)}"
    yield (
        "dish at place",
        9 * PLACES_N * 10,
        lambda r: f"{r.choice(DISHES)}in{_p(r).title()}{_d(r, 1)}",
    )
    yield "super", 8 * WORDS_N * 100, lambda r: r.choice(STRONG) + _w(r) + _d(r, 2)
    yield "asap", 10 * WORDS_N * 3, lambda r: _w(r) + r.choice("-_.") + r.choice(SHORT).upper()
    yield (
        "so and so's thing, year",
        NAMES_N * WORDS_N * YEARS,
        lambda r: f"{_n(r).title()}s{_w(r).title()}{_y(r)}",
    )
    yield (
        "dont do",
        WORDS_N * 4 * 10,
        lambda r: (
            r.choice(("dont", "never", "please", "always")) + _w(r).title() + r.choice("!?.*#$%&+=")
        ),
    )
    yield "count of people", 20 * NAMES_N**2, lambda r: f"{r.randint(1, 20)}{_n(r)}s&{_n(r)}"
    yield (
        "since and until",
        YEARS * 20 * WORDS_N,
        lambda r: f"{_w(r)} {_y(r)}-{r.randint(2020, 2039)}",
    )


def _bent() -> Iterator[tuple[str, float, Make]]:
    """Words that are bent."""
    yield "every third up", MIDDLES * 100, lambda r: _every(_m(r), 3) + _d(r, 2)
    yield (
        "ends swapped",
        MIDDLES * 100,
        lambda r: (lambda w: w[-1] + w[1:-1] + w[0] + _d(r, 2))(_m(r)),
    )
    yield (
        "last three in front",
        MIDDLES * 100,
        lambda r: (lambda w: w[-3:] + w[:-3] + _d(r, 2))(_m(r)),
    )
    yield "first four and year", MIDDLES * YEARS, lambda r: _m(r)[:4] + _y(r)
    yield (
        "x for vowels",
        MIDDLES * 100,
        lambda r: "".join("x" if c in "aeiou" else c for c in _m(r)) + _d(r, 2),
    )
    yield (
        "vowels up",
        MIDDLES * 100,
        lambda r: "".join(c.upper() if c in "aeiou" else c for c in _m(r)) + _d(r, 2),
    )
    yield (
        "year digit by digit behind each two",
        MIDDLES * YEARS,
        lambda r: (lambda w, y: w[:2] + y[:2] + w[2:4] + y[2:] + w[4:])(_m(r), _y(r)),
    )
    yield (
        "dashes in the middle",
        MIDDLES * 3 * 10,
        lambda r: (lambda w: w[: len(w) // 2] + r.choice("-_~") * 2 + w[len(w) // 2 :] + _d(r, 1))(
            _m(r)
        ),
    )
    yield "th for s", WORDS_N * 100, lambda r: _w(r).replace("s", "th") + _d(r, 2)
    yield (
        "word and its mirror by a digit",
        MIDDLES * 10,
        lambda r: (lambda w: w + _d(r, 1) + w[::-1])(_m(r)),
    )


def _keyed() -> Iterator[tuple[str, float, Make]]:
    """Keys and codes."""
    yield (
        "a hand's row and word",
        6 * WORDS_N * 10,
        lambda r: r.choice(r.choice(LEFT_RIGHT)) + _w(r).title() + _d(r, 1),
    )
    yield (
        "two doors",
        26**2 * 1e4,
        lambda r: f"{r.choice(UPPER)}{_d(r, 2)}/{r.choice(UPPER)}{_d(r, 2)}",
    )
    yield "account", PLACES_N * 1e6, lambda r: f"{_p(r)[:4].upper()}-{_d(r, 6)}"
    yield (
        "shift and number",
        31 * 3 * WORDS_N,
        lambda r: f"{r.choice(('early', 'late', 'night'))}{r.randint(1, 31)}{_w(r)}",
    )
    yield (
        "name, letter, three digits",
        NAMES_N * 26 * 1e3,
        lambda r: f"{_n(r).title()}.{r.choice(UPPER)}{_d(r, 3)}",
    )
    yield (
        "digit, three letters, twice",
        (10 * 26**3) ** 2,
        lambda r: "".join(_d(r, 1) + "".join(r.choices(LOWER, k=3)) for _ in range(2)),
    )
    yield (
        "percent off",
        20 * WORDS_N * 3,
        lambda r: f"{5 * r.randint(1, 20)}%{r.choice(('off', 'more', 'less'))}{_w(r)}",
    )
    yield (
        "table for",
        20 * 24 * NAMES_N,
        lambda r: f"{r.randint(1, 20)}at{r.randint(0, 23)}h{_n(r)}",
    )


def blind() -> list[Process]:
    """All of them."""
    ways = [*_said(), *_bent(), *_keyed()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
