"""Ways of making secrets that were written after the frames and the scheme were, and scored once
before anything was changed for them: what people who make up their own system do.
"""

from collections.abc import Iterator
from math import log10
from random import Random

from scripts.strength.further import (
    MIDDLES,
    MONTHS,
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

NAMES_N = 1500
SITES = ("bank", "mail", "shop", "forum", "work", "cloud", "music", "video", "game", "school")
EMOJI = "😀😂😍😎🔥⭐❤👍🎉🐱"
TEAMS = ("United", "City", "Rovers", "Wanderers", "Athletic")
COLOURS = ("red", "green", "blue", "black", "white", "gold", "pink", "grey")
LEVELS = ("admin", "root", "guest", "test", "user", "demo", "temp", "backup")
KANA = ("ka", "ki", "ku", "ke", "ko", "sa", "shi", "su", "se", "so", "ta", "chi", "tsu", "te")
KANA_N = len(KANA)


def _site_in(r: Random) -> str:
    site, word = r.choice(SITES), _w(r)
    return site[0].upper() + word + site[-1].upper() + _d(r, 2)


def _every_second_up(word: str, digits: str) -> str:
    return "".join(c + d for c, d in zip(word, digits, strict=False)) + word[len(digits) :]


def _vigenere(word: str, key: str) -> str:
    return "".join(
        chr((ord(c) - 97 + ord(key[at % len(key)]) - 97) % 26 + 97) for at, c in enumerate(word)
    )


def _by_rows(word: str) -> str:
    return word[::3] + word[1::3] + word[2::3]


def _ending_doubled(word: str) -> str:
    return word + word[-3:] * 2


def _between_letters(word: str, signs: str) -> str:
    return "".join(c + signs[at % len(signs)] for at, c in enumerate(word))


def _system() -> Iterator[tuple[str, float, Make]]:
    """A system of one's own, with the site in it."""
    yield ("site in frame", 10 * WORDS_N * 100, _site_in)
    yield (
        "site, dash, word",
        10 * WORDS_N * YEARS,
        lambda r: f"{r.choice(SITES)}-{_w(r)}-{_y(r)[2:]}",
    )
    yield ("my site pass", 10 * 1000, lambda r: f"My{r.choice(SITES).title()}Pass{_d(r, 3)}")
    yield (
        "word, site's letters, sign",
        10 * WORDS_N * 5,
        lambda r: _w(r).title() + r.choice(SITES)[:3].upper() + r.choice("!?#*+"),
    )
    yield (
        "word twice with the site between",
        10 * WORDS_N,
        lambda r: (lambda w: w + r.choice(SITES) + w)(_w(r)),
    )
    yield (
        "level and place",
        8 * WORDS_N * 100,
        lambda r: f"{r.choice(LEVELS)}_{_w(r)}_{_d(r, 2)}",
    )
    yield ("level at word", 8 * WORDS_N * YEARS, lambda r: f"{r.choice(LEVELS)}@{_w(r)}{_y(r)}")
    yield ("quarter", WORDS_N * 4 * 30, lambda r: f"{_w(r).title()}Q{r.randint(1, 4)}{_y(r)}!")
    yield ("week", WORDS_N * 52 * 5, lambda r: f"{_w(r)}-KW{r.randint(1, 52):02}-{_y(r)[2:]}")
    yield (
        "month and number",
        12 * WORDS_N * 10,
        lambda r: f"{r.choice(MONTHS)[:3].upper()}{_w(r)}#{r.randint(1, 9)}",
    )
    yield ("new year", WORDS_N * 30 * 3, lambda r: f"{_w(r).title()}>{_y(r)}<{_w(r)[0]}")
    yield ("counted up", WORDS_N * 30, lambda r: f"{_w(r)}__{r.randint(1, 30):03}")
    yield ("team", WORDS_N * 5 * 100, lambda r: f"{_w(r).title()}{r.choice(TEAMS)}{_d(r, 2)}")
    yield (
        "shirt",
        NAMES_N * 99 * 5,
        lambda r: f"{_n(r).title()}#{r.randint(1, 99)}{r.choice(TEAMS)[0]}C",
    )


def _people() -> Iterator[tuple[str, float, Make]]:
    """People and their things."""
    yield (
        "three names' letters and a day",
        26**3 * 365,
        lambda r: "".join(r.choices(UPPER, k=3)) + "_{:02}.{:02}.".format(*_day(r)),
    )
    yield ("name and phone", NAMES_N * 1e4, lambda r: f"{_n(r).title()}-{_d(r, 4)}")
    yield ("names in a row", NAMES_N**3, lambda r: f"{_n(r)},{_n(r)},{_n(r)}")
    yield (
        "names with hearts",
        NAMES_N**2 * 3,
        lambda r: _n(r).title() + r.choice("❤♥") + _n(r).title() + r.choice("!❤ ").strip(),
    )
    yield ("name on its own day", NAMES_N * 366, lambda r: "{}{:02}{:02}{}".format(_n(r), *_day(r)))
    yield ("married", NAMES_N**2 * YEARS, lambda r: f"{_n(r)}u{_n(r)}{_y(r)[2:]}")
    yield (
        "pet of",
        NAMES_N * WORDS_N * 6,
        lambda r: f"{_n(r)}{r.choice(('cat', 'dog', 'fish', 'pony', 'bird', 'bunny'))}{_w(r)}",
    )
    yield (
        "colour and thing",
        8 * WORDS_N * 1000,
        lambda r: f"{r.choice(COLOURS)}{_w(r)}{_d(r, 3)}",
    )
    yield (
        "colour of thing",
        8 * WORDS_N**2,
        lambda r: f"{r.choice(COLOURS).title()} {_w(r)} & {_w(r)}",
    )
    yield (
        "emoji about a word",
        10**2 * WORDS_N,
        lambda r: r.choice(EMOJI) + _w(r) + r.choice(EMOJI),
    )
    yield ("emoji and digits", 10**3 * 100, lambda r: "".join(r.choices(EMOJI, k=3)) + _d(r, 2))
    yield ("age of", NAMES_N * 90 * 100, lambda r: f"{r.randint(1, 90)}y{_n(r).title()}{_d(r, 2)}")


def _changed() -> Iterator[tuple[str, float, Make]]:
    """Words changed by a rule of one's own."""
    yield (
        "digits between letters",
        MIDDLES * 1e4,
        lambda r: _every_second_up(_m(r), _d(r, 4)),
    )
    yield (
        "with a key word",
        MIDDLES * 20,
        lambda r: _vigenere(_m(r), r.choice(("key", "code", "abc", "lock"))) + _d(r, 1),
    )
    yield ("by every third", MIDDLES * 100, lambda r: _by_rows(_m(r)) + _d(r, 2))
    yield ("ending again and again", WORDS_N * 100, lambda r: _ending_doubled(_w(r)) + _d(r, 2))
    yield (
        "two signs by turns",
        MIDDLES * 20,
        lambda r: _between_letters(_m(r), "".join(r.sample(".-_*+", 2))),
    )
    yield (
        "without its last letters",
        WORDS_N**2 * 10,
        lambda r: _w(r)[:-2] + _w(r)[:-2] + _d(r, 1),
    )
    yield ("k for c", MIDDLES * 100, lambda r: _m(r).replace("c", "k").replace("s", "z") + _d(r, 2))
    yield (
        "consonants up",
        MIDDLES * 10,
        lambda r: "".join(c if c in "aeiou" else c.upper() for c in _m(r)) + _d(r, 1),
    )
    yield (
        "last letter first",
        WORDS_N * 1000,
        lambda r: (lambda w: w[-1] + w[:-1])(_w(r)) + _d(r, 3),
    )
    yield ("word in star signs", WORDS_N * 4, lambda r: "*" + "*".join(_w(r)) + "*")
    yield ("kana", KANA_N**4 * 100, lambda r: "".join(r.choices(KANA, k=4)) + _d(r, 2))
    yield (
        "stuttered",
        MIDDLES * 10,
        lambda r: (lambda w: f"{w[:2]}-{w[:2]}-{w}")(_m(r)) + _d(r, 1),
    )


def _codes() -> Iterator[tuple[str, float, Make]]:
    """Codes and numbers."""
    yield (
        "key in groups",
        36.0**8,
        lambda r: "-".join("".join(r.choices(UPPER + DIGITS, k=4)) for _ in range(2)),
    )
    yield (
        "same code again",
        26**2 * 100,
        lambda r: (lambda c: f"{c}-{c}-{c}")("".join(r.choices(UPPER, k=2)) + _d(r, 2)),
    )
    yield ("phone as words", WORDS_N * 1e4, lambda r: f"1-800-{_w(r).upper()}-{_d(r, 4)}")
    yield (
        "room and building",
        26 * 999 * WORDS_N,
        lambda r: f"{_w(r)} {r.choice(UPPER)}.{r.randint(1, 999)}",
    )
    yield ("invoice", 12 * 70 * 1e4, lambda r: f"INV-{_y(r)}-{r.randint(1, 12):02}-{_d(r, 4)}")
    yield ("ticket", 26**3 * 1e4, lambda r: f"{''.join(r.choices(UPPER, k=3))}-{_d(r, 4)}")
    yield (
        "part number",
        26**2 * 1e6,
        lambda r: f"{''.join(r.choices(LOWER, k=2))}{_d(r, 3)}/{_d(r, 3)}",
    )
    yield ("sum of days", YEARS * 365 * 10, lambda r: "{}+{}+{}".format(*_day(r)) + r.choice("=!"))
    yield ("digits in pairs", 1e8, lambda r: " ".join(_d(r, 2) for _ in range(4)))
    yield ("mirror number", 1e4 * 3, lambda r: (lambda d: d + r.choice("-_|") + d[::-1])(_d(r, 4)))


def latest() -> list[Process]:
    """All of them."""
    ways = [*_system(), *_people(), *_changed(), *_codes()]
    return [Process(name, log10(outcomes), make) for name, outcomes, make in ways]
