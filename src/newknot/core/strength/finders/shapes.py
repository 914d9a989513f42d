"""Shapes that numbers and codes are written in: number plates, octets, hours, squares of a board.

One table: what is looked for, and what a text of the shape costs; each shape costs the same fee.
"""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SHAPES_SHARE = 0.05
"""Of patterns."""
_PLATES: tuple[str, ...] = (
    *("LLDDLLL", "LLLDDD", "LLLDDDD", "DDDLLL", "LLDDDLL", "LLDDDD", "LDDDLLL", "LLDDDDD"),
    *("DDDDLLL", "LLLDDL", "DLLLDDD", "LLDDLL", "DDLLLD", "LLLLDDD", "LDDDDD"),
    *(
        f"{district}-{letters}{'D' * size}"
        for district in ("L", "LL", "LLL")
        for letters in ("L", "LL")
        for size in (2, 3, 4)
    ),
)
"""Letters and digits in groups; a dash is always written, other groups may stand apart."""
_MEMBERS = {"L": "[a-z]", "D": "[0-9]"}
_LETTER_LOG10, _UPPER_LOG10, _GROUPED_LOG10 = log10(24), log10(2), log10(3)
_OCTET_LOG10 = log10(256)
_USUAL_OCTETS, _USUAL_OCTET = frozenset(["0", "1", "2", "10", "100", "254", "255"]), 0.6
"""Of an address at home, and how much of them they are."""
_PRIVATE = ("192.168.", "10.0.", "172.16.", "127.0.0.")
_OCTET = r"(?:25[0-5]|2[0-4]\d|1?\d?\d)"
_UNITS = (
    *("mm", "cm", "m", "km", "in", "ft", "yd", "mi", "g", "mg", "kg", "lb", "lbs", "oz", "ml", "l"),
    *("s", "min", "h", "hrs", "days", "years", "yrs", "yo", "mph", "kmh", "km/h"),
    *("hz", "khz", "mhz", "ghz", "kwh"),
    *("w", "kw", "v", "kv", "mb", "gb", "tb", "px", "pt", "c", "f", "%", "degrees", "percent"),
    *("dollars", "euros", "pounds", "cents", "usd", "eur", "gbp", "meters", "metres", "miles"),
)
_MOVE_LOG10, _LEGAL_LOG10, _COLUMN_LOG10 = log10(6 * 64), log10(35), 1.1
"""Any piece to any square; a move of a game that is written down, of about as many legal ones."""
_EACH_MOVE = re.compile("[a-h][1-8]|o-o(?:-o)?")
_MOVE = r"(?:\d{1,2}\. ?)?(?:[kqrbn]?[a-h]?x?[a-h][1-8][+#]?|o-o(?:-o)?)"
_PREFIX = re.compile(
    r"(inv|ref|ord|doc|req|tkt|sku|po|id|no|nr|sn|pn|kd|kdnr|re|ab|rg|bug|fix|err|ver|rev|abc)[- ]"
)
"""What numbers of papers begin with."""
_PREFIX_LOG10 = log10(40)
_WHOLES = frozenset((2, 3, 4, 5, 6, 7, 8, 10, 12, 20, 100))
_ROMAN_YEAR_LOG10, _ROMAN_LOG10 = log10(200), log10(3999)


@dataclass(frozen=True, slots=True)
class Shape:
    """name: in a sentence. costs: of a text that has the shape, log10 of how many have it. signs:
    of which it holds one at least, where it cannot be without; has_digits: whether it holds one.
    """

    name: str
    kind: SegmentKind
    pattern: re.Pattern[str]
    costs: Callable[[str], float]
    in_any_case: bool = False
    signs: str = ""
    has_digits: bool = True


def _plate(group: str) -> str:
    return group if group == "-" else f"{_MEMBERS[group[0]]}{{{len(group)}}}"


def _of_plate(text: str) -> float:
    letters = sum(c.isalpha() for c in text)
    digits = sum(c.isdigit() for c in text)
    grouped = _GROUPED_LOG10 if letters + digits < len(text) else 0.0
    return digits + letters * _LETTER_LOG10 + grouped


