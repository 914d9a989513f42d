"""Ways of making secrets that were written before the finders of versions, prices, places in a
row and equations were, which are judged by them: what people note beside their words.
"""

from collections.abc import Iterator
from math import log10

from scripts.strength.further import (
    MIDDLES,
    MONTHS,
    WORDS_N,
    Make,
    _d,
    _day,
    _m,
    _n,
    _split,
    _w,
    _y,
)
from scripts.strength.processes import UPPER, Process

NAMES_N = 1500
NOTES = ["do", "re", "mi", "fa", "sol", "la", "ti"]
CHORDS = [root + kind for root in "ABCDEFG" for kind in ("", "m", "7", "m7", "maj7", "sus4")]
ELEMENTS = [
    "H",
    "He",
    "Li",
    "Be",
    "B",
    "C",
    "N",
    "O",
    "F",
    "Ne",
    "Na",
    "Mg",
    "Al",
    "Si",
    "P",
    "S",
    "Cl",
    "Ar",
    "K",
    "Ca",
    "Fe",
    "Cu",
    "Zn",
    "Ag",
    "Au",
    "Hg",
    "Pb",
]
NUMBERS = [
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
]
TENS = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]
BOOKS = [
    "Genesis",
    "Exodus",
    "Psalm",
    "Proverbs",
    "Isaiah",
    "Daniel",
    "Matthew",
    "Mark",
    "Luke",
    "John",
    "Acts",
    "Romans",
    "James",
    "Peter",
    "Jude",
    "Revelation",
]
ROMAN = tuple(
    zip(
        (1000, 900, 500, 400, 100, 90, 50, 40, 10, 9, 5, 4, 1),
        ["M", "CM", "D", "CD", "C", "XC", "L", "XL", "X", "IX", "V", "IV", "I"],
        strict=True,
    )
)


