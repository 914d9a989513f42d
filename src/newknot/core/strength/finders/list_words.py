"""Words drawn evenly from a list, as passphrases are: touching, or with one separator between."""

import re
from collections.abc import Iterator, Sequence
from functools import cache
from math import log10

from newknot.core.generate.phrases.word_list import LIST_SIZES, list_file
from newknot.core.shipped import shipped_lines
from newknot.core.strength.case_pattern import case_log10
from newknot.core.strength.finders.symbols import symbol_log10
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

_SHIPPED = [list_file(size, code) for code, sizes in LIST_SIZES.items() for size in sizes]
_COMMONEST = (1_000, 2_000, 4_000, 8_000, 16_000, 30_000)
"""A passphrase may be drawn from our lists, or from so many of the commonest English words."""
_SHORTEST, _LONGEST = 3, 14
_LETTERS = re.compile(r"[a-zа-я]{3,}")
SAME_SEPARATOR = 0.9
_SAME_SEPARATOR_LOG10 = -log10(SAME_SEPARATOR)


@cache
def _holding() -> dict[str, int]:
    """Each word of any list -> bits of the lists that hold it."""
    holds: dict[str, int] = {}
    for at, words in enumerate(_lists()):
        for word in words:
            holds[word] = holds.get(word, 0) | 1 << at
    return holds


@cache
def _lists() -> tuple[Sequence[str], ...]:
    commonest = shipped_lines("english_words.txt.gz")
    return (*map(shipped_lines, _SHIPPED), *(commonest[:most] for most in _COMMONEST))


@cache
def _each_log10() -> dict[str, float]:
    """-log10 of the probability of each word, every list as likely."""
    lists = _lists()
    chances = [1 / len(words) / len(lists) for words in lists]
    holding = _holding()
    costs = {
        bits: -log10(sum(chance for at, chance in enumerate(chances) if bits >> at & 1))
        for bits in set(holding.values())
    }
    return {word: costs[bits] for word, bits in holding.items()}


def list_words(reading: Reading) -> Iterator[Found]:
    """Every listed word, once as a word that touches the one before and once with a separator."""
    low, text = reading.low, reading.text
    costs = _each_log10()
    seen: set[str] = set()
    kind = SegmentKind.LIST_WORD
    for run in _LETTERS.finditer(low):
        first, last = run.span()
        link = None
        if first and not low[first - 1].isalpha():
            separator = low[first - 1]
            link = _SAME_SEPARATOR_LOG10 if separator in seen else symbol_log10(separator)
            if first > 1 and low[first - 2].isalnum():
                seen.add(separator)
        for start in range(first, last - _SHORTEST + 1):
            for end in range(start + _SHORTEST, min(last, start + _LONGEST) + 1):
                word = low[start:end]
                cost = costs.get(word)
                if cost is None:
                    continue
                which, pattern = case_log10(text, start, end)
                which += cost
                yield Found(start, end, Part.LIST, which, pattern, kind, word)
                if start == first and link is not None:
                    yield Found(start - 1, end, Part.LINK, which, pattern + link, kind, word)


def of_one_list(words: Sequence[str]) -> dict[str, float]:
    """What each word costs less, in log10, to a guesser who knows the list: the smallest that
    holds them all. Nothing less where no list does, or none makes them cheaper.
    """
    bits = -1
    for word in words:
        bits &= _holding()[word]
    sizes = [len(members) for at, members in enumerate(_lists()) if bits >> at & 1]
    if not sizes:
        return dict.fromkeys(words, 0.0)
    saved = {word: _each_log10()[word] - log10(min(sizes)) for word in words}
    return saved if sum(saved.values()) > 0 else dict.fromkeys(words, 0.0)
