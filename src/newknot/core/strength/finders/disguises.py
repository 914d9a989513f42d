"""Listed words in disguise: broken by what was put in, turned round, their vowels changed or gone.

Each disguise is undone and looked up; a run of letters that is itself a listed word wears none.
"""

import re
from collections import Counter
from collections.abc import Iterator
from functools import cache
from math import comb, factorial, log10, prod

from newknot.core.shipped import shipped_lines
from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.dictionaries import LONGEST, dictionaries
from newknot.core.strength.finders.slips import that_begin
from newknot.core.strength.finders.symbols import symbol_log10
from newknot.core.strength.reading import Reading, shape_of_letters
from newknot.core.strength.segments import Found, Part, SegmentKind

DISGUISED_LOG10 = 1.4
"""One word in twenty-five wears one of these."""
_WORD_LEAST = 4
_RUN = re.compile(r"[^\W\d_]{4,24}")
_WITHOUT_LEAST, _ORDERED_LEAST = 3, 5
_BROKEN = re.compile(
    r"(?<![^\W\d_])([^\W\d_]{1,12})(\d{1,4}|[^\w\s]{1,3}|[ _]{1,3})(?=([^\W\d_]{1,12}))"
)
_SHIFTED = re.compile(r"[!@#$%^&*()]{2,8}")
_UNSHIFTED = str.maketrans("!@#$%^&*()", "1234567890")
_NUMBERS = re.compile(r"\d{5,24}|\d{1,2}(?:([-., /_])\d{1,2})(?:\1\d{1,2})+")
_MASKED = re.compile(r"(?=[a-z]*([^\w\s]|_|\d))[a-z]*(?:\1{1,3}[a-z]+)+\1{0,3}")
_DRAWN_OUT, _DOUBLED = re.compile(r"(.)\1{2,}"), re.compile(r"(.)\1")
_DOUBLED_LEAST = 2
_SAID_TWICE_MOST = 4
TWICE_LOG10 = 1.6
_STUTTER = re.compile(r"(?<![^\W_])([a-z])([- .])(?:\1\2){0,2}(?=\1[a-z]{2})")
_KEYS = str.maketrans("abcdefghijklmnopqrstuvwxyz", "22233344455566677778889999")
"""ITU-T E.161."""
_IN_NUMBERS = str.maketrans({chr(ord("a") - 1 + number): str(number) for number in range(1, 27)})
_PREFIXES = (
    *("un", "re", "super", "mega", "ultra", "anti", "non", "over", "under", "pre", "mis", "dis"),
    *("inter", "extra", "mini", "multi"),
)
_SUFFIXES = (
    *("able", "ness", "ish", "less", "ism", "ist", "ology", "ing", "er", "ers", "ed", "ly", "ful"),
    *("ment", "ize", "ized", "ation", "ster", "ville", "land", "like"),
)
_VOWELS = "aeiou"
_MARKED = str.maketrans(dict.fromkeys(_VOWELS, "?"))
_NO_VOWELS = str.maketrans(dict.fromkeys(_VOWELS))
_CROSS, _CROSSES_LEAST = "x", 2
"""A letter that is as good as a sign, where it stands more than once."""
_COMMONEST = 12_000
"""Words of which few are the same without their vowels, or on a telephone's keys."""
_MOVED_BEHIND = re.compile(r"([a-z]{2,20})ay")
_CONSONANTS_MOST, _BY_RULE_LOG10 = 3, 0.6


@cache
def _by_what_is_left() -> dict[str, str]:
    """A common word without its vowels, with a mark for each, by its letters in order, on a
    telephone's keys, and by the numbers of its letters -> the word.
    """
    found: dict[str, str] = {}
    for word in shipped_lines("english_words.txt.gz")[:_COMMONEST]:
        if len(word) >= _WORD_LEAST and word.isascii() and word.isalpha():
            bare, marked = word.translate(_NO_VOWELS), word.translate(_MARKED)
            if len(bare) >= _WITHOUT_LEAST:
                found.setdefault(bare, word)
            if marked != word:
                found.setdefault(marked, word)
            found.setdefault("".join(sorted(word)), word)
            found.setdefault(word.translate(_KEYS), word)
            found.setdefault(word.translate(_IN_NUMBERS), word)
    return found