def _of_octets(text: str) -> float:
    for known in _PRIVATE:
        if text.startswith(known):
            usual = log10(len(_USUAL_OCTETS) / _USUAL_OCTET), _OCTET_LOG10 - log10(1 - _USUAL_OCTET)
            rest = text.removeprefix(known).split(".")
            return log10(len(_PRIVATE)) + sum(usual[one not in _USUAL_OCTETS] for one in rest)
    return 0.5 + 4 * _OCTET_LOG10


def _of_code(text: str) -> float:
    letters = sum(c.isalpha() for c in text)
    # A year among the groups is one of some hundred.
    years = len(re.findall(r"(?<![a-z0-9])(?:19|20)\d\d(?![a-z0-9])", text))
    prefix = _PREFIX.match(text)
    letters -= len(prefix.group(1)) if prefix else 0
    digits = sum(c.isdigit() for c in text) - 2 * years
    return letters * log10(26) + digits + _GROUPED_LOG10 + (_PREFIX_LOG10 if prefix else 0.0)


def _of_measures(text: str) -> float:
    digits = sum(c.isdigit() for c in text)
    return digits + log10(len(_UNITS)) * len(re.findall(r"\d[^\d.]", text))


def _of_equation(text: str) -> float:
    letters, digits = sum(c.isalpha() for c in text), sum(c.isdigit() for c in text)
    return letters * log10(26) + digits + log10(5) * sum(c in "-+*/^" for c in text)


def _of_postcode(text: str) -> float:
    """About how many there are in Britain, Canada and the Netherlands, rounded."""
    in_canada = text[0].isalpha() and text[-1].isdigit()
    there_are = 850_000 if in_canada else 1_800_000 if text[0].isalpha() else 460_000
    return log10(3 * there_are) + (0.3 if " " in text else 0.0)


def _of_roman(text: str) -> float:
    values = {"i": 1, "v": 5, "x": 10, "l": 50, "c": 100, "d": 500, "m": 1000}
    total = 0
    for at, c in enumerate(text):
        after = values[text[at + 1]] if at + 1 < len(text) else 0
        total += -values[c] if values[c] < after else values[c]
    return _ROMAN_YEAR_LOG10 if 1900 <= total <= 2039 else _ROMAN_LOG10


def _of_part(text: str) -> float:
    """A half, a quarter, eight of ten; else two numbers."""
    part, whole = text.split("/")
    return len(part) + (1.0 if int(whole) in _WHOLES else len(whole))


def _of_moves(text: str) -> float:
    return (_LEGAL_LOG10 if "." in text else _MOVE_LOG10) * len(_EACH_MOVE.findall(text))


def _of_cells(text: str) -> float:
    """Of most sheets the first columns are used; a further letter, and a digit, is any."""
    columns, letters = 1 + (":" in text), sum(map(str.isalpha, text))
    return (
        _COLUMN_LOG10 * columns + _LETTER_LOG10 * (letters - columns) + sum(map(str.isdigit, text))
    )


def _shape(
    name: str,
    pattern: str,
    costs: Callable[[str], float],
    kind: SegmentKind = SegmentKind.SHAPE,
    *,
    signs: str = "",
    has_digits: bool = True,
) -> Shape:
    apart = re.compile(f"(?<![a-z0-9])(?=({pattern})(?![a-z0-9]))")
    return Shape(name, kind, apart, costs, signs=signs, has_digits=has_digits)


def _within(
    name: str,
    pattern: str,
    costs: Callable[[str], float],
    *,
    in_any_case: bool = False,
    signs: str = "",
    has_digits: bool = True,
) -> Shape:
    """One that says itself what may stand beside it; its first group is what it holds."""
    compiled, kind = re.compile(pattern), SegmentKind.SHAPE
    return Shape(name, kind, compiled, costs, in_any_case, signs, has_digits)


