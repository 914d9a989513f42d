"""Invertible changes of a text, each with a small function that undoes it, which gives nothing
where it cannot have been made.
"""

import re
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from newknot.core.strength.codings import (
    from_47,
    from_base32,
    from_base64,
    from_binary,
    from_braille,
    from_escapes,
    from_hexadecimal,
    from_look_alikes,
    from_morse,
    from_numbers,
    from_presses,
    from_square,
    from_upside_down,
    without_marks,
)
from newknot.core.strength.finders.symbols import AGAIN_LOG10, PAIRS, symbol_log10
from newknot.core.strength.letter_chain import LETTERS
from newknot.core.strength.romanising import romanised
from newknot.core.strength.views.like_words import WORD_LEAST, letters_of_bytes
from newknot.core.strength.views.orders import (
    before_its_letters,
    by_thirds,
    ends_back,
    first_behind,
    firsts_back,
    grown,
    halves_back,
    inside_out,
    keyword,
    last_in_front,
    of_there_and_back,
    of_twice,
    one_less,
    unwoven,
    unwoven_by_twos,
    without_its_letter,
    word_within,
    woven,
)
from newknot.core.strength.views.rows import BETWEEN_LOG10, in_rows

FRAME_MOST, _FRAME_LOG10 = 4, 1.2
"""Characters of what stands on both ends, and what each of them costs."""
LETTER_LOG10 = 1.4
"""One of the alphabet."""
_TURNED_LOG10 = 0.9
_ONE_OFF_LOG10, _FAR_OFF_LOG10 = 1.3, 1.8
"""Of hands one key off, and of those that stand across or two keys away."""
_BETWEEN_LEAST, _PUT_IN_LEAST, _BEHIND_MOST, _PLACES_LOG10 = 3, 2, 2, 0.5
_BETWEEN = re.compile("\0[^\\W\\d_]\0[^\\W\\d_]\0")

_ROWS = (
    ("`1234567890-=", "~!@#$%^&*()_+"),
    ("qwertyuiop[]\\", "QWERTYUIOP{}|"),
    ("asdfghjkl;'", 'ASDFGHJKL:"'),
    ("zxcvbnm,./", "ZXCVBNM<>?"),
)
_LETTER_ROWS = tuple(
    row for low in ("qwertyuiop", "asdfghjkl", "zxcvbnm") for row in (low, low.upper())
)
_LATIN_KEYS = "`qwertyuiop[]asdfghjkl;'zxcvbnm,./"
_CYRILLIC_KEYS = "ёйцукенгшщзхъфывапролджэячсмитьбю."
_QWERTY = "qwertyuiop[]asdfghjkl;'zxcvbnm,./-="
_DVORAK = "',.pyfgcrl/=aoeuidhtns-;qjkxbmwvz[]"
_NUMBERED = str.maketrans("12345", "aeiou")
_DIGIT_WITHIN = re.compile("(?<=[a-zA-Z])[0-9]{1,2}(?=[a-zA-Z])")
_PUT_IN = re.compile(r"([aeiou]+)([b-df-hj-np-tv-z])\1")
_CONSONANT = re.compile("[b-df-hj-np-tv-z]")
_SAID_TWICE = re.compile(rf"({_CONSONANT.pattern})o\1")
_NUMBERED_LETTER = re.compile("([^\\W\\d_])([0-9]{1,2})")
_NUMBER_LETTER = re.compile("([0-9]{1,2})([^\\W\\d_])")
_ALPHABET = "abcdefghijklmnopqrstuvwxyz"
_BY_USE = "etaoinsrhldcumfpgwybvkxjqz"
_USUAL = [_BY_USE.index(c) for c in _ALPHABET]
"""How rare each letter is in English: its place in the order of use."""


@dataclass(frozen=True, slots=True)
class Change:
    """An invertible change that may have been made to a text, in words, log10 of what choosing it
    costs, and how it is undone; place: as of a view.
    """

    says: str
    cost_log10: float
    undo: Callable[[str], str | None]
    place: Callable[[int, int, int], tuple[int, int]]
    is_sure: bool = False
    """Hardly a text is of this form by chance: what comes out may have been changed before."""
    is_frame: bool = False
    """What is taken away need not be read: the rest may read like words before and after."""
    is_copy: bool = False
    """What comes out is said again, which is found as it stands; it counts where no chance is."""


