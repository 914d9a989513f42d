"""Shapes of import and backup."""

from datetime import datetime
from typing import Literal

from newknot.api.schemas.base import Shape


class ImportTable(Shape):
    """A file that was read: its columns and a guess at what each is."""

    import_id: str
    encoding: str
    separator: str
    columns: list[str]
    mapping: list[str]
    targets: list[str]
    row_count: int


class MappingIn(Shape):
    """What each column is; one target for each."""

    mapping: list[str]


class ImportRowOut(Shape):
    """One row as it would come in, without its secret."""

    line: int
    status: Literal["new", "same", "differing", "bad"]
    reason: str
    title: str
    user_name: str
    address: str
    has_secret: bool


class ImportPreview(Shape):
    """Every row, judged."""

    rows: list[ImportRowOut]


class ImportApply(MappingIn):
    """also_differing: rows whose site and user name are there with another secret."""

    also_differing: bool = False


class Imported(Shape):
    """How many logins came in."""

    added_count: int


class BackupOut(Shape):
    """A backup that was opened after writing."""

    name: str
    path: str
    size_bytes: int
    made_at: datetime
