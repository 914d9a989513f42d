"""Rotation: replacing a login's secret at its site so that neither the old nor the new is lost."""

from newknot.core.rotation.machine import (
    OPEN_STATES,
    TRANSITIONS,
    EventRefused,
    RotationEvent,
    RotationState,
    after,
)
from newknot.core.rotation.repeats import (
    SecretBreaksPolicy,
    SecretRepeats,
    require_forgotten,
    require_new,
)
from newknot.core.rotation.rotation import HeldSecret, Rotation, RotationSecrets, RotationStep

__all__ = [
    "OPEN_STATES",
    "TRANSITIONS",
    "EventRefused",
    "HeldSecret",
    "Rotation",
    "RotationEvent",
    "RotationSecrets",
    "RotationState",
    "RotationStep",
    "SecretBreaksPolicy",
    "SecretRepeats",
    "after",
    "require_forgotten",
    "require_new",
]