def changes_of(text: str) -> Iterator[Change]:
    """Every change that may have been made to the text."""
    yield from _ways()
    yield from _shifted(text)
    apart = [*_apart(text)]
    yield from apart
    yield from _beside(text)
    yield from _framed(text)
    # A sign between all is a form of rows too.
    if not any(change.is_sure for change in apart) and (found := in_rows(text)):
        told, cost, rows = found
        yield Change(f"in {rows} rows of one form", cost, _always(told), whole, is_sure=True)


def _same(start: int, end: int, n: int) -> tuple[int, int]:
    return start, end


def _turned(start: int, end: int, n: int) -> tuple[int, int]:
    return n - end, n - start


def _times(factor: int) -> Callable[[int, int, int], tuple[int, int]]:
    return lambda start, end, n: (factor * start, min(n, factor * end))


def whole(start: int, end: int, n: int) -> tuple[int, int]:
    """The place of what may have stood anywhere."""
    return 0, n


@cache
def _ways() -> tuple[Change, ...]:
    def keys(typed: str, meant: str) -> Callable[[str], str | None]:
        return _mapped(_typed_as(typed, meant))

    return (
        Change("written backwards", _TURNED_LOG10, lambda text: text[::-1], _turned),
        *(
            Change(f"typed {where}", cost, _mapped(table), _same)
            for where, cost, table in _neighbours()
        ),
        Change("on a Russian keyboard's keys", 1.3, keys(_LATIN_KEYS, _CYRILLIC_KEYS), _same),
        Change("with a Russian keyboard set", 1.3, keys(_CYRILLIC_KEYS, _LATIN_KEYS), _same),
        Change("on a Dvorak keyboard's keys", 1.9, keys(_DVORAK, _QWERTY), _same),
        Change("with a Dvorak keyboard set", 1.9, keys(_QWERTY, _DVORAK), _same),
        Change("with a German keyboard set", 1.6, keys("yz", "zy"), _same),
        Change("with a French keyboard set", 1.6, keys("qwazm,;", "azqw;m,"), _same),
        Change("with its alphabet reversed", 1.7, keys(_ALPHABET, _ALPHABET[::-1]), _same),
        Change("each character twice", 1.1, _single, _times(2), is_sure=True),
        Change("each character twice, in both cases", 1.4, _of_both_cases, _times(2), is_sure=True),
        Change("in hexadecimal", 1.5, from_hexadecimal, _times(2), is_sure=True),
        Change("in a program's escapes", 1.5, from_escapes, whole, is_sure=True),
        Change("in base 64", 1.5, from_base64, whole, is_sure=True),
        Change("in base 64, written backwards", 2.0, _of_turned(from_base64), whole, is_sure=True),
        Change("in base 32", 1.7, from_base32, whole),
        Change("by its places in a square of letters", 1.7, from_square, _times(2)),
        Change(
            "in the letters of another script by their sounds",
            1.5,
            romanised,
            whole,
            is_sure=True,
        ),
        Change("in Morse code", 1.3, from_morse, whole, is_sure=True),
        Change("in binary", 1.5, from_binary, whole, is_sure=True),
        Change("by a telephone's keys, pressed until it came", 1.3, from_presses, whole),
        Change("in character numbers", 1.7, from_numbers, whole, is_sure=True),
        Change("in letters of another make", 1.4, from_look_alikes, _same, is_sure=True),
        Change("in Braille", 1.3, from_braille, _same, is_sure=True),
        Change("upside down", 1.4, from_upside_down, _turned, is_sure=True),
        Change("struck through", 1.4, without_marks, whole, is_sure=True),
        Change("shifted by 47 in the table of characters", 1.9, from_47, _same),
        Change("its vowels as numbers", 1.6, _from_numbered, _same),
        Change("its vowels as numbers, with digits behind", 1.6, _from_numbered_within, _same),
        Change("with a syllable in each vowel", 1.6, _without_syllables, whole),
        Change("with o between each consonant and itself", 1.6, _without_o, whole, is_sure=True),
        Change("growing piece by piece", 1.4, _but_digits(grown), whole, is_sure=True),
        Change("with k and z for c and s", 1.6, _mapped(_typed_as("kz", "cs")), _same),
        Change("with digits put in", 1.3, _digits_behind, whole, is_frame=True),
        Change("each letter with its place beside it", 1.7, _without_places, whole, is_sure=True),
        Change("two texts woven into one", 1.7, _but_digits(unwoven), whole),
        Change("every second letter after the others", 1.8, _but_digits(woven), whole),
        Change("every third letter after the other", 2.0, _but_digits(by_thirds), whole),
        Change("two texts woven into one by twos", 2.0, _but_digits(unwoven_by_twos), whole),
        Change("with its halves exchanged", 1.5, _but_digits(halves_back), whole),
        Change("its first and last letter exchanged", 1.7, _but_digits(ends_back), whole),
        Change("written twice", _TURNED_LOG10, of_twice, whole, is_sure=True, is_copy=True),
        Change(
            "there and back", _TURNED_LOG10, of_there_and_back, whole, is_sure=True, is_copy=True
        ),
        Change("each letter one further on than the one before", 2.0, _but_digits(one_less), _same),
        Change("from its ends inwards", 1.9, _but_digits(inside_out), whole),
        Change("one word put into another", 1.6, _but_digits(word_within), whole, is_frame=True),
        Change("its last letter in front", 1.6, _but_digits(first_behind), whole),
        Change("its first letter behind", 1.6, _but_digits(last_in_front), whole),
        Change(
            "and its letters in order", 1.5, _but_digits(before_its_letters), whole, is_sure=True
        ),
        Change(
            "its words' first letters exchanged",
            1.7,
            _but_digits(firsts_back),
            whole,
            is_frame=True,
        ),
        Change("and the rest of the alphabet", 1.5, keyword, whole, is_sure=True),
        Change("with the next vowel for each", 1.9, _mapped(_typed_as("eioua", "aeiou")), _same),
        Change(
            "between its own letter", 1.6, _but_digits(without_its_letter), whole, is_frame=True
        ),
    )


