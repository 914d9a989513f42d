"""Slows guessing of the vault passphrase: each wrong one makes the next wait longer."""

from newknot.usecases.errors import TooManyGuesses

FREE_TRIES = 3
LONGEST_WAIT_S = 60.0


class GuessBrake:
    """Counts wrong tries; time is given in seconds of a clock that counts sleep."""

    def __init__(self) -> None:
        self._wrong = 0
        self._open_at_s = 0.0

    def check(self, boot_s: float) -> None:
        """Raises `TooManyGuesses` while the wait is not over."""
        if boot_s < self._open_at_s:
            raise TooManyGuesses(retry_after_s=int(self._open_at_s - boot_s) + 1)

    def wrong(self, boot_s: float) -> None:
        """A wrong try: from the third on, 1 s, 2 s, 4 s … up to a minute."""
        self._wrong += 1
        if self._wrong >= FREE_TRIES:
            wait = min(LONGEST_WAIT_S, 2.0 ** min(16, self._wrong - FREE_TRIES))
            self._open_at_s = boot_s + wait

    def right(self) -> None:
        """A right one starts the count anew."""
        self._wrong = 0
        self._open_at_s = 0.0