def disguises(reading: Reading) -> Iterator[Found]:
    """Stretches that were a listed word, with what undid the disguise in words."""
    low, known = reading.low, dictionaries().number
    for run in _RUN.finditer(low):
        start, end = run.span()
        typed = run.group()
        if shape_of_letters(typed) in known or not typed.isascii():
            continue
        for says, word, cost in _of_letters(typed):
            yield from _word(reading, start, end, word, cost, says)
        if end - start >= _ORDERED_LEAST and list(typed) == sorted(typed):
            which = log10(comb(len(typed) + 25, len(typed)))
            says = "letters in the order of the alphabet"
            yield _found(reading, start, end, which, 0.0, says)
        yield from _affixes(reading, start, end)
        if not set(typed) & set(_VOWELS):
            yield from _two_without(reading, start, end)
        for size in range(1, _SAID_TWICE_MOST + 1):
            again = typed[size:]
            if typed[:size] == again[:size] and shape_of_letters(again) in known:
                says = "a word's beginning twice"
                yield _found(reading, start, start + size, TWICE_LOG10, 0.0, says)
    for hit in _STUTTER.finditer(low):
        says, which = "a word's beginning twice", TWICE_LOG10 + symbol_log10(hit.group(2))
        yield _found(reading, *hit.span(), which, 0.0, says)
    yield from _broken(reading)
    yield from _masked(reading)
    yield from _numbered(reading)
    yield from _shifted(reading)


def _of_letters(typed: str) -> Iterator[tuple[str, str, float]]:
    """(in words, the word that may have been meant, log10 of the ways to do the same)."""
    n = len(typed)
    for at in range(2, n - 1):
        yield "a word turned about", typed[at:] + typed[:at], log10(n)
    moved = _MOVED_BEHIND.fullmatch(typed)
    if moved:
        letters = moved.group(1)
        for size in range(1, min(_CONSONANTS_MOST, len(letters) - 1) + 1):
            yield "a word, its beginning moved behind", letters[-size:] + letters[:-size], 0.3
    if _DRAWN_OUT.search(typed):
        for left in (r"\1", r"\1\1"):
            yield "a word with a letter drawn out", _DRAWN_OUT.sub(left, typed), log10(3 * n)
    if len(_DOUBLED.findall(typed)) >= _DOUBLED_LEAST:
        yield "a word with letters twice", _DOUBLED.sub(r"\1", typed), 0.5
    exchanged = "".join(typed[at + 1 : at + 2] + typed[at] for at in range(0, n, 2))
    yield "a word with its letters exchanged by pairs", exchanged, 0.3
    if meant := _by_what_is_left().get("".join(sorted(typed)), ""):
        yield "a word's letters in another order", meant, _order_log10(typed)
    kinds = set(typed) & set(_VOWELS)
    if not kinds and typed.count(_CROSS) >= _CROSSES_LEAST:
        meant = _by_what_is_left().get(typed.replace(_CROSS, "?"), "")
        yield "a word with a sign for its vowels", meant, 1.0
    if not kinds and n >= _WITHOUT_LEAST:
        yield "a word without its vowels", _by_what_is_left().get(typed, ""), 0.0
    elif len(kinds) == 1:
        meant = _by_what_is_left().get(typed.translate(_MARKED), "")
        yield "a word with one vowel for all", meant, log10(len(_VOWELS))


def _order_log10(typed: str) -> float:
    """What an order of these letters costs: one that comes first to mind, or any."""
    by_kind = sorted(typed, key=_VOWELS.__contains__)
    if list(typed) in (sorted(typed), sorted(typed, reverse=True), by_kind, by_kind[::-1]):
        return _BY_RULE_LOG10
    return log10(factorial(len(typed)) / prod(map(factorial, Counter(typed).values())))


def _two_without(reading: Reading, start: int, end: int) -> Iterator[Found]:
    """Two words without their vowels that touch."""
    left = _by_what_is_left()
    for at in range(start + _WITHOUT_LEAST, end - _WITHOUT_LEAST + 1):
        one, other = left.get(reading.low[start:at]), left.get(reading.low[at:end])
        if one and other:
            says = "a word without its vowels"
            yield from _word(reading, start, at, one, 0.0, says)
            yield from _word(reading, at, end, other, 0.0, says)