def _shifted(text: str) -> Iterator[Change]:
    """The two shifts in the alphabet whose letters are the most usual ones."""
    codes = np.frombuffer(text.encode("ascii", "replace"), dtype=np.uint8)
    counts = np.bincount(letters_of_bytes()[codes], minlength=LETTERS)[1:]
    for by in np.argsort(_usual_shifted() @ counts, kind="stable")[:2].tolist():
        yield shifts()[by + 1]
        yield shifts_turned()[by + 1]


@cache
def _usual_shifted() -> NDArray[np.intp]:
    """How rare each letter would be, if it was shifted by 1 to 25."""
    return np.array([[_USUAL[(at - by) % 26] for at in range(26)] for by in range(1, 26)])


@cache
def shifts_turned() -> dict[int, Change]:
    """The same, written backwards then; by how much they shift."""
    return {
        by: Change(
            f"{way.says}, written backwards",
            way.cost_log10 + _TURNED_LOG10,
            _of_turned(way.undo),
            _turned,
        )
        for by, way in shifts().items()
    }


def _of_turned(undo: Callable[[str], str | None]) -> Callable[[str], str | None]:
    return lambda text: undo(text[::-1])


@cache
def shifts() -> dict[int, Change]:
    """Shifts in the alphabet, by how much."""
    return {
        by: Change(
            f"shifted by {by} in the alphabet",
            1.3 if by == 13 else 2.1,
            _mapped(_typed_as(_ALPHABET, _ALPHABET[-by:] + _ALPHABET[:-by])),
            _same,
        )
        for by in range(1, 26)
    }


