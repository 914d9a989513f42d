"""Sums that are written out, where what they come to costs nothing if it is right, and formulas."""

import re
from collections.abc import Iterator
from fractions import Fraction
from math import isqrt, log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SUMS_SHARE, FORMULAS_SHARE = 0.001, 0.001
"""Of patterns."""
_SIGNS = {"-": "-", "+": "+", "x": "*", "*": "*", "×": "*", "/": "/", ":": "/", "÷": "/", "^": "^"}
_SIGN_LOG10 = log10(5)
_SUM = re.compile(
    r"(?<![a-z0-9.])(\d{1,4}(?: ?[-+x*×/:÷^] ?\d{1,4}){1,4}) ?= ?"
    r"(\d{1,8}(?:[.,]\d{1,9})?)(?![a-z0-9])"
)
_ROOT = re.compile(r"(?<![a-z0-9])(?:sqrt|√) ?\(?(\d{1,6})\)? ?= ?(\d{1,4})(?![a-z0-9])")
_NAMED = "sin|cos|tan|log|ln|exp|sqrt|lim|pi|max|min|abs"
_TERM = rf"-?\(?(?:(?:{_NAMED})\(?|\d{{1,3}})?(?:\*?(?:{_NAMED}|[a-zπθλμσφω]{{1,2}}))?\d?[²³]?\)?"
_FORMULA = re.compile(
    rf"(?<![a-z0-9])(?=[^=^²³(]{{0,12}}[=^²³(])(?=[^a-z]{{0,6}}[a-zπθλμσφω])"
    rf"{_TERM}(?: ?[-+*/^=·] ?{_TERM}){{1,7}}(?<=[a-z0-9²³)])(?![a-z0-9])"
)
_TELLING = re.compile(r"[a-z0-9)²³πθλμσφω] ?[=^]|[a-z]\(|[a-zπθλμσφω][²³]")
_NAME, _VARIABLE = re.compile(_NAMED), re.compile("[a-zπθλμσφω]")
_NAMES_LOG10, _VARIABLE_LOG10, _BETWEEN_LOG10, _BRACKET_LOG10 = log10(12), log10(14), log10(6), 0.3
"""Of variables, a few are used far more than the others."""
_AGAIN_LOG10 = 0.4
"""Of one that stands there already."""
_POWER_MOST = 24
_PLACES = 9
"""Decimals that are compared."""


def arithmetic(reading: Reading) -> Iterator[Found]:
    """Two to five numbers with signs between and what they come to; a root and its square."""
    low = reading.low
    yield from _formulas(reading)
    if "=" not in low:
        return
    for hit in _SUM.finditer(low):
        numbers, signs = re.findall(r"\d+", hit.group(1)), re.findall(r"[^\d ]", hit.group(1))
        which = float(sum(map(len, numbers))) + _SIGN_LOG10 * len(signs)
        said = hit.group(2)
        if not _comes_to([*map(int, numbers)], [_SIGNS[sign] for sign in signs], said):
            which += sum(map(str.isdigit, said))
        yield _found(hit, which)
    for hit in _ROOT.finditer(low):
        square, root = int(hit.group(1)), int(hit.group(2))
        is_right = root * root == square or root == isqrt(square)
        size = len(hit.group(2))
        yield _found(hit, float(size if is_right else size + len(hit.group(1))))


def _found(hit: re.Match[str], which: float) -> Found:
    fee = -log10(SUMS_SHARE)
    return Found(*hit.span(), Part.PATTERN, which, fee, SegmentKind.SHAPE, "a sum")


def _formulas(reading: Reading) -> Iterator[Found]:
    """Numbers, variables of one letter and functions with signs between, one of them an equals
    sign, a power or a bracket.
    """
    if not _TELLING.search(reading.low):
        return
    for hit in _FORMULA.finditer(reading.low):
        rest, names = _NAME.subn("", hit.group())
        which = _NAMES_LOG10 * names + sum(map(str.isdecimal, rest))
        variables = _VARIABLE.findall(rest)
        which += _VARIABLE_LOG10 * len({*variables})
        which += _AGAIN_LOG10 * (len(variables) - len({*variables}))
        which += _BETWEEN_LOG10 * sum(c in "-+*/^=·²³" for c in rest)
        which += _BRACKET_LOG10 * sum(c in "()" for c in rest)
        typed = reading.text[hit.start() : hit.end()]
        fee = -log10(FORMULAS_SHARE) + (0.0 if typed == hit.group() else 1.0)
        yield Found(*hit.span(), Part.PATTERN, which, fee, SegmentKind.SHAPE, "a formula")


def _comes_to(numbers: list[int], signs: list[str], said: str) -> bool:
    """Powers first, then times and by, then the rest; a fraction as far as it is said."""
    values: list[Fraction] = [Fraction(numbers[0])]
    pending: list[str] = []
    for sign, number in zip(signs, numbers[1:], strict=True):
        if sign == "^" and 0 <= number <= _POWER_MOST:
            values[-1] = values[-1] ** number
        elif sign == "*":
            values[-1] *= number
        elif sign == "/" and number:
            values[-1] /= number
        elif sign in "+-":
            pending.append(sign)
            values.append(Fraction(number))
        else:
            return False
    total = values[0]
    for sign, value in zip(pending, values[1:], strict=True):
        total += value if sign == "+" else -value
    whole, _, decimals = said.replace(",", ".").partition(".")
    if total < 0 or int(whole) != int(total):
        return False
    return decimals == str(int((total - int(total)) * 10**_PLACES)).zfill(_PLACES)[: len(decimals)]
