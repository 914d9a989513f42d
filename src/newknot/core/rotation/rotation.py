"""One rotation of one login: its state, its steps, and the two secrets it holds."""

from dataclasses import dataclass
from datetime import datetime

from newknot.core.login import Origin
from newknot.core.rotation.machine import RotationEvent, RotationState
from newknot.core.secret import Secret


@dataclass(frozen=True, slots=True)
class RotationStep:
    """An event and when it happened (UTC)."""

    event: RotationEvent
    at: datetime


@dataclass(frozen=True, slots=True)
class Rotation:
    """What lists may show of a rotation. is_sign_up: the login had no secret when it began.
    placed_at: where it stands in the order, if the clock ran back and `began_at` does not say it.
    """

    rotation_id: str
    login_id: str
    state: RotationState
    began_at: datetime
    changed_at: datetime
    steps: tuple[RotationStep, ...]
    refusal: str = ""
    current_copied_at: datetime | None = None
    is_sign_up: bool = False
    placed_at: datetime | None = None

    @property
    def place(self) -> tuple[datetime, str]:
        """What rotations are ordered by."""
        return self.placed_at or self.began_at, self.rotation_id


@dataclass(frozen=True, slots=True)
class HeldSecret:
    """A secret with how it was made and since when it counts. secret_id: as in `LoginSecrets`."""

    secret: Secret
    origin: Origin
    since_at: datetime
    secret_id: str = ""


@dataclass(frozen=True, slots=True)
class RotationSecrets:
    """staged: the new one until it is accepted; former: the old one from then on."""

    staged: HeldSecret | None
    former: HeldSecret | None