def _apart(text: str) -> Iterator[Change]:
    """The same sign between all letters: the text without it."""
    gaps = re.split(r"[^\W_]", text)
    between = gaps[1] if len(gaps) > _BETWEEN_LEAST + 1 else ""
    is_even = set(gaps[1:-1]) == {between} and set(gaps[0] + gaps[-1]) <= set(between)
    if len(between) > 1 and is_even:
        cost = BETWEEN_LOG10 + _signs_log10(between)
        letters = "".join(c for c in text if c not in between)
        yield Change("with signs between", cost, _always(letters), whole, is_sure=True)
    for c, count in Counter(text).items():
        if count < _PUT_IN_LEAST or c.isalnum():
            continue
        parts = text.split(c)
        size = len(parts[0])
        is_grouped = {*map(len, parts[:-1])} == {size} and 0 < len(parts[-1]) <= size + _BEHIND_MOST
        if size > 1 and is_grouped:
            says = f"in groups of {size}"
            cost = BETWEEN_LOG10 + symbol_log10(c) + _PLACES_LOG10
            yield Change(says, cost, _always(text.replace(c, "")), whole, is_frame=True)
            continue
        if all(map(str.isalpha, parts[:-1])):
            cost = BETWEEN_LOG10 + symbol_log10(c) + _PLACES_LOG10
            yield Change("with a sign put in", cost, _always(text.replace(c, "")), whole)
        # Some of the letters may be digits or signs that stand for them.
        is_spelt = all(len(part) == 1 for part in parts[:-1])
        is_spelt = is_spelt and 2 * sum(map(str.isalpha, parts)) >= len(parts)
        is_between = is_spelt or _BETWEEN.search(text.replace(c, "\0"))
        if count >= _BETWEEN_LEAST and is_between:
            says = "with a blank between" if c == " " else "with one sign between"
            cost = BETWEEN_LOG10 + symbol_log10(c)
            yield Change(says, cost, _always(text.replace(c, "")), whole, is_sure=True)


def _beside(text: str) -> Iterator[Change]:
    """The same letter before or behind each: the text without it."""
    if len(text) % 2 or len(text) < 2 * WORD_LEAST:
        return
    for at, where in ((0, "before"), (1, "behind")):
        same, others = text[at::2].lower(), text[1 - at :: 2]
        pair = same[:2]
        if pair == pair[::-1] or any(map(str.isalnum, pair)):
            pair = ""
        if pair and same == (pair * len(same))[: len(same)]:
            cost = BETWEEN_LOG10 + sum(map(symbol_log10, pair))
            says = f"with two signs by turns {where} each"
            yield Change(says, cost, _always(others), _times(2), is_sure=True)
        if same[0].isalnum() and same == same[0] * len(same):
            cost = BETWEEN_LOG10 + LETTER_LOG10
            yield Change(
                f"with one letter {where} each", cost, _always(others), _times(2), is_sure=True
            )


def _framed(text: str) -> Iterator[Change]:
    """Letters in front that stand behind as well, the same way round or turned about."""
    for size in range(FRAME_MOST, 1, -1):
        front, behind, within = text[:size], text[-size:], text[size:-size]
        if behind not in (front, front[::-1]) or len(within) < WORD_LEAST:
            continue
        if any(c.isalpha() for c in front):
            cost = BETWEEN_LOG10 + size * _FRAME_LOG10
            # Of letters by chance hardly any two are alike on both ends.
            sure = len(set(front)) == 1
            place, says = _moved(size), "between the same letters"
            yield Change(says, cost, _always(within), place, is_sure=sure, is_frame=True)
            return


def _moved(by: int) -> Callable[[int, int, int], tuple[int, int]]:
    return lambda start, end, n: (start + by, end + by)


def _signs_log10(between: str) -> float:
    """What was opened is closed again, in whatever order they stand here."""
    closers = {PAIRS.get(c) for c in between}
    return sum(AGAIN_LOG10 if c in closers else symbol_log10(c) for c in dict.fromkeys(between))


def _always(text: str) -> Callable[[str], str | None]:
    return lambda _: text


def _mapped(table: dict[int, str]) -> Callable[[str], str | None]:
    def undo(text: str) -> str | None:
        return text.translate(table)

    return undo


def _typed_as(typed: str, meant: str) -> dict[int, str]:
    """Both cases, of letters."""
    pairs = [*zip(typed, meant, strict=True)]
    upper = [(a.upper(), b.upper()) for a, b in pairs if len(a.upper()) == len(b.upper()) == 1]
    return {ord(a): b for a, b in (*upper, *pairs)}


