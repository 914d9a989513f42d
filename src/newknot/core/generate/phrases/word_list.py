"""The word lists that passphrases are drawn from.

No word is the start of another, so words joined without a separator can be read in one way only.
"""

from newknot.core.errors import FieldInvalid
from newknot.core.shipped import shipped_lines

LIST_SIZES = (7776, 4096)
"""6^5, so that five dice pick a word; and the commoner words alone, twelve bits each."""
DICE = 5
_FACES = "123456"


def word_list(size: int = 7776) -> tuple[str, ...]:
    """The shipped list of so many words, in order. Raises `FieldInvalid`."""
    if size not in LIST_SIZES:
        raise FieldInvalid("list_size", f"is none of {', '.join(map(str, LIST_SIZES))}")
    return shipped_lines(f"words_{size}.txt")


def word_of_dice(faces: str, *, field: str = "dice") -> str:
    """The word that five dice pick, as `16342`: the first counts most. Raises `FieldInvalid`."""
    if len(faces) != DICE or any(face not in _FACES for face in faces):
        raise FieldInvalid(field, f"is not {DICE} faces from 1 to 6")
    place = 0
    for face in faces:
        place = 6 * place + int(face) - 1
    return word_list()[place]