def _affixes(reading: Reading, start: int, end: int) -> Iterator[Found]:
    """What words are lengthened by, in front and behind."""
    typed = reading.low[start:end]
    for affixes, is_behind in ((_PREFIXES, False), (_SUFFIXES, True)):
        for affix in affixes:
            at = end - len(affix) if is_behind else start
            if reading.low.startswith(affix, at) and len(typed) - len(affix) >= _WORD_LEAST - 1:
                which, says = log10(len(affixes)), "a suffix" if is_behind else "a prefix"
                yield Found(at, at + len(affix), Part.WORD, which, 1.0, SegmentKind.DISGUISED, says)


def _numbered(reading: Reading) -> Iterator[Found]:
    """A common word on a telephone's keys, or by the numbers of its letters."""
    for hit in _NUMBERS.finditer(reading.low):
        typed = hit.group()
        between = hit.group(1) or ""
        if between:
            numbers = list(map(int, typed.split(between)))
            letters = "".join(chr(ord("a") - 1 + n) for n in numbers if 1 <= n <= 26)
            word = letters if len(letters) == len(numbers) else ""
        else:
            word = _by_what_is_left().get(typed, "")
        if word:
            says = "a word in numbers for its letters"
            yield from _word(reading, *hit.span(), word, 0.3, says)


def _shifted(reading: Reading) -> Iterator[Found]:
    """Digits with the shift key held."""
    for hit in _SHIFTED.finditer(reading.low):
        digits = hit.group().translate(_UNSHIFTED)
        which, kind = _digits_log10(digits), SegmentKind.DISGUISED
        says = "digits with the shift key held"
        yield Found(*hit.span(), Part.DIGITS, which, DISGUISED_LOG10, kind, says)


def _digits_log10(digits: str) -> float:
    """Of a year, or of as many digits."""
    return 2.1 if len(digits) == 4 and digits[:2] in ("19", "20") else float(len(digits))


def _broken(reading: Reading) -> Iterator[Found]:
    """A word with digits or symbols somewhere inside."""
    for hit in _BROKEN.finditer(reading.low):
        before, put_in, after = hit.groups()
        if len(before) + len(after) < _WORD_LEAST + 1:
            continue
        cost = log10(len(before) + len(after))
        cost += _digits_log10(put_in) if put_in.isdigit() else sum(map(symbol_log10, set(put_in)))
        says, end = "a word with something put in", hit.end() + len(after)
        yield from _word(reading, hit.start(), end, before + after, cost, says)
        if len(put_in) == 1:
            says, known = "a word with a sign for one letter", dictionaries().number
            front, behind = shape_of_letters(before), shape_of_letters(after)
            for shape in that_begin(front, behind):
                if front + shape + behind in known:
                    for letter in "il" if shape == "i" else shape:
                        meant = before + letter + after
                        yield from _word(reading, hit.start(), end, meant, cost, says)


def _masked(reading: Reading) -> Iterator[Found]:
    """A word with one sign for each of its vowels."""
    for hit in _MASKED.finditer(reading.low):
        sign = hit.group(1)
        meant = _by_what_is_left().get(hit.group().replace(sign, "?"))
        if meant:
            says = "a word with a sign for its vowels"
            cost = 1.0 if sign.isdigit() else symbol_log10(sign)
            yield from _word(reading, *hit.span(), meant, cost, says)


def _word(
    reading: Reading, start: int, end: int, word: str, cost: float, says: str
) -> Iterator[Found]:
    """The stretch as this word, where it is listed; cost: log10 of the ways to disguise it so."""
    lists = dictionaries()
    number = lists.number.get(shape_of_letters(word))
    if number is None or not _WORD_LEAST <= len(word) <= LONGEST:
        return
    source, in_list, listed = lists.taken(number)
    if listed == word:
        yield _found(reading, start, end, in_list + cost, -log10(source.share), says)


def _found(
    reading: Reading, start: int, end: int, which: float, of_list: float, says: str
) -> Found:
    in_case, pattern = case_log10(reading.text, start, end)
    fee = DISGUISED_LOG10 + of_list + pattern
    return Found(start, end, Part.WORD, which + in_case, fee, SegmentKind.DISGUISED, says)
