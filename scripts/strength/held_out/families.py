"""Ways of making secrets that no finder was written from, and that the table is not fitted on."""

import base64
from collections.abc import Callable, Iterator, Sequence
from functools import cache, partial
from itertools import chain
from math import log10
from pathlib import Path
from random import Random

from newknot.core.shipped import shipped_lines
from scripts.strength.processes import DIGITS, LOWER, UPPER, Process

SYMBOLS = "!?.-_@#*$&"
WORDS = Path(__file__).parent / "words_kept_out.txt"
CONSTANTS = ("31415926535897932384", "27182818284590452353", "14142135623730950488")
EMOJI = "😀😂😍😎😢😡👍🙏🔥💩🎉❤💔⭐🌈🐶🐱🦄🍕🍺⚽🎸🚀🌍☕🌹💎👑🎃🎄"
HIRAGANA = (
    "あいうえおかきくけこさしすせそたちつてとなにぬねのはひふへほまみむめもやゆよらりるれろわをん"
)
ROMAN: tuple[tuple[int, str], ...] = (
    (1000, "M"),
    (900, "CM"),
    (500, "D"),
    (400, "CD"),
    (100, "C"),
    (90, "XC"),
    (50, "L"),
)
ROMAN += ((40, "XL"), (10, "X"), (9, "IX"), (5, "V"), (4, "IV"), (1, "I"))
KEYS = ("qwertyuiop", "asdfghjkl", "zxcvbnm")
SUMS = ("2357111317192329", "149162536496481", "1248163264128256", "112358132134558")

Make = Callable[[Random], str]


@cache
def words_of(code: str) -> tuple[str, ...]:
    """The kept-out words of a language, or a class of few."""
    lines = (line.split("\t") for line in WORDS.read_text("utf-8").splitlines()[1:])
    return next(tuple(words.split()) for name, words in lines if name == code)


def _digits(random: Random, count: int) -> str:
    return "".join(random.choices(DIGITS, k=count))


def _letters(random: Random) -> str:
    return "".join(random.choices(UPPER, k=2))


