"""Shapes of half-typed forms."""

from datetime import datetime
from typing import Any

from newknot.api.schemas.base import Shape


class DraftIn(Shape):
    """What a form holds, as the page that has the form understands it."""

    content: Any


class DraftOut(DraftIn):
    """With when it was kept."""

    saved_at: datetime
