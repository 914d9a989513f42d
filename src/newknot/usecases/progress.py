"""Progress of the one long act that may be under way, and the wish to stop it."""


class Progress:
    """done of total; `running` between `begin` and `end`. Read by others while one writes."""

    def __init__(self) -> None:
        self.running = False
        self.done = 0
        self.total = 0
        self._stop = False

    def begin(self) -> None:
        """A new act."""
        self.running, self.done, self.total, self._stop = True, 0, 0, False

    def step(self, done: int, total: int) -> bool:
        """Notes how far it is; False where it is to stop."""
        self.done, self.total = done, total
        return not self._stop

    def stop(self) -> None:
        """Asks the act to stop."""
        self._stop = True

    def end(self) -> None:
        """The act is over."""
        self.running = False
