"""Fitting words and sentences to a policy: the nearest shape with room, or why there is none."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import product
from typing import get_args

from newknot.core.generate.phrases.passphrase import (
    RANDOM_SEPARATORS,
    SEPARATORS,
    Addition,
    Capitals,
    PassphraseShape,
    PassphraseSpace,
)
from newknot.core.generate.phrases.phrase_space import NoRoom
from newknot.core.generate.phrases.sentence import JOINERS, SentenceShape, SentenceSpace
from newknot.core.policy.character_classes import LOWER, UPPER, members
from newknot.core.policy.site_policy import SitePolicy

_NAMES = {" ": "blanks", "-": "hyphens", ".": "stops", "_": "underscores", "": "nothing"}
_SHORTEST, _LONGEST = 3, 9
"""Letters of a word of the lists."""
_RULES: tuple[tuple[str, str, dict[str, object]], ...] = (
    ("max_length", "the greatest length", {"max_length": 10_000, "keeps_first": None}),
    ("min_length", "the least length", {"min_length": 1}),
    ("max_identical_run", "the rule on characters alike in a row", {"max_identical_run": None}),
    ("max_sequence_run", "the rule on sequences", {"max_sequence_run": None}),
    ("forbidden", "the forbidden texts", {"forbidden": ()}),
    ("max_uses", "the limit of uses", {"max_uses": None, "distinct": False}),
    ("first_from", "the rule on the first character", {"first_from": None}),
    ("last_from", "the rule on the last character", {"last_from": None}),
    ("excluded", "the excluded characters", {"excluded": ""}),
    ("min_classes", "the number of kinds of character", {"min_classes": 0}),
)


@dataclass(frozen=True, slots=True)
class FittedPassphrase:
    """A space with room, and what had to differ from the wish, as sentences."""

    space: PassphraseSpace
    notes: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class FittedSentence:
    """A space with room, and what had to differ from the wish, as sentences."""

    space: SentenceSpace
    notes: tuple[str, ...]


def fit_passphrase(wish: PassphraseShape, policy: SitePolicy) -> FittedPassphrase:
    """The shape with the fewest changes that has room at the site; the number of words stays.

    Raises `NoRoom` with the reason, and the errors of `PassphraseSpace`.
    """
    for shape in _nearest_first(wish, policy):
        if _may_hold(shape, policy):
            space = PassphraseSpace(shape, policy)
            if space.size:
                return FittedPassphrase(space, tuple(_passphrase_notes(wish, shape)))
    raise NoRoom(says=_why_no_passphrase(wish, policy))


def fit_sentence(wish: SentenceShape, policy: SitePolicy) -> FittedSentence:
    """The sentence's shape with the fewest changes that has room. Raises as `fit_passphrase`."""
    shapes = [
        replace(wish, joiner=joiner, stop=stop, capital=capital)
        for joiner in (wish.joiner, *(j for j in JOINERS if j != wish.joiner))
        for stop in (wish.stop, not wish.stop)
        for capital in (wish.capital, not wish.capital)
    ]
    for shape in sorted(shapes, key=lambda s: _differences(s, wish)):
        space = SentenceSpace(shape, policy)
        if space.size:
            return FittedSentence(space, tuple(_sentence_notes(wish, shape)))
    raise NoRoom(
        says=_blamed(policy, lambda p: any(SentenceSpace(shape, p).size for shape in shapes))
    )


def most_words(wish: PassphraseShape, policy: SitePolicy) -> int:
    """How many words the site has room for at most, up to the wish; 0 where not even one fits."""
    for words in range(wish.words, 0, -1):
        for shape in _nearest_first(replace(wish, words=words), policy):
            if _may_hold(shape, policy) and PassphraseSpace(shape, policy).size:
                return words
    return 0


def _nearest_first(wish: PassphraseShape, policy: SitePolicy) -> list[PassphraseShape]:
    separators = (wish.separator, *SEPARATORS, *RANDOM_SEPARATORS)
    capitals = [wish.capitals, *(c for c in get_args(Capitals) if c != "one")]
    if policy.folds_case:
        capitals = [c for c in capitals if c != "one"]
    additions = (wish.addition, *get_args(Addition))
    shapes = dict.fromkeys(
        replace(wish, separator=s, capitals=c, addition=a)
        for s, c, a in product(separators, capitals, additions)
    )
    return sorted(shapes, key=lambda shape: _differences(shape, wish))


def _differences(shape: object, wish: object) -> int:
    names = shape.__slots__  # type: ignore[attr-defined]
    return sum(getattr(shape, name) != getattr(wish, name) for name in names)


