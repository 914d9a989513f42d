"""Rare ways of making secrets: other writings, ciphers, games, codes and shapes. Written after all
that came before them, and scored once before anything was changed for them.
"""

import base64
import string
from collections.abc import Iterator
from math import log10
from urllib.parse import quote

from scripts.strength.further import (
    MIDDLES,
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
ROWS = ("qwertyuiop", "asdfghjkl;", "zxcvbnm,./")
FLAT = "".join(ROWS)
CYRILLIC = str.maketrans("abvgdeziklmnoprstufhcjyw", "абвгдезиклмнопрстуфхцйыв")
GREEK = str.maketrans("abgdeziklmnoprstufxw", "αβγδεζικλμνοπρστυφχω")
PINYIN: tuple[str, ...] = ("wo", "ai", "ni", "ma", "zhong", "guo", "hao", "xiao", "long", "wang")
PINYIN += ("li", "chen", "jia", "ming", "hong", "tian", "di", "ren", "da", "bei", "jing", "shang")
PINYIN += ("hai", "mei", "yu")
TELEX = ("vieejt", "nam", "xin", "chaof", "camr", "own", "anh", "yeeu", "em", "ddoongf", "hanhf")
KAOMOJI = ("(^_^)", "(-_-)", "(o_o)", "(>_<)", "(*_*)", "(T_T)", "\\o/", "(^o^)", "(._.)")
CARDS = [rank + suit for rank in "23456789TJQKA" for suit in "shdc"]
TURNS = [face + way for face in "RLUDFB" for way in ("", "'", "2")]
SEVENTH = ("maj7", "m7", "7", "sus4", "dim", "add9")
ARABIC = str.maketrans("aqht", "3975")
SMALL_CAPITALS = str.maketrans("abcdeghijklmnoprtuvwz", "ᴀʙᴄᴅᴇɢʜɪᴊᴋʟᴍɴᴏᴘʀᴛᴜᴠᴡᴢ")
BLOCK = str.maketrans({c: 0x1D41A + at for at, c in enumerate(LOWER)})
ENDS = ("!", "?", ".", "#", "*")
STAMP = ((2000, 2019), (1, 12), (1, 28), (0, 23), (0, 59), (0, 59))
PRAISE: tuple[str, ...] = (
    "No1",
    "TheGreat",
    "TheBest",
    "Rules",
    "Rocks",
    "Sucks",
    "Rulez",
    "IsCool",
    "Forever",
    "4Life",
)
BEATS = ("boom", "tick", "tock", "clap", "tap", "bang", "pow", "zap")
COMMA_WORDS = ("uno", "dos", "tres", "cuatro", "cinco", "seis", "siete", "ocho", "nueve", "diez")
GERMAN_TENS = ("zwanzig", "dreissig", "vierzig", "fuenfzig", "sechzig", "siebzig", "achtzig")
GERMAN_ONES = ("ein", "zwei", "drei", "vier", "fuenf", "sechs", "sieben", "acht", "neun")
WEAPONS = ("sword", "axe", "bow", "staff", "mace", "spear", "dagger", "shield")
RANKS = ("Lord", "Lady", "King", "Queen", "Knight", "Captain", "Doctor", "Agent", "Baron", "Duke")


def _diagonal(word: str) -> str:
    """Each letter's key, one to the right and one row up, around at the ends."""
    out = ""
    for c in word:
        row = next(at for at, keys in enumerate(ROWS) if c in keys)
        out += ROWS[(row - 1) % 3][(ROWS[row].index(c) + 1) % 10]
    return out


def _moved(word: str, by: int) -> str:
    return "".join(FLAT[(FLAT.index(c) + by) % 30] for c in word)


def _atbash(word: str) -> str:
    return word.translate(str.maketrans(LOWER, LOWER[::-1]))


def _caesar(word: str, by: int) -> str:
    return word.translate(str.maketrans(LOWER, LOWER[by:] + LOWER[:by]))


def _rot47(text: str) -> str:
    return "".join(chr(33 + (ord(c) - 33 + 47) % 94) for c in text)


def _rails(word: str) -> str:
    return word[::2] + word[1::2]


def _square(word: str) -> str:
    letters = LOWER.replace("j", "")
    at = [letters.index(c) for c in word.replace("j", "i")]
    return "".join(f"{one // 5 + 1}{one % 5 + 1}" for one in at)


def _numbered(word: str, between: str) -> str:
    return between.join(str(ord(c) - 96) for c in word)


def _said_aloud(count: int) -> list[str]:
    row = ["1"]
    while len(row) < count:
        out, at, last = "", 0, row[-1]
        while at < len(last):
            run = len(last[at:]) - len(last[at:].lstrip(last[at]))
            out, at = out + f"{run}{last[at]}", at + run
        row.append(out)
    return row


def _ciphers() -> Iterator[tuple[str, float, Make]]:
    """Texts through a map or a cipher."""
    yield "atbash", MIDDLES * 100, lambda r: _atbash(_m(r)) + _d(r, 2)
    yield "three on", MIDDLES * 25 * 10, lambda r: _caesar(_m(r), r.randint(1, 25)) + _d(r, 1)
    yield "by 47", MIDDLES * 100, lambda r: _rot47(_m(r) + _d(r, 2))
    yield "slanted keys", MIDDLES * 10, lambda r: _diagonal(_m(r)) + _d(r, 1)
    yield "keys two along", MIDDLES * 2 * 10, lambda r: _moved(_m(r), r.choice((2, -2))) + _d(r, 1)
    yield "two rails", MIDDLES * 100, lambda r: _rails(_m(r)) + _d(r, 2)
    yield "square of letters", MIDDLES, lambda r: _square(_m(r))
    yield "letters by number", MIDDLES * 3, lambda r: _numbered(_m(r), r.choice(("-", ".", " ")))
    yield "percent signs", WORDS_N**2, lambda r: quote(f"{_w(r)}&{_w(r)}", safe="")
    yield "base 32", MIDDLES * 10, lambda r: base64.b32encode((_m(r) + _d(r, 1)).encode()).decode()
    yield "hexadecimal text", WORDS_N * 10, lambda r: (_w(r) + _d(r, 1)).encode().hex()
    yield "base 64, turned", WORDS_N, lambda r: base64.b64encode(_w(r).encode()).decode()[::-1]
    yield "turned and three on", MIDDLES * 100, lambda r: _caesar(_m(r)[::-1], 3) + _d(r, 2)
    yield (
        "each word turned",
        WORDS_N**2 * 3,
        lambda r: _w(r)[::-1] + r.choice("-_ ") + _w(r)[::-1],
    )
    yield (
        "by turns of two",
        MIDDLES**2 / 6,
        lambda r: "".join(a + b for a, b in zip(_m(r)[:5], _m(r)[:5], strict=True)),
    )
    yield "capital at both ends", MIDDLES * 100, lambda r: _ends(_m(r)) + _d(r, 2)
    yield (
        "sticky shift",
        MIDDLES * 6,
        lambda r: _m(r).upper() + r.choice(("!@#", "!!!", "!", "@", "#", "$$")),
    )
    yield "letter, position", MIDDLES, lambda r: "".join(f"{c}{at}" for at, c in enumerate(_m(r)))


def _ends(word: str) -> str:
    return word[0].upper() + word[1:-1] + word[-1].upper()


def _scripts() -> Iterator[tuple[str, float, Make]]:
    """Other writings and languages, and what stands for them."""
    yield "Cyrillic by sound", MIDDLES * 10, lambda r: _m(r).translate(CYRILLIC) + _d(r, 1)
    yield "Greek by sound", MIDDLES * 10, lambda r: _m(r).translate(GREEK) + _d(r, 1)
    yield "pinyin", len(PINYIN) ** 3 * 1000, lambda r: "".join(r.choices(PINYIN, k=3)) + _d(r, 3)
    yield (
        "with tone keys",
        len(TELEX) ** 3 * 10,
        lambda r: "".join(r.choices(TELEX, k=3)) + _d(r, 1),
    )
    yield "digits for sounds", MIDDLES * 100, lambda r: _m(r).translate(ARABIC) + _d(r, 2)
    yield "small capitals", MIDDLES * 10, lambda r: _m(r).translate(SMALL_CAPITALS) + _d(r, 1)
    yield "mathematical letters", MIDDLES * 10, lambda r: _m(r).translate(BLOCK) + _d(r, 1)
    yield "faces", len(KAOMOJI) * WORDS_N * 10, lambda r: _w(r) + r.choice(KAOMOJI) + _d(r, 1)
    yield "Spanish numbers", 10**4, lambda r: "".join(r.choices(COMMA_WORDS, k=4))
    yield (
        "German number",
        9 * 7 * WORDS_N,
        lambda r: f"{r.choice(GERMAN_ONES)}und{r.choice(GERMAN_TENS)}{_w(r)}",
    )
    yield (
        "umlauts spelt",
        MIDDLES * 100,
        lambda r: _m(r).replace("o", "oe").replace("u", "ue") + _d(r, 2),
    )
    yield (
        "dots over",
        MIDDLES * 100,
        lambda r: _m(r).translate(str.maketrans("aou", "äöü")) + _d(r, 2),
    )
    yield "in Spanish signs", WORDS_N * 10, lambda r: f"¡{_w(r)}{_d(r, 1)}!"
    yield "in guillemets", WORDS_N * 100, lambda r: f"«{_w(r)}{_d(r, 2)}»"


def _games() -> Iterator[tuple[str, float, Make]]:
    """Games, machines, papers."""
    yield "hand of cards", 52.0**3 * 5, lambda r: "".join(r.sample(CARDS, 3)) + r.choice(ENDS)
    yield "turns of a cube", 18.0**5, lambda r: " ".join(r.choices(TURNS, k=5))
    yield (
        "dice and bonus",
        4 * 6 * 20 * WORDS_N,
        lambda r: f"{r.randint(1, 4)}d{r.choice((4, 6, 8, 10, 12, 20))}+{r.randint(1, 20)}{_w(r)}",
    )
    yield (
        "episode",
        WORDS_N * 200,
        lambda r: f"{_w(r).title()}S{r.randint(1, 10):02}E{r.randint(1, 20):02}",
    )
    yield (
        "weapon of level",
        8 * WORDS_N * 99,
        lambda r: f"{_w(r).title()}{r.choice(WEAPONS).title()}L{r.randint(1, 99)}",
    )
    yield (
        "rank and name",
        10 * NAMES_N * YEARS,
        lambda r: f"{r.choice(RANKS)}{_n(r).title()}{_y(r)}",
    )
    yield "player's sign", NAMES_N * 100, lambda r: f"xX_{_n(r)}{_d(r, 2)}_Xx"
    yield (
        "locator",
        18**2 * 100 * 24**2,
        lambda r: (
            "".join(r.choices("ABCDEFGHIJKLMNOPQR", k=2))
            + _d(r, 2)
            + "".join(r.choices("abcdefghijklmnopqrstuvwx", k=2))
            + r.choice(ENDS)
        ),
    )
    yield (
        "call sign",
        26**5 * 10 / 4,
        lambda r: "".join(r.choices(UPPER, k=2)) + _d(r, 1) + "".join(r.choices(UPPER, k=3)),
    )
    yield "bank account", 1e10 * 97, lambda r: f"DE{r.randint(2, 98):02}{_d(r, 10)}"
    yield (
        "device",
        256.0**3,
        lambda r: "00:1B:" + ":".join(f"{r.randrange(256):02X}" for _ in range(3)),
    )
    yield "short hash", 16.0**7, lambda r: "".join(r.choices("0123456789abcdef", k=7))
    yield "three words on a map", WORDS_N**3, lambda r: f"///{_w(r)}.{_w(r)}.{_w(r)}"
    yield (
        "chord names",
        (7 * 6) ** 3,
        lambda r: "".join(r.choice("ABCDEFG") + r.choice(SEVENTH) for _ in range(3)),
    )
    yield "beats", 8**3 * WORDS_N, lambda r: "".join(r.choices(BEATS, k=3)) + _w(r)
    yield (
        "strings of a guitar",
        6 * 12**4,
        lambda r: "-".join(r.choice("eBGDAE") + str(r.randrange(12)) for _ in range(4)),
    )
    yield "bet", WORDS_N * 99 * 99, lambda r: f"{_w(r)} {r.randint(1, 99)}:{r.randint(1, 99)}"
    yield (
        "pattern",
        WORDS_N * 8,
        lambda r: (
            f"^{_w(r)}{r.choice(('.*', '[0-9]+', '[a-z]*', '+', '.?', '{2}', '{1,3}', '|'))}$"
        ),
    )
    yield (
        "formula of text",
        WORDS_N * 10 * 4,
        lambda r: f"\\{r.choice(('frac', 'sqrt', 'text', 'bold'))}{{{_w(r)}}}^{_d(r, 1)}",
    )
    yield "folder of a share", NAMES_N * WORDS_N, lambda r: f"\\\\{_n(r)}\\{_w(r)}$"
    yield "variable", WORDS_N**2 * 100, lambda r: f"${{{_w(r)}_{_w(r)}}}{_d(r, 2)}"
    yield (
        "time zone",
        24 * 60 * 25 * 3,
        lambda r: (
            f"{r.randint(0, 23):02}:{r.randint(0, 59):02}{r.choice('+-')}{r.randint(0, 12):02}:00"
        ),
    )
    yield (
        "stamp of a machine",
        20 * 365 * 86_400,
        lambda r: "{}-{:02}-{:02}T{:02}:{:02}:{:02}Z".format(*(r.randint(*ends) for ends in STAMP)),
    )


def _numbers() -> Iterator[tuple[str, float, Make]]:
    """Rows of numbers, walks and rhythms."""
    yield (
        "powers of two",
        40,
        lambda r: (lambda a: "".join(str(2**n) for n in range(a, a + 5)))(r.randint(0, 12)),
    )
    yield "said aloud", 9 * WORDS_N, lambda r: r.choice(_said_aloud(9)[2:8]) + _w(r)
    yield (
        "odd numbers",
        50 * 3,
        lambda r: (lambda a: "".join(str(n) for n in range(a, a + 12, 2)))(r.randint(1, 50)),
    )
    yield (
        "times table",
        20 * 5,
        lambda r: (lambda a: ",".join(str(a * n) for n in range(1, 6)))(r.randint(2, 20)),
    )
    yield (
        "digits up and down",
        10 * WORDS_N,
        lambda r: (lambda a: a + a[-2::-1])("123456789"[: r.randint(3, 9)]) + _w(r),
    )
    yield (
        "two rows by turns",
        10 * 10,
        lambda r: "".join(
            a + b
            for a, b in zip(
                "1234567890"[r.randrange(4) :], "qwertyuiop"[r.randrange(4) :], strict=False
            )
        ),
    )
    yield (
        "row shifted by turns",
        60,
        lambda r: "".join(
            c.upper() if at % 2 else c for at, c in enumerate(r.choice(ROWS)[: r.randint(6, 10)])
        ),
    )
    yield (
        "square of keys",
        9 * 4 * WORDS_N,
        lambda r: (
            r.choice(("qwsa", "wesd", "erdf", "rtfg", "tygh", "asxz", "sdcx", "dfvc", "fgbv"))
            + _w(r)
        ),
    )
    yield (
        "zigzag",
        8 * 100,
        lambda r: (
            (lambda a: "".join(FLAT[a + n // 2 + (10 if n % 2 else 0)] for n in range(8)))(
                r.randrange(6)
            )
            + _d(r, 2)
        ),
    )
    yield (
        "pad of digits",
        8 * 1000,
        lambda r: (
            r.choice(
                (
                    "147258369",
                    "159357",
                    "789456123",
                    "963852741",
                    "741852963",
                    "7410",
                    "2580",
                    "14789632",
                )
            )
            + _d(r, 3)
        ),
    )
    yield (
        "same digit grows",
        10 * 26,
        lambda r: (lambda c: c + c * 2 + "-" + c * 3)(r.choice(LOWER + DIGITS)),
    )
    yield (
        "letters in pairs on",
        26 * 10,
        lambda r: (
            (lambda a: "".join(LOWER[(a + n) % 26] * 2 for n in range(5)))(r.randrange(26))
            + _d(r, 1)
        ),
    )
    yield (
        "letters from both ends",
        10,
        lambda r: "".join(
            a + b for a, b in zip(LOWER[: r.randint(3, 6)], LOWER[::-1], strict=False)
        ),
    )
    yield (
        "step of the day",
        365 * 60 * 9,
        lambda r: "{:02}{:02}{}".format(*_day(r))[::-1] + r.choice("123456789"),
    )
    yield (
        "coordinates of a town",
        PLACES_N * 90 * 180,
        lambda r: f"{r.choice(PLACES)}{r.randint(0, 89)}N{r.randint(0, 179)}E",
    )
    yield (
        "year, word, year on",
        WORDS_N * YEARS,
        lambda r: (lambda y: f"{y}{_w(r)}{y + 1}")(int(_y(r))),
    )
    yield (
        "word within its digits",
        WORDS_N * 1000,
        lambda r: (lambda d: d + _w(r) + d[::-1])(_d(r, 3)),
    )
    yield (
        "counted in letters",
        WORDS_N * 26,
        lambda r: (lambda at: _w(r) + "".join(LOWER[(at + n) % 26] for n in range(4)))(
            r.randrange(26)
        ),
    )
    yield (
        "signs of the digits",
        60 * WORDS_N,
        lambda r: _w(r) + r.choice(("!@#$%", "!@#$%^", ")(*&", "%$#@!", "!!@@##", "()()")),
    )
    yield "letters of one hand", 15.0**8, lambda r: "".join(r.choices("qwertasdfgzxcvb", k=8))
    yield "smashed", 10.0**9, lambda r: "".join(r.choices("asdfghjkl;", k=9))
    yield (
        "said in syllables",
        (16 * 5) ** 3 * 100,
        lambda r: (
            "".join(r.choice("bdfghjklmnprstvz") + r.choice("aeiou") for _ in range(3)).title()
            + _d(r, 2)
        ),
    )
    yield (
        "closed syllables",
        (16 * 5 * 8) ** 2 * 100,
        lambda r: (
            "".join(
                r.choice("bdfghjklmnprstvz") + r.choice("aeiou") + r.choice("nrlstkmp")
                for _ in range(2)
            )
            + _d(r, 2)
        ),
    )
    yield (
        "signs alone",
        len(string.punctuation) ** 6,
        lambda r: "".join(r.choices(string.punctuation, k=6)),
    )
    yield "hearts and digits", 6 * 1e4, lambda r: r.choice("♥♦♣♠★☆") * 2 + _d(r, 4)
    yield (
        "greatest",
        10 * NAMES_N,
        lambda r: f"{_n(r).title()}{r.choice(PRAISE)}",
    )


def rarer() -> list[Process]:
    """All of them."""
    ways = [*_ciphers(), *_scripts(), *_games(), *_numbers()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
