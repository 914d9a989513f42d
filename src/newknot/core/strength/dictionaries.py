"""Ranked words that guessers try first, packed: one look-up by look-alike shape.

The lists stay one text with the places of its words; one table leads from shape to number, and
of two words with one shape the likelier stands in it.
"""

from array import array
from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import accumulate
from math import log, log10

import numpy as np

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.reading import SPELT_OUT, shape_of_letters
from newknot.core.strength.segments import SegmentKind

SHORTEST, LONGEST = 3, 24
"""Characters of a word that is looked up."""
DICTIONARY_VERSION = 19
"""Raised when a list or the measure changes, so that kept measures are taken anew."""
_EULER = 0.5772
_USUAL_ABROAD = 3_000
"""Words of each other language that are looked for beside what else they are."""
_STEP, _STEPS = 1.4, 46
"""Ratio between neighbouring ranks that count as equally likely, and steps up to the last."""
BEGINNING, BITS = 4, 5
"""Characters of a word by which most stretches that are none are told at once, and bits of each."""
_MASK = (1 << BITS * BEGINNING) - 1


@dataclass(frozen=True, slots=True)
class RankedList:
    """A shipped list, its kind, and the share of words in hand-made secrets that come from it.

    zipf: the part of that share which falls with the rank (1/rank; Zipf, 1935); the rest is even
    over the first tenth, the first third and the whole of the list. spelt_out: its accents are
    often typed as two letters.
    """

    file: str
    kind: SegmentKind
    share: float
    zipf: float = 0.5
    spelt_out: bool = False

    def which_log10(self, rank: int, size: int) -> float:
        """-log10 of the probability of the word at a rank from 1 within a list of so many."""
        first, third, each = max(1, size // 10), max(1, size // 3), (1 - self.zipf) / 3
        even = each / first if rank <= first else 0.0
        even += each / third if rank <= third else 0.0
        even += each / size
        return -log10(self.zipf / ((log(size) + _EULER) * rank) + even)


LISTS = (
    RankedList("common_passwords.txt.gz", SegmentKind.COMMON_PASSWORD, 0.22, 0.7),
    RankedList("english_words.txt.gz", SegmentKind.WORD, 0.27),
    RankedList("given_names.txt.gz", SegmentKind.NAME, 0.10),
    RankedList("surnames.txt.gz", SegmentKind.NAME, 0.04),
    RankedList("names_abroad.txt.gz", SegmentKind.NAME, 0.03, 0.3),
    RankedList("places.txt.gz", SegmentKind.PLACE, 0.05, 0.4),
    RankedList("proper_names.txt.gz", SegmentKind.NAME, 0.03, 0.4),
    *(
        RankedList(
            f"languages/{code}.txt.gz", SegmentKind.FOREIGN_WORD, 0.01, spelt_out=code == "de"
        )
        for code in ("de", "es", "fr", "it", "nl", "pl", "pt", "ru", "sv", "tr")
    ),
)
CONTEXT_SHARE, RARER_SHARE, WORDLIKE_SHARE = 0.11, 0.04, 0.01
"""What is left of all words: the user's own, those beyond the lists, and letters that only look
like a word's.
"""


def beginnings(shaped: str) -> list[int]:
    """For each place from which four characters are left, a number below 2^20 of these four: the
    low five bits of each, so that what differs in script alone may share one.
    """
    codes, code = [], 0
    for c in shaped:
        code = (code << BITS | ord(c) & 31) & _MASK
        codes.append(code)
    return codes[BEGINNING - 1 :]


class Dictionaries:
    """All lists in one: `number` of a shape, then `taken` of the number; abroad: numbers of shapes
    that are usual words of another language too. begins: 1 by the number of
    the first four characters, where a listed shape begins so.
    """

    def __init__(self, lists: Iterable[tuple[RankedList, str]]) -> None:
        self._lists: list[RankedList] = []
        self._starts: list[int] = [0]
        texts: list[str] = []
        sizes: list[int] = []
        keyed: list[tuple[RankedList, list[str], Sequence[int]]] = []
        for source, text in lists:
            start = self._starts[-1]
            keys = shape_of_letters(text).split()
            sizes += map(len, keys)
            if source.kind is SegmentKind.COMMON_PASSWORD:
                words = text.split()
                keys = [s if w.isalpha() else w for w, s in zip(words, keys, strict=True)]
            end = start + len(keys)
            keyed.append((source, keys, range(start, end)))
            if source.spelt_out:
                keyed.append((source, *_spelt_out(text, start)))
            self._lists.append(source)
            self._starts.append(end)
            texts.append(text)
        self._text = "".join(texts)
        self._ends = array("I", accumulate(sizes))
        self.number: dict[str, int] = {}
        # From the least likely to the likeliest, so that of equal shapes the likeliest stays.
        for step in range(_STEPS, -1, -1):
            for source, keys, numbers in keyed:
                rows = slice(*(int(source.share * _STEP**k) for k in (step, step + 1)))
                self.number.update(zip(keys[rows], numbers[rows], strict=True))
        self.abroad = self._abroad(keyed)
        self.begins = bytearray(_MASK + 1)
        first = "".join({key[:BEGINNING] for key in self.number if len(key) >= BEGINNING})
        codes = np.frombuffer(first.encode("utf-32-le"), dtype="<u4").reshape(-1, BEGINNING) & 31
        places = np.bitwise_or.reduce(codes << np.arange(BEGINNING - 1, -1, -1) * BITS, axis=1)
        np.frombuffer(self.begins, dtype=np.uint8)[places] = 1

    def _abroad(
        self, keyed: Sequence[tuple[RankedList, list[str], Sequence[int]]]
    ) -> dict[str, int]:
        """The usual words of other languages that are in another list too."""
        # Second spellings have no numbers of their own.
        foreign = [
            (keys[:_USUAL_ABROAD], numbers)
            for source, keys, numbers in keyed
            if source.kind is SegmentKind.FOREIGN_WORD and not isinstance(numbers, list)
        ]
        own = [number for _, numbers in foreign for number in (numbers[0], numbers[-1])]
        first, last = min(own, default=0), max(own, default=0)
        found: dict[str, int] = {}
        for place in range(_USUAL_ABROAD):
            for keys, numbers in foreign:
                if place < len(keys) and not first <= self.number[keys[place]] <= last:
                    found.setdefault(keys[place], numbers[place])
        return found

    def taken(self, number: int) -> tuple[RankedList, float, str]:
        """The word's list, -log10 of its probability within it, and the word as listed."""
        at = bisect_right(self._starts, number) - 1
        source, first = self._lists[at], self._starts[at]
        which = source.which_log10(number - first + 1, self._starts[at + 1] - first)
        # One line break stands before each further word.
        start = self._ends[number - 1] + number if number else 0
        return source, which, self._text[start : self._ends[number] + number]


def _spelt_out(text: str, first: int) -> tuple[list[str], list[int]]:
    """Second keys for words whose accents are often typed as two letters."""
    words = text.split()
    for letter, two in SPELT_OUT:
        text = text.replace(letter, two)
    spelt = enumerate(zip(words, text.split(), strict=True))
    longer = [(first + at, two) for at, (one, two) in spelt if len(one) != len(two)]
    return [shape_of_letters(two) for _, two in longer], [at for at, _ in longer]


@cache
def dictionaries() -> Dictionaries:
    """The shipped lists, read once."""
    return Dictionaries((source, shipped_bytes(source.file).decode("utf-8")) for source in LISTS)
