"""The word lists that passphrases are drawn from.

No word is the start of another, so words joined without a separator can be read in one way only.
"""

from newknot.core.errors import FieldInvalid
from newknot.core.shipped import shipped_lines

LIST_SIZES = (7776, 4096)
"""6^5, so that five dice pick a word; and the commoner words alone, twelve bits each."""


def word_list(size: int = 7776) -> tuple[str, ...]:
    """The shipped list of so many words, in order. Raises `FieldInvalid`."""
    if size not in LIST_SIZES:
        raise FieldInvalid("list_size", f"is none of {', '.join(map(str, LIST_SIZES))}")
    return shipped_lines(f"words_{size}.txt")
