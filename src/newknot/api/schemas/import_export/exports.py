"""Files in the clear that were taken out."""

from datetime import datetime
from typing import Literal

from newknot.api.schemas.base import Shape


class ClearFileIn(Shape):
    """In which format."""

    kind: Literal["csv", "cxf"]


class ClearFilePath(Shape):
    """Which file."""

    path: str


class ClearFileOut(ClearFilePath):
    """A file with every secret in the clear, and when it was written."""

    written_at: datetime


class LossesOut(Shape):
    """Counts of what neither open format carries of this vault. damaged: logins that no file can
    have, by title, or by id where that is all that is known.
    """

    histories: int
    resets: int
    in_bin: int
    waivers: int
    policies: int
    open_rotations: int
    loose_ends: int
    own_details: int
    driven_at: int
    formula_secrets: int
    damaged: list[str]
