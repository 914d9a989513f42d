"""Ways of making secrets whose number of equally likely outcomes is known: truth by arithmetic."""

import string
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from functools import partial
from math import log10
from random import Random

from newknot.core.shipped import shipped_lines

LOWER, UPPER, DIGITS = string.ascii_lowercase, string.ascii_uppercase, string.digits
PRINTABLE = "".join(map(chr, range(0x21, 0x7F)))
SYMBOLS = "!?.-_@#*$&"
SWAPS = {"a": "4", "e": "3", "i": "1", "o": "0", "s": "5", "t": "7"}
ROWS = ("1234567890", "qwertyuiop", "asdfghjkl", "zxcvbnm")
CONSONANTS, VOWELS = "bcdfghklmnprstvz", "aeiou"


@dataclass(frozen=True, slots=True)
class Process:
    """A way of making secrets: its name, log10 of how many it makes, and one at random."""

    name: str
    outcomes_log10: float
    make: Callable[[Random], str]


def _drawn(alphabet: str, size: int, random: Random) -> str:
    return "".join(random.choices(alphabet, k=size))


def _words(
    words: tuple[str, ...], count: int, between: str, ending: str, capital: bool, random: Random
) -> str:
    chosen = [random.choice(words) for _ in range(count)]
    made = between.join(w.capitalize() if capital else w for w in chosen)
    for c in ending:
        made += random.choice(DIGITS if c == "d" else SYMBOLS)
    return made


def _swapped(words: tuple[str, ...], random: Random) -> str:
    return "".join(SWAPS.get(c, c) for c in random.choice(words)) + random.choice(DIGITS)


def _name_year(names: tuple[str, ...], random: Random) -> str:
    return random.choice(names).capitalize() + str(random.randint(1950, 2014))


def _day(form: str, random: Random) -> str:
    return (date(1950, 1, 1) + timedelta(days=random.randrange(60 * 365))).strftime(form)


def _along(rows: tuple[str, ...], size: int, random: Random) -> str:
    row = random.choice([r for r in rows if len(r) > size])
    row = row[::-1] if random.random() < 0.5 else row
    start = random.randrange(len(row) - size + 1)
    return row[start : start + size]


def _spoken(syllables: int, random: Random) -> str:
    return "".join(random.choice(CONSONANTS) + random.choice(VOWELS) for _ in range(syllables))


def _doubled(size: int, random: Random) -> str:
    return 2 * _drawn(LOWER, size, random)


def _plate(random: Random) -> str:
    return _drawn(UPPER, 2, random) + _drawn(DIGITS, 2, random) + _drawn(UPPER, 3, random)


def _phone(random: Random) -> str:
    return "07" + _drawn(DIGITS, 9, random)


def _slipped(words: tuple[str, ...], random: Random) -> str:
    word = random.choice(words)
    at = random.randrange(len(word))
    return word[:at] + random.choice(LOWER) + word[at + 1 :]


def processes() -> Iterator[Process]:
    """All of them, from PINs to what no one guesses."""
    sets = {"lower case": LOWER, "letters and digits": LOWER + UPPER + DIGITS}
    sets |= {
        "printable": PRINTABLE,
        "hexadecimal": DIGITS + "abcdef",
        "capitals and digits": UPPER + DIGITS,
    }
    for name, alphabet in sets.items():
        for size in (6, 7, 8, 9, 10, 12, 14, 16, 20):
            count = size * log10(len(alphabet))
            yield Process(f"{size} of {name}", count, partial(_drawn, alphabet, size))
    for size in (4, 5, 6, 8, 10, 12):
        yield Process(f"{size} digits", float(size), partial(_drawn, DIGITS, size))
    english = shipped_lines("english_words.txt.gz")
    lists = {"commonest 2,000": english[:2000], "commonest 10,000": english[:10_000]}
    lists["list of 7,776"] = shipped_lines("words_7776.txt")
    for name, words in lists.items():
        for count in (1, 2, 3, 4, 5, 6):
            for between in ("", "-", " "):
                total = count * log10(len(words))
                make = partial(_words, words, count, between, "", False)
                yield Process(f"{count} words of {name} by {between!r}", total, make)
    tails = (("d", 1), ("dd", 2), ("dddd", 4), ("s", 1), ("ds", 2), ("dds", 3), ("sdd", 3))
    people = {
        "English": english[:8000],
        "given name": shipped_lines("given_names.txt.gz")[:1500],
        "place": shipped_lines("places.txt.gz")[:1000],
        "German": shipped_lines("languages/de.txt.gz")[:5000],
        "Spanish": shipped_lines("languages/es.txt.gz")[:5000],
    }
    for name, words in people.items():
        for tail, orders in tails:
            for capital in (False, True):
                make = partial(_words, words, 1, "", tail, capital)
                yield Process(f"{name} and {tail}", log10(len(words)) + orders, make)
    common = shipped_lines("common_passwords.txt.gz")
    for most in (100, 1000, 10_000):
        make = partial(_words, common[:most], 1, "", "", False)
        yield Process(f"commonest {most} passwords", log10(most), make)
    names = shipped_lines("given_names.txt.gz")[:2000]
    yield Process("name and year", log10(2000 * 65), partial(_name_year, names))
    for form in ("%d%m%Y", "%d%m%y", "%d.%m.%Y", "%Y-%m-%d", "%m%d%Y"):
        yield Process(f"day as {form}", log10(60 * 365), partial(_day, form))
    for size in (5, 6, 7):
        yield Process(f"{size} along a row", log10(len(ROWS) * 2 * 4), partial(_along, ROWS, size))
    keys = ("azertyuiop", "qsdfghjklm")
    yield Process("six along a French row", log10(2 * 2 * 5), partial(_along, keys, 6))
    italian = shipped_lines("languages/it.txt.gz")[:5000]
    for tail in ("", "dd"):
        make = partial(_words, italian, 1, "", tail, False)
        yield Process(f"Italian and {tail or 'nothing'}", log10(5000) + len(tail), make)
    for syllables in (3, 4, 5, 6):
        total = syllables * log10(len(CONSONANTS) * len(VOWELS))
        yield Process(f"{syllables} syllables", total, partial(_spoken, syllables))
    for size in (4, 5, 6, 8):
        yield Process(f"{size} twice", size * log10(26), partial(_doubled, size))
    yield Process("number plate", 5 * log10(26) + 2, _plate)
    yield Process("telephone", 9.0, _phone)
    swappable = tuple(w for w in english[:5000] if len(w) >= 5)
    yield Process(
        "swapped word and digit", log10(len(swappable) * 10), partial(_swapped, swappable)
    )
    long = tuple(w for w in english[:5000] if len(w) >= 7)
    total = log10(len(long) * 8 * 26)
    yield Process("word with a slip", total, partial(_slipped, long))
