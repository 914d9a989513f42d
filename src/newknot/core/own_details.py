"""What an acquaintance could guess of the account holder, and own rates of attack."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from newknot.core.errors import FieldInvalid
from newknot.core.strength.budgets import with_rates
from newknot.core.strength.context import WORD_CHARACTERS_MOST

LINES_MOST = 56
"""So many leave room for the names of a login among the 64 words that are looked for."""


@dataclass(frozen=True, slots=True)
class OwnDetails:
    """lines: names, dates and words, one each; rates: attack code -> guesses per second.

    Raises `FieldInvalid` for more than 56 lines, or a line of more than 200 characters.
    """

    lines: tuple[str, ...] = ()
    rates: Mapping[str, float] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if len(self.lines) > LINES_MOST:
            reason = f"has {len(self.lines):,} lines; {LINES_MOST} are looked for"
            raise FieldInvalid("lines", reason)
        for at, line in enumerate(self.lines, 1):
            if len(line) > WORD_CHARACTERS_MOST:
                reason = f"is longer than {WORD_CHARACTERS_MOST} characters in line {at}"
                raise FieldInvalid("lines", reason)
        with_rates(self.rates)
