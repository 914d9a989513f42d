"""Shapes of creating, unlocking and locking."""

from typing import Literal

from pydantic import SecretStr

from newknot.api.schemas.base import Shape


class VaultState(Shape):
    """state: `new` (no file yet), `locked`, or `unlocked`. Holds nothing of the vault."""

    state: Literal["new", "locked", "unlocked"]
    path: str


class PassphraseIn(Shape):
    """The vault passphrase."""

    passphrase: SecretStr


class SessionOut(Shape):
    """token: the header half of the session, given once."""

    token: str
    is_older_copy: bool
    damaged_count: int


class SessionState(Shape):
    """Seconds until the vault locks itself; what of the file is damaged or older, and
    which key slots were mended from their twin, in words."""

    seconds_left: float
    lock_after_s: int
    clipboard_clear_s: int
    reveal_allowed: bool
    is_older_copy: bool
    damaged: list[str]
    mended: list[str]


class ProofOut(Shape):
    """A proof good for one act within a minute."""

    proof: str
