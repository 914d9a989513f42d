"""Shapes of addresses that were asked about."""

from newknot.api.schemas.base import Shape
from newknot.core.address.likeness import Likeness


class AddressIn(Shape):
    """Any address, as pasted."""

    address: str


class KeepOutIn(AddressIn):
    """An address, and whether its place is to be kept out."""

    kept_out: bool


class KeptOut(Shape):
    """The domain that is kept out now, or no longer."""

    domain: str


class SeenLogin(Shape):
    """A login by its names."""

    login_id: str
    title: str
    user_name: str


class ResemblingOut(Shape):
    """A site that the address is not, but resembles."""

    domain: str
    how: Likeness
    logins: list[SeenLogin]


class AddressSeenOut(Shape):
    """host: as it is read; logins: of its site."""

    host: str
    domain: str
    logins: list[SeenLogin]
    resembles: list[ResemblingOut]
    is_kept_out: bool
