"""What two secrets have in common when one was made of the other by a word, number or suffix.

Each text gives a set of forms; two texts resemble each other where they share one. Forms are
secrets themselves: only keyed fingerprints of them are kept or compared.
"""

import re

from newknot.core.strength.measure import measure
from newknot.core.strength.reading import read
from newknot.core.strength.segments import SegmentKind

_SHORTEST = 5
_WORDS_IN_A_ROW = 3
_LETTERS = re.compile(r"[^\W\d_]+")
_LONG_RUN = re.compile(r"[^\W\d_]{9}")
"""Three words that touch give nine letters in a row at least."""
_WORDS = frozenset(
    (
        *(SegmentKind.COMMON_PASSWORD, SegmentKind.WORD, SegmentKind.FOREIGN_WORD),
        *(SegmentKind.LIST_WORD, SegmentKind.NAME, SegmentKind.PLACE),
    )
)


def forms(text: str) -> frozenset[str]:
    """The whole text folded; its letters alone; those without any one letter or word; and any
    three words in a row. Shorter than five characters a form says nothing.
    """
    reading = read(text)
    shaped = reading.shaped
    found = {f"whole {shaped}"}
    letters = "".join(c for c in shaped if c.isalpha())
    # Digits that stand for letters are in the shape; those beside letters are not in this one.
    plain = "".join(_LETTERS.findall(reading.low)).replace("l", "i")
    for stem in {letters, plain}:
        if len(stem) >= _SHORTEST:
            found.add(f"letters {stem}")
            found.update(f"letters {stem[:at]}{stem[at + 1 :]}" for at in range(len(stem)))
    words = _words(text)
    if len(words) >= _WORDS_IN_A_ROW:
        found.add("words " + " ".join(words))
        found.update("words " + " ".join(words[:k] + words[k + 1 :]) for k in range(len(words)))
        runs = range(len(words) - _WORDS_IN_A_ROW + 1)
        found.update("row " + " ".join(words[k : k + _WORDS_IN_A_ROW]) for k in runs)
    return frozenset(f for f in found if len(f.partition(" ")[2]) >= _SHORTEST)


def _words(text: str) -> list[str]:
    apart = [w.lower() for w in _LETTERS.findall(text) if len(w) >= _WORDS_IN_A_ROW]
    if len(apart) >= _WORDS_IN_A_ROW:
        return apart
    if not _LONG_RUN.search(text):
        return []
    return [s.taken_for for s in measure(text).segments if s.kind in _WORDS]
