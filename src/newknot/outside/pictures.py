"""The QR codes of a picture that a site shows or a paper carries, decoded by a limited child."""

from pathlib import Path

from newknot.core.errors import NewKnotError
from newknot.outside.limited_child import ChildFailed, run_limited

READING_S = 20.0
_READER = Path(__file__).with_name("picture_reader.py")
"""Not imported here: a decoder has no place beside the keys."""


class PictureRefused(NewKnotError):
    """A picture that is not read. data: reason."""


def read_codes(picture: bytes) -> list[str]:
    """The texts of its QR codes, secret for all that is known. Raises `PictureRefused`."""
    try:
        answer = run_limited(_READER, picture, within_s=READING_S, alone=False)
        if "refused" in answer:
            raise PictureRefused(reason=str(answer["refused"]))
        return [str(text) for text in answer["codes"]]
    except (ChildFailed, KeyError, TypeError):
        raise PictureRefused(reason="took too much time or memory to read") from None
