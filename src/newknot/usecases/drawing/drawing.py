"""Drawing secrets: characters, words, sentences, PINs, and first letters of a line."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from math import log10

from newknot.core.errors import FieldInvalid
from newknot.core.generate import (
    PassphraseShape,
    PassphraseSpace,
    RandomSource,
    SentenceShape,
    SentenceSpace,
    relaxation_offered,
)
from newknot.core.generate.dice import Dice
from newknot.core.generate.initials import initials
from newknot.core.generate.looked_at import LookedAt, bits_after_choice
from newknot.core.generate.phrases.word_list import word_list
from newknot.core.generate.pin import PinSpace
from newknot.core.login import Origin
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.core.strength.initial_letters import initials_log10
from newknot.usecases.drawing.draw_ring import Draw, DrawFacts, DrawKind, DrawRing
from newknot.usecases.drawing.space_shelf import SpaceShelf


def draw_password(
    ring: DrawRing,
    shelf: SpaceShelf,
    random: RandomSource,
    policy: SitePolicy,
    *,
    length: int,
    now: datetime,
) -> Draw:
    """A uniform draw, kept in the ring. Raises the errors of `PasswordSpace`."""
    space = shelf.password(policy, length)
    with relaxation_offered(policy, length):
        text = space.draw(random)
        origin = Origin("drawn", space.entropy_bits)
    low, high = space.size_bounds
    facts = DrawFacts("characters", origin, log10(low), space.entropy_bits, is_exact=low == high)
    return ring.add(Secret(text), facts, now=now)


def draw_words(
    ring: DrawRing,
    shelf: SpaceShelf,
    random: RandomSource,
    wish: PassphraseShape,
    policy: SitePolicy | None,
    *,
    after: Draw | None = None,
    keep: Sequence[int] = (),
    now: datetime,
) -> Draw:
    """A passphrase to the wish and the policy, kept in the ring.

    after: the draw that was looked at before this one; keep: the places (from 0) whose words stay.
    What choosing cost is taken off the bits. Raises `FieldInvalid`, and as `fit_passphrase`.
    """
    fitted = shelf.passphrase(wish, policy)
    space, looked_at = fitted.space, LookedAt(wish.words)
    kept = _kept_words(after, keep, wish.words)
    if after is not None:
        before = after.facts.looked_at
        looked_at = before.some(wish.words - len(kept)) if kept else before.whole()
    chosen = PassphraseSpace(space.shape, policy, kept=kept) if kept else space
    drawn = chosen.draw(random)
    facts = _facts_of("words", space, looked_at, fitted.notes)
    return ring.add(Secret(drawn.text), facts, words=drawn.words, now=now)


def words_of_dice(
    ring: DrawRing,
    random: RandomSource,
    shape: PassphraseShape,
    faces: Sequence[str],
    *,
    sides: int = 6,
    now: datetime,
) -> Draw:
    """The passphrase that real dice or coins picked; the rest of the shape is drawn.

    The bits hold if they are fair. Raises `FieldInvalid`.
    """
    if len(faces) != shape.words:
        raise FieldInvalid("faces", f"are not {shape.words} words")
    listed = word_list(shape.list_size, shape.language)
    dice = Dice(sides, len(listed))
    kept = {i: listed[dice.place_of(one, field=f"faces.{i}")] for i, one in enumerate(faces)}
    drawn = PassphraseSpace(shape, kept=kept).draw(random)
    facts = _facts_of(
        "words", PassphraseSpace(shape), LookedAt(shape.words), (f"{dice.throws} throws to a word",)
    )
    return ring.add(Secret(drawn.text), facts, words=drawn.words, now=now)


def draw_sentence(
    ring: DrawRing,
    shelf: SpaceShelf,
    random: RandomSource,
    wish: SentenceShape,
    policy: SitePolicy | None,
    *,
    after: Draw | None = None,
    now: datetime,
) -> Draw:
    """A sentence to the wish and the policy, kept in the ring. Raises as `fit_sentence`."""
    fitted = shelf.sentence(wish, policy)
    looked_at = LookedAt() if after is None else after.facts.looked_at.whole()
    facts = _facts_of("sentence", fitted.space, looked_at, fitted.notes)
    return ring.add(Secret(fitted.space.draw(random)), facts, now=now)


def draw_pin(ring: DrawRing, random: RandomSource, length: int, *, now: datetime) -> Draw:
    """A PIN that is none of the obvious ones, kept in the ring. Raises `FieldInvalid`."""
    space = PinSpace(length)
    facts = _facts_of("pin", space, LookedAt(), ())
    return ring.add(Secret(space.draw(random)), facts, now=now)


def take_line(ring: DrawRing, line: str, *, known: Sequence[str], now: datetime) -> Draw:
    """The first letters of a line, measured as chosen text beside what others know, in the ring.

    Raises `FieldInvalid`.
    """
    text = initials(line)
    guesses = min(measure(text, known).guess_number_log10, initials_log10(text))
    facts = DrawFacts("line", Origin("own"), guesses, is_exact=False)
    return ring.add(Secret(text), facts, now=now)


def best_length(policy: SitePolicy, *, wished: int) -> int:
    """The wished length, held to what the policy takes."""
    return max(policy.min_length, min(policy.max_length, wished))


def _facts_of(
    kind: DrawKind,
    space: PassphraseSpace | SentenceSpace | PinSpace,
    looked_at: LookedAt,
    notes: tuple[str, ...],
) -> DrawFacts:
    size = space.size
    origin = Origin("drawn", bits_after_choice(size, looked_at))
    whole = bits_after_choice(size, LookedAt())
    is_exact = isinstance(space, PinSpace) or space.is_exact
    return DrawFacts(kind, origin, log10(max(1, size)), whole, is_exact, notes, looked_at)


def _kept_words(after: Draw | None, keep: Sequence[int], words: int) -> Mapping[int, str]:
    if not keep:
        return {}
    if after is None or len(after.words) != words:
        raise FieldInvalid("keep", "names words of a draw that is not there")
    if any(not 0 <= place < words for place in keep) or len(set(keep)) >= words:
        raise FieldInvalid("keep", "is not some of the words, by their places from 0")
    return {place: after.words[place] for place in keep}
