"""Shapes of drawing."""

from datetime import datetime
from typing import Literal

from pydantic import Field, SecretStr

from newknot.api.schemas.base import Shape, Whole
from newknot.core.generate.phrases.sentence import Template
from newknot.core.generate.phrases.word_list import Language

DrawKind = Literal["characters", "words", "sentence", "pin", "line"]


class AtSite(Shape):
    """Whose rules bind: policy is the JSON form, else the library's of policy_id, else none.

    replaces: an earlier draw that was only passed through (a slider on its way).
    """

    policy: dict[str, object] | None = None
    policy_id: str | None = None
    replaces: str | None = None


class DrawIn(AtSite):
    """Characters; the usual policy where none is named."""

    length: Whole


class WordList(Shape):
    """A list that ships: its language and how many words it has."""

    language: Language = "en"
    list_size: Whole = 7776


class WordsShape(Shape):
    """How words become a text; see `PassphraseShape`."""

    words: Whole = 6
    separator: str = " "
    capitals: Literal["none", "first", "one"] = "none"
    addition: Literal["none", "digit", "symbol"] = "none"
    list_size: Whole = 7776
    language: Language = "en"


class WordsIn(AtSite):
    """A passphrase. after: the draw looked at before this one; keep: places of it that stay."""

    shape: WordsShape = WordsShape()
    after: str | None = None
    keep: list[Whole] = Field(default=[], max_length=20)


class DiceIn(Shape):
    """The throws for each word, as `16342`, by which real dice pick the words. sides: 2 is a coin,
    whose throws may be H and T; beyond 9 the throws are parted by blanks.
    """

    shape: WordsShape
    faces: list[SecretStr] = Field(max_length=20)
    sides: Whole = 6


class DiceOut(Shape):
    """throws: for one word; counting: the share of results that are not thrown again; word_bits:
    of one word.
    """

    throws: int
    counting: float
    word_bits: float


class SentenceIn(AtSite):
    """A sentence. after: the draw looked at before this one."""

    template: Template = "short"
    joiner: str = " "
    stop: bool = True
    capital: bool = True
    language: Language = "en"
    after: str | None = None


class PinIn(Shape):
    """A PIN of so many digits; policy_id: the site whose rules it is held against."""

    length: Whole
    policy_id: str | None = None
    replaces: str | None = None


class LineIn(Shape):
    """A line that the user remembers; of it only the first letters are kept."""

    line: SecretStr
    policy_id: str | None = None


class DrawOut(Shape):
    """A draw.

    entropy_bits: what it is worth, choosing among draws taken off; whole_bits: of the draw alone;
    both none of a chosen line. looked_at: how many texts one may have ended with.
    space_size_log10: log10 of the number of texts it was drawn from, or of the guesses that reach
    a chosen line. is_exact: whether that number is exact, or a bound. notes: what differs from the
    wish. breaks: the rules of the site that it would break.
    """

    draw_id: str
    kind: DrawKind
    drawn_at: datetime
    secret: str
    words: list[str]
    entropy_bits: float | None
    whole_bits: float | None
    looked_at: int
    space_size_log10: float
    is_exact: bool
    notes: list[str]
    breaks: list[str]


class EarlierDrawOut(Shape):
    """A draw that is still kept, without its secret."""

    draw_id: str
    kind: DrawKind
    drawn_at: datetime
    length: int
    entropy_bits: float | None


class SidesIn(AtSite):
    """The worth at which to compare, and how words are to be joined."""

    bits: float = Field(gt=0, le=512)
    shape: WordsShape = WordsShape()


class SideOut(Shape):
    """One kind; draw none and a problem's code and data where the site has no room for it."""

    kind: DrawKind
    says: str
    draw: DrawOut | None
    length: float
    key_presses: float
    phone_taps: float
    problem_code: str | None
    problem_data: dict[str, object]


class PassphraseOut(Shape):
    """Drawn words and the bits of the draw."""

    words: list[str]
    entropy_bits: float


class KeepIn(Shape):
    """Where the secret is being used, if known."""

    address: str = ""


class LooseEndOut(Shape):
    """A loose end, without its secret."""

    loose_end_id: str
    handed_out_at: str
    address: str
    length: int = Field(ge=0)


class SecretOut(Shape):
    """One secret, on its own call."""

    secret: str