_CHORD = r"[a-g][#b]?(?:maj|min|dim|aug|sus|add|m)?\d?"
_TELLING_CHORD = r"(?:[a-g]m?\d|[a-g][#b]?(?:m|maj7?|dim7?|sus[24]))"
_LONG_CHORD = r"[a-g][#b]?(?:maj[79]|m[79]|dim7?|aug|sus[24]|add9)"
_DEGREES = r"\d{1,3}°? ?(?:\d{1,2}(?:[.,]\d{1,3})?[′'] ?(?:\d{1,2}(?:[.,]\d{1,3})?[″\"])?)"
_CARD, _TURN = "(?:10|[2-9tjqka])[shdc♠♥♦♣]", "[rludfb]['’2]?"
_CATALOGUES = "bwv|kv|hwv|woo|rv|op|ngc|ic|hd|ral|iso|din|rfc|en|ean|pin|tel|pos|art|zip|plz"
_LETTERS = re.compile(r"[^\W\d_]+")
_ROUND = re.compile(r"[.,](?:99|95|50|00)")
"""What prices end in."""

SHAPES = (
    _shape(
        "a number plate",
        "|".join(
            "[- ]?".join(_plate(group) for group in re.findall("L+|D+|-", plate))
            for plate in _PLATES
        ),
        _of_plate,
        SegmentKind.PLATE,
    ),
    _within(
        "four octets",
        rf"(?<![a-z0-9.])(?=({_OCTET}(?:\.{_OCTET}){{3}})(?![.0-9]))",
        _of_octets,
        signs=".",
    ),
    _shape(
        "hexadecimal pairs",
        r"[0-9a-f]{2}(?::[0-9a-f]{2}){2,}|[0-9a-f]{2}(?:-[0-9a-f]{2}){2,}",
        lambda text: _OCTET_LOG10 * ((len(text) + 1) // 3) + 0.3,
        signs=":-",
        has_digits=False,
    ),
    _shape("a time of day", r"(?:[01]?\d|2[0-3])[:.h][0-5]\d", lambda _: log10(1440), signs=":.h"),
    _within(
        "a time of day",
        r"(?<!\d)(?=((?:0?[1-9]|1[0-2])(?:[:.]?[0-5]\d)? ?[ap]m))",
        lambda text: log10(1440 if sum(c.isdigit() for c in text) > 2 else 24),
        signs="m",
    ),
    _shape(
        "a date with its time",
        r"(?:19|20)\d\d-[01]\d-[0-3]\d[t _][0-2]\d:[0-5]\d(?::[0-5]\dz?)?",
        lambda text: log10(365 * 70) + log10(1440) + (2.0 if text.count(":") > 1 else 0.0),
        signs=":",
    ),
    _shape(
        "numbers of one octet each",
        rf"{_OCTET}(?:[,;] ?{_OCTET}){{2,3}}",
        lambda text: _OCTET_LOG10 * (1 + sum(c in ",;" for c in text)) + 0.3,
        signs=",;",
    ),
    _shape(
        "letters and digits in groups",
        r"(?:[a-z]{1,3}\d{1,4}|\d{1,4}[a-z]{1,3}|\d{2,4}|[a-z]{2,3})"
        r"(?:[- ](?:[a-z]{1,3}\d{1,4}|\d{1,4}[a-z]{1,3}|\d{2,4})){1,3}",
        _of_code,
        signs="- ",
    ),
    _shape(
        "letters and digits in groups",
        r"(?:[a-z]{1,3}\d{1,4}|\d{1,4}[a-z]{1,3})"
        r"(?:[./_:](?:[a-z]{1,3}\d{1,4}|\d{1,4}[a-z]{1,3}|\d{2,4})){1,3}",
        _of_code,
        signs="./_:",
    ),
    _within(
        "numbers with their units",
        "(?<![0-9])(?=((?:\\d{1,5}(?:[.,]\\d{1,2})? ?(?:"
        + "|".join(sorted(map(re.escape, _UNITS), key=len, reverse=True))
        + ")[ ,]?(?![a-z])){1,3}(?<![ ,]))(?![a-z0-9]))",
        _of_measures,
        in_any_case=True,
    ),
    _within(
        "syllables with their tones",
        r"(?<![a-z0-9])(?=((?:(?:[bpmfdtnlgkhjqxrwy]|[zcs]h?)?[aeiouv]{1,3}(?:ng?|r)?[1-5]){2,6}))",
        lambda text: log10(1300) * sum(c.isdigit() for c in text),
        signs="aeiouv",
    ),
    _within(
        "initials",
        r"(?<![a-z0-9.])(?=((?:[a-z]\. ?){1,3})[a-z]{2})",
        lambda text: log10(20) * text.count("."),
        signs=".",
        has_digits=False,
    ),
    _within(
        "a number of its place",
        r"(?<!\d)(?=(\d?(?:1st|2nd|3rd|[04-9]th)|1[123]th))",
        lambda text: sum(c.isdigit() for c in text) + 0.3,
        signs="td",
    ),
    _within(
        "a version",
        r"(?<![0-9.])(?=([-_ .]?v\.?\d{1,2}(?:\.\d{1,3}){0,3}|\d{1,2}(?:\.\d{1,2}){2})(?![0-9]))",
        lambda text: sum(c.isdigit() for c in text) + 0.6,
        signs="v.",
    ),
    _within(
        "a price",
        r"(?<![0-9.])(?=([$€£¥] ?\d{1,5}(?:[.,]\d\d)?|\d{1,5}(?:[.,]\d\d)? ?[$€£¥])(?!\d))",
        lambda text: sum(c.isdigit() for c in text) + log10(4) - 1.3 * bool(_ROUND.search(text)),
        signs="$€£¥",
    ),
    _within(
        "a size",
        r"(?<![a-z0-9])"
        r"(?=(\d{1,4} ?[x×*] ?\d{1,4}(?: ?[x×*] ?\d{1,4})?"
        r"(?: ?(?:mm|cm|m|in|ft|px)(?![a-z])|(?![a-z0-9]))))",
        lambda text: sum(c.isdigit() for c in text) + 0.3 + 0.5 * text[-1].isalpha(),
        signs="x×*",
    ),
    _shape(
        "an equation",
        r"(?=[^a-z]*[a-z])[a-z0-9]{1,4}(?:[-+*/^][a-z0-9]{1,4}){0,2}"
        r" ?= ?[a-z0-9]{1,4}(?:[-+*/^][a-z0-9]{1,4}){0,2}",
        _of_equation,
        signs="=",
        has_digits=False,
    ),
    _within(
        "chords",
        rf"(?<![a-z0-9])(?=({_CHORD}(?:[-, |/]{_CHORD}){{2,}}"
        rf"|(?=[^-, |/]*(?:maj|dim|aug|sus|add)){_CHORD}(?:{_CHORD}){{2,}}"
        rf"|(?:{_TELLING_CHORD}){{3,}}|(?:{_LONG_CHORD}){{2,}})(?![a-z#]))",
        lambda text: log10(84) * len(re.findall(_CHORD, text)),
        in_any_case=True,
        has_digits=False,
    ),
    _within(
        "cards of a hand",
        rf"(?<![a-z0-9])(?=({_CARD}(?:[-, ]?{_CARD}){{1,6}})(?![a-z0-9]))",
        lambda text: log10(52) * len(re.findall(_CARD, text)),
        in_any_case=True,
        signs="shdc♠♥♦♣",
        has_digits=False,
    ),
    _within(
        "turns of a cube",
        rf"(?<![a-z0-9])(?=[^'’2]{{0,9}}['’2])(?=({_TURN}(?: ?{_TURN}){{2,}})(?![a-z0-9]))",
        lambda text: log10(18) * len(re.findall(_TURN, text)),
        in_any_case=True,
        signs="'’2",
        has_digits=False,
    ),
    _within(
        "strings and frets",
        r"(?<![a-z0-9])(?=([a-g]\d{1,2}(?:[-, ][a-g]\d{1,2}){2,})(?![a-z0-9]))",
        lambda text: log10(7 * 16) * len(re.findall(r"[a-g]", text)),
        in_any_case=True,
        signs="-, ",
    ),
    _within(
        "a throw of dice",
        r"(?<![a-z0-9])(?=(\d{0,2}d(?:4|6|8|10|12|20|100)(?:[-+]\d{1,2})?)(?![0-9]))",
        lambda text: 1.5 + len(re.findall(r"\d", re.sub(r"d\d+", "", text))),
        signs="d",
    ),
    _within(
        "an episode",
        r"(?<![0-9])(?=(s\d{1,2} ?e\d{1,3})(?![a-z0-9]))",
        lambda _: log10(15 * 30),
        signs="e",
    ),
    _within(
        "a level",
        r"(?<![0-9])(?=((?:lvl|lv|level)[-. ]?\d{1,3}|l\d\d)(?![a-z0-9]))",
        lambda text: 0.6 + sum(c.isdigit() for c in text),
        in_any_case=True,
        signs="l",
    ),
    _within(
        "a place on the map",
        r"(?<![a-z0-9])(?=(\d{1,2}°? ?[ns][ ,]?\d{1,3}°? ?[ew]|[ns] ?\d{1,2}°?[ ,]?[ew] ?\d{1,3}°?)"
        r"(?![a-z0-9]))",
        lambda _: log10(180 * 360),
        signs="ns",
    ),
    _within(
        "a place on the map",
        rf"(?<![a-z0-9])(?=({_DEGREES} ?[ns][ ,]{{0,2}}{_DEGREES} ?[ew]|"
        rf"[ns] ?{_DEGREES}[ ,]{{0,2}}[ew] ?{_DEGREES})(?![a-z0-9]))",
        lambda text: log10(180 * 360) + 1.78 * (len(re.findall(r"\d+", text)) - 2),
        signs="ns",
    ),
    _within(
        "a colour by its numbers",
        r"(?<![a-z0-9])(?=((?:rgba?|hsla?|cmyk)\(\d{1,3}%?(?:, ?\d{1,3}%?){2,3}\)))",
        lambda text: 0.6 + log10(200) * len(re.findall(r"\d+", text)),
        signs="(",
    ),
    _shape(
        "a time with seconds",
        r"(?:[01]?\d|2[0-3]):[0-5]\d:[0-5]\d",
        lambda _: log10(86_400),
        signs=":",
    ),
    _shape(
        "letters and digits in groups",
        r"(?:[a-z]{2,5}|[0-9]{2,6})(?:-(?:[a-z]{1,5}|[0-9]{2,6})){1,4}(?<=[-0-9a-z][0-9a-z])",
        _of_code,
        signs="-",
        has_digits=False,
    ),
    _within(
        "cells of a sheet",
        r"(?<![a-z0-9])(?=([$]?[a-z]{1,2}[$]?\d{1,3}(?::[$]?[a-z]{1,2}[$]?\d{1,3})?)(?![a-z0-9]))",
        _of_cells,
    ),
    _shape(
        "how long it took",
        r"\d{1,2}[hm'] ?\d{1,2}(?:[ms'\"] ?|(?![0-9]))(?:\d{1,2}[s\"])?",
        lambda text: 1.78 * len(re.findall(r"\d+", text)),
        signs="hm'",
    ),
    _within(
        "a part of a whole", r"(?<![0-9./])(?=(\d{1,3}/\d{1,3})(?![0-9/]))", _of_part, signs="/"
    ),
    _within(
        "a quarter or week of a year",
        r"(?<![a-z])(?=((?:q[1-4]|h[12]|(?:kw|cw|wk|week) ?\d{1,2})(?![0-9])))",
        lambda text: log10(4 if text[0] in "qh" else 160),
        signs="qhkw",
    ),
    _within(
        "degrees",
        r"(?<![0-9])(?=([-+]?\d{1,3} ?°[cf]?)(?![a-z0-9]))",
        lambda _: log10(150),
        signs="°",
    ),
    _within(
        "a percentage",
        r"(?<![0-9.])(?=(\d{1,3}(?:[.,]\d)? ?%))",
        lambda text: min(2.0, sum(c.isdigit() for c in text)),
        signs="%",
    ),
    _within(
        "a section of a law",
        r"(?<![a-z0-9])(?=((?:§§?|art\.|abs\.|op\.|nr\.|no\.|sec\.|ch\.|pp?\.) ?\d{1,3}))",
        lambda text: 0.8 + min(2.5, sum(c.isdigit() for c in text)),
        in_any_case=True,
        signs="§.",
    ),
    _within(
        "years from and to",
        r"(?<![0-9])(?=((?:19|20)\d\d ?[-–/] ?(?:19|20)?\d\d)(?![0-9]))",
        lambda _: 2 * log10(70),
        signs="-–/",
    ),
    _within("a short year", r"(?=(['’]\d\d)(?![0-9]))", lambda _: 1.9, signs="'’"),
    _within(
        "a key of music",
        r"(?<![a-z])(?=([a-h](?:is|es|s|#| flat| sharp)?[- ]?(?:moll|dur|major|minor))(?![a-z]))",
        lambda _: log10(24 * 4),
        in_any_case=True,
        signs="mr",
        has_digits=False,
    ),
    _within(
        "a number of a catalogue",
        rf"(?<![a-z0-9])(?=((?:{_CATALOGUES})[- .]?\d{{1,4}})(?![a-z0-9]))",
        lambda text: log10(_CATALOGUES.count("|")) + sum(map(str.isdecimal, text)),
        in_any_case=True,
        signs="abcdehikmnopruvw",
    ),
    _within(
        "an engine's size",
        r"(?<![0-9.])"
        r"(?=(\d\.\d(?: ?(?:[a-z]?di|gti?|tsi|i|l|t|v\d{1,2}|\d{1,2}v))?)(?![a-z0-9.]))",
        lambda text: 1.6 + 1.0 * (len(text) > 3),
        signs=".",
    ),
    _within(
        "a size of a norm",
        r"(?<![a-z0-9])(?=((?:din ?)?[ab]\d|m\d{1,2}(?:x\d{1,3})?|\d{3}/\d{2} ?z?r\d{2})(?![a-z]))",
        lambda text: 0.7 + 0.8 * sum(c.isdigit() for c in text),
        in_any_case=True,
        signs="abm/",
    ),
    _within(
        "a hexadecimal number",
        r"(?<![a-z0-9])(?=(0x[0-9a-f]{1,16}))",
        lambda text: (len(text) - 2) * log10(16),
        in_any_case=True,
        signs="x",
    ),
    _within(
        "a number among others",
        r"(?<![a-z])(?=((?=[ivx])x{0,3}(?:ix|iv|v?i{0,3})(?![a-z])))",
        lambda text: log10(12 if len(text) < 4 and not text.startswith("xx") else 39),
        signs="ivx",
        has_digits=False,
    ),
    _shape(
        "a place on the map",
        r"[-+]?\d{1,3}\.\d{2,6} ?[,;/ ] ?[-+]?\d{1,3}\.\d{2,6}",
        lambda text: sum(c.isdigit() for c in text) + 0.3,
        signs=".",
    ),
    _within(
        "moves of a chess game",
        rf"(?<![a-z0-9])(?=({_MOVE}(?:[-x ]{_MOVE})+)(?![a-z0-9]))",
        _of_moves,
        in_any_case=True,
        signs="-x ",
    ),
    _within(
        "moves of a chess game",
        rf"(?<![a-z0-9])(?=[a-h1-8]{{0,8}}[kqrbn+#])(?=((?:{_MOVE}){{3,}})(?![a-z0-9]))",
        _of_moves,
        in_any_case=True,
        signs="kqrbn+#",
    ),
    _shape(
        "squares of a chess board",
        r"(?:[a-h][1-8]){3,}",
        lambda t: log10(64) * (len(t) // 2),
        signs="abcdefgh",
    ),
    _shape(
        "a book's number", r"(?:isbn[-: ]?)?97[89]-?(?:[0-9]-?){9}[0-9]", lambda _: 9.0, signs="9"
    ),
    _within(
        "a postcode",
        r"(?<![a-z0-9])(?=([a-z]{1,2}\d[a-z0-9]? ?\d[a-z]{2}|[a-z]\d[a-z] ?\d[a-z]\d|"
        r"[1-9]\d{3} ?[a-z]{2})(?![0-9]))",
        _of_postcode,
    ),
    _within(
        "a Roman number",
        r"(?:(?<![a-z])(?=[mdclxvi]{4})|(?=[mdclxvi]{6}))"
        r"(?=(m{0,3}(?:cm|cd|d?c{0,3})(?:xc|xl|l?x{0,3})(?:ix|iv|v?i{0,3})))",
        _of_roman,
        signs="mdclxvi",
        has_digits=False,
    ),
)

_WITHOUT_DIGITS = tuple(shape for shape in SHAPES if not shape.has_digits)


def shapes(reading: Reading) -> Iterator[Found]:
    """Stretches of every shape, whole in one case; of plates, each group of letters."""
    signs, has_digits = set(reading.low), any(map(str.isdecimal, reading.low))
    for shape in SHAPES if has_digits else _WITHOUT_DIGITS:
        if shape.signs and signs.isdisjoint(shape.signs):
            continue
        for hit in shape.pattern.finditer(reading.low):
            start, end = hit.span(1)
            typed = reading.text[start:end]
            runs = _LETTERS.findall(typed)
            cases = [run.isupper() for run in runs]
            one_case = all(cases) or typed == typed.lower()
            in_groups = shape.kind is SegmentKind.PLATE and all(
                run.isupper() or run.islower() for run in runs
            )
            if not (one_case or shape.in_any_case or in_groups):
                continue
            chosen = 1 if one_case or shape.in_any_case else len(cases)
            fee = log10(len(SHAPES) / SHAPES_SHARE) + (_UPPER_LOG10 * chosen if cases else 0.0)
            which = shape.costs(reading.low[start:end])
            yield Found(start, end, Part.PATTERN, which, fee, shape.kind, shape.name)


_GROUPS = re.compile(r"(?<![^\W_])[^\W_]{2,8}(?:([- ._:])[^\W_]{2,8})(?:\1[^\W_]{2,8})*(?![^\W_])")
_OF_GROUPS = (
    (frozenset("0123456789abcdef"), log10(16)),
    (frozenset("0123456789abcdefghijklmnopqrstuvwxyz"), log10(36)),
)
_IN_GROUPS_LOG10, _BOTH_CASES_LOG10 = 0.5, log10(62)


def drawn_in_groups(reading: Reading) -> Iterator[Found]:
    """Unpatterned characters that are written in groups of one size, as keys of programs are."""
    for hit in _GROUPS.finditer(reading.text):
        groups = hit.group().split(hit.group(1))
        if len({len(group) for group in groups}) > 1 or not hit.group().isascii():
            continue
        typed = "".join(groups)
        if not any(map(str.isdigit, typed)) or typed.isdigit():
            continue
        each = next((cost for alphabet, cost in _OF_GROUPS if alphabet >= set(typed.lower())), 0.0)
        if typed not in (typed.lower(), typed.upper()):
            each = _BOTH_CASES_LOG10
        fee = -log10(SHAPES_SHARE)
        which = each * len(typed) + _IN_GROUPS_LOG10
        yield Found(*hit.span(), Part.PATTERN, which, fee, SegmentKind.RANDOM)


_ELEMENT = (
    "(?:He|Li|Be|Ne|Na|Mg|Al|Si|Cl|Ar|Ca|Sc|Ti|Cr|Mn|Fe|Co|Ni|Cu|Zn|Ga|Ge|As|Se|Br|Kr|Rb|Sr|Ag|Cd|"
    "Sn|Sb|Te|Xe|Cs|Ba|Pt|Au|Hg|Pb|Bi|Rn|Ra|[HBCNOFPSKVUWI])"
)
_ONE_FORMULA = rf"\d{{0,2}}(?:{_ELEMENT}\d{{0,2}}){{1,6}}"
_FORMULA = re.compile(
    rf"(?<![A-Za-z0-9])(?:{_ONE_FORMULA}(?: ?(?:[+=]|->|→) ?{_ONE_FORMULA}){{1,4}}"
    rf"|(?:{_ELEMENT}\d{{0,2}}){{2,6}})(?![A-Za-z0-9])"
)
_BETWEEN_FORMULAS_LOG10 = 0.5
_EACH_ELEMENT, _ELEMENT_LOG10 = re.compile(_ELEMENT), log10(40)


def formulas(reading: Reading) -> Iterator[Found]:
    """Chemical elements, some of them with how many of each."""
    if reading.text.islower():
        return
    for hit in _FORMULA.finditer(reading.text[: len(reading.low)]):
        digits = sum(map(str.isdigit, hit.group()))
        if digits:
            signs = len(re.findall(r"[+=→]|->", hit.group()))
            which = _ELEMENT_LOG10 * len(_EACH_ELEMENT.findall(hit.group())) + digits
            which += _BETWEEN_FORMULAS_LOG10 * signs
            fee, says = log10(len(SHAPES) / SHAPES_SHARE), "a chemical formula"
            yield Found(*hit.span(), Part.PATTERN, which, fee, SegmentKind.SHAPE, says)
