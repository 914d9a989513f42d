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
