"""Dates in the usual written forms, days of a year, and years."""

import re
from collections.abc import Iterator
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

YEAR_SHARE, DATE_SHARE = 0.1, 0.06
"""Of runs of digits, those that are a year, and those that are a date."""
FIRST_YEAR, LAST_YEAR = 1940, 2039
_NEAR, _FAR = 0.95, 0.05
_MONTHS = (
    *("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"),
    *("january", "february", "march", "april", "june", "july", "august", "september"),
    *("october", "november", "december"),
)
_FORMS = (
    (
        re.compile(r"(?=(?P<d>[0-3]?\d)(?P<s>[-./_ ])(?P<m>[0-1]?\d)(?P=s)(?P<y>(?:\d\d)?\d\d))"),
        0.3,
    ),
    (
        re.compile(r"(?=(?P<m>[0-1]?\d)(?P<s>[-./_ ])(?P<d>[0-3]?\d)(?P=s)(?P<y>(?:\d\d)?\d\d))"),
        0.1,
    ),
    (re.compile(r"(?=(?P<y>\d{4})(?P<s>[-./_ ])(?P<m>[0-1]?\d)(?P=s)(?P<d>[0-3]?\d))"), 0.1),
    (re.compile(r"(?=(?P<d>[0-3]\d)(?P<m>[0-1]\d)(?P<y>\d{4}))"), 0.16),
    (re.compile(r"(?=(?P<m>[0-1]\d)(?P<d>[0-3]\d)(?P<y>\d{4}))"), 0.08),
    (re.compile(r"(?=(?P<y>\d{4})(?P<m>[0-1]\d)(?P<d>[0-3]\d))"), 0.06),
    (re.compile(r"(?=(?P<d>[0-3]\d)(?P<m>[0-1]\d)(?P<y>\d\d))"), 0.1),
    (re.compile(r"(?=(?P<m>[0-1]\d)(?P<d>[0-3]\d)(?P<y>\d\d))"), 0.06),
    (re.compile(r"(?=(?P<y>\d\d)(?P<m>[0-1]\d)(?P<d>[0-3]\d))"), 0.04),
)
_SEPARATOR_LOG10 = log10(4)
_OF_MONTH = re.compile(r"(?=((?P<m>0[1-9]|1[0-2])(?P<s>[-./_ ]?)(?P<y>(?:19|20)\d\d)))")
_OF_MONTH_SHARE = 0.04
"""A month and its year, in digits."""
_NAMED_SHARE = 0.05
_MONTH = re.compile("|".join(_MONTHS[:12]))
_WEEKDAY_LOG10 = log10(7)
_OF_WEEK = re.compile(
    r"(?:(?P<w>mon|tue|wednes|thurs|fri|satur|sun)day)[-., ]?(?:the[-. ]?)?"
    r"(?P<d>[0-3]?(?:1st|2nd|3rd|[04-9]th)|1[123]th)"
)
_NAMED = re.compile(
    r"(?=(?P<d>[0-3]?\d(?:st|nd|rd|th)?)?[-. ]?(?:of[-. ]?)?(?P<m>"
    + "|".join(sorted(_MONTHS, key=len, reverse=True))
    + r")"
    r"[-. ]?(?P<e>(?:the[-. ]?)?[0-3]?\d(?!\d)(?:st|nd|rd|th)?)?[-., ]?"
    r"(?P<y>(?:19|20)\d\d|\d\d(?!\d))?)"
)
_DAYS_LOG10, _MONTHS_LOG10, _YEARS_LOG10 = log10(366), log10(12), log10(100)
_YEAR = re.compile(r"(?=((?:19|20)\d\d))")
_FEWEST_DIGITS = 4
"""Of a year, or of a date written in digits alone."""


def dates(reading: Reading) -> Iterator[Found]:
    """Every stretch that reads as a date or year."""
    low = reading.low
    digits = sum(map(str.isdigit, low))
    if digits:
        yield from _named_months(low)
    if digits < _FEWEST_DIGITS:
        return
    for hit in _YEAR.finditer(low):
        which, start = year_log10(int(hit.group(1))), hit.start()
        yield Found(start, start + 4, Part.DIGITS, which, -log10(YEAR_SHARE), SegmentKind.YEAR)
    for hit in _OF_MONTH.finditer(low):
        which = _MONTHS_LOG10 + year_log10(int(hit.group("y")))
        fee = (_SEPARATOR_LOG10 if hit.group("s") else 0.0) - log10(DATE_SHARE * _OF_MONTH_SHARE)
        yield Found(*hit.span(1), Part.DIGITS, which, fee, SegmentKind.DATE)
    for form, share in _FORMS:
        for hit in form.finditer(low):
            day, month = int(hit.group("d")), int(hit.group("m"))
            if not (1 <= day <= 31 and 1 <= month <= 12):
                continue
            typed = hit.groupdict()
            separated = typed.get("s")
            size = sum(len(typed[k]) for k in "dmy") + (2 if separated else 0)
            which = _DAYS_LOG10 + _year_typed_log10(typed["y"])
            fee = (_SEPARATOR_LOG10 if separated else 0.0) - log10(DATE_SHARE * share)
            end = hit.start() + size
            yield Found(hit.start(), end, Part.DIGITS, which, fee, SegmentKind.DATE)


def _named_months(low: str) -> Iterator[Found]:
    for hit in _NAMED.finditer(low) if _MONTH.search(low) else ():
        day, year = hit.group("d") or hit.group("e"), hit.group("y")
        last = max(hit.end(group) for group in "mey")
        day = re.sub("[^0-9]", "", day) if day else day
        if (day is None and year is None) or (day and not 1 <= int(day) <= 31):
            continue
        which, fee = _MONTHS_LOG10, log10(3) - log10(DATE_SHARE * _NAMED_SHARE)
        which += log10(31) if day else 0.0
        which += _year_typed_log10(year) if year else 0.0
        yield Found(hit.start(), last, Part.DIGITS, which, fee, SegmentKind.DATE)
    for hit in _OF_WEEK.finditer(low) if "day" in low else ():
        which, fee = log10(31) + _WEEKDAY_LOG10, log10(3) - log10(DATE_SHARE * _NAMED_SHARE)
        yield Found(*hit.span(), Part.DIGITS, which, fee, SegmentKind.DATE)


def year_log10(year: int) -> float:
    """-log10 of the probability of a year: mostly within living memory."""
    if FIRST_YEAR <= year <= LAST_YEAR:
        return _YEARS_LOG10 - log10(_NEAR)
    return _YEARS_LOG10 - log10(_FAR)


def _year_typed_log10(typed: str) -> float:
    if len(typed) == 2:
        return _YEARS_LOG10
    year = int(typed)
    return year_log10(year) if 1900 <= year <= 2099 else 4 - log10(_FAR)
