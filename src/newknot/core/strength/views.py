"""Views of a text: an invertible change that may have been made to it, undone.

Whoever shifts a word by one key, or writes it backwards or in hexadecimal, has made a text that no
list holds; what is undone is measured as any other, and the choice of the view costs beside. Each
view is a small function of the text alone; it gives nothing where it cannot have been made.
"""

import re
from bisect import bisect_right
from collections import Counter
from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import accumulate, pairwise, zip_longest
from math import inf, isqrt

import numpy as np
from numpy.typing import NDArray

from newknot.core.strength.codings import (
    from_47,
    from_base32,
    from_base64,
    from_binary,
    from_hexadecimal,
    from_look_alikes,
    from_morse,
    from_numbers,
    from_presses,
    from_square,
    from_upside_down,
    romanised,
    without_marks,
)
from newknot.core.strength.dictionaries import dictionaries
from newknot.core.strength.finders.symbols import AGAIN_LOG10, PAIRS, symbol_log10
from newknot.core.strength.letter_chain import (
    EDGE,
    LETTERS,
    STEPS_PER_ORDER,
    letter_number,
    triples,
)
from newknot.core.strength.rarer_words import is_rarer
from newknot.core.strength.reading import shape_of_letters, shape_of_text

SHORTEST, LONGEST = 5, 128
"""Characters of a text that is looked at so."""
MEASURED_MOST, KNOWN_MOST = 3, 2
"""Views of one text that are measured: those that read most like words, and of which most is known.
"""
WORD_LEAST, _WITHIN_MOST = 4, 24
NO_LETTERS = 2.0
"""What a text without letters of a to z reads like: letters by chance."""
BETWEEN_LOG10 = 0.9
"""Of the choice to put something between all letters."""
_TURNED_LOG10 = 0.9
_ONE_OFF_LOG10, _FAR_OFF_LOG10 = 1.3, 1.8
"""Of hands one key off, and of those that stand across or two keys away."""
LETTER_LOG10 = 1.4
"""One of the alphabet."""
FRAME_MOST, _FRAME_LOG10 = 4, 1.2
"""Characters of what stands on both ends, and what each of them costs."""
_BETTER, _LIKE_WORDS = 0.15, 1.4
"""Orders a letter by which a view has to read better than the text itself, and at most: words take
0.9 to 1.2, letters by chance 1.7 and more.
"""
_RUNS_LEAST = 0.4
"""Share of the letters that stand together in what reads like words; by chance a few do."""
_TOLD_MOST = 0.8
"""Of a text of a form that hardly comes by chance, what it says at most; the rest follows of it."""
_RUN = re.compile(r"[^\W\d_]{3,}")
_WORD_RUN = re.compile(r"[^\W\d_]{4,}")
_SWAPPED_LATER, _LISTED_LEAST, _LETTERS_LEAST = 0.3, 0.6, 0.85
"""What reads so with letters for digits comes after what does as it stands; more than this share
of it is a word of a list, and more than the last are letters then.
"""
_SWAPPED_WITHIN = re.compile("[a-z][0-9!|@$+€]{1,2}[a-z]", re.IGNORECASE)
_FOREIGN_RUN = re.compile(r"[a-zA-Z]*[^\W\d_a-zA-Z][^\W\d_]*")
_NOT_ASCII = re.compile(r"[^\x00-\x7f]")
_COLUMN_LOG10, _STEP_LOG10, _SURPRISE_LOG10 = 0.3, 0.5, 1.5
"""Of rows of one form: for each place in them, for one that goes on by a step, and by how much it
has to be less likely by chance, where each character is one of ten at the least.
"""
_ROWS_MOST, _BEHIND_MOST = 40, 3
"""Characters of a text in rows, and of what may stand behind them."""
_BETWEEN_LEAST, _PUT_IN_LEAST, _PLACES_LOG10 = 3, 2, 0.5
_BETWEEN = re.compile("\0[^\\W\\d_]\0[^\\W\\d_]\0")

