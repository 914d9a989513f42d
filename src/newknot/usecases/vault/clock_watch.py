"""Watches the machine's clock: while it is not to be believed, nothing is deleted by its date."""

import json
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from newknot.usecases.clock import Clock
from newknot.usecases.kept_file import keep

LEAP = timedelta(minutes=5)
"""By so much the calendar clock may differ from the one that counts seconds: it is set by hand, or
by the network, in smaller steps than that."""
LONG_AWAY = timedelta(days=31)
"""After so long, over a start of the machine, absence and a leap look the same."""
BELIEVED_AFTER = timedelta(days=1)
_BOOT = Path("/proc/sys/kernel/random/boot_id")


@dataclass(frozen=True, slots=True)
class ClockLeap:
    """What the clock said when it was last looked at, and what when the leap was seen."""

    before: datetime
    after: datetime


class ClockWatch:
    """kept: a file in which what was last seen outlives the program; it holds times alone."""

    def __init__(self, clock: Clock, kept: Path) -> None:
        self._clock = clock
        self._kept = kept
        self._seen: tuple[datetime, float, str] | None = None
        self.leap: ClockLeap | None = None
        with suppress(OSError, ValueError, KeyError, TypeError):
            found = json.loads(kept.read_text("utf-8"))
            seen_at = datetime.fromisoformat(found["seen_at"])
            self._seen = (seen_at, float(found["boot_s"]), str(found["boot"]))
            if found["leap"]:
                before, after = (datetime.fromisoformat(one) for one in found["leap"])
                self.leap = ClockLeap(before, after)

    def look(self) -> None:
        """Compares both clocks with what they were, and notes what they are."""
        now, boot_s, boot = self._clock.now(), self._clock.boot_s(), _boot()
        if self._seen is not None and self._leapt(now, boot_s, boot):
            self.leap = ClockLeap(self._seen[0], now)
        elif self.leap is not None and now - self.leap.after >= BELIEVED_AFTER:
            self.leap = None
        self._seen = (now, boot_s, boot)
        self._keep()

    def _leapt(self, now: datetime, boot_s: float, boot: str) -> bool:
        assert self._seen is not None
        seen_at, seen_s, seen_boot = self._seen
        passed = now - seen_at
        if boot == seen_boot and boot_s >= seen_s:
            return abs(passed - timedelta(seconds=boot_s - seen_s)) > LEAP
        return not -LEAP <= passed <= LONG_AWAY

    def _keep(self) -> None:
        assert self._seen is not None
        seen_at, boot_s, boot = self._seen
        leap = [self.leap.before.isoformat(), self.leap.after.isoformat()] if self.leap else None
        found = {"seen_at": seen_at.isoformat(), "boot_s": boot_s, "boot": boot, "leap": leap}
        keep(self._kept, json.dumps(found))


def _boot() -> str:
    """By which start of the machine seconds are counted; empty where it does not say."""
    with suppress(OSError):
        return _BOOT.read_text("ascii").strip()
    return ""
