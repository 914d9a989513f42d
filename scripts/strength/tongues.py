"""Ways of making secrets that were written down when sentences of other languages, formulas,
digests and rows that are known by heart had been made use of: what people say in their own
language, and what they know from school and from work. Scored once before anything was changed
for them.
"""

import hashlib
from collections.abc import Iterator
from math import log10
from random import Random

from newknot.core.shipped import shipped_lines
from scripts.strength.further import (
    MIDDLES,
    NAMES,
    PLACES,
    WORDS_N,
    YEARS,
    Make,
    _d,
    _m,
    _n,
    _w,
    _y,
)
from scripts.strength.offhand import SIGNS, _p
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

GERMAN, FRENCH, SPANISH, ITALIAN, DUTCH, RUSSIAN = (
    tuple(w for w in shipped_lines(f"languages/{code}.txt.gz")[:3000] if len(w) > 3)
    for code in ("de", "fr", "es", "it", "nl", "ru")
)
WHO = ("ich", "du", "er", "sie", "wir", "Oma", "Papa", "Mama", "mein Hund", "die Katze")
DOES = ("mag", "will", "hat", "liebt", "sucht", "kauft", "isst", "malt", "sieht", "braucht")
WHAT = ("Brot", "Eis", "Ruhe", "Geld", "Zeit", "Blumen", "Kuchen", "Wasser", "Licht", "Musik")
QUI = ("je", "tu", "il", "elle", "on", "nous", "papa", "maman", "mon chat", "le chien")
FAIT = ("mange", "veut", "aime", "cherche", "prend", "voit", "dessine", "donne", "porte", "garde")
QUOI = ("du pain", "la lune", "le temps", "une rose", "des fleurs", "la mer", "un livre", "rien")
QUIEN = ("yo", "mi madre", "el gato", "la abuela", "mi hijo", "el perro", "nadie", "todos")
HACE = ("quiere", "come", "busca", "tiene", "ama", "mira", "vende", "canta")
WIE = ("ik", "mijn zus", "de kat", "oma", "de buurman", "onze hond", "niemand", "iedereen")
DOET = ("eet", "zoekt", "koopt", "heeft", "ziet", "wil", "maakt", "vindt")
WAT = ("brood", "kaas", "een boek", "de zon", "geld", "het huis", "water", "bloemen")
RULES = ("sin(x)", "cos(x)", "x^2", "x^3", "2x", "3x", "ln(x)", "e^x", "1/x", "sqrt(x)")
NAMED_LIKE = ("Oliver", "Emma", "Noah", "Mia", "Lukas", "Anna", "Ben", "Lea")
KANA = "あいうえおかきくけこさしすせそたちつてとなにのはひまみもやよらりるわ"
TENS = ("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
UNITS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine")
ZAHLEN = ("eins", "zwei", "drei", "vier", "fünf", "sechs", "sieben", "acht", "neun", "zehn")
NOMBRES = ("un", "deux", "trois", "quatre", "cinq", "six", "sept", "huit", "neuf", "dix")
TOOLS = ("ls", "cd", "cat", "grep", "find", "tar", "cp", "mv", "rm", "man")
METERS = ("km", "kg", "ml", "mm", "kW", "Hz", "GB", "°C")
NOTES = ("Moll", "Dur")
KEYS = ("A", "B", "C", "D", "E", "F", "G", "H")


def _said() -> Iterator[tuple[str, float, Make]]:
    """Sentences, each of a few words of one language."""
    yield (
        "German sentence",
        10.0**3,
        lambda r: f"{r.choice(WHO)} {r.choice(DOES)} {r.choice(WHAT)}".replace(" ", ""),
    )
    yield (
        "German sentence with blanks",
        10.0**4,
        lambda r: f"{r.choice(WHO)} {r.choice(DOES)} {r.choice(WHAT)} {_d(r, 1)}",
    )
    yield (
        "French sentence",
        10.0**2 * 8,
        lambda r: f"{r.choice(QUI)}{r.choice(FAIT)}{r.choice(QUOI)}".replace(" ", ""),
    )
    yield (
        "Spanish sentence",
        8.0**2 * len(SPANISH),
        lambda r: f"{r.choice(QUIEN)} {r.choice(HACE)} {r.choice(SPANISH)}".replace(" ", ""),
    )
    yield (
        "Dutch sentence",
        8.0**3 * 100,
        lambda r: f"{r.choice(WIE)}{r.choice(DOET)}{r.choice(WAT)}".replace(" ", "") + _d(r, 2),
    )
    yield "three German words", float(len(GERMAN)) ** 3, lambda r: _three(GERMAN, r, "")
    yield "three French words, dashes", float(len(FRENCH)) ** 3, lambda r: _three(FRENCH, r, "-")
    yield (
        "three Italian words, first letters up",
        float(len(ITALIAN)) ** 3,
        lambda r: "".join(r.choice(ITALIAN).title() for _ in range(3)),
    )
    yield "two Dutch words, year", len(DUTCH) ** 2.0 * YEARS, lambda r: _two(DUTCH, r) + _y(r)
    yield "Russian word and digits", len(RUSSIAN) * 1e3, lambda r: r.choice(RUSSIAN) + _d(r, 3)
    yield (
        "my name is, in German",
        len(NAMES) * 100,
        lambda r: f"ichheisse{_n(r)}{_d(r, 2)}",
    )
    yield "I live in", len(PLACES) * 2, lambda r: r.choice(("ichwohnein", "jhabitea")) + _p(r)
    yield "four kana, a word or not", len(KANA) ** 4.0, lambda r: "".join(r.choices(KANA, k=4))
    yield "German numbers", 10.0**4, lambda r: "".join(r.choices(ZAHLEN, k=4))
    yield "French numbers, dots", 10.0**3, lambda r: ".".join(r.choices(NOMBRES, k=3))
    yield (
        "a number in English words and a sign",
        72.0 * 72 * 6,
        lambda r: _number(r) + _number(r) + r.choice(SIGNS),
    )


def _known() -> Iterator[tuple[str, float, Make]]:
    """What is known from school and from work."""
    yield "rule of calculus", 10.0**2, lambda r: f"f(x)={r.choice(RULES)}+{r.choice(RULES)}"
    yield "sum, said out", 9.0**2 * 3, _sum_said
    yield "digest of a word, ten of it", MIDDLES, lambda r: _digest(_m(r))[:10]
    yield "digest of a name, eight and a sign", len(NAMES) * 6, _named_digest
    yield "word in escapes", MIDDLES, lambda r: "".join(f"%{ord(c):02x}" for c in _m(r))
    yield (
        "a command and a file",
        10 * WORDS_N * 4,
        lambda r: f"{r.choice(TOOLS)} {_w(r)}.{r.choice(('txt', 'log', 'py', 'sh'))}",
    )
    yield "some digits of pi and a word", 8 * WORDS_N, _of_pi
    yield "so much of a unit, twice", 8.0**2 * 1e4, lambda r: _measured(r) + _measured(r)
    yield (
        "key and work of music",
        8 * 2 * 150,
        lambda r: f"{r.choice(KEYS)}-{r.choice(NOTES)} Op. {r.randint(1, 150)}",
    )
    yield "the first of May", 31 * 12 * YEARS, _dated
    yield "name likes name", 8.0**2 * 100, _likes
    yield "private address and its word", 254 * WORDS_N, _addressed
    yield "coordinates in degrees", 90.0 * 180 * 4, _at
    yield "Roman, Roman", 30.0**2 * WORDS_N, lambda r: f"{_roman(r)}.{_roman(r)}.{_w(r)}"


def _chance() -> Iterator[tuple[str, float, Make]]:
    """Drawn, which must not be taken for less."""
    yield "11 of lower case, drawn", 26.0**11, lambda r: "".join(r.choices(LOWER, k=11))
    yield (
        "9 of capitals and digits, drawn",
        36.0**9,
        lambda r: "".join(r.choices(UPPER + DIGITS, k=9)),
    )
    yield (
        "12 hexadecimal digits, drawn",
        16.0**12,
        lambda r: "".join(r.choices("0123456789abcdef", k=12)),
    )


def _three(words: tuple[str, ...], r: Random, between: str) -> str:
    return between.join(r.choice(words) for _ in range(3))


def _two(words: tuple[str, ...], r: Random) -> str:
    return r.choice(words) + r.choice(words)


def _number(r: Random) -> str:
    return r.choice(TENS) + r.choice(UNITS)


def _sum_said(r: Random) -> str:
    at, to = r.randint(0, 8), r.randint(0, 8)
    sign, total = r.choice(
        (("plus", at + to + 2), ("times", (at + 1) * (to + 1)), ("minus", at - to))
    )
    return f"{UNITS[at]}{sign}{UNITS[to]}is{total}"


def _digest(word: str) -> str:
    return hashlib.sha1(word.encode(), usedforsecurity=False).hexdigest()


def _named_digest(r: Random) -> str:
    return hashlib.md5(_n(r).encode(), usedforsecurity=False).hexdigest()[:8] + r.choice(SIGNS)


def _of_pi(r: Random) -> str:
    return "3.14159265358979"[: r.randint(4, 11)] + _w(r)


def _measured(r: Random) -> str:
    return f"{r.randint(1, 99)}{r.choice(METERS)}"


def _dated(r: Random) -> str:
    months = "January February March April May June July August September October November December"
    day = r.randint(1, 31)
    ending = {1: "st", 2: "nd", 3: "rd"}.get(day % 10 if day not in (11, 12, 13) else 0, "th")
    return f"{day}{ending}of{r.choice(months.split())}{_y(r)}"


def _likes(r: Random) -> str:
    return f"{r.choice(NAMED_LIKE)} mag {r.choice(NAMED_LIKE)} {_d(r, 2)}"


def _addressed(r: Random) -> str:
    return f"192.168.178.{r.randint(1, 254)}{_w(r)}"


def _at(r: Random) -> str:
    north, east = r.randint(0, 89), r.randint(0, 179)
    return f"{north}°{r.choice('NS')} {east}°{r.choice('EW')}"


def _roman(r: Random) -> str:
    n = r.randint(1, 30)
    return "X" * (n // 10) + ("", "I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX")[n % 10]


def tongues() -> list[Process]:
    """All of them."""
    ways = [*_said(), *_known(), *_chance()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