_ROWS = (
    ("`1234567890-=", "~!@#$%^&*()_+"),
    ("qwertyuiop[]\\", "QWERTYUIOP{}|"),
    ("asdfghjkl;'", 'ASDFGHJKL:"'),
    ("zxcvbnm,./", "ZXCVBNM<>?"),
)
_LATIN_KEYS = "`qwertyuiop[]asdfghjkl;'zxcvbnm,./"
_CYRILLIC_KEYS = "ёйцукенгшщзхъфывапролджэячсмитьбю."
_QWERTY = "qwertyuiop[]asdfghjkl;'zxcvbnm,./-="
_DVORAK = "',.pyfgcrl/=aoeuidhtns-;qjkxbmwvz[]"
_NUMBERED = str.maketrans("12345", "aeiou")
_DIGIT_WITHIN = re.compile("(?<=[a-zA-Z])[0-9](?=[a-zA-Z])")
_PUT_IN = re.compile(r"([aeiou]+)([b-df-hj-np-tv-z])\1")
_NUMBERED_LETTER = re.compile("([^\\W\\d_])([0-9]{1,2})")
_NUMBER_LETTER = re.compile("([0-9]{1,2})([^\\W\\d_])")
_ALPHABET = "abcdefghijklmnopqrstuvwxyz"
_BY_USE = "etaoinsrhldcumfpgwybvkxjqz"
_USUAL = [_BY_USE.index(c) for c in _ALPHABET]
"""How rare each letter is in English: its place in the order of use."""


@dataclass(frozen=True, slots=True)
class View:
    """What was undone, in words that follow on the text's own and hold nothing of it; cost_log10 of
    choosing it. place: where a stretch [start, end) of what comes out of a text of n characters
    stood in it. is_told: the rest of the text follows of what comes out, whatever that is.
    """

    says: str
    cost_log10: float
    text: str
    place: Callable[[int, int, int], tuple[int, int]]
    is_told: bool = False


@dataclass(frozen=True, slots=True)
class _Way:
    says: str
    cost_log10: float
    undo: Callable[[str], str | None]
    place: Callable[[int, int, int], tuple[int, int]]
    is_sure: bool = False
    """Hardly a text is of this form by chance: what comes out may have been changed before."""
    is_frame: bool = False
    """What is taken away need not be read: the rest may read like words before and after."""


def views_of(
    text: str,
    known: Collection[str] = (),
    looked_at: list[str] | None = None,
    *,
    depth: int = 2,
) -> tuple[list[View], list[View]]:
    """The views of a text that read like words where it does not itself, the best first, and beside
    them those in which more of what is known stands. known: shapes of what is known of the user,
    which no list need hold. looked_at, where given, is filled with what they are looked for in.
    depth: how many changes one upon the other are looked for.
    """
    if not SHORTEST <= len(text) <= LONGEST:
        return [], []
    undone_by: list[tuple[int, _Way, str]] = []
    apart = [*_apart(text)]
    # A sign between all is a form of rows too.
    rows = () if any(way.is_sure for way in apart) else _in_rows(text)
    for at, way in enumerate(
        (
            *_ways(),
            *_shifted(text),
            *apart,
            *_beside(text),
            *_framed(text),
            *rows,
        )
    ):
        undone = way.undo(text)
        if undone and undone != text and (len(undone) >= WORD_LEAST or way.is_sure):
            undone_by.append((at, way, undone))
    of_known: list[View] = []
    if known or looked_at is not None:
        of_known = _of_known(
            text, [(way, undone) for _, way, undone in undone_by], known, looked_at
        )
    found: list[tuple[float, int, View]] = []
    texts = [text, *(undone for _, _, undone in undone_by)]
    scores = _like_words(texts, [way.is_frame for _, way, _ in undone_by])
    if _SWAPPED_WITHIN.search(text) and _is_mostly_letters(shape_of_text(text.lower())):
        # With letters for digits and signs it may read like words where it does not as it stands.
        shapes = [shape_of_text(one.lower()) for one in texts]
        swapped = _like_words(shapes, [False] * len(undone_by), only_listed=True)
        scores = [
            min(one, other + _SWAPPED_LATER) for one, other in zip(scores, swapped, strict=True)
        ]
    for (at, way, undone), score in zip(undone_by, scores, strict=True):
        is_plain = undone.isascii() and undone.isprintable()
        is_told = way.is_sure and is_plain and len(undone) < _TOLD_MOST * len(text)
        if is_told or score < inf:
            view = View(way.says, way.cost_log10, undone, way.place, is_told)
            found.append((score, at, view))
        if way.is_sure and depth > 1:
            inner, inner_known = views_of(undone, known, looked_at, depth=depth - 1)
            for view in inner[:1]:
                found.append((_letter_costs([view.text])[0], at, _both(view, way)))
            of_known += (_both(view, way) for view in inner_known[:1])
    best = sorted(found, key=lambda one: (not one[2].is_told, *one[:2]))[:MEASURED_MOST]
    return [view for _, _, view in best], of_known[:KNOWN_MOST]


