"""PINs: digits alone, without the ones that a thief tries first.

Left out: one digit or one pair or triple repeated, steps of one size (with 9 beside 0), the same
forwards and backwards, days and years as people write them, and lines on a telephone's keypad.
"""

from functools import cache
from itertools import product

from newknot.core.errors import FieldInvalid
from newknot.core.generate.random_source import RandomSource

PIN_LENGTHS = range(3, 13)
_LINES = ("147", "258", "369", "2580", "159", "357", "1379", "1397", "7913", "7931", "1478963",
          "1236987", "14789", "12369", "36987", "74123", "78963")  # fmt: skip
_DATE_FORMS = {
    4: ("{d:02}{m:02}", "{m:02}{d:02}", "{m:02}{y:02}", "{Y}"),
    6: ("{d:02}{m:02}{y:02}", "{m:02}{d:02}{y:02}", "{y:02}{m:02}{d:02}"),
    8: ("{d:02}{m:02}{Y}", "{m:02}{d:02}{Y}", "{Y}{m:02}{d:02}"),
}
_YEARS = (1920, 2050)


class PinSpace:
    """All PINs of a length but the obvious ones: counted, and drawn from. Raises `FieldInvalid`."""

    def __init__(self, length: int) -> None:
        if length not in PIN_LENGTHS:
            least, most = PIN_LENGTHS[0], PIN_LENGTHS[-1]
            raise FieldInvalid("length", f"is not between {least} and {most}")
        self.length = length
        self._obvious = obvious_pins(length)
        self.size = 10**length - len(self._obvious)

    def draw(self, random: RandomSource) -> str:
        """A PIN, each equally likely."""
        while True:
            text = str(random.randbelow(10**self.length)).zfill(self.length)
            if text not in self._obvious:
                return text


@cache
def obvious_pins(length: int) -> frozenset[str]:
    """The PINs of a length that are left out."""
    found = {
        (str(n).zfill(size) * length)[:length]
        for size in (1, 2, 3)
        if 2 * size <= length or size == 1
        for n in range(10**size)
    }
    for first in range(10):
        for by in range(1, 10):
            found.add("".join(str((first + by * i) % 10) for i in range(length)))
    half = (length + 1) // 2
    if length <= 6:
        for n in range(10**half):
            start = str(n).zfill(half)
            found.add(start + start[: length - half][::-1])
    for line in _LINES:
        for way in (line, line[::-1]):
            if len(way) >= length:
                found.update(way[i : i + length] for i in range(len(way) - length + 1))
    return frozenset(found | _dates(length))


def _dates(length: int) -> set[str]:
    forms = _DATE_FORMS.get(length, ())
    found: set[str] = set()
    for year, month, day in product(range(*_YEARS), range(1, 13), range(1, 32)):
        found.update(form.format(d=day, m=month, y=year % 100, Y=year) for form in forms)
    return found
