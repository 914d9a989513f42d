"""Bringing logins in."""

from typing import Literal

from pydantic import Field

from newknot.api.schemas.base import Shape, Whole


class ImportTable(Shape):
    """A file that was read: its columns and a guess at what each is."""

    import_id: str
    kind: Literal["csv", "cxf"]
    encoding: str
    separator: str
    columns: list[str]
    mapping: list[str]
    targets: list[str]
    row_count: int


class MappingIn(Shape):
    """What each column is; one target for each."""

    mapping: list[str]


class DifferenceOut(Shape):
    """A field that is one thing here and another in the file; both empty for a secret."""

    field: str
    here: str
    there: str


class ImportRowOut(Shape):
    """One row as it would come in, without its secret. can_take: the login that is there can take
    its secret.
    """

    line: int
    status: Literal["new", "same", "differing", "kept_out", "bad"]
    reason: str
    title: str
    user_name: str
    address: str
    has_secret: bool
    left: list[str]
    can_take: bool
    differs: list[DifferenceOut]


class ImportPreview(Shape):
    """Every row, judged."""

    rows: list[ImportRowOut]


class ImportApply(MappingIn):
    """also_lines: rows to come in although their site and user name are there with another secret;
    take_lines: those whose secret the login there is to take; not_lines: new ones that are not to
    come in.
    """

    also_lines: list[Whole] = Field(default_factory=list)
    take_lines: list[Whole] = Field(default_factory=list)
    not_lines: list[Whole] = Field(default_factory=list)


class Imported(Shape):
    """How many logins came in, and how many took a secret."""

    added_count: int
    taken_count: int


class Undone(Shape):
    """How many logins are gone again; those that were changed since are in the bin; put_back_count:
    those that have their former secret again.
    """

    gone_count: int
    binned_count: int
    put_back_count: int
