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
    """A field of which the file has something that is not here; both empty for a secret."""

    field: str
    here: str
    there: str


class ImportRowOut(Shape):
    """One row as it would come in, without its secret. can_take: the login that is there can take
    its secret; can_take_fields: the other fields in which it differs.
    """

    line: int
    status: Literal["new", "same", "differing", "kept_out", "bad", "twice"]
    reason: str
    title: str
    user_name: str
    address: str
    has_secret: bool
    left: list[str]
    can_take: bool
    can_take_fields: bool
    differs: list[DifferenceOut]


class ImportPreview(Shape):
    """Every row, judged."""

    rows: list[ImportRowOut]


class TakeFields(Shape):
    """Of a row that differs, the fields that the login there is to take."""

    line: Whole
    fields: list[str] = Field(max_length=200)


class ImportApply(MappingIn):
    """also_lines: rows to come in although their site and user name are there, or although they are
    in the file twice; take_lines: those whose secret the login there is to take; take_fields: the
    same of other fields; not_lines: new ones that are not to come in.
    """

    also_lines: list[Whole] = Field(default_factory=list)
    take_lines: list[Whole] = Field(default_factory=list)
    take_fields: list[TakeFields] = Field(default_factory=list)
    not_lines: list[Whole] = Field(default_factory=list)


class LeftOut(Shape):
    """A row of which something did not come in, and why."""

    line: int
    title: str
    user_name: str
    reason: str


class Imported(Shape):
    """How many logins came in, how many took from a row, and every row that was left out."""

    added_count: int
    taken_count: int
    left_out: list[LeftOut]


class Undone(Shape):
    """How many logins are gone again; those that were changed since are in the bin; put_back_count:
    those that have their former secret again.
    """

    gone_count: int
    binned_count: int
    put_back_count: int
