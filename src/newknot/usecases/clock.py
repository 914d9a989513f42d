"""The clocks of the edge: calendar time, and time that counts sleep."""

from datetime import datetime
from typing import Protocol


class Clock(Protocol):
    """What the keeper asks for the time."""

    def now(self) -> datetime:
        """Aware UTC."""

    def boot_s(self) -> float:
        """Seconds since boot, sleep included: for deadlines."""
