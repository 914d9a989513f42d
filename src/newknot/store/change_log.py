"""Which records were written of late, so that what rests on all of a kind is brought up to date by
those alone.
"""

from collections import deque
from collections.abc import Collection, Iterable

from newknot.store.manifest import Label

KEPT_MOST = 2_000
"""Of more than so many the oldest are forgotten: whoever rests on them begins anew."""


class ChangeLog:
    """Records by the change counter at which they were written or removed. Ids are raw."""

    def __init__(self) -> None:
        self._from = 0
        self._written: deque[tuple[int, Label, bytes]] = deque()

    def begin(self, counter: int) -> None:
        """From here on; nothing is known of what was before."""
        self._written.clear()
        self._from = counter

    def note(self, counter: int, records: Iterable[tuple[Label, bytes]]) -> None:
        """What the change that led to this counter wrote or removed."""
        self._written.extend((counter, label, record_id) for label, record_id in records)
        while len(self._written) > KEPT_MOST:
            self._from, _, _ = self._written.popleft()

    def since(self, labels: Collection[Label], counter: int) -> set[str] | None:
        """Ids (hex) of records of these kinds that were written after that counter; None where so
        much is not known any more.
        """
        if counter < self._from:
            return None
        found: set[str] = set()
        for at, label, record_id in reversed(self._written):
            if at <= counter:
                break
            if label in labels:
                found.add(record_id.hex())
        return found
