"""Ways of making secrets that were written after all of *afterwards* was known, and scored once
before anything was changed for them: what is at hand at home, in a shop and at work.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import MIDDLES, PLACES, WORDS_N, YEARS, Make, _d, _m, _n, _w, _y
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

NAMES_N, PLACES_N = 1500, len(PLACES)
PRAISE = ("rocks", "rules", "forever", "isthebest", "4life", "sucks", "isgreat", "number1")
COLOURS = ("red", "blue", "green", "black", "white", "pink", "grey", "gold", "brown", "yellow")
BLESSED = ("godbless", "viva", "bigup", "byebye", "forour", "imissmy")
JOBS = ("nurse", "teacher", "driver", "baker", "cook", "joiner", "singer", "pilot", "clerk")
SIGNS = ("aries", "taurus", "gemini", "leo", "virgo", "libra", "pisces", "cancer", "scorpio")
NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
NEXT_VOWEL = str.maketrans("aeiou", "eioua")
BLOOD = ("A+", "A-", "B+", "B-", "AB+", "AB-", "0+", "0-")
KINDS = ("cotton", "wool", "silk", "linen", "steel", "glass", "paper", "wood", "iron", "clay")
ROOMS = ("kitchen", "garden", "bedroom", "cellar", "attic", "garage", "office", "shed")


def _p(r: Random) -> str:
    return r.choice(PLACES).lower()


def _tails(word: str) -> str:
    return "".join(word[at:] for at in range(len(word) - 2))


def _vowels_twice(word: str) -> str:
    return "".join(c * 2 if c in "aeiou" else c for c in word)


def _between(word: str, signs: str) -> str:
    return "".join(c + signs[at % len(signs)] for at, c in enumerate(word))


def _spread(word: str, digits: str) -> str:
    third = len(word) // 3 or 1
    return word[:third] + digits[0] + word[third : 2 * third] + digits[1] + word[2 * third :]


def _at_home() -> Iterator[tuple[str, float, Make]]:
    """People, dates and things of one's own."""
    yield (
        "initial and surname-like",
        26 * WORDS_N * 100,
        lambda r: r.choice(LOWER) + "." + _w(r) + _d(r, 2),
    )
    yield "praised", WORDS_N * 8, lambda r: _w(r) + r.choice(PRAISE)
    yield "blessed", NAMES_N * 6 * 10, lambda r: r.choice(BLESSED) + _n(r) + _d(r, 1)
    yield (
        "two of us",
        NAMES_N**2 * 10,
        lambda r: f"{_n(r).title()}+{_n(r).title()}={_d(r, 1)}",
    )
    yield (
        "initials for ever",
        26**2 * 100,
        lambda r: f"{r.choice(UPPER)}+{r.choice(UPPER)}4ever{_d(r, 2)}",
    )
    yield (
        "two birthdays",
        (365 * 2) ** 2,
        lambda r: (
            f"{r.randint(1, 28):02}/{r.randint(1, 12):02}"
            + r.choice("&+")
            + f"{r.randint(1, 28):02}/{r.randint(1, 12):02}"
        ),
    )
    yield "years of", 50 * NAMES_N, lambda r: f"{r.randint(1, 50)}yearsof{_n(r)}"
    yield "sign and year", 9 * YEARS * 100, lambda r: r.choice(SIGNS).title() + _y(r) + _d(r, 2)
    yield "job and town", 9 * PLACES_N * 10, lambda r: r.choice(JOBS) + _p(r).title() + _d(r, 1)
    yield (
        "room and thing",
        8 * WORDS_N * 3,
        lambda r: r.choice(ROOMS) + r.choice("-_ ") + _w(r),
    )
    yield (
        "blood and height",
        8 * 60 * 26,
        lambda r: f"{r.choice(BLOOD)}{r.randint(145, 204)}cm{r.choice(LOWER)}",
    )
    yield (
        "colour of a car",
        10 * 26**2 * 1e3,
        lambda r: r.choice(COLOURS) + "".join(r.choices(UPPER, k=2)) + _d(r, 3),
    )
    yield (
        "the colour thing",
        10 * WORDS_N * 10,
        lambda r: f"The{r.choice(COLOURS).title()}{_w(r).title()}{_d(r, 1)}",
    )
    yield "kind of thing", 10 * WORDS_N * 100, lambda r: f"{r.choice(KINDS)} {_w(r)} {_d(r, 2)}"
    yield "no more", WORDS_N * 100, lambda r: f"NoMore{_w(r).title()}{_d(r, 2)}"
    yield (
        "my password is",
        WORDS_N * 3,
        lambda r: r.choice(("mypasswordis", "thepasswordis", "mypassis")) + _w(r),
    )


