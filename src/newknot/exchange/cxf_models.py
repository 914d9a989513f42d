"""The shapes of the Credential Exchange Format 1.0 that are placed here.

What others write is read leniently: an odd value is as one that is not there, so that one of them
costs no more than itself.
"""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, ValidationError
from pydantic import WrapValidator as Wrap

Of = TypeVar("Of")


def _or(instead: Callable[[], Any]) -> Wrap:
    def validated(value: object, handler: Callable[[object], Any]) -> Any:
        try:
            return handler(value)
        except ValidationError:
            return instead()

    return Wrap(validated)


def _moment(value: object) -> object:
    if not isinstance(value, int) or not 0 <= value < 1 << 34:
        return None
    return datetime.fromtimestamp(value, UTC)


def _only(kind: type) -> BeforeValidator:
    def kept(value: object) -> object:
        return [one for one in value if isinstance(one, kind)] if isinstance(value, list) else []

    return BeforeValidator(kept)


Text = Annotated[str, Field(strict=True), _or(str)]
Texts = Annotated[list[str], _only(str)]
Objects = Annotated[list[dict[str, Any]], _only(dict)]
Moment = Annotated[datetime | None, BeforeValidator(_moment)]


class _Shape(BaseModel):
    model_config = ConfigDict(
        defer_build=True, extra="allow", frozen=True, coerce_numbers_to_str=False
    )


class EditableField(_Shape):
    """A value with its type and, where it has one, its label."""

    field_type: Text = Field("", alias="fieldType")
    label: Text = ""
    value: Text = ""


NoField = EditableField()
Editable = Annotated[EditableField, _or(EditableField)]


class BasicAuth(_Shape):
    """A user name and a password."""

    username: Editable = NoField
    password: Editable = NoField


class Totp(_Shape):
    """A key of codes (RFC 6238)."""

    secret: Text = ""
    period: Annotated[int, Field(ge=1, le=86_400)] = 30
    digits: Annotated[int, Field(ge=1, le=10)] = 6
    username: Text = ""
    algorithm: Text = "sha1"
    issuer: Text = ""


class Note(_Shape):
    """A text."""

    content: Editable = NoField


class CustomFields(_Shape):
    """Fields of their own names."""

    fields: Annotated[list[EditableField], _only(dict)] = []


class Own(_Shape):
    """The extension in which New Knot keeps what the format has no place for."""

    folder: Annotated[str | None, Field(strict=True), _or(lambda: None)] = None
    owner: Text = ""
    importance: Text = ""
    expires_on: Text = ""
    code_key: Text = ""
    second_factor: Text = ""
    driven: Annotated[bool, Field(strict=True), _or(bool)] = False
    backup_codes: Annotated[list[list[Text]], _only(list), _or(list)] = []
    created_at: Text = ""
    changed_at: Text = ""
    secret_since_at: Text = ""


class Scope(_Shape):
    """Where an item holds."""

    urls: Texts = []


class Item(_Shape):
    """One entry of an account, its credentials and extensions as they are."""

    id: Text = ""
    title: Text = ""
    scope: Annotated[Scope, _or(Scope)] = Scope()
    tags: Texts = []
    credentials: Annotated[list[Any], _or(list)] = []
    extensions: Objects = []
    created_at: Moment = Field(None, alias="creationAt")
    modified_at: Moment = Field(None, alias="modifiedAt")


class Link(_Shape):
    """An item that is in a collection."""

    item: Text = ""


class Collection(_Shape):
    """A folder, with those within it."""

    title: Text = ""
    items: Annotated[list[Link], _only(dict)] = []
    within: Annotated[list["Collection"], _only(dict)] = Field([], alias="subCollections")


class Account(_Shape):
    """What one person keeps."""

    collections: Annotated[list[Collection], _only(dict)] = []
    items: Annotated[list[Any], _or(list)] = []


class Version(_Shape):
    """The only one that is read."""

    major: Literal[1]


class CxfDocument(_Shape):
    """A whole file."""

    version: Version
    accounts: Annotated[list[Account], _only(dict)]