def _may_hold(shape: PassphraseShape, policy: SitePolicy) -> bool:
    """Whether nothing simple speaks against it: a quick look before the count."""
    usable = policy.usable_classes()
    allowed = {c for one in usable for c in one.characters}
    gap = RANDOM_SEPARATORS.get(shape.separator, shape.separator)
    if gap and shape.words > 1 and not set(gap) & allowed:
        return False
    if not set(LOWER) & allowed or (shape.capitals != "none" and not set(UPPER) & allowed):
        return False
    if shape.addition != "none" and not set(RANDOM_SEPARATORS[shape.addition]) & allowed:
        return False
    if not _lengths_meet(shape, policy):
        return False
    present = 0
    for one in usable:
        supply = _supply(shape, set(one.characters))
        present += supply > 0
        if supply < one.minimum:
            return False
    return present >= policy.min_classes


def _supply(shape: PassphraseShape, characters: set[str]) -> int:
    """At most how many of the characters a passphrase of the shape holds."""
    letters = _LONGEST * shape.words
    total = letters if set(LOWER) & characters else 0
    if set(UPPER) & characters:
        total += {"none": 0, "first": shape.words, "one": _LONGEST}[shape.capitals]
    gap = RANDOM_SEPARATORS.get(shape.separator, shape.separator)
    if set(gap) & characters:
        total += shape.words - 1
    if set(RANDOM_SEPARATORS.get(shape.addition, "")) & characters:
        total += 1
    return total


def _least_length(shape: PassphraseShape) -> int:
    return _SHORTEST * shape.words + _extra_length(shape)


def _extra_length(shape: PassphraseShape) -> int:
    gaps = shape.words - 1 if shape.separator else 0
    return gaps + (shape.addition != "none")


def _lengths_meet(shape: PassphraseShape, policy: SitePolicy) -> bool:
    greatest = _LONGEST * shape.words + _extra_length(shape)
    return _least_length(shape) <= _most_length(policy) and greatest >= policy.min_length


def _most_length(policy: SitePolicy) -> int:
    kept = policy.keeps_first
    return policy.max_length if kept is None else min(policy.max_length, kept)


def _passphrase_notes(wish: PassphraseShape, shape: PassphraseShape) -> Iterator[str]:
    if shape.separator != wish.separator:
        name = _NAMES.get(shape.separator, f"a random {shape.separator}")
        yield f"{name} between the words"
    if shape.capitals != wish.capitals:
        says = {"none": "no capitals", "first": "capital first letters"}[shape.capitals]
        yield f"{says}"
    if shape.addition != wish.addition:
        says = "nothing" if shape.addition == "none" else f"a {shape.addition}"
        yield f"{says} added"


def _sentence_notes(wish: SentenceShape, shape: SentenceShape) -> Iterator[str]:
    if shape.joiner != wish.joiner:
        yield f"{_NAMES[shape.joiner]} between the words"
    if shape.stop != wish.stop:
        yield f"{'a' if shape.stop else 'no'} stop at the end"
    if shape.capital != wish.capital:
        yield f"{'a' if shape.capital else 'no'} capital at the start"


def _why_no_passphrase(wish: PassphraseShape, policy: SitePolicy) -> str:
    shortest = min(map(_least_length, _nearest_first(wish, policy)))
    most = _most_length(policy)
    if shortest > most:
        fits = most_words(wish, policy)
        rest = f"{fits} would fit" if fits else "not one fits the other rules"
        holds = "keeps" if policy.keeps_first is not None else "takes"
        need = f"{wish.words} words need at least {shortest} characters"
        return f"{need}, the site {holds} {most}; {rest}"
    longest = _LONGEST * wish.words + 2 * wish.words
    if longest < policy.min_length:
        are = f"{wish.words} words are at most {longest} characters"
        return f"{are}, the site asks for {policy.min_length}"
    for one in policy.usable_classes():
        supply = max(_supply(s, set(one.characters)) for s in _nearest_first(wish, policy))
        if supply < one.minimum:
            asked = f"{one.minimum} {members(one.name)}"
            return f"the site asks for {asked}, words hold at most {supply}"

    def has_room(changed: SitePolicy) -> bool:
        shapes = _nearest_first(wish, changed)
        return any(_may_hold(s, changed) and PassphraseSpace(s, changed).size for s in shapes)

    return _blamed(policy, has_room)


def _blamed(policy: SitePolicy, has_room: Callable[[SitePolicy], bool]) -> str:
    """The one rule without which there would be room."""
    for field, name, freed in _RULES:
        if all(getattr(policy, key) == value for key, value in freed.items()):
            continue
        if has_room(replace(policy, **freed)):  # type: ignore[arg-type]
            return f"{name} leaves no room ({field})"
    return "the characters that the site takes leave no room"
