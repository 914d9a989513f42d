"""Syllables of a consonant and a vowel, as speakable secrets are drawn."""

import re
from collections.abc import Iterator
from math import log10

from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

SYLLABLES_SHARE = 0.004
"""Of words."""
_CONSONANT_LOG10, _VOWEL_LOG10 = log10(20), log10(5)
_ONE = "(?:[kgnhbpmrst]y|[cst]h|ts|[bcdfghjklmnpqrstvwxyz])"
_RUN = re.compile(f"[aeiou]?(?:{_ONE}[aeiou]){{3,}}[bcdfghjklmnpqrstvwxyz]?")
_CONSONANT = re.compile(_ONE)


def syllables(reading: Reading) -> Iterator[Found]:
    """Three syllables and more in a row, with or without an odd letter at either end."""
    for run in _RUN.finditer(reading.low):
        which, pattern = case_log10(reading.text, *run.span())
        vowels = sum(c in "aeiou" for c in run.group())
        which += vowels * _VOWEL_LOG10 + len(_CONSONANT.findall(run.group())) * _CONSONANT_LOG10
        fee = pattern - log10(SYLLABLES_SHARE)
        yield Found(*run.span(), Part.WORD, which, fee, SegmentKind.WORDLIKE)