def _roman(number: int) -> str:
    said = ""
    for value, letters in ROMAN:
        said += letters * (number // value)
        number %= value
    return said


def _pig(word: str) -> str:
    at = next((i for i, c in enumerate(word) if c in "aeiou"), 0)
    return f"{word[at:]}{word[:at]}ay"


def _ordinal(number: int) -> str:
    last = number % 10 if number not in (11, 12, 13) else 0
    return f"{number}{({1: 'st', 2: 'nd', 3: 'rd'}).get(last, 'th')}"


def _months(first: int) -> str:
    return "".join(MONTHS[(first + k) % 12][:3].lower() for k in range(4))


def _with_length(word: str) -> str:
    return f"{word}{len(word)}"


def _between(sign: str, text: str) -> str:
    return f"{sign}{text}{sign}"


def _letters(first: int, count: int, each: int) -> str:
    return "".join(chr(97 + (first + k) % 26) * each for k in range(count))


def _by_turns(letter: int, digit: int) -> str:
    return "".join(chr(97 + (letter + k) % 26) + str((digit + k) % 10) for k in range(5))


def _exchanged(one: str, other: str) -> str:
    return other[0] + one[1:] + one[0] + other[1:]


def _ways() -> Iterator[tuple[str, float, Make]]:
    yield ("pig latin", MIDDLES * 100, lambda r: _pig(_m(r)) + _d(r, 2))
    yield (
        "letters and steps",
        MIDDLES,
        lambda r: "".join(c + str(i % 10) for i, c in enumerate(_m(r), 1)),
    )
    yield (
        "initials birthdate",
        26**3 * 365 * 60 * 3,
        lambda r: (
            "".join(r.choices(UPPER, k=3)) + "{:02}{:02}{}".format(*_day(r)) + r.choice("!.#")
        ),
    )
    yield (
        "abcWord123",
        WORDS_N * 3 * 3,
        lambda r: r.choice(("abc", "ABC", "xyz")) + _w(r).title() + r.choice(("123", "321", "111")),
    )
    yield ("word thrice", WORDS_N * 100, lambda r: _w(r) * 3 + _d(r, 2))
    yield ("word and length", WORDS_N * 3, lambda r: _with_length(_w(r)) + r.choice("!?."))
    yield ("mum dad year", NAMES_N**2 * 60, lambda r: _n(r) + _n(r) + _y(r))
    yield (
        "Name&Name",
        NAMES_N**2 * 5 * 60,
        lambda r: _n(r).title() + r.choice("&+4<@") + _n(r).title() + _y(r),
    )
    yield (
        "email like",
        NAMES_N * 10**3 * 5 * 100,
        lambda r: f"{_n(r)}{_d(r, 2)}@{_w(r)}" + r.choice((".com", ".de", ".net")),
    )
    yield (
        "price",
        10**4 * 3,
        lambda r: r.choice("$€£") + f"{r.randint(1, 199)}.{r.choice(('99', '95', '50', '00'))}",
    )
    yield ("price of", WORDS_N * 200, lambda r: f"{_w(r)}{r.choice('$€')}{r.randint(1, 99)}")
    yield (
        "formula",
        27**3 * 8**3,
        lambda r: "".join(
            r.choice(ELEMENTS) + r.choice(("", "2", "3", "4", "6", "12")) for _ in range(4)
        ),
    )
    yield (
        "equation",
        24 * 9 * 90 * 90,
        lambda r: (
            f"{r.randint(2, 9)}{r.choice('xyzabn')}{r.choice('+-')}{r.randint(1, 20)}"
            f"={r.randint(1, 99)}"
        ),
    )
    yield (
        "y=mx+b",
        26**4,
        lambda r: "{}={}{}+{}".format(*r.choices("abcdefghijklmnopqrstuvwxyz", k=4)),
    )
    yield ("solfege", 7**5 * 10, lambda r: "".join(r.choices(NOTES, k=5)) + _d(r, 1))
    yield ("chords", 42**4, lambda r: " ".join(r.choices(CHORDS, k=4)))
    yield ("chords run", 42**4 * 10, lambda r: "-".join(r.choices(CHORDS, k=4)) + _d(r, 1))
    yield (
        "verse",
        16 * 30 * 30,
        lambda r: f"{r.choice(BOOKS)}{r.randint(1, 50)}:{r.randint(1, 30)}",
    )
    yield (
        "score",
        WORDS_N**2 * 36,
        lambda r: f"{_w(r).title()} {r.randint(0, 6)}-{r.randint(0, 6)} {_w(r).title()}",
    )
    yield ("roman year", 120, lambda r: _roman(r.randint(1900, 2019)))
    yield ("word roman year", WORDS_N * 120, lambda r: _w(r) + _roman(r.randint(1900, 2019)))
    yield (
        "number in words",
        1000 * 10,
        lambda r: r.choice(TENS) + r.choice(NUMBERS[:9]) + r.choice(TENS) + r.choice(NUMBERS[:9]),
    )
    yield ("two thousand and", 19 * WORDS_N, lambda r: "twothousand" + r.choice(NUMBERS) + _w(r))
    yield ("months run", 12 * 100, lambda r: _months(r.randrange(12)) + _d(r, 2))
    yield ("ordinals", WORDS_N * 31, lambda r: _ordinal(r.randint(1, 31)) + _w(r).title())
    yield (
        "No1Word",
        WORDS_N * 6,
        lambda r: r.choice(("No1{}", "{}#1", "#1{}", "1{}1", "{}No1", "Mr{}1")).format(
            _w(r).title()
        ),
    )
    yield (
        "emoticon word",
        WORDS_N * 12,
        lambda r: (
            _w(r)
            + r.choice(
                (":-)", ":)", ";-)", ":D", ":P", "^_^", "xD", "=)", "<3", ":-(", ":3", "o_O")
            )
        ),
    )
    yield (
        "emoticon both",
        WORDS_N * 8 * 100,
        lambda r: _between(
            r.choice(("<3", ":)", "^^", "xx", "oo", "**", "~~", "__")), _w(r) + _d(r, 2)
        ),
    )
    yield (
        "file",
        WORDS_N**2 * 8 * 100,
        lambda r: (
            f"{_w(r)}_{_w(r)}_{_d(r, 2)}."
            + r.choice(("jpg", "doc", "pdf", "txt", "mp3", "png", "zip", "xls"))
        ),
    )
    yield (
        "file v",
        WORDS_N * 90 * 8,
        lambda r: f"{_w(r)}-final-v{r.randint(1, 9)}." + r.choice(("doc", "pdf", "txt", "docx")),
    )
    yield (
        "rgb",
        256**3,
        lambda r: f"rgb({r.randint(0, 255)},{r.randint(0, 255)},{r.randint(0, 255)})",
    )
    yield ("size", 2000 * 2000, lambda r: f"{r.randint(1, 1999)}x{r.randint(1, 1999)}")
    yield (
        "version",
        WORDS_N * 10**3 * 2,
        lambda r: (
            f"{_w(r)}{r.choice(('-v', '_v', ' v'))}"
            f"{r.randint(0, 9)}.{r.randint(0, 9)}.{r.randint(0, 9)}"
        ),
    )
    yield (
        "model",
        26**2 * 99 * WORDS_N,
        lambda r: f"{_w(r).title()} {''.join(r.choices(UPPER, k=2))}-{r.randint(1, 99)}",
    )
    yield ("iWord", WORDS_N * 20, lambda r: r.choice("ie") + _w(r).title() + str(r.randint(1, 10)))
    yield (
        "qwertyWord",
        WORDS_N * 6 * 100,
        lambda r: (
            r.choice(("qwerty", "asdf", "zxcv", "qaz", "qwe", "asd")) + _w(r).title() + _d(r, 2)
        ),
    )
    yield (
        "...word...",
        WORDS_N * 6 * 3,
        lambda r: _between(
            r.choice(("...", "***", "---", "###", "===", "!!!", "///", "+++")), _w(r)
        ),
    )
    yield ("iam25", 60 * WORDS_N, lambda r: f"iam{r.randint(12, 70)}and{_w(r)}")
    yield (
        "pw4site",
        6 * WORDS_N * 100,
        lambda r: (
            r.choice(("pw", "pass", "login", "pwd", "key", "code"))
            + r.choice(("4", "for", "_", "2"))
            + _w(r)
            + _d(r, 2)
        ),
    )
    yield (
        "day 9am",
        4 * 24 * WORDS_N,
        lambda r: (
            r.choice(("Monday", "Tuesday", "Friday", "Sunday"))
            + f"{r.randint(1, 12)}{r.choice(('am', 'pm'))}"
            + _w(r)
        ),
    )
    yield ("aabbccdd", 26 * 10, lambda r: _letters(r.randrange(26), 4, 2) + _d(r, 1) * 2)
    yield ("a1b2c3 step", 26 * 10, lambda r: _by_turns(r.randrange(26), r.randrange(10)))
    yield (
        "word-ABC-123",
        WORDS_N * 26**3 * 10**3,
        lambda r: f"{_w(r)}-{''.join(r.choices(UPPER, k=3))}-{_d(r, 3)}",
    )
    yield ("double letters each", WORDS_N * 10, lambda r: "".join(c * 2 for c in _w(r)) + _d(r, 1))
    yield ("first letters swapped", WORDS_N**2, lambda r: _exchanged(_w(r), _w(r)))
    yield ("word split by year", WORDS_N * 5 * 70, lambda r: _split(_w(r), r.randint(1, 4), _y(r)))
    yield ("word minus ending", WORDS_N * 100 * 2, lambda r: _w(r)[:-1] + r.choice("xz") + _d(r, 2))
    yield ("q and a", WORDS_N**2 * 2, lambda r: f"{_w(r)}?{_w(r)}!")
    yield (
        "word(word)",
        WORDS_N**2 * 4,
        lambda r: r.choice(("{}({})", "{}[{}]", "{}/{}", "{}|{}")).format(_w(r), _w(r)),
    )
    yield (
        "tel with area",
        1e9 / 50,
        lambda r: f"+{r.choice((49, 44, 1, 33, 34, 39))} {_d(r, 3)} {_d(r, 6)}",
    )
    yield (
        "license make",
        26**4 * 10**3 * WORDS_N / 10,
        lambda r: (
            "".join(r.choices(UPPER, k=2)) + _d(r, 2) + "".join(r.choices(UPPER, k=2)) + _w(r)
        ),
    )
    yield ("born 12.5.", 365 * 60 * NAMES_N, lambda r: _n(r) + "*{}.{}.{}".format(*_day(r)))
    yield (
        "word every cap third",
        WORDS_N * 10,
        lambda r: "".join(c.upper() if i % 3 == 2 else c for i, c in enumerate(_w(r))) + _d(r, 1),
    )


def noted() -> list[Process]:
    """All of them."""
    return [Process(name, log10(outcomes), make) for name, outcomes, make in _ways()]
