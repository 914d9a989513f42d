"""The word lists that passphrases are drawn from.

No word is the start of another, so words joined without a separator can be read in one way only.
"""

from collections.abc import Mapping
from typing import Literal

from newknot.core.errors import FieldInvalid
from newknot.core.shipped import shipped_lines

Language = Literal["en", "de", "fr", "es", "ru"]
LIST_SIZES: Mapping[str, tuple[int, ...]] = {
    "en": (7776, 4096),
    "de": (2048,),
    "fr": (2048,),
    "es": (2048,),
    "ru": (2048,),
}
"""By language (ISO 639-1). 6^5, so that five dice pick a word; twelve and eleven bits each."""


def word_list(size: int = 7776, language: str = "en") -> tuple[str, ...]:
    """The shipped list of so many words, in order. Raises `FieldInvalid`."""
    sizes = LIST_SIZES.get(language)
    if sizes is None:
        raise FieldInvalid("language", f"is none of {', '.join(LIST_SIZES)}")
    if size not in sizes:
        raise FieldInvalid("list_size", f"is none of {', '.join(map(str, sizes))}")
    return shipped_lines(list_file(size, language))


def list_file(size: int, language: str) -> str:
    """The shipped file of a list."""
    own = language == "en"
    return f"words_{size}.txt" if own else f"languages/words_{language}_{size}.txt"
