"""Slows guessing of the vault passphrase: each wrong one makes the next wait longer."""

import json
from contextlib import suppress
from pathlib import Path

from newknot.usecases.errors import TooManyGuesses
from newknot.usecases.kept_file import keep

FREE_TRIES = 3
LONGEST_WAIT_S = 60.0


class GuessBrake:
    """Counts wrong tries; time is given in seconds of a clock that counts sleep.

    kept: a file in which the count outlives the program; it holds nothing but two numbers.
    """

    def __init__(self, kept: Path | None = None) -> None:
        self._kept = kept
        self._wrong = 0
        self._open_at_s = 0.0
        with suppress(OSError, ValueError, KeyError, TypeError):
            if kept is not None:
                found = json.loads(kept.read_text("utf-8"))
                self._wrong, self._open_at_s = int(found["wrong"]), float(found["open_at_s"])

    def check(self, boot_s: float) -> None:
        """Raises `TooManyGuesses` while the wait is not over."""
        # After the machine began anew its clock does too: no wait is longer than the longest.
        self._open_at_s = min(self._open_at_s, boot_s + LONGEST_WAIT_S)
        if boot_s < self._open_at_s:
            raise TooManyGuesses(retry_after_s=int(self._open_at_s - boot_s) + 1)

    def wrong(self, boot_s: float) -> None:
        """A wrong try: from the third on, 1 s, 2 s, 4 s … up to a minute."""
        self._wrong += 1
        if self._wrong >= FREE_TRIES:
            wait = min(LONGEST_WAIT_S, 2.0 ** min(16, self._wrong - FREE_TRIES))
            self._open_at_s = boot_s + wait
        self._keep()

    def right(self) -> None:
        """A right one starts the count anew."""
        self._wrong = 0
        self._open_at_s = 0.0
        self._keep()

    def _keep(self) -> None:
        """A folder that takes nothing makes no guess free in this run, and stops no entry."""
        if self._kept is None or (not self._wrong and not self._kept.exists()):
            return
        keep(self._kept, json.dumps({"wrong": self._wrong, "open_at_s": self._open_at_s}))