def _like_words(
    texts: list[str], is_frame: list[bool], *, only_listed: bool = False
) -> list[float]:
    """Of each text but the first, how much it reads like words where the first does not, the less
    the better; infinity where it does not. is_frame: of each, whether the first may do so too.
    only_listed: by words of the lists alone, not by how letters follow.
    """
    own, *costs = _letter_costs(texts)
    # Most views read no better, and are not looked up.
    may_hold = [cost < own or cost == NO_LETTERS for cost in costs]
    own_held, *held_by = _word_letters(
        [texts[0], *(one for one, may in zip(texts[1:], may_hold, strict=True) if may)],
        rarer=not only_listed,
    )
    in_turn = iter(held_by)
    scores = []
    for one, cost, may, may_be_like in zip(texts[1:], costs, may_hold, is_frame, strict=True):
        held = next(in_turn) if may else 0
        is_better = not only_listed and (may_be_like or cost < own - _BETTER)
        is_held = held > own_held and (not only_listed or held > _LISTED_LEAST * len(one))
        is_like_words = is_held or (is_better and cost < _LIKE_WORDS)
        is_run = is_like_words and _runs(one) >= _RUNS_LEAST * len(one)
        scores.append(cost - held / len(one) if is_run else inf)
    return scores


def _is_mostly_letters(text: str) -> bool:
    return sum(map(str.isalpha, text)) >= _LETTERS_LEAST * len(text)


def _runs(text: str) -> int:
    """Letters that stand at least three together."""
    return sum(map(len, _RUN.findall(text)))


def _both(inner: View, way: _Way) -> View:
    """One change upon the other."""
    says, cost = f"{inner.says}, {way.says}", way.cost_log10 + inner.cost_log10
    return View(says, cost, inner.text, _whole)


def _of_known(
    text: str,
    undone_by: Sequence[tuple[_Way, str]],
    known: Collection[str],
    looked_at: list[str] | None,
) -> list[View]:
    """The views of which most is known, where more is than of the text itself; of all shifts in the
    alphabet, since what is known need not have the usual letters.
    """
    shifted = [one for way in _shifts().values() if (one := way.undo(text))]
    texts = (*(one for _, one in undone_by), *shifted, *(one[::-1] for one in shifted))
    together = shape_of_letters("\n".join(texts).lower())
    if looked_at is not None:
        looked_at.append(together)
    known = [one for one in known if len(one) >= WORD_LEAST and one in together]
    if not known:
        return []
    further = ((way, way.undo(text)) for way in (*_shifts().values(), *_shifts_turned().values()))
    every = [*undone_by, *((way, undone) for way, undone in further if undone)]
    shapes = [shape_of_letters(one.lower()) for one in (text, *(one for _, one in every))]
    own, *letters = _known_letters(shapes, known)
    of_known = [at for at, count in enumerate(letters) if count > own]
    of_known.sort(key=lambda at: -letters[at])
    return [
        View(way.says, way.cost_log10, undone, way.place)
        for way, undone in (every[at] for at in of_known[:KNOWN_MOST])
    ]


