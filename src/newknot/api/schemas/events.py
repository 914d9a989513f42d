"""Shapes of the list of events."""

from datetime import datetime

from newknot.api.schemas.base import Shape
from newknot.usecases.events import EventKind


class EventOut(Shape):
    """What happened when; title: of the login, null where it was none or is gone."""

    at: datetime
    kind: EventKind
    says: str
    login_id: str | None
    title: str | None
