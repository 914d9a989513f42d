"""Shapes of drawing."""

from pydantic import Field

from newknot.api.schemas.base import Shape, Whole


class DrawIn(Shape):
    """policy: the JSON form of a site policy; the library's or the default where missing.

    replaces: an earlier draw that was only passed through (a slider on its way).
    """

    length: Whole
    policy: dict[str, object] | None = None
    policy_id: str | None = None
    replaces: str | None = None


class WordsIn(Shape):
    """A passphrase of so many words; policy_id: the site whose rules it is held against."""

    words: Whole = 6
    separator: str = " "
    capitals: bool = False
    digit: bool = False
    policy_id: str | None = None
    replaces: str | None = None


class DrawOut(Shape):
    """A draw. space_size_log10: log10 of the number of strings it was drawn from.

    is_exact: whether that number is exact, or a proven lower bound. breaks: the rules of the site
    that it would break (of words alone; characters are drawn to the rules).
    """

    draw_id: str
    secret: str
    entropy_bits: float
    space_size_log10: float
    is_exact: bool
    breaks: list[str]


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
