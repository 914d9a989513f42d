"""Views of a text: an invertible change that may have been made to it, undone.

Whoever shifts a word by one key, or writes it backwards or in hexadecimal, has made a text that no
list holds; what is undone is measured as any other, and the choice of the view costs beside.
"""

import re
from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass
from math import inf

from newknot.core.strength.reading import shape_of_letters, shape_of_text
from newknot.core.strength.views.changes import Change, changes_of, shifts, shifts_turned, whole
from newknot.core.strength.views.like_words import WORD_LEAST, letter_costs, like_words

SHORTEST, SHORTEST_FOREIGN, LONGEST = 5, 2, 128
"""Characters of a text that is looked at so; in other scripts one may stand for three."""
MEASURED_MOST, KNOWN_MOST = 3, 2
"""Views of one text that are measured: those of which the rest follows, as many of the others that
read most like words, and those of which most is known.
"""
INNER_MOST = 2
"""Of a text that was surely changed, views of what comes out."""
_TOLD_MOST = 0.8
"""Of a text of a form that hardly comes by chance, what it says at most, where it is not in other
signs; the rest follows of it.
"""
_SWAPPED_LATER, _LETTERS_LEAST = 0.3, 0.85
"""What reads like words with letters for digits comes after what does as it stands; more than this
share of it are letters then.
"""
_SWAPPED_WITHIN = re.compile("[a-z][0-9!|@$+€]{1,2}[a-z]", re.IGNORECASE)


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
    shortest = SHORTEST if text.isascii() else SHORTEST_FOREIGN
    if not shortest <= len(text) <= LONGEST:
        return [], []
    undone_by: list[tuple[int, Change, str]] = []
    for at, way in enumerate(changes_of(text)):
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
    scores = like_words(texts, [way.is_frame for _, way, _ in undone_by])
    if _SWAPPED_WITHIN.search(text) and _is_mostly_letters(shape_of_text(text.lower())):
        # With letters for digits and signs it may read like words where it does not as it stands.
        shapes = [shape_of_text(one.lower()) for one in texts]
        swapped = like_words(shapes, [False] * len(undone_by), only_listed=True)
        scores = [
            min(one, other + _SWAPPED_LATER) for one, other in zip(scores, swapped, strict=True)
        ]
    for (at, way, undone), score in zip(undone_by, scores, strict=True):
        is_plain = undone.isascii() and undone.isprintable()
        is_told = way.is_sure and is_plain
        is_told = is_told and (not text.isascii() or len(undone) < _TOLD_MOST * len(text))
        if is_told or score < inf:
            view = View(way.says, way.cost_log10, undone, way.place, is_told and not way.is_copy)
            found.append((0.0 if way.is_copy else score, at, view))
        if way.is_sure and depth > 1:
            inner, inner_known = views_of(undone, known, looked_at, depth=depth - 1)
            for view in inner[:INNER_MOST]:
                found.append((letter_costs([view.text])[0], at, _both(view, way)))
            of_known += (_both(view, way) for view in inner_known[:1])
    best = [view for _, _, view in sorted(found, key=lambda one: one[:2])]
    told = [view for view in best if view.is_told][:MEASURED_MOST]
    others = [view for view in best if not view.is_told][:MEASURED_MOST]
    return [*told, *others], of_known[:KNOWN_MOST]


def _is_mostly_letters(text: str) -> bool:
    return sum(map(str.isalpha, text)) >= _LETTERS_LEAST * len(text)


def _both(inner: View, way: Change) -> View:
    """One change upon the other."""
    says, cost = f"{inner.says}, {way.says}", way.cost_log10 + inner.cost_log10
    return View(says, cost, inner.text, whole)


def _of_known(
    text: str,
    undone_by: Sequence[tuple[Change, str]],
    known: Collection[str],
    looked_at: list[str] | None,
) -> list[View]:
    """The views of which most is known, where more is than of the text itself; of all shifts in the
    alphabet, since what is known need not have the usual letters.
    """
    shifted = [one for way in shifts().values() if (one := way.undo(text))]
    texts = (*(one for _, one in undone_by), *shifted, *(one[::-1] for one in shifted))
    together = shape_of_letters("\n".join(texts).lower())
    if looked_at is not None:
        looked_at.append(together)
    known = [one for one in known if len(one) >= WORD_LEAST and one in together]
    if not known:
        return []
    further = ((way, way.undo(text)) for way in (*shifts().values(), *shifts_turned().values()))
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