def _roman(year: int) -> str:
    said = ""
    for value, letters in ROMAN:
        said += letters * (year // value)
        year %= value
    return said


def _spelt(number: int) -> str:
    if number < 20:
        return words_of("units")[number]
    return words_of("tens")[number // 10 - 2] + (
        words_of("units")[number % 10] if number % 10 else ""
    )


def _walks(size: int) -> tuple[str, ...]:
    near = {
        a: [
            KEYS[r + dr][c + dc]
            for dr, dc in ((0, 1), (0, -1), (1, 0), (-1, 0), (1, -1), (-1, 1))
            if 0 <= r + dr < 3 and 0 <= c + dc < len(KEYS[r + dr])
        ]
        for r, row in enumerate(KEYS)
        for c, a in enumerate(row)
    }
    walks = list("".join(KEYS))
    for _ in range(size - 1):
        walks = [walk + key for walk in walks for key in near[walk[-1]]]
    return tuple(walks)


def _of(*parts: Sequence[str]) -> tuple[float, Make]:
    """One of each, joined."""
    total = sum(log10(len(part)) for part in parts)
    return total, lambda random: "".join(random.choice(list(part)) for part in parts)


def _changed(
    part: tuple[str, ...], change: Callable[[str], str], ending: int
) -> tuple[float, Make]:
    total = log10(len(part)) + ending
    return total, lambda random: change(random.choice(part)) + _digits(random, ending)


def _woven(word: str, between: str) -> str:
    return "".join(chain.from_iterable(zip(word, between, strict=True)))


def _pig(word: str) -> str:
    return word[1:] + word[0] + "ay"


def _luhn(random: Random) -> str:
    body = "4" + _digits(random, 14)
    total = sum(sum(divmod(2 * int(c), 10)) if at % 2 == 0 else int(c) for at, c in enumerate(body))
    return body + str(-total % 10)


def families() -> Iterator[Process]:
    """All of them."""
    english = tuple(w for w in shipped_lines("english_words.txt.gz")[1000:9000] if len(w) >= 4)
    four = tuple(w for w in english if len(w) == 4)
    eight = tuple(w for w in english if len(w) == 8)
    names = shipped_lines("given_names.txt.gz")[:1500]
    hu, indonesian, fil = words_of("hu"), words_of("id"), words_of("fil")
    years = [str(y) for y in range(1950, 2015)]
    two = [f"{n:02}" for n in range(100)]
    clock = [f"{h:02}{m:02}" for h in range(24) for m in range(60)]
    vowels = str.maketrans("", "", "aeiou")
    upper = [w.upper() for w in english]
    ways: dict[str, tuple[float, Make]] = {
        "Hungarian and two digits": _of(hu, two),
        "Indonesian and year": _of(indonesian, years),
        "Filipino, capital, two digits, sign": (
            log10(len(fil)) + 3,
            lambda r: r.choice(fil).title() + r.choice(two) + r.choice(SYMBOLS),
        ),
        "two Hungarian": _of(hu, hu),
        "Hungarian and English": _of(hu, english),
        "without vowels and two digits": _changed(english, lambda w: w.translate(vowels), 2),
        "letters by dots": _changed(english, ".".join, 0),
        "letters by dashes and a digit": _changed(english, "-".join, 1),
        "between stars": (
            log10(len(english) * 30),
            lambda r: (s := r.choice(SYMBOLS) * r.randint(1, 3)) + r.choice(english) + s,
        ),
        "in brackets": (
            log10(len(english) * 4),
            lambda r: (b := r.choice(("()", "[]", "{}", "<>")))[0] + r.choice(english) + b[1],
        ),
        "alternating case and a digit": _changed(
            english,
            lambda w: "".join(c.upper() if i % 2 else c for i, c in enumerate(w)),
            1,
        ),
        "last letter drawn out": (
            log10(len(english) * 40),
            lambda r: (w := r.choice(english)) + w[-1] * r.randint(2, 5) + _digits(r, 1),
        ),
        "day in words": (
            log10(28 * 12 * 65),
            lambda r: f"{r.randint(4, 20)}th{r.choice(words_of('months'))}{r.choice(years)}",
        ),
        "weekday and time": _of(words_of("days"), clock),
        "time and word": _of(clock, english),
        "hexadecimal pairs": (
            4 * log10(256),
            lambda r: ":".join(f"{r.randrange(256):02x}" for _ in range(4)),
        ),
        "octets": (
            2 * log10(254) + log10(3),
            lambda r: (
                f"{r.choice(('192.168', '10.0', '172.16'))}.{r.randrange(254)}.{r.randrange(254)}"
            ),
        ),
        "code in groups": (
            4 * log10(26) + 4,
            lambda r: f"{_letters(r)}-{_digits(r, 4)}-{_letters(r)}",
        ),
        "Roman year and word": (
            log10(65 * len(english)),
            lambda r: _roman(r.randint(1950, 2014)) + r.choice(english),
        ),
        "two numbers in words": _of(
            [_spelt(n) for n in range(100)], [_spelt(n) for n in range(100)]
        ),
        "three of the spelling alphabet": _of(
            words_of("spelling"), words_of("spelling"), words_of("spelling")
        ),
        "two elements and two digits": _of(words_of("elements"), words_of("elements"), two),
        "weekday, month, two digits": _of(words_of("days"), words_of("months"), two),
        "four countries": _of(*[words_of("countries")] * 4),
        "first letter last": _changed(english, _pig, 1),
        "digits counted in": _changed(four, lambda w: _woven(w, "1234"), 0),
        "year woven in": (
            log10(len(four) * 65),
            lambda r: _woven(r.choice(four), r.choice(years)),
        ),
        "walk of six keys": (log10(len(_walks(6))), partial(Random.choice, seq=_walks(6))),
        "walk of four keys, twice, a digit": (
            log10(len(_walks(4))) + 1,
            lambda r: 2 * r.choice(_walks(4)) + _digits(r, 1),
        ),
        "digits in steps": (
            log10(10 * 9),
            lambda r: "".join(
                str((s + i * d) % 10)
                for s, d in [(r.randrange(10), r.randint(1, 9))]
                for i in range(9)
            ),
        ),
        "letters in steps": (
            log10(26 * 11),
            lambda r: "".join(
                LOWER[(s + i * d) % 26]
                for s, d in [(r.randrange(26), r.randint(2, 12))]
                for i in range(8)
            ),
        ),
        "row of numbers": (
            log10(len(SUMS) * 8),
            lambda r: r.choice(SUMS)[: r.randint(8, 15)],
        ),
        "constant": (log10(3 * 11), lambda r: r.choice(CONSTANTS)[: r.randint(6, 16)]),
        "four squares of a board": (
            4 * log10(64),
            lambda r: "".join(r.choice("abcdefgh") + r.choice("12345678") for _ in range(4)),
        ),
        "eight notes": (8 * log10(7), lambda r: "".join(r.choices("CDEFGAB", k=8))),
        "ten throws of a die": (10 * log10(6), lambda r: "".join(r.choices("123456", k=10))),
        "sixteen bits": (16 * log10(2), lambda r: "".join(r.choices("01", k=16))),
        "word in base 64": (
            log10(len(eight)) + 1,
            lambda r: base64.b64encode((r.choice(eight) + _digits(r, 1)).encode()).decode(),
        ),
        "address of a site": _of(("www.", "http://", ""), english, (".com", ".net", ".org")),
        "address of a mailbox": _of(names, ("@mail.", "@home.", "@work."), ("com", "net", "org")),
        "path": _of(("/home/", "/usr/", "/etc/", "C:\\"), english, two),
        "line of code": (
            log10(len(english) * 5),
            lambda r: r.choice(("{}();", "<b>{}</b>", "${}=1;", "#{}{{", "if({})")).format(
                r.choice(english)
            ),
        ),
        "two emoji and a word": _of(EMOJI, english, EMOJI),
        "five kana": (5 * log10(len(HIRAGANA)), lambda r: "".join(r.choices(HIRAGANA, k=5))),
        "book number": (9.0, lambda r: "978" + _digits(r, 10)),
        "card number": (14.0, _luhn),
        "version": (
            4.0,
            lambda r: f"v{r.randrange(10)}.{r.randrange(100)}.{r.randrange(10)}",
        ),
        "my … is …": (
            2 * log10(2000),
            lambda r: f"my{r.choice(english[:2000])}is{r.choice(english[:2000])}",
        ),
        "i love …": (
            log10(1500 * 100 * 4),
            lambda r: (
                r.choice(("ilove", "iheart", "imiss", "ihate")) + r.choice(names) + r.choice(two)
            ),
        ),
        "year backwards and word": (
            log10(65 * len(english)),
            lambda r: r.choice(years)[::-1] + r.choice(english),
        ),
        "word and shifted digits": _of(english, ["!@#", "!@#$", '!"#', "#@!", "@#$", "!!@@"]),
        "small, then in capitals": (
            log10(len(english)),
            lambda r: (w := r.choice(english)) + w.upper(),
        ),
        "in capitals by underlines, year": (
            log10(len(upper) ** 2 * 65),
            lambda r: f"{r.choice(upper)}_{r.choice(upper)}_{r.choice(years)}",
        ),
        "drawn, in groups of four": (
            12 * log10(32),
            lambda r: "-".join("".join(r.choices(UPPER + "234567", k=4)) for _ in range(3)),
        ),
    }
    for name, (outcomes_log10, make) in ways.items():
        yield Process(name, outcomes_log10, make)
