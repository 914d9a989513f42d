"""The same worth as characters, words and a sentence: what each costs to remember and to type."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime
from math import ceil, log2
from typing import get_args

from newknot.core.errors import NewKnotError
from newknot.core.generate import PassphraseShape, RandomSource, SentenceShape
from newknot.core.generate.phrases.passphrase import WORDS_MOST
from newknot.core.generate.phrases.sentence import Template
from newknot.core.generate.typing_effort import key_presses, phone_taps
from newknot.core.policy import SitePolicy
from newknot.usecases.drawing.draw_ring import Draw, DrawKind, DrawRing
from newknot.usecases.drawing.drawing import draw_password, draw_sentence, draw_words
from newknot.usecases.drawing.space_shelf import SpaceShelf

SAMPLE = 24
"""Further draws, let go at once, by which length, presses and taps are averaged."""


@dataclass(frozen=True, slots=True)
class Side:
    """One way of being worth so many bits; its problem where the site has no room for it.

    length, key_presses, phone_taps: means over draws of this kind.
    """

    kind: DrawKind
    says: str
    draw: Draw | None = None
    length: float = 0.0
    key_presses: float = 0.0
    phone_taps: float = 0.0
    problem: NewKnotError | None = None


class NotWorthIt(NewKnotError):
    """Nothing of this kind that the site takes is worth so much. data: bits (the most)."""


def side_by_side(
    ring: DrawRing,
    shelf: SpaceShelf,
    random: RandomSource,
    *,
    bits: float,
    policy: SitePolicy,
    at_site: bool,
    words: PassphraseShape,
    now: datetime,
) -> list[Side]:
    """The smallest of each kind that is worth the bits, each with a draw kept in that ring.

    at_site: whether the policy binds words and sentences too, or is only what is usual.
    """
    bound = policy if at_site else None
    scratch = DrawRing()

    def characters(into: DrawRing, length: int) -> Draw:
        return draw_password(into, shelf, random, policy, length=length, now=now)

    def phrase(into: DrawRing, count: int) -> Draw:
        return draw_words(into, shelf, random, replace(words, words=count), bound, now=now)

    def sentence(into: DrawRing, which: int) -> Draw:
        shape = SentenceShape(get_args(Template)[which], language=words.language)
        return draw_sentence(into, shelf, random, shape, bound, now=now)

    alphabet = max(2, sum(len(c.characters) for c in policy.usable_classes()))
    longest = min(policy.max_length, 128)
    first = max(policy.min_length, min(longest, ceil(bits / log2(alphabet))))
    per_word = log2(words.list_size)
    rows: list[tuple[DrawKind, range, Callable[[DrawRing, int], Draw]]] = [
        ("characters", range(first, longest + 1), characters),
        (
            "words",
            range(max(1, min(WORDS_MOST, ceil(bits / per_word) - 3)), WORDS_MOST + 1),
            phrase,
        ),
        ("sentence", range(len(get_args(Template))), sentence),
    ]
    return [_side(kind, sizes, make, ring, scratch, bits) for kind, sizes, make in rows]


def _side(
    kind: DrawKind,
    sizes: range,
    make: Callable[[DrawRing, int], Draw],
    ring: DrawRing,
    scratch: DrawRing,
    bits: float,
) -> Side:
    most, problem = 0.0, None
    for size in sizes:
        try:
            worth = make(scratch, size).facts.origin.entropy_bits or 0.0
        except NewKnotError as error:
            problem = error
            break
        if worth >= bits:
            return _measured(kind, size, make, ring, scratch)
        most = max(most, worth)
    return Side(kind, "", problem=NotWorthIt(bits=most) if most else problem)


def _measured(
    kind: DrawKind,
    size: int,
    make: Callable[[DrawRing, int], Draw],
    ring: DrawRing,
    scratch: DrawRing,
) -> Side:
    texts = [make(scratch, size).secret.reveal() for _ in range(SAMPLE)]
    says = {"characters": f"{size} characters", "words": f"{size} words", "sentence": "a sentence"}
    return Side(
        kind,
        says[kind],
        make(ring, size),
        length=sum(map(len, texts)) / SAMPLE,
        key_presses=sum(map(key_presses, texts)) / SAMPLE,
        phone_taps=sum(map(phone_taps, texts)) / SAMPLE,
    )
