"""Walks over neighbouring keys, on QWERTY, QWERTZ, AZERTY and the digit block."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import pairwise
from math import inf, log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

WALK_SHARE = 0.28
"""Of patterns."""
_LONGEST = 40
"""Keys of a walk at most."""
_STRAIGHT, _TURN = log10(1 / 0.8), log10(5 / 0.2)
_ANY_WAY, _WINDING, _STAYS = log10(7), 0.6, "stays"
"""A winding walk: each step one of six ways, or the same key again; that it is one."""
_ENDS = log10(1 / 0.2)
_CORNERS = "q1az!wyQ0p7"
_SHIFT_ALL, _SHIFT_CHANGE, _BY_TURNS = 0.9, 0.6, 0.9
_LINE_LOG10 = log10(1 / 0.12)


@dataclass(frozen=True, slots=True, eq=False)
class Keyboard:
    """Rows of keys, what the shift key makes of them (typed -> key), and its share of walks."""

    rows: tuple[str, ...]
    shifts: Mapping[str, str]
    share: float
    is_staggered: bool = True


_US_SHIFT = dict(zip('!@#$%^&*()_+{}:"<>?|~', "1234567890-=[];',./\\`", strict=True))
_DE_SHIFT = dict(zip('!"§$%&/()=', "1234567890", strict=True))
_FR_SHIFT = dict(zip("&é\"'(-è_çà", "1234567890", strict=True))
KEYBOARDS = (
    Keyboard(("`1234567890-=", " qwertyuiop[]\\", " asdfghjkl;'", " zxcvbnm,./"), _US_SHIFT, 0.62),
    Keyboard(("^1234567890ß´", " qwertzuiopü+", " asdfghjklöä#", "<yxcvbnm,.-"), _DE_SHIFT, 0.1),
    Keyboard(("²1234567890)=", " azertyuiop^$", " qsdfghjklmù*", "<wxcvbn,;:!"), _FR_SHIFT, 0.1),
    Keyboard(("ё1234567890-=", " йцукенгшщзхъ", " фывапролджэ", " ячсмитьбю."), {}, 0.03),
    Keyboard(("`1234567890[]", " ',.pyfgcrl/=", " aoeuidhtns-", " ;qjkxbmwvz"), {}, 0.01),
    Keyboard(("789", "456", "123", "0"), {}, 0.14, is_staggered=False),
)
_LINES = (
    *("1qaz2wsx3edc4rfv5tgb6yhn7ujm8ik,9ol.0p;/", "qazwsxedcrfvtgbyhnujmik,ol.p;/"),
    *("zaq12wsxcde34rfvbgt56yhnmju78ik,.lo90p;/", "1q2w3e4r5t6y7u8i9o0p", "q1w2e3r4t5y6u7i8o9p0"),
    *("plmoknijbuhvygctfxrdzeswaq", "qetuo", "wryip", "adgjl", "sfhk", "zcbm"),
    *("147258369", "159753", "741852963", "a1s2d3f4g5h6j7k8l9", "zaxscdvfbgnhmj"),
)
"""Ways to and fro over the keys that are typed as one."""


@cache
def steps(keyboard: Keyboard) -> dict[str, int]:
    """Two keys side by side -> the direction from the first to the second."""
    staggered = [(0, 1), (0, -1), (1, 0), (-1, 0), (1, -1), (-1, 1)]
    square = [*staggered, (1, 1), (-1, -1)]
    sides: dict[str, int] = {}
    for r, row in enumerate(keyboard.rows):
        for c, key in enumerate(row):
            for direction, (dr, dc) in enumerate(staggered if keyboard.is_staggered else square):
                if 0 <= r + dr < len(keyboard.rows) and 0 <= c + dc < len(keyboard.rows[r + dr]):
                    other = keyboard.rows[r + dr][c + dc]
                    if " " not in (key, other):
                        sides[key + other] = direction
    return sides


_BY_LINE = 1 << len(KEYBOARDS)
_BY_ANY = 2 * _BY_LINE - 1


@cache
def _sides() -> dict[str, int]:
    """Every two characters, as typed with the shift key or without, that are the same key, lie side
    by side or follow each other on a line -> a bit for each keyboard on which they do, and one for
    the lines.
    """
    bits: dict[str, int] = {}

    def add(pairs: Iterable[str], shifts: Mapping[str, str], bit: int) -> None:
        typed: dict[str, list[str]] = {}
        for shifted, key in shifts.items():
            typed.setdefault(key, []).append(shifted)
        for a, b in map(tuple, pairs):
            for c in (a, *typed.get(a, ())):
                for d in (b, *typed.get(b, ())):
                    bits[c + d] = bits.get(c + d, 0) | bit

    for at, keyboard in enumerate(KEYBOARDS):
        add(steps(keyboard), keyboard.shifts, 1 << at)
        add((2 * key for key in set(keyboard.shifts.values())), keyboard.shifts, 1 << at)
    for line in _LINES:
        pairs = [line[at : at + 2] for at in range(len(line) - 1)]
        add((*pairs, *(pair[::-1] for pair in pairs)), _US_SHIFT, _BY_LINE)
    return bits


@cache
def _start_log10(keyboard: Keyboard, corner: bool) -> float:
    keys = sum(map(len, keyboard.rows))
    corners = sum(key in _CORNERS for row in keyboard.rows for key in row) or 1
    start = corners / 0.5 if corner else keys / 0.5
    directions = 6 if keyboard.is_staggered else 8
    return log10(start * directions)


@cache
def _lines() -> dict[str, tuple[str, ...]]:
    """Four keys in a row -> the rest of the lines, forwards or backwards, that hold them."""
    rest: dict[str, tuple[str, ...]] = {}
    for whole in _LINES:
        for line in (whole, whole[::-1]):
            for at in range(len(line) - 3):
                start = line[at : at + 4]
                rest[start] = (*rest.get(start, ()), line[at:])
    return rest


def walks(reading: Reading) -> Iterator[Found]:
    """Every walk of three keys and more, straight or turning."""
    sides_of, goes_on, before, moved = _sides(), 0, 0, 0
    for a, b in pairwise(reading.low):
        here = sides_of.get(a + b, 0)
        beside = _BY_ANY if a == b else here
        # Of two steps at least, and not all of them on one key.
        moved = beside & (moved | (0 if a == b else here))
        goes_on |= before & moved
        before = beside
    text = reading.text[: len(reading.low)]
    for at, keyboard in enumerate(KEYBOARDS):
        if not goes_on >> at & 1:
            continue
        shifts = keyboard.shifts
        keys = "".join(shifts.get(c, c) for c in reading.low) if shifts else reading.low
        sides = steps(keyboard)
        directions = [_STAYS if a == b else sides.get(a + b) for a, b in pairwise(keys)]
        shifted = [a != b for a, b in zip(text, keys, strict=True)] if text != keys else []
        start = 0
        while start < len(directions):
            end = start
            while end < len(directions) and directions[end] is not None:
                end += 1
            moves = any(step not in (None, _STAYS) for step in directions[start:end])
            for first in range(start, end - 1) if moves else ():
                yield from _walk(keyboard, keys, first, directions[first:end], shifted)
            start = end + 1
    if goes_on & _BY_LINE:
        yield from _along_lines(reading.low, text)


def _walk(
    keyboard: Keyboard,
    keys: str,
    first: int,
    directions: Sequence[int | str | None],
    shifted: list[bool],
) -> Iterator[Found]:
    straight = _start_log10(keyboard, keys[first] in _CORNERS)
    winding, to_and_fro = straight + _WINDING, straight + _TURN
    fee = _ENDS - log10(WALK_SHARE * keyboard.share)
    for step in range(1, min(len(directions), _LONGEST)):
        same = directions[step] == directions[step - 1] != _STAYS
        straight += _STRAIGHT if same else _TURN
        winding += _ANY_WAY
        if step > 1:
            # The same two steps by turns: down and up again along a row.
            to_and_fro += _STRAIGHT if directions[step] == directions[step - 2] else inf
        end = first + step + 2
        shift = _shift_log10(shifted[first:end])
        which = min(straight, winding, to_and_fro)
        yield Found(first, end, Part.PATTERN, which, fee + shift, SegmentKind.KEYBOARD_WALK)


def _along_lines(low: str, text: str) -> Iterator[Found]:
    keys = "".join(_US_SHIFT.get(c, c) for c in low)
    shifted = [a != b for a, b in zip(text, keys, strict=True)]
    for start in range(len(keys) - 3):
        for line in _lines().get(keys[start : start + 4], ()):
            size = 4
            while size < len(line) and keys[start + size : start + size + 1] == line[size]:
                size += 1
            for end in range(start + 4, start + size + 1):
                which = log10(2 * len(_LINES)) + (0.0 if line in _LINES else log10(10))
                fee = _LINE_LOG10 + _ENDS - log10(WALK_SHARE)
                fee += _shift_log10(shifted[start:end])
                kind = SegmentKind.KEYBOARD_WALK
                yield Found(start, end, Part.PATTERN, which, fee, kind)


def _shift_log10(shifted: list[bool]) -> float:
    if not any(shifted):
        return 0.0
    changes = sum(a != b for a, b in pairwise(shifted))
    if changes == len(shifted) - 1:
        return _SHIFT_ALL + _BY_TURNS
    return _SHIFT_ALL + _SHIFT_CHANGE * changes