def _neighbours() -> Iterator[tuple[str, float, dict[int, str]]]:
    """The keys that were meant where the hands stood off, with what choosing that costs."""
    lines = [line for row in _ROWS for line in row]
    for by, keys, cost in ((1, "one key", _ONE_OFF_LOG10), (2, "two keys", _FAR_OFF_LOG10)):
        pairs = [pair for line in lines for pair in zip(line, line[by:], strict=False)]
        # A row of letters may go on at its other end.
        round_it = [(row[at - by], row[at]) for row in _LETTER_ROWS for at in range(by)]
        to_right, to_left = ({ord(b): a for a, b in pairs}, {ord(a): b for a, b in pairs})
        yield f"{keys} to the right", cost, {**{ord(b): a for a, b in round_it}, **to_right}
        yield f"{keys} to the left", cost, {**to_left, **{ord(a): b for a, b in round_it}}
    for across, where, cost in ((0, "", _ONE_OFF_LOG10), (1, " and to the right", _FAR_OFF_LOG10)):
        above: list[tuple[str, str]] = []
        for (low, high), (low_below, high_below) in pairwise(_ROWS):
            # The digit row begins one key further to the left.
            first = across + (low[0] == "`")
            above += zip(low[first:], low_below, strict=False)
            above += zip(high[first:], high_below, strict=False)
        # Above the top row the lowest may come again.
        for lowest, top in zip(_ROWS[-1], _ROWS[1], strict=True):
            above += zip(lowest[across:], top, strict=False)
        yield f"one key too high{where}", cost, {ord(a): b for a, b in above}
        back = where.replace("right", "left")
        yield f"one key too low{back}", cost, {ord(b): a for a, b in reversed(above)}


def _single(text: str) -> str | None:
    return text[::2] if len(text) % 2 == 0 and text[::2] == text[1::2] else None


def _of_both_cases(text: str) -> str | None:
    return None if text.islower() or text.isupper() else _single(text.lower())


def _without_places(text: str) -> str | None:
    """The letters, where each has its place beside it, in the text or in the alphabet."""
    if not any(map(str.isdigit, text[:2])):
        return None
    pairs = _NUMBERED_LETTER.findall(text)
    if "".join(map("".join, pairs)) != text:
        turned = _NUMBER_LETTER.findall(text)
        pairs = [(letter, number) for number, letter in turned]
        if "".join(map("".join, turned)) != text:
            return None
    if len(pairs) < WORD_LEAST:
        return None
    first, numbers = int(pairs[0][1]), [number for _, number in pairs]
    counted = [str(first + at) for at in range(len(pairs))]
    of_alphabet = [str(_ALPHABET.find(letter.lower()) + 1) for letter, _ in pairs]
    if numbers not in (counted, [number[-1] for number in counted], of_alphabet):
        return None
    return "".join(letter for letter, _ in pairs)


def _but_digits(undo: Callable[[str], str | None]) -> Callable[[str], str | None]:
    """The same, where the digits behind were put there afterwards."""

    def but(text: str) -> str | None:
        bare = text.rstrip("0123456789")
        if len(bare) < WORD_LEAST:
            return None
        undone = undo(bare)
        return undone and undone + text[len(bare) :]

    return but


def _digits_behind(text: str) -> str | None:
    """Digits that stand between letters, one or two at a place, behind them."""
    if len(_DIGIT_WITHIN.findall(text)) < 2:
        return None
    return re.sub("[0-9]", "", text) + re.sub("[^0-9]", "", text)


def _from_numbered(text: str) -> str:
    return text.translate(_NUMBERED)


def _from_numbered_within(text: str) -> str:
    bare = text.rstrip("0123456789")
    return bare.translate(_NUMBERED) + text[len(bare) :]


def _without_o(text: str) -> str | None:
    """Of a children's language in which each consonant is said twice, with a vowel between."""
    low = text.lower()
    single = _SAID_TWICE.sub(r"\1", low)
    twice = (len(low) - len(single)) // 2
    return single if twice > 1 and len(_CONSONANT.findall(single)) == twice else None


def _without_syllables(text: str) -> str | None:
    """Of a children's language that puts a consonant and the vowel again behind each vowel."""
    found = _PUT_IN.findall(text.lower())
    if len(found) < 2:
        return None
    put_in = Counter(consonant for _, consonant in found)
    consonant, times = max(put_in.items(), key=lambda one: one[1])
    if times < 2:
        return None
    return re.sub(rf"([aeiou]+){consonant}\1", r"\1", text, flags=re.IGNORECASE)
