"""The `pattern` of an input element, where it is of the usual make: look-aheads, then one set.

`^(?=.*[a-z])(?=.*\\d)[A-Za-z\\d@$!%*?&]{8,20}$`. It is taken apart, never run: in linear time.
"""

import re
from dataclasses import dataclass

from newknot.core.policy.character_classes import DIGITS, LOWER, SYMBOLS, UPPER

_PRINTABLE = LOWER + UPPER + DIGITS + SYMBOLS
_WORD = LOWER + UPPER + DIGITS + "_"
_SETS = {"\\d": DIGITS, "\\w": _WORD, "\\W": "".join(c for c in SYMBOLS if c != "_"), ".": None,
         "\\D": LOWER + UPPER + SYMBOLS, "\\S": None}  # fmt: skip
_SET = r"(\[(?:\\.|[^\]\\])+\]|\\[dwWDS]|\.)"
_LOOK = re.compile(
    rf"\(\?=(?:\.\*\??|\.\{{0,\}})?{_SET}(?:\{{(\d{{1,3}}),?\}})?(?:\.\*)?\)", re.ASCII
)
_TIMES = re.compile(rf"\(\?=(?:\(\?:|\()\.\*\??{_SET}\)\{{(\d{{1,3}}),?\}}(?:\.\*)?\)", re.ASCII)
_LENGTH = re.compile(r"\(\?=\.\{(\d{1,3}),(\d{0,3})\}\$?\)", re.ASCII)
_NOT = re.compile(rf"\(\?!(?:\.\*\??)?(\\s|{_SET[1:-1]})(?:\.\*)?\)", re.ASCII)
_BODY = re.compile(rf"{_SET}(?:\{{(\d{{1,3}})(,(\d{{0,3}}))?\}}|([*+]))\$?", re.ASCII)


@dataclass(slots=True)
class PatternRead:
    """least, most: lengths, None where not said; alphabet: None where anything may stand; demands:
    (characters, how many).
    """

    least: int | None = None
    most: int | None = None
    alphabet: str | None = None
    demands: tuple[tuple[str, int], ...] = ()


def read_pattern(pattern: str) -> PatternRead | None:
    """What it says, or None where it is of another make."""
    found, demands, barred, at = PatternRead(), [], "", int(pattern.startswith("^"))
    while True:
        look = _LOOK.match(pattern, at) or _TIMES.match(pattern, at)
        if look:
            characters = _characters(look[1])
            if characters:
                demands.append((characters, int(look[2] or 1)))
            at = look.end()
        elif length := _LENGTH.match(pattern, at):
            found.least = int(length[1])
            found.most = int(length[2]) if length[2] else None
            at = length.end()
        elif without := _NOT.match(pattern, at):
            barred += "" if without[1] == "\\s" else _characters(without[1]) or ""
            at = without.end()
        else:
            break
    body = _BODY.fullmatch(pattern, at)
    if body is None:
        return None
    if body[2]:
        found.least = int(body[2])
        found.most = (int(body[4]) if body[4] else None) if body[3] else int(body[2])
    elif body[5] == "+":
        found.least = found.least or 1
    found.alphabet = _characters(body[1])
    if barred:
        found.alphabet = "".join(c for c in found.alphabet or _PRINTABLE if c not in barred)
    found.demands = tuple(demands)
    return found


def _characters(text: str) -> str | None:
    """The printable characters of a set; None for any at all."""
    if text in _SETS:
        return _SETS[text]
    inside, negated = text[1:-1], text[1:2] == "^"
    found: set[str] = set()
    for escape, low, high, one in re.findall(
        r"(\\[dwWDS])|((?:\\.|[^\\]))-((?:\\.|[^\\]))|(\\.|[^\\])", inside[negated:], re.ASCII
    ):
        if escape:
            found.update(_SETS[escape] or _PRINTABLE)
        elif low:
            found.update(c for c in _PRINTABLE if low[-1] <= c <= high[-1])
        else:
            found.update(c for c in _PRINTABLE if c == one[-1])
    return "".join(c for c in _PRINTABLE if (c in found) != negated)