def _played() -> Iterator[tuple[str, float, Make]]:
    """Words that are played with."""
    yield (
        "word and its number",
        WORDS_N * 10,
        lambda r: (lambda w: f"{w}{ord(w[0]) - 96}{r.choice(DIGITS)}")(_w(r)),
    )
    yield (
        "framed by a digit",
        WORDS_N * 10,
        lambda r: (lambda d: d * 3 + _w(r) + d * 3)(r.choice(DIGITS)),
    )
    yield (
        "framed by its letter",
        MIDDLES * 100,
        lambda r: (lambda w: w[0].upper() + w + w[0].upper() + _d(r, 2))(_m(r)),
    )
    yield "vowels twice", MIDDLES * 100, lambda r: _vowels_twice(_m(r)) + _d(r, 2)
    yield "the next vowel", MIDDLES * 100, lambda r: _m(r).translate(NEXT_VOWEL) + _d(r, 2)
    yield "first letter off", MIDDLES * 100, lambda r: _m(r)[1:] + _d(r, 2)
    yield (
        "first letter last, capital",
        MIDDLES * 10,
        lambda r: (lambda w: w[1:].title() + w[0] + _d(r, 1))(_m(r)),
    )
    yield "tails", MIDDLES * 10, lambda r: _tails(_m(r)) + _d(r, 1)
    yield "a sign after each letter", MIDDLES * 4, lambda r: _between(_m(r), r.choice("!*-+"))
    yield (
        "two signs after the letters",
        MIDDLES * 12,
        lambda r: _between(_m(r), r.choice(("!?", "-+", "12", "10", "xX", "*-"))),
    )
    yield "two digits within", MIDDLES * 100, lambda r: _spread(_m(r), _d(r, 2))
    yield (
        "counting down to it",
        WORDS_N * 6,
        lambda r: (
            r.choice(("321", "54321", "3-2-1-", "5-4-3-2-1-", "3..2..1..", "10987654321")) + _w(r)
        ),
    )
    yield (
        "small, then with digits for letters",
        MIDDLES,
        lambda r: (lambda w: w + w.upper().translate(str.maketrans("AEIOS", "43105")))(_m(r)),
    )
    yield "shouted word, small word", WORDS_N**2, lambda r: _w(r).upper() + _w(r)
    yield "numbers between words", WORDS_N**2 * 10, lambda r: f"{_w(r)}{r.choice(NUMBERS)}{_w(r)}"
    yield (
        "halves of two words",
        MIDDLES**2,
        lambda r: (lambda a, b: a[: len(a) // 2 + 1] + b[len(b) // 2 :])(_m(r), _m(r)),
    )
    yield (
        "three letters of two, year",
        MIDDLES**2 * YEARS,
        lambda r: _m(r)[:3].title() + _m(r)[:3].title() + _y(r),
    )
    yield "three things", WORDS_N**3, lambda r: f"{_w(r)}, {_w(r)}, {_w(r)}"
    yield (
        "every second letter up",
        MIDDLES * 100,
        lambda r: "".join(c.upper() if at % 2 else c for at, c in enumerate(_m(r))) + _d(r, 2),
    )
    yield (
        "three letters said twice",
        MIDDLES * 100,
        lambda r: (lambda w: w[:3] + "-" + w[:3] + "-" + w + _d(r, 2))(_m(r)),
    )


def _written() -> Iterator[tuple[str, float, Make]]:
    """What is written on things."""
    yield (
        "network of a house",
        NAMES_N * 16**4,
        lambda r: f"{_n(r).title()}Net-" + "".join(r.choices("0123456789abcdef", k=4)),
    )
    yield "country code", 60 * 1e7, lambda r: f"+{r.randint(31, 90)}{_d(r, 7)}"
    yield (
        "address of a device",
        256**2 * WORDS_N,
        lambda r: f"192.168.{r.randint(0, 255)}.{r.randint(0, 255)}{_w(r)}",
    )
    yield "bits and word", 16 * WORDS_N, lambda r: f"{r.randint(0, 15):04b}{_w(r)}"
    yield (
        "hours of a shop",
        12 * 12 * WORDS_N,
        lambda r: f"{_w(r)}{r.randint(1, 12)}to{r.randint(1, 12)}",
    )
    yield "bus to", 200 * PLACES_N, lambda r: f"bus{r.randint(1, 200)}to{_p(r)}"
    yield (
        "shelf",
        26 * 100 * 100 * WORDS_N,
        lambda r: f"{r.choice(UPPER)}{_d(r, 2)}-{_d(r, 2)} {_w(r)}",
    )
    yield (
        "by the pound",
        200 * 100 * WORDS_N,
        lambda r: f"{_w(r)} {r.randint(1, 200)}.{_d(r, 2)}/kg",
    )
    yield (
        "size of a screw",
        20 * 100 * 10,
        lambda r: f"{r.randint(1, 20)}x{_d(r, 2)}mm{r.choice(['', *'!?#*12345'])}",
    )
    yield "charge number", 26 * 1e6, lambda r: f"LOT{r.choice(UPPER)}{_d(r, 6)}"
    yield (
        "until the day",
        28 * 12 * 20 * WORDS_N,
        lambda r: f"{_w(r)} exp {r.randint(1, 28):02}/{r.randint(1, 12):02}/{r.randint(20, 39)}",
    )


def newest() -> list[Process]:
    """All of them."""
    ways = [*_at_home(), *_played(), *_written()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