def _known_letters(shapes: Sequence[str], known: Sequence[str]) -> list[int]:
    """Of each shape, the letters of the longest that is known and makes half of it or more."""
    return [
        max((len(one) for one in known if one in shape and 2 * len(one) >= len(shape)), default=0)
        for shape in shapes
    ]


def _word_letters(texts: list[str], *, rarer: bool = True) -> list[int]:
    """Of each text, the letters of the runs that a list holds as they stand; rarer: or that of
    rarer words.
    """
    known, letters = dictionaries().number, [0] * len(texts)
    shapes = [shape_of_letters(text.lower()) for text in texts]
    ends = list(accumulate(len(shape) + 1 for shape in shapes))
    shaped = "\n".join(shapes)
    for run in _WORD_RUN.finditer(shaped):
        word = run.group()
        if word in known or (rarer and len(word) > WORD_LEAST and is_rarer(word)):
            letters[bisect_right(ends, run.start())] += len(word)
    return letters


def _letter_costs(texts: list[str]) -> list[float]:
    """Of each text, orders of ten a letter, by how letters follow in words. Runs of letters of
    another script do not count, nor do those of fewer than three.
    """
    texts = [text if text.isascii() else _without_foreign(text) for text in texts]
    letters = _letters()[np.frombuffer("\n".join(["", *texts, "", ""]).encode(), dtype=np.uint8)]
    is_letter = letters > EDGE
    three = is_letter[:-2] & is_letter[1:-1] & is_letter[2:]
    counts = np.zeros(len(letters), dtype=np.intp)
    counts[:-2] = three
    counts[1:-1] |= three
    counts[2:] |= three
    # A run begins anew behind what is no letter.
    second = letters[1:-1]
    first = letters[:-2] * is_letter[1:-1]
    costs = np.zeros(len(letters), dtype=np.intp)
    costs[2:] = _triples()[(first * LETTERS + second) * LETTERS + letters[2:]] * counts[2:]
    if is_letter[1]:
        costs[1] = _triples()[letters[1]] * counts[1]
    starts = list(accumulate((len(text) + 1 for text in texts), initial=1))
    totals, many = (np.add.reduceat(one, starts[:-1]).tolist() for one in (costs, counts))
    return [
        total / STEPS_PER_ORDER / count if count > 2 else NO_LETTERS
        for total, count in zip(totals, many, strict=True)
    ]


def _without_foreign(text: str) -> str:
    return _NOT_ASCII.sub("\n", _FOREIGN_RUN.sub("\n", text))


@cache
def _letters() -> NDArray[np.intp]:
    """Of each byte: 1 to 26 for a letter in either case, else the edge of a word."""
    numbers = np.zeros(256, dtype=np.intp)
    for c in _ALPHABET:
        numbers[ord(c)] = numbers[ord(c.upper())] = letter_number(c)
    return numbers


@cache
def _triples() -> NDArray[np.uint8]:
    return np.frombuffer(triples(), dtype=np.uint8)


def _same(start: int, end: int, n: int) -> tuple[int, int]:
    return start, end


def _turned(start: int, end: int, n: int) -> tuple[int, int]:
    return n - end, n - start


def _times(factor: int) -> Callable[[int, int, int], tuple[int, int]]:
    return lambda start, end, n: (factor * start, min(n, factor * end))


def _whole(start: int, end: int, n: int) -> tuple[int, int]:
    return 0, n


