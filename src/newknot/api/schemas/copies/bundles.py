"""Shapes of sealed bundles."""

from datetime import datetime

from pydantic import Field, SecretStr

from newknot.api.schemas.base import Shape
from newknot.core.merging.stamps import Why


class BundleOut(Shape):
    """The passphrase that a bundle is to be sealed under, or the public key that it is for. drawn:
    the passphrase, by chance.
    """

    passphrase: SecretStr = SecretStr("")
    drawn: bool = False
    recipient: str | None = None


class BundleKeyOut(Shape):
    """A public key as a JWK."""

    public_key: str


class BundleHeld(Shape):
    """A bundle in memory, still sealed; for_a_key: opened without a passphrase, or not at all."""

    bundle_id: str
    for_a_key: bool


class BundleOpenIn(Shape):
    """Its passphrase; not looked at where it is open already."""

    passphrase: SecretStr = SecretStr("")


class ApartOut(Shape):
    """A text that both sides changed: the one that is taken, the one kept beside it, and why."""

    field: str
    taken: str
    kept: str
    why: Why


class MergeLineOut(Shape):
    """One record that a merge touches. what: added, changed, removed, parted or asked.

    secret_taken: where both sides changed the secret, why the one that is taken counts for more.
    in_bin: of what is asked, whether it lies in the bin; else one side deleted it for good.
    """

    login_id: str
    title: str
    user_name: str
    what: str
    kind: str
    texts: list[ApartOut]
    secret_taken: Why | None = None
    in_bin: bool = False


class BundleFacts(Shape):
    """is_own: whether it comes from a copy of this vault."""

    made_at: datetime
    is_own: bool
    lines: list[MergeLineOut]


class MergeIn(Shape):
    """Logins that were deleted on one side and changed on the other, to be taken out of the bin."""

    take_out_of_bin: list[str] = Field(default_factory=list)
