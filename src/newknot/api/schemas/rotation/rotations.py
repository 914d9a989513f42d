"""Shapes of rotations."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from newknot.api.schemas.base import Shape, Whole
from newknot.api.schemas.logins.logins import SecretIn
from newknot.core.policy import LessonKind
from newknot.core.rotation import RotationEvent, RotationState
from newknot.core.rotation.way_on import TRIED_AT_ONCE_MOST, Which


class StageIn(Shape):
    """How the new secret is made; all None: 20 characters to the site's policy."""

    length: Whole | None = None
    policy: dict[str, object] | None = None
    secret: SecretIn | None = None


class BeginIn(StageIn):
    """Which login is to be rotated; earlier_id: the earlier secret that is to be restored."""

    login_id: str
    earlier_id: str | None = None


class EventIn(Shape):
    """What happened; refusal: the site's reason, if it gave one."""

    event: Literal["accept", "refuse", "doubt", "withdraw", "verify", "give_up"]
    refusal: str = ""


class LessonIn(Shape):
    """Why the site refused: a length for too long or short, else characters or its own words."""

    kind: LessonKind
    length: Whole | None = None
    text: str = ""


class StepOut(Shape):
    """An event and when it happened."""

    event: RotationEvent
    at: datetime


class RotationOut(Shape):
    """A rotation, without its secrets. allowed: events that its state takes now."""

    rotation_id: str
    login_id: str
    title: str
    user_name: str
    address: str
    state: RotationState
    is_open: bool
    is_stalled: bool
    allowed: list[RotationEvent]
    began_at: datetime
    changed_at: datetime
    refusal: str
    current_copied_at: datetime | None
    staged_at: datetime | None
    handed_out_at: datetime | None
    has_former: bool
    has_current: bool
    is_sign_up: bool
    current_since_at: datetime
    staged_length: int | None
    staged_bits: float | None
    steps: list[StepOut]


class HandedOut(Shape):
    """A secret of a rotation, with the rotation as it stands after handing it out."""

    secret: str
    rotation: RotationOut


class DriveOut(Shape):
    """Driving a rotation. allowed: whether it can be begun now; plan: what it would do; steps: what
    was done so far.
    """

    allowed: bool
    plan: list[str]
    steps: list[str]
    running: bool
    state: RotationState


class ChangePageOut(Shape):
    """The address to be opened."""

    address: str


class FaultsOut(Shape):
    """What a site does to a secret in silence, as far as sign-ins tell."""

    steps: list[str]
    keeps_first: int | None
    is_exact: bool
    folds_case: bool
    says: str
    guess_number_log10: float


class TrialShape(Shape):
    """A sign-in with the first characters of the secret, or all of it in other case."""

    characters: Whole
    other_case: bool = False


class TrialIn(TrialShape):
    """What the text of a trial is wanted for."""

    purpose: Literal["reveal", "copy"]


class TriedIn(TrialShape):
    """A trial, and whether it opened the site."""

    opened: bool


class TriedList(Shape):
    """All answers so far."""

    tried: list[TriedIn]


class StandingOut(Shape):
    """How far the trials are. trial: the next one; faults null until there is none."""

    trial: TrialShape | None
    faults: FaultsOut | None


class WayOnShape(Shape):
    """A sign-in by which it is told which secret opens the site. characters: of a beginning, an
    end or a part. after: how many stand before a part.
    """

    which: Which
    characters: int = 0
    after: int = 0


class WayOnIn(WayOnShape):
    """What the text of a trial is wanted for."""

    purpose: Literal["reveal", "copy"]


class WayOnAnswers(Shape):
    """refused: what did not open the site so far. opened: what did, where one did."""

    refused: list[WayOnShape]
    opened: WayOnShape | None = None


class WayOnDrive(Shape):
    """refused: what did not open the site so far. at_most: how many are tried now."""

    refused: Annotated[list[WayOnShape], Field(default_factory=list)]
    at_most: Annotated[int, Field(ge=1, le=TRIED_AT_ONCE_MOST)] = TRIED_AT_ONCE_MOST


class WayOnOut(Shape):
    """The next trial, with what it is in words; null where one opened the site, or none is left.
    found: which one did, in words. refused: of a drive, what did not open the site so far.
    """

    refused: list[WayOnShape]

    trial: WayOnShape | None
    says: str
    found: str
    steps: list[str]
    rotation: RotationOut