@cache
def _ways() -> tuple[_Way, ...]:
    def keys(typed: str, meant: str) -> Callable[[str], str | None]:
        return _mapped(_typed_as(typed, meant))

    return (
        _Way("written backwards", _TURNED_LOG10, lambda text: text[::-1], _turned),
        *(
            _Way(f"typed {where}", cost, _mapped(table), _same)
            for where, cost, table in _neighbours()
        ),
        _Way("on a Russian keyboard's keys", 1.3, keys(_LATIN_KEYS, _CYRILLIC_KEYS), _same),
        _Way("with a Russian keyboard set", 1.3, keys(_CYRILLIC_KEYS, _LATIN_KEYS), _same),
        _Way("on a Dvorak keyboard's keys", 1.9, keys(_DVORAK, _QWERTY), _same),
        _Way("with a Dvorak keyboard set", 1.9, keys(_QWERTY, _DVORAK), _same),
        _Way("with a German keyboard set", 1.6, keys("yz", "zy"), _same),
        _Way("with a French keyboard set", 1.6, keys("qwazm,;", "azqw;m,"), _same),
        _Way("with its alphabet reversed", 1.7, keys(_ALPHABET, _ALPHABET[::-1]), _same),
        _Way("each character twice", 1.1, _single, _times(2), is_sure=True),
        _Way("each character twice, in both cases", 1.4, _of_both_cases, _times(2), is_sure=True),
        _Way("in hexadecimal", 1.5, from_hexadecimal, _times(2), is_sure=True),
        _Way("in base 64", 1.5, from_base64, _whole, is_sure=True),
        _Way("in base 64, written backwards", 2.0, _of_turned(from_base64), _whole, is_sure=True),
        _Way("in base 32", 1.7, from_base32, _whole),
        _Way("by its places in a square of letters", 1.7, from_square, _times(2)),
        _Way("in Cyrillic or Greek letters by their sounds", 1.5, romanised, _whole),
        _Way("in Morse code", 1.3, from_morse, _whole, is_sure=True),
        _Way("in binary", 1.5, from_binary, _whole, is_sure=True),
        _Way("by a telephone's keys, pressed until it came", 1.3, from_presses, _whole),
        _Way("in character numbers", 1.7, from_numbers, _whole, is_sure=True),
        _Way("in letters of another make", 1.4, from_look_alikes, _same, is_sure=True),
        _Way("upside down", 1.4, from_upside_down, _turned, is_sure=True),
        _Way("struck through", 1.4, without_marks, _whole, is_sure=True),
        _Way("shifted by 47 in the table of characters", 1.9, from_47, _same),
        _Way("its vowels as numbers", 1.6, _from_numbered, _same),
        _Way("its vowels as numbers, with digits behind", 1.6, _from_numbered_within, _same),
        _Way("with a syllable in each vowel", 1.6, _without_syllables, _whole),
        _Way("growing letter by letter", 1.4, _but_digits(_grown), _whole, is_sure=True),
        _Way("with k and z for c and s", 1.6, _mapped(_typed_as("kz", "cs")), _same),
        _Way("with digits put in", 1.3, _digits_behind, _whole, is_frame=True),
        _Way("each letter with its place beside it", 1.7, _without_places, _whole, is_sure=True),
        _Way("two texts woven into one", 1.7, _but_digits(_unwoven), _whole),
        _Way("every second letter after the others", 1.8, _but_digits(_woven), _whole),
        _Way("every third letter after the other", 2.0, _but_digits(_by_thirds), _whole),
        _Way("with its halves exchanged", 1.5, _but_digits(_halves_back), _whole),
        _Way("each letter one further on than the one before", 2.0, _but_digits(_one_less), _same),
        _Way("from its ends inwards", 1.9, _but_digits(_inside_out), _whole),
        _Way("one word put into another", 1.6, _but_digits(_word_within), _whole, is_frame=True),
        _Way("its last letter in front", 1.6, _but_digits(_first_behind), _whole),
        _Way("its first letter behind", 1.6, _but_digits(_last_in_front), _whole),
        _Way("with the next vowel for each", 1.9, _mapped(_typed_as("eioua", "aeiou")), _same),
        _Way(
            "between its own letter", 1.6, _but_digits(_without_its_letter), _whole, is_frame=True
        ),
    )


def _shifted(text: str) -> Iterator[_Way]:
    """The two shifts in the alphabet whose letters are the most usual ones."""
    codes = np.frombuffer(text.encode("ascii", "replace"), dtype=np.uint8)
    counts = np.bincount(_letters()[codes], minlength=LETTERS)[1:]
    for by in np.argsort(_usual_shifted() @ counts, kind="stable")[:2].tolist():
        yield _shifts()[by + 1]
        yield _shifts_turned()[by + 1]


