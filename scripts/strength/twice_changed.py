"""Words changed in two ways, one upon the other: each of three dozen changes after each. What a
change draws beside (a place, a sign, two digits) is counted; that the second may undo the first, or
change nothing, is not.
"""

from collections.abc import Callable
from functools import partial
from itertools import pairwise
from math import log10
from random import Random
from string import ascii_lowercase

from scripts.strength.further import CASED, MIDDLE
from scripts.strength.processes import DIGITS, Process

Change = Callable[[str, Random], str]

SIGNED = str.maketrans("aeiost", "@3!0$7")
_KEYS = ("1234567890-", "qwertyuiop[", "asdfghjkl;'", "zxcvbnm,./")


def _both_cases(pairs: dict[str, str]) -> dict[int, str]:
    return str.maketrans(pairs | {a.upper(): b.upper() for a, b in pairs.items()})


NEXT_LETTER = _both_cases(dict(zip(ascii_lowercase, ascii_lowercase[1:] + "a", strict=True)))
TO_THE_RIGHT = _both_cases({a: b for row in _KEYS for a, b in pairwise(row)})
ONE_UP = _both_cases({a: b for two in pairwise(_KEYS) for b, a in zip(*two, strict=False)})


def _at(text: str, r: Random) -> int:
    return r.randrange(1, len(text))


def _put_in(text: str, r: Random, signs: str) -> str:
    at = _at(text, r)
    return text[:at] + r.choice(signs) + text[at:]


def _exchanged(text: str, r: Random) -> str:
    at = _at(text, r)
    return text[: at - 1] + text[at] + text[at - 1] + text[at + 1 :]


def _without_one(text: str, r: Random) -> str:
    at = _at(text, r)
    return text[:at] + text[at + 1 :]


def _one_twice(text: str, r: Random) -> str:
    at = _at(text, r)
    return text[:at] + text[at - 1 :]


def _between(text: str, r: Random, pairs: tuple[str, ...]) -> str:
    pair = r.choice(pairs)
    return pair[: len(pair) // 2] + text + pair[len(pair) // 2 :]


SIGNS, ENDINGS = "!._-*", ("ing", "er", "ly", "ish", "y", "man", "land", "ness")
CHANGES: dict[str, tuple[float, Change]] = {
    "backwards": (1, lambda w, _: w[::-1]),
    "first letter up": (1, lambda w, _: w.title()),
    "in capitals": (1, lambda w, _: w.upper()),
    "digits for letters": (1, lambda w, _: w.translate(CASED)),
    "signs for letters": (1, lambda w, _: w.translate(SIGNED)),
    "case by turns": (1, lambda w, _: "".join(c.upper() if i % 2 else c for i, c in enumerate(w))),
    "last letter up": (1, lambda w, _: w[:-1] + w[-1].upper()),
    "without vowels": (1, lambda w, _: "".join(c for c in w if c.lower() not in "aeiou")),
    "one letter twice": (6, _one_twice),
    "one letter less": (6, _without_one),
    "two exchanged": (6, _exchanged),
    "a sign put in": (6 * 5, partial(_put_in, signs=SIGNS)),
    "a digit put in": (6 * 10, partial(_put_in, signs=DIGITS)),
    "twice": (1, lambda w, _: w + w),
    "each letter twice": (1, lambda w, _: "".join(c * 2 for c in w)),
    "a sign between": (5, lambda w, r: r.choice(".-_ *").join(w)),
    "one letter on": (1, lambda w, _: w.translate(NEXT_LETTER)),
    "one key to the right": (1, lambda w, _: w.translate(TO_THE_RIGHT)),
    "one key up": (1, lambda w, _: w.translate(ONE_UP)),
    "first letter behind": (1, lambda w, _: w[1:] + w[0]),
    "halves exchanged": (1, lambda w, _: w[len(w) // 2 :] + w[: len(w) // 2]),
    "in brackets": (5, partial(_between, pairs=("()", "[]", "<>", "{}", "**"))),
    "between a digit": (10, partial(_between, pairs=tuple(d * 2 for d in DIGITS))),
    "two digits": (100, lambda w, r: w + "".join(r.choices(DIGITS, k=2))),
    "a year": (70, lambda w, r: f"{w}{r.randint(1950, 2019)}"),
    "digit and sign": (50, lambda w, r: w + r.choice(DIGITS) + r.choice("!?.#*")),
    "two digits in front": (100, lambda w, r: "".join(r.choices(DIGITS, k=2)) + w),
    "I love": (1, lambda w, _: "ilove" + w),
    "an ending": (8, lambda w, r: w + r.choice(ENDINGS)),
    "z behind": (1, lambda w, _: w + "z"),
    "between x": (1, lambda w, _: f"xx{w}xx"),
    "by the sound": (1, lambda w, _: w.replace("f", "ph").replace("ck", "x").replace("s", "z")),
    "without its last letter": (1, lambda w, _: w[:-1]),
    "three letters, and in capitals": (1, lambda w, _: w[:3] + w[:3].upper()),
    "and backwards": (1, lambda w, _: w + w[::-1]),
    "a byte": (256, lambda w, r: f"{w}{r.randrange(256):02x}"),
}


def _make(first: Change, second: Change, r: Random) -> str:
    while True:
        once = first(r.choice(MIDDLE), r)
        made = second(once, r) if len(once) > 1 else ""
        if len(made) > 3:
            return made


def twice_changed() -> list[Process]:
    """One for each change after each other one."""
    return [
        Process(f"{a}, {b}", log10(len(MIDDLE) * n * m), partial(_make, first, second))
        for a, (n, first) in CHANGES.items()
        for b, (m, second) in CHANGES.items()
        if a != b
    ]
