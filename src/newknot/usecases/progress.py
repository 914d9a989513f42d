"""Progress of the one long act that may be under way, and the wish to stop it."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from newknot.usecases.errors import CheckRunning

Step = Callable[[int, int], bool]
"""Takes how much is done of how much; False where it is to stop."""


class Progress:
    """done of total; `running` while the act is. Read by others while one writes."""

    def __init__(self) -> None:
        self.running = False
        self.done = 0
        self.total = 0
        self._stop = False

    @contextmanager
    def of_one_act(self) -> Iterator[Step]:
        """A new act, with its steps. Raises `CheckRunning` where another is under way."""
        if self.running:
            raise CheckRunning()
        self.running, self.done, self.total, self._stop = True, 0, 0, False
        try:
            yield self.step
        finally:
            self.running = False

    @contextmanager
    def if_idle(self) -> Iterator[Step]:
        """The same where no other act is under way; where one is, steps that are not told."""
        if self.running:
            yield lambda done, total: True
            return
        with self.of_one_act() as step:
            yield step

    def step(self, done: int, total: int) -> bool:
        """Notes how far it is; False where it is to stop."""
        self.done, self.total = done, total
        return not self._stop

    def may_go_on(self) -> bool:
        """Whether nobody asked the act under way to stop."""
        return not (self.running and self._stop)

    def stop(self) -> None:
        """Asks the act to stop."""
        self._stop = True
