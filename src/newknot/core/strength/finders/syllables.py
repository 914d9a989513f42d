"""Syllables of a consonant and a vowel, as speakable secrets are drawn, and those of Mandarin."""

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
_MANDARIN_LOG10 = 2.2
"""Of some 400 syllables, of which a hundred make most of what is written."""
_PINYIN = (
    "(?:(?:[bpmf]|d|t|n|l|g|k|h|[zcs]h?|r|w)?(?:ai|ei|ao|ou|ang?|eng?|ong|a|e|o|u)"
    "|(?:[bpmdtnljqx]|y)?(?:iang|iong|iao|ian|ing|ia|ie|iu|in|i|ue|uan|un|u)"
    "|(?:[dtnlgkhr]|[zcs]h?)(?:uang|uai|uan|ua|ui|un|uo|u)|[zcs]hi|[zcsr]i|y(?:ing?|uan|ue|un|u)|er)"
)
_MANDARIN = re.compile(f"(?<![a-z])(?:{_PINYIN}){{2,8}}(?![a-z])")
_EACH_MANDARIN = re.compile(_PINYIN)


def syllables(reading: Reading) -> Iterator[Found]:
    """Three syllables and more in a row, with or without an odd letter at either end."""
    for run in _RUN.finditer(reading.low):
        which, pattern = case_log10(reading.text, *run.span())
        vowels = sum(c in "aeiou" for c in run.group())
        which += vowels * _VOWEL_LOG10 + len(_CONSONANT.findall(run.group())) * _CONSONANT_LOG10
        fee = pattern - log10(SYLLABLES_SHARE)
        yield Found(*run.span(), Part.WORD, which, fee, SegmentKind.WORDLIKE)


def mandarin_syllables(reading: Reading) -> Iterator[Found]:
    """Two and more of them in a row, written in Latin letters without their tones (ISO 7098)."""
    for run in _MANDARIN.finditer(reading.low):
        each = _EACH_MANDARIN.findall(run.group())
        if "".join(each) != run.group() or not any(len(one) > 2 for one in each):
            continue
        which, pattern = case_log10(reading.text, *run.span())
        which += _MANDARIN_LOG10 * len(each)
        fee = pattern - log10(SYLLABLES_SHARE)
        kind, name = SegmentKind.OF_A_CLASS, "syllables of Mandarin"
        yield Found(*run.span(), Part.WORD, which, fee, kind, name)
