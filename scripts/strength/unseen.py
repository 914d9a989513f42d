"""Ways of making secrets that were written after all finders then known, and scored once before any
was written from them: idioms of screens and shops, words in a frame, numbers that mean something.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import (
    MIDDLES,
    MONTHS,
    PLACES,
    VOWELS,
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
from scripts.strength.processes import CONSONANTS, LOWER, UPPER, Process

NAMES_N, PLACES_N = 1500, len(PLACES)
SIGNS = (
    ".- -... -.-. -.. . ..-. --. .... .. .--- -.- .-.. -- -. --- .--. --.- .-. ... - ..- ...- "
    ".-- -..- -.-- --.."
)
MORSE = dict(zip(LOWER, SIGNS.split(), strict=True))
KEYS = dict(
    zip("23456789", ("abc", "def", "ghi", "jkl", "mno", "pqrs", "tuv", "wxyz"), strict=True)
)
TAPS = {c: key for key, letters in KEYS.items() for c in letters}
FRAMES = (
    "i hate {}",
    "{} rocks",
    "{} sucks",
    "{}4ever",
    "{}4life",
    "{}rulez",
    "gimme{}",
    "no{}nolife",
)


def _p(r: Random) -> str:
    return r.choice(PLACES)


def _s(r: Random, signs: str = "!?.#*") -> str:
    return r.choice(signs)


def _tapped(word: str) -> str:
    return "".join(TAPS[c] * (KEYS[TAPS[c]].index(c) + 1) for c in word)


def _squares(first: int) -> str:
    return "".join(str(n * n) for n in range(first, first + 5))


def _primes(first: int) -> str:
    found = [n for n in range(2, 200) if all(n % d for d in range(2, n))]
    return "".join(map(str, found[first : first + 5]))


def _fibonacci(a: int, b: int) -> str:
    row = [a, b]
    while len(row) < 7:
        row.append(row[-1] + row[-2])
    return "".join(map(str, row))


def _growing(word: str) -> str:
    return "".join(word[: n + 1] for n in range(len(word)))


def _accented(word: str) -> str:
    return word.translate(str.maketrans("aeiou", "áéíóú"))


def _weighted(word: str) -> str:
    return f"{word}{sum(ord(c) - 96 for c in word)}"


def _syllable_dashes(word: str) -> str:
    return "-".join(word[at : at + 3] for at in range(0, len(word), 3))


def _idioms() -> Iterator[tuple[str, float, Make]]:
    """What stands on screens, in shops and on papers."""
    yield (
        "command",
        WORDS_N * 8,
        lambda r: r.choice(
            (
                "sudo {}",
                "cd /{}",
                "rm -rf {}",
                "git push {}",
                "ls -la {}",
                "ssh root@{}",
                "ping {}",
                "kill -9 {}",
            )
        ).format(_w(r)),
    )
    yield ("query", WORDS_N**2, lambda r: " ".join(("SELECT", _w(r), "FROM", _w(r))) + ";")
    yield (
        "tag",
        WORDS_N**2 * 4,
        lambda r: "<{0}>{1}</{0}>".format(r.choice(("b", "i", "p", "h1")), f"{_w(r)} {_w(r)}"),
    )
    yield ("tag and class", WORDS_N**2, lambda r: f"<div class={_w(r)}>{_w(r)}")
    yield ("pair in braces", WORDS_N**2, lambda r: f'{{"{_w(r)}":"{_w(r)}"}}')
    yield ("condition", WORDS_N * 100, lambda r: f"if({_w(r)}=={r.randint(0, 99)})")
    yield ("call", WORDS_N**2 * 100, lambda r: f"{_w(r)}.{_w(r)}({r.randint(0, 99)})")
    yield (
        "element of an array",
        WORDS_N * 100,
        lambda r: f"{_w(r)}[{r.randint(0, 99)}]" + r.choice(("", "++")),
    )
    yield (
        "sheet",
        26**2 * 99**2 * 3,
        lambda r: (
            f"={r.choice(('SUM', 'AVG', 'MAX'))}({r.choice(UPPER)}{r.randint(1, 99)}"
            f":{r.choice(UPPER)}{r.randint(1, 99)})"
        ),
    )
    yield (
        "permissions",
        8**3 * WORDS_N,
        lambda r: f"chmod {r.randint(0, 7)}{r.randint(0, 7)}{r.randint(0, 7)} {_w(r)}",
    )
    yield (
        "hexadecimal number",
        16**4 * 10,
        lambda r: "0x" + "".join(r.choices("0123456789ABCDEF", k=4)) + _d(r, 1),
    )
    yield ("signed in as", NAMES_N * WORDS_N, lambda r: f"{_n(r)}:{_w(r)}")
    yield ("address with port", WORDS_N * 9000, lambda r: f"http://{_w(r)}:{r.randint(1000, 9999)}")
    yield ("hash tags", WORDS_N**2, lambda r: f"#{_w(r)} #{_w(r)}")
    yield ("at a place", NAMES_N * WORDS_N, lambda r: f"@{_n(r)}_{_w(r)}")
    yield (
        "paragraph of a law",
        300 * 5 * 12,
        lambda r: f"§{r.randint(1, 300)} Abs.{r.randint(1, 5)} {r.choice(('BGB', 'StGB', 'GG'))}",
    )
    yield (
        "paper and screw",
        10 * 20 * 40,
        lambda r: f"DIN A{r.randint(0, 9)} M{r.randint(2, 20)}x{r.randint(5, 40)}",
    )
    yield (
        "tyre",
        20 * 10 * 10 * 100,
        lambda r: (
            f"{r.randrange(155, 255, 10)}/{r.randrange(35, 80, 5)}R{r.randint(13, 22)}" + _d(r, 2)
        ),
    )
    yield (
        "flight and seat",
        26**2 * 999 * 40 * 6,
        lambda r: (
            f"{''.join(r.choices(UPPER, k=2))}{r.randint(1, 999)} "
            f"{r.randint(1, 40)}{r.choice('ABCDEF')}"
        ),
    )
    yield (
        "engine",
        WORDS_N * 30 * 5,
        lambda r: (
            f"{_w(r).title()} {r.randint(1, 3)}.{r.randint(0, 9)} "
            + r.choice(("TDI", "GTI", "V6", "16V", "GT"))
        ),
    )
    yield ("list to buy", WORDS_N**3, lambda r: f"{_w(r)}+{_w(r)}+{_w(r)}")
    yield (
        "so many of two",
        WORDS_N**2 * 64,
        lambda r: f"{r.randint(2, 9)}{_w(r)}s{r.randint(2, 9)}{_w(r)}s",
    )
    yield ("dose", WORDS_N * 40, lambda r: f"{_m(r)} {r.randrange(25, 1000, 25)}mg")
    yield (
        "recipe",
        WORDS_N**2 * 200,
        lambda r: f"{r.randrange(50, 500, 50)}g {_w(r)} + {r.randint(1, 9)} {_w(r)}",
    )
    yield ("per cent", WORDS_N * 20, lambda r: f"{r.randrange(10, 210, 10)}%{_w(r)}")
    yield (
        "fraction",
        WORDS_N * 20,
        lambda r: f"{r.randint(1, 3)}/{r.choice((2, 3, 4, 5, 8))} {_w(r)}",
    )
    yield ("degrees", WORDS_N * 100, lambda r: f"{_w(r)} {r.randint(-20, 45)}°C")
    yield (
        "run in",
        WORDS_N * 5 * 60 * 60,
        lambda r: f"{_w(r)} {r.randint(1, 5)}h{r.randint(0, 59):02}m{r.randint(0, 59):02}s",
    )
    yield (
        "scored",
        WORDS_N * 100,
        lambda r: f"{_w(r).title()} {r.randint(0, 9)}/{r.choice((10, 5, 20))}!",
    )
    yield (
        "since a year",
        WORDS_N * YEARS * 3,
        lambda r: _w(r).title() + r.choice((" since ", " est. ", ", anno ")) + _y(r),
    )
    yield ("span of years", YEARS**2, lambda r: f"{_y(r)}-{_y(r)}")
    yield ("short year", WORDS_N * 100, lambda r: f"{_w(r)}'{_d(r, 2)}")
    yield ("postal code and place", 1e5 * PLACES_N, lambda r: f"{_d(r, 5)} {_p(r)}")
    yield (
        "title and name",
        NAMES_N * 5 * 100,
        lambda r: r.choice(("Dr.", "Mr.", "Mrs.", "Sir ", "Prof.")) + _n(r).title() + _d(r, 2),
    )
    yield ("staff name", NAMES_N * 26 * YEARS, lambda r: f"{r.choice(LOWER)}.{_n(r)}{_y(r)}")
    yield (
        "always on",
        WORDS_N * 5,
        lambda r: r.choice(("24/7{}", "{}24/7", "365{}", "{}365", "7x24{}")).format(_w(r)),
    )


def _framed() -> Iterator[tuple[str, float, Make]]:
    """Words in a frame of others."""
    yield ("said of it", WORDS_N * 8 * 100, lambda r: r.choice(FRAMES).format(_w(r)) + _d(r, 2))
    yield (
        "question",
        WORDS_N * 5,
        lambda r: r.choice(
            ("whereismy{}?", "whois{}?", "whatis{}?", "whosaid{}?", "howto{}?")
        ).format(_w(r)),
    )
    yield (
        "dear",
        NAMES_N * WORDS_N * 3,
        lambda r: r.choice(("Dear ", "Hello ", "Bye ")) + f"{_n(r).title()}, {_w(r)}",
    )
    yield (
        "this is my",
        WORDS_N * 4 * 100,
        lambda r: (
            r.choice(("thisismy{}", "mynew{}", "myold{}", "themost{}")).format(_w(r)) + _d(r, 2)
        ),
    )
    yield ("against", WORDS_N**2 * 2, lambda r: f"{_w(r)}{r.choice(('vs', ' v '))}{_w(r)}")
    yield (
        "and his",
        NAMES_N * WORDS_N * 3,
        lambda r: f"{_n(r).title()}{r.choice(('AndHis', 'AndHer', 'AndThe'))}{_w(r).title()}",
    )
    yield ("not but", WORDS_N**2, lambda r: f"not{_w(r)}but{_w(r)}")
    yield (
        "second part",
        WORDS_N**2 * 5,
        lambda r: f"{_w(r).title()} {r.choice(('II', 'III', '2', 'IV', 'V'))}: {_w(r).title()}",
    )
    yield ("numbered words", WORDS_N**3, lambda r: f"1{_w(r)}2{_w(r)}3{_w(r)}")
    yield (
        "three by years",
        WORDS_N * 12 * YEARS,
        lambda r: f"{_w(r)}.{r.choice(MONTHS)}.{_y(r)}".lower(),
    )
    yield (
        "name of a pet and age",
        NAMES_N * 20 * 4,
        lambda r: f"{_n(r).title()} is {r.randint(1, 20)}{_s(r, '!.?*')}",
    )
    yield ("three cases", WORDS_N, lambda r: (lambda w: w + w.title() + w.upper())(_w(r)))


def _changed() -> Iterator[tuple[str, float, Make]]:
    """Words that are not left as they are, in ways not met before."""
    yield ("in morse", WORDS_N, lambda r: " ".join(MORSE[c] for c in _w(r)))
    yield ("tapped", WORDS_N * 10, lambda r: _tapped(_w(r)) + _d(r, 1))
    yield ("growing", WORDS_N, lambda r: _growing(_w(r)))
    yield ("accented", MIDDLES * 100, lambda r: _accented(_m(r)) + _d(r, 2))
    yield ("word and its sum", WORDS_N * 3, lambda r: _weighted(_w(r)) + _s(r, "!?."))
    yield ("by threes", MIDDLES * 100, lambda r: _syllable_dashes(_m(r)) + _d(r, 2))
    yield ("ends of four words", 600**4 / 10, lambda r: "".join(_w(r)[-2:] for _ in range(4)))
    yield (
        "first and last letters",
        676**3 / 8,
        lambda r: "".join((lambda w: w[0] + w[-1])(_w(r)) for _ in range(3)) + _d(r, 1),
    )
    yield (
        "capital inside",
        MIDDLES * 3 * 100,
        lambda r: (
            (lambda w, at: w[:at] + w[at].upper() + w[at + 1 :])(_m(r), r.randint(1, 3)) + _d(r, 2)
        ),
    )
    yield (
        "vowels numbered",
        MIDDLES * 10,
        lambda r: _m(r).translate(str.maketrans(VOWELS, "12345")) + _d(r, 1),
    )
    yield (
        "last letter drawn out",
        WORDS_N * 5 * 5,
        lambda r: (lambda w: w + w[-1] * r.randint(2, 6))(_w(r)) + _s(r),
    )
    yield (
        "one letter before each",
        MIDDLES * 26,
        lambda r: (lambda c: "".join(c + one for one in _m(r)))(r.choice(LOWER)),
    )
    yield (
        "syllable put in",
        MIDDLES * 5 * 10,
        lambda r: (
            (lambda s: "".join(c + s + c if c in VOWELS else c for c in _m(r)))(r.choice("bfpgl"))
            + _d(r, 1)
        ),
    )
    yield (
        "spoken and word",
        (len(CONSONANTS) * 5) ** 2 * WORDS_N,
        lambda r: (
            "".join(r.choice(CONSONANTS) + r.choice(VOWELS) for _ in range(2)) + _w(r).title()
        ),
    )


def _counted() -> Iterator[tuple[str, float, Make]]:
    """Numbers that mean something."""
    yield ("squares", 30 * 10, lambda r: _squares(r.randint(1, 30)) + _d(r, 1))
    yield ("primes", 30 * 10, lambda r: _primes(r.randint(0, 29)) + _d(r, 1))
    yield (
        "each the sum of two",
        9 * 9 * 10,
        lambda r: _fibonacci(r.randint(1, 9), r.randint(1, 9)) + _d(r, 1),
    )
    yield (
        "powers",
        4 * 10,
        lambda r: "".join(str(b**k) for b in (r.randint(2, 5),) for k in range(1, 7)) + _d(r, 1),
    )
    yield (
        "multiples",
        30 * 10,
        lambda r: (lambda n: "".join(str(n * k) for k in range(1, 7)))(r.randint(2, 31)) + _d(r, 1),
    )
    yield (
        "day of the week and date",
        365 * 60,
        lambda r: f"{_day(r)[0]}. {r.choice(MONTHS)[:3]} {r.randint(1950, 2009)}",
    )
    yield (
        "two dates",
        (365 * 60) ** 2,
        lambda r: "{:02}{:02}{}-{:02}{:02}{}".format(*_day(r), *_day(r)),
    )
    yield (
        "clock and word",
        WORDS_N * 1440,
        lambda r: f"{r.randint(0, 23):02}:{r.randint(0, 59):02} {_w(r)}",
    )


def unseen() -> list[Process]:
    """All of them."""
    ways = [*_idioms(), *_framed(), *_changed(), *_counted()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
