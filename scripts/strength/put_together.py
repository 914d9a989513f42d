"""Texts of two to four parts that people use, touching or with one sign between: 41 kinds of parts,
drawn at random, however seldom anybody would put just these together.
"""

from collections.abc import Callable
from functools import partial
from math import log10
from random import Random
from string import ascii_lowercase

from newknot.core.shipped import shipped_lines
from scripts.strength.further import CASED, MONTHS, NAMES, PLACES, WORDS, _d, _w
from scripts.strength.processes import CONSONANTS, DIGITS, LOWER, UPPER, VOWELS, Process

HOW_MANY, SEED = 2000, 3
Part = Callable[[Random], str]

SURNAMES = shipped_lines("surnames.txt.gz")[:2000]
JOINERS = ("", "", "", "-", "_", ".", " ", "@", "&", "+", "/")
SIGNS = "!?.#*$@&"
NUMBERS = (
    *("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven"),
    *("twelve", "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"),
)
ANIMALS = (
    *("dog", "cat", "horse", "tiger", "lion", "bear", "wolf", "eagle", "shark", "snake", "rabbit"),
    *("panda", "monkey", "dragon", "fox", "owl"),
)
COLOURS = ("red", "blue", "green", "black", "white", "yellow", "purple", "orange", "pink", "brown")
DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")


def _of(*choices: str) -> tuple[float, Part]:
    return len(choices), lambda r: r.choice(choices)


def _letters(alphabet: str, size: int, r: Random) -> str:
    return "".join(r.choices(alphabet, k=size))


def _day(form: str, r: Random) -> str:
    year = r.randint(1950, 2019)
    return form.format(d=r.randint(1, 28), m=r.randint(1, 12), y=year, short=year % 100)


def _again(signs: str, least: int, most: int, r: Random) -> str:
    return r.choice(signs) * r.randint(least, most)


PARTS: tuple[tuple[float, Part], ...] = (
    _of(*WORDS),
    (len(WORDS), lambda r: _w(r).title()),
    (len(WORDS), lambda r: _w(r).upper()),
    (len(WORDS), lambda r: _w(r).translate(CASED)),
    (len(WORDS), lambda r: _w(r)[::-1]),
    _of(*NAMES),
    _of(*(name.title() for name in NAMES)),
    _of(*(name.title() for name in SURNAMES)),
    _of(*PLACES),
    _of(*MONTHS),
    _of(*(month[:3].lower() for month in MONTHS)),
    _of(*DAYS),
    _of("Spring", "Summer", "Autumn", "Winter"),
    _of(*COLOURS),
    _of(*ANIMALS),
    _of(*NUMBERS),
    (70, lambda r: str(r.randint(1950, 2019))),
    (70, lambda r: str(r.randint(50, 119))[-2:]),
    (28 * 12, partial(_day, "{d:02}{m:02}")),
    (28 * 12 * 70, partial(_day, "{d:02}{m:02}{short:02}")),
    (28 * 12 * 70, partial(_day, "{d}.{m}.{y}")),
    (28 * 12 * 70, partial(_day, "{y}-{m:02}-{d:02}")),
    *((10.0**size, lambda r, size=size: _d(r, size)) for size in range(1, 5)),
    _of("123", "1234", "12345", "321"),
    _of("qwe", "asd", "zxc", "qwerty", "asdf", "wasd", "qaz", "zaq"),
    (36 * 3, partial(_again, LOWER + DIGITS, 2, 4)),
    _of(*SIGNS),
    (8 * 2, partial(_again, SIGNS, 2, 3)),
    (26.0**2, partial(_letters, UPPER, 2)),
    (26.0**3, partial(_letters, ascii_lowercase, 3)),
    _of("my", "the", "our", "mr", "big", "new"),
    _of("ilove", "Ilove", "iam", "ihate"),
    _of("4u", "4me", "4ever", "2go", "1st"),
    _of(":)", ";)", "<3", "xD"),
    _of(".com", ".net", ".org", ".de", ".co.uk"),
    (1440, lambda r: f"{r.randint(0, 23):02}:{r.randint(0, 59):02}"),
    (
        (len(CONSONANTS) * len(VOWELS)) ** 2.0,
        lambda r: "".join(r.choice(CONSONANTS) + r.choice(VOWELS) for _ in range(2)),
    ),
    (26.0**2 * 1000, lambda r: _letters(UPPER, 2, r) + _d(r, 3)),
)


def _make(parts: list[Part], joiner: str, r: Random) -> str:
    return joiner.join(part(r) for part in parts)


def put_together() -> list[Process]:
    """So many ways of these, the same each time."""
    random = Random(SEED)  # noqa: S311 (a sample, not a secret)
    ways = []
    for at in range(HOW_MANY):
        chosen = random.choices(PARTS, k=random.choice((2, 2, 3, 3, 4)))
        outcomes = sum(log10(count) for count, _ in chosen)
        make = partial(_make, [part for _, part in chosen], random.choice(JOINERS))
        ways.append(Process(f"put together {at}", outcomes, make))
    return ways
