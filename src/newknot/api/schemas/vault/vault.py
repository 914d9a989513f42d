"""Shapes of creating, unlocking and locking."""

from datetime import datetime
from typing import Literal

from pydantic import SecretStr

from newknot.api.schemas.base import Shape
from newknot.store.vault_place import PlaceDoubt


class CopyBesideOut(Shape):
    """A sealed copy that lies where backups of the vault lie."""

    name: str
    made_at: datetime


class VaultState(Shape):
    """state: `new` (no file yet), `locked`, or `unlocked`. Holds nothing of the vault.

    Where there is no file: knew_a_vault, whether one was ever opened on this machine; copies, those
    that could take its place. is_placed: the file is a copy that was put there and not entered yet.
    """

    state: Literal["new", "locked", "unlocked"]
    path: str
    knew_a_vault: bool
    copies: list[CopyBesideOut]
    is_placed: bool


class PlacedOut(Shape):
    """What was put in the vault's place: a backup to be entered, or a bundle to be opened."""

    kind: Literal["backup", "bundle"]


class PlaceBesideIn(Shape):
    """One of the copies that lie there."""

    name: str


class PassphraseIn(Shape):
    """The vault passphrase."""

    passphrase: SecretStr


class CreateIn(PassphraseIn):
    """The passphrase of a new vault. drawn: by chance, here or by dice."""

    drawn: bool = False


class SessionOut(Shape):
    """token: the header half of the session, given once."""

    token: str
    is_older_copy: bool
    damaged_count: int


class ClockLeapOut(Shape):
    """What the machine's clock said before and after it leapt."""

    before: datetime
    after: datetime


class LostPartOut(Shape):
    """A record of which something could not be read, as it was named, and what became of it: a
    login with a new card, without its secret or its history; its secrets as loose ends; or gone.
    """

    named: str
    became: Literal["new_card", "without_secret", "without_history", "loose_end", "gone"]


class SessionState(Shape):
    """Seconds until the vault locks itself; what of the file is damaged or older, and
    which key slots were mended from their twin, in words. read_count, record_count: how far the
    vault has read itself through since it was opened. clock_leap: while it stands, nothing is
    deleted by its date. place_doubts: who else may write where the vault lies."""

    seconds_left: float
    lock_after_s: int
    clipboard_clear_s: int
    reveal_allowed: bool
    is_older_copy: bool
    damaged: list[str]
    mended: list[str]
    read_count: int
    record_count: int
    clock_leap: ClockLeapOut | None
    place_doubts: list[PlaceDoubt]


class ProofIn(PassphraseIn):
    """The passphrase again. method, path: of the call that it is given for, as in `/api/logins/…`,
    with its query; body_sha256: of the body that it will have, as hexadecimal digits. The proof
    then serves for that one alone.
    """

    method: str = ""
    path: str = ""
    body_sha256: str = ""


class ProofOut(Shape):
    """A proof good for one act within a minute."""

    proof: str


class OpenSession(Shape):
    """A window in which the vault is open; it ends by itself at the latest then."""

    began_at: datetime
    ends_at: datetime
    is_this: bool