@cache
def _usual_shifted() -> NDArray[np.intp]:
    """How rare each letter would be, if it was shifted by 1 to 25."""
    return np.array([[_USUAL[(at - by) % 26] for at in range(26)] for by in range(1, 26)])


@cache
def _shifts_turned() -> dict[int, _Way]:
    return {
        by: _Way(
            f"{way.says}, written backwards",
            way.cost_log10 + _TURNED_LOG10,
            _of_turned(way.undo),
            _turned,
        )
        for by, way in _shifts().items()
    }


def _of_turned(undo: Callable[[str], str | None]) -> Callable[[str], str | None]:
    return lambda text: undo(text[::-1])


@cache
def _shifts() -> dict[int, _Way]:
    return {
        by: _Way(
            f"shifted by {by} in the alphabet",
            1.3 if by == 13 else 2.1,
            _mapped(_typed_as(_ALPHABET, _ALPHABET[-by:] + _ALPHABET[:-by])),
            _same,
        )
        for by in range(1, 26)
    }


def _apart(text: str) -> Iterator[_Way]:
    """The same sign between all letters: the text without it."""
    gaps = re.split(r"[^\W_]", text)
    between = gaps[1] if len(gaps) > _BETWEEN_LEAST + 1 else ""
    is_even = set(gaps[1:-1]) == {between} and set(gaps[0] + gaps[-1]) <= set(between)
    if len(between) > 1 and is_even:
        cost = BETWEEN_LOG10 + _signs_log10(between)
        letters = "".join(c for c in text if c not in between)
        yield _Way("with signs between", cost, _always(letters), _whole, is_sure=True)
    for c, count in Counter(text).items():
        if count >= _PUT_IN_LEAST and not c.isalnum() and all(map(str.isalpha, text.split(c)[:-1])):
            cost = BETWEEN_LOG10 + symbol_log10(c) + _PLACES_LOG10
            yield _Way("with a sign put in", cost, _always(text.replace(c, "")), _whole)
        parts = text.split(c)
        # Some of the letters may be digits or signs that stand for them.
        is_spelt = all(len(part) == 1 for part in parts[:-1])
        is_spelt = is_spelt and 2 * sum(map(str.isalpha, parts)) >= len(parts)
        is_between = is_spelt or _BETWEEN.search(text.replace(c, "\0"))
        if count >= _BETWEEN_LEAST and not c.isalnum() and is_between:
            says = "with a blank between" if c == " " else "with one sign between"
            cost = BETWEEN_LOG10 + symbol_log10(c)
            yield _Way(says, cost, _always(text.replace(c, "")), _whole, is_sure=True)


def _beside(text: str) -> Iterator[_Way]:
    """The same letter before or behind each: the text without it."""
    if len(text) % 2 or len(text) < 2 * WORD_LEAST:
        return
    for at, where in ((0, "before"), (1, "behind")):
        same, others = text[at::2].lower(), text[1 - at :: 2]
        if same[0].isalnum() and same == same[0] * len(same):
            cost = BETWEEN_LOG10 + LETTER_LOG10
            yield _Way(
                f"with one letter {where} each", cost, _always(others), _times(2), is_sure=True
            )


