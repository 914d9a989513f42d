"""Which words may not stand in one list together, and the best list without such pairs."""

import re
from collections import defaultdict
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence

import lemminflect
import numpy as np
from nltk.stem.porter import PorterStemmer
from rapidfuzz.distance import OSA
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_matrix

_VOWELS = set("""AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW""".split())
_STEMMER = PorterStemmer()
Pair = tuple[str, str]


def starts(words: Collection[str]) -> set[Pair]:
    """Pairs of which one is the start of the other."""
    known = set(words)
    return {(w[:i], w) for w in words for i in range(1, len(w)) if w[:i] in known}


def slips(words: Collection[str]) -> set[Pair]:
    """Pairs one slip apart: a letter missing, added, other, or two swapped."""
    by_rest: dict[str, list[str]] = defaultdict(list)
    for word in words:
        for rest in {word, *(word[:i] + word[i + 1 :] for i in range(len(word)))}:
            by_rest[rest].append(word)
    found: set[Pair] = set()
    for group in by_rest.values():
        for i, a in enumerate(group):
            for b in group[i + 1 :]:
                if OSA.distance(a, b) <= 1:
                    found.add((min(a, b), max(a, b)))
    return found


def said_alike(words: Iterable[str], sounds: Callable[[str], Iterable[str]]) -> list[list[str]]:
    """Groups that sound the same in one of five accents."""
    by_sound: dict[tuple[str, str], set[str]] = defaultdict(set)
    for word in words:
        for way in sounds(word):
            for key in _accents(way):
                by_sound[key].add(word)
    return _groups(by_sound.values())


def one_family(words: Sequence[str]) -> list[list[str]]:
    """Groups of one stem (Porter, 1980), and a word with its irregular forms."""
    by_stem: dict[str, set[str]] = defaultdict(set)
    known = set(words)
    groups: list[set[str]] = []
    for word in words:
        by_stem[_STEMMER.stem(word)].add(word)
        for forms in lemminflect.getAllInflections(word).values():
            groups.extend({word, form} for form in forms if form != word and form in known)
    return _groups([*by_stem.values(), *groups])


def best(
    words: Sequence[str],
    pairs: Collection[Pair],
    groups: Sequence[Sequence[str]],
    worth: Mapping[str, float],
    size: int,
) -> list[str] | None:
    """Exactly `size` words of the greatest worth (to the last few), sorted; None if there are not.

    Bisection on a bonus for each word, each step an exact independent set (HiGHS).
    """
    low, high, kept = -6.0, 40.0, None
    for _ in range(22):
        middle = (low + high) / 2
        chosen = _independent(words, pairs, groups, [worth[w] + middle for w in words])
        if len(chosen) >= size:
            kept, high = chosen, middle
        else:
            low = middle
        if len(chosen) == size or high - low < 1e-4:
            break
    if kept is None:
        return None
    return sorted(sorted(kept, key=lambda w: (-worth[w], w))[:size])


def _independent(
    words: Sequence[str],
    pairs: Collection[Pair],
    groups: Sequence[Sequence[str]],
    worth: Sequence[float],
) -> list[str]:
    index = {word: i for i, word in enumerate(words)}
    together = [*groups, *sorted(pairs)]
    rows = [r for r, group in enumerate(together) for _ in group]
    columns = [index[w] for group in together for w in group]
    shape = (len(together), len(words))
    matrix = coo_matrix((np.ones(len(rows)), (rows, columns)), shape=shape).tocsr()
    found = milp(
        -np.array(worth),
        constraints=[LinearConstraint(matrix, -np.inf, 1)],
        integrality=np.ones(len(words)),
        bounds=Bounds(0, 1),
        options={"time_limit": 120, "mip_rel_gap": 1e-6},
    )
    return [word for word, value in zip(words, found.x, strict=True) if value > 0.5]


def _groups(found: Iterable[Collection[str]]) -> list[list[str]]:
    return [list(g) for g in sorted({tuple(sorted(g)) for g in found if len(set(g)) > 1})]


def _accents(way: str) -> Iterator[tuple[str, str]]:
    """The sound as said in five ways, so that "the same" holds for more speakers."""
    stressed = way.split()
    plain = [re.sub(r"\d", "", p) for p in stressed]

    def vowel(i: int) -> bool:
        return 0 <= i < len(plain) and plain[i] in _VOWELS

    yield "as written", " ".join(plain)
    yield "cot as caught", " ".join("AA" if p == "AO" else p for p in plain)
    flapped = []
    for i, p in enumerate(plain):
        between = i > 0 and (vowel(i - 1) or plain[i - 1] == "R") and vowel(i + 1)
        flap = p == "T" and between and not stressed[i + 1].endswith("1")
        flapped.append("D" if flap else p)
    yield "flapped", " ".join(flapped)
    dropped = []
    for i, p in enumerate(plain):
        if p == "R" and not vowel(i + 1):
            continue
        dropped.append("AH" if stressed[i] == "ER0" and not vowel(i + 1) else p)
    yield "without r", " ".join(dropped)
    weak = ("IH0", "EH0", "AH0")
    yield (
        "weak vowels",
        " ".join("AH" if s in weak else p for s, p in zip(stressed, plain, strict=True)),
    )