def _in_rows(text: str) -> Iterator[_Way]:
    """Three rows of characters and more of one form, or two of which the second is the first moved
    on in the alphabet: what the rows do not have of one another.
    """
    n = len(text)
    if n > _ROWS_MOST:
        return
    found = [
        (len(told) + n - end + cost, f"{told}{text[end:]}", cost, end // size)
        for end in range(n, max(n - _BEHIND_MOST, WORD_LEAST) - 1, -1)
        for size in range(2, end // 2 + 1)
        if end % size == 0
        for told, cost in _rows_told(text[:end], size)
    ]
    if found:
        _, told, cost, rows = min(found)
        yield _Way(f"in {rows} rows of one form", cost, _always(told), _whole, is_sure=True)


def _rows_told(text: str, size: int) -> Iterator[tuple[str, float]]:
    """Of rows of this size, what they do not have of one another, and what finding that costs."""
    low = low if len(low := text.lower()) == len(text) else text
    if len(text) == 2 * size:
        is_much = size > BETWEEN_LOG10 + _STEP_LOG10 + 1 + _SURPRISE_LOG10
        if is_much and _step(low[0] + low[size]) and _is_moved_on(low[:size], low[size:]):
            yield text[:size], BETWEEN_LOG10 + _STEP_LOG10
        return
    columns = [low[at::size] for at in range(size)]
    free: list[str] = []
    once, cost, followed = "", BETWEEN_LOG10 + _COLUMN_LOG10 * size, 0
    for at, column in enumerate(columns):
        if column == column[0] * len(column):
            once, followed = once + text[at], followed + len(column) - 1
        elif any(_follows(column, other) for other in columns[:at]):
            cost, followed = cost + _STEP_LOG10, followed + len(column)
        elif _follows(column[1:], column[:-1]):
            once, cost = once + text[at], cost + _STEP_LOG10
            followed += len(column) - 1
        else:
            free.append(text[at::size])
    if followed > cost + _SURPRISE_LOG10:
        yield "".join(map("".join, zip(*free, strict=True))) + once, cost


def _follows(column: str, other: str) -> bool:
    """Whether each character is the one of the other column, or the one beside that."""
    by = ord(column[0]) - ord(other[0])
    if not -1 <= by <= 1 or not (by == 0 or (column[0].isalnum() and other[0].isalnum())):
        return False
    return all(ord(a) - ord(b) == by for a, b in zip(column, other, strict=True))


def _is_moved_on(half: str, other: str) -> bool:
    """Whether all letters, and all digits, are as many places further on in the other half."""
    return len({_step(a + b) for a, b in zip(half, other, strict=True)}) == 1


def _step(pair: str) -> int | None:
    """By how much the second of two letters, or digits, is further on; None of others."""
    if not (pair.isdigit() or (pair.isascii() and pair.isalpha())):
        return None
    of = 10 if pair.isdigit() else 26
    step = (ord(pair[1]) - ord(pair[0])) % of
    return (step if 2 * step < of else step - of) or None


def _framed(text: str) -> Iterator[_Way]:
    """Letters in front that stand behind as well, the same way round or turned about."""
    for size in range(FRAME_MOST, 1, -1):
        front, behind, within = text[:size], text[-size:], text[size:-size]
        if behind not in (front, front[::-1]) or len(within) < WORD_LEAST:
            continue
        if any(c.isalpha() for c in front):
            cost = BETWEEN_LOG10 + size * _FRAME_LOG10
            yield _Way(
                "between the same letters", cost, _always(within), _moved(size), is_frame=True
            )
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
        yield f"{keys} to the right", cost, {ord(b): a for a, b in pairs}
        yield f"{keys} to the left", cost, {ord(a): b for a, b in pairs}
    for across, where, cost in ((0, "", _ONE_OFF_LOG10), (1, " and to the right", _FAR_OFF_LOG10)):
        above: list[tuple[str, str]] = []
        for (low, high), (low_below, high_below) in pairwise(_ROWS):
            # The digit row begins one key further to the left.
            first = across + (low[0] == "`")
            above += zip(low[first:], low_below, strict=False)
            above += zip(high[first:], high_below, strict=False)
        yield f"one key too high{where}", cost, {ord(a): b for a, b in above}
        back = where.replace("right", "left")
        yield f"one key too low{back}", cost, {ord(b): a for a, b in above}


def _single(text: str) -> str | None:
    return text[::2] if len(text) % 2 == 0 and text[::2] == text[1::2] else None


def _of_both_cases(text: str) -> str | None:
    return None if text.islower() or text.isupper() else _single(text.lower())


def _without_places(text: str) -> str | None:
    """The letters, where each has its place beside it, in the text or in the alphabet."""
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
    """Digits that stand between letters, each alone, behind them."""
    if len(_DIGIT_WITHIN.findall(text)) < 2:
        return None
    return re.sub("[0-9]", "", text) + re.sub("[^0-9]", "", text)


def _by_thirds(text: str) -> str | None:
    third, rest = divmod(len(text), 3)
    ends = (0, third + (rest > 0), 2 * third + (rest > 0) + (rest > 1), len(text))
    rows = [text[a:b] for a, b in pairwise(ends)]
    return "".join(row[at] for at in range(len(rows[0])) for row in rows if at < len(row))


def _one_less(text: str) -> str | None:
    low = text.lower()
    if not (low.isascii() and low.isalpha()):
        return None
    return "".join(_ALPHABET[(ord(c) - 97 - at) % 26] for at, c in enumerate(low, 1))


def _inside_out(text: str) -> str:
    return text[::2] + text[1::2][::-1]


def _word_within(text: str) -> str | None:
    """The outer word and the inner one, the longest inner one first."""
    low = text.lower()
    n, known = len(low), dictionaries().number
    if n > _WITHIN_MOST or not (low.isascii() and low.isalpha()):
        return None
    shape = shape_of_letters(low)
    for size in range(n - WORD_LEAST, WORD_LEAST - 1, -1):
        for start in range(1, n - size):
            if (
                shape[start : start + size] in known
                and shape[:start] + shape[start + size :] in known
            ):
                return f"{text[:start]}{text[start + size :]} {text[start : start + size]}"
    return None


def _first_behind(text: str) -> str | None:
    return text[1:] + text[0]


def _last_in_front(text: str) -> str | None:
    """The capital goes with the place, not with the letter."""
    turned = text[-1] + text[:-1]
    return turned.title() if text.istitle() else turned


def _without_its_letter(text: str) -> str | None:
    """A word between its first or last letter twice."""
    low = text.lower()
    is_own = low[0] == low[-1] and low[0].isalpha() and low[0] in (low[1], low[-2])
    return text[1:-1] if is_own else None


def _unwoven(text: str) -> str | None:
    """One after the other; of two words, what is left of the longer one stands behind."""
    n, known = len(text), dictionaries().number
    if n < 2 * WORD_LEAST:
        return None
    if n <= _WITHIN_MOST and text.isascii() and text.isalpha():
        for end in range(n - 2 + n % 2, WORD_LEAST, -2):
            one, other = text[:end:2], text[1:end:2]
            for first, second in ((one + text[end:], other), (one, other + text[end:])):
                if all(shape_of_letters(word.lower()) in known for word in (first, second)):
                    return first + second
    return text[::2] + text[1::2]


def _woven(text: str) -> str | None:
    """The one half between the letters of the other."""
    half = (len(text) + 1) // 2
    if len(text) < 2 * _BETWEEN_LEAST:
        return None
    return "".join(map("".join, zip_longest(text[:half], text[half:], fillvalue="")))


def _from_numbered(text: str) -> str:
    return text.translate(_NUMBERED)


def _from_numbered_within(text: str) -> str:
    bare = text.rstrip("0123456789")
    return bare.translate(_NUMBERED) + text[len(bare) :]


def _without_syllables(text: str) -> str | None:
    """Of a children's language that puts a consonant and the vowel again behind each vowel."""
    put_in = Counter(consonant for _, consonant in _PUT_IN.findall(text.lower()))
    consonant, times = max(put_in.items(), key=lambda one: one[1], default=("", 0))
    if times < 2:
        return None
    return re.sub(rf"([aeiou]+){consonant}\1", r"\1", text, flags=re.IGNORECASE)


def _grown(text: str) -> str | None:
    """Each beginning of a word after the other, or the word and what is left of it."""
    size = (isqrt(8 * len(text) + 1) - 1) // 2
    if size < WORD_LEAST or size * (size + 1) // 2 != len(text):
        return None
    for word, parts in (
        (text[-size:], [text[-size:][:k] for k in range(1, size + 1)]),
        (text[:size], [text[:k] for k in range(size, 0, -1)]),
        (text[:size], [text[:size][k:] for k in range(size)]),
    ):
        if "".join(parts) == text:
            return word
    return None


def _halves_back(text: str) -> str | None:
    half = len(text) // 2
    return text[half:] + text[:half]
