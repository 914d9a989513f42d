"""The vault reads itself through after it was opened: what is damaged is told before it is missed.

A record's tag is checked at once; that its body gives back what was sealed is known only by reading
it. Some records are read at a time, so that no call waits.
"""

import time
from collections.abc import Callable
from dataclasses import dataclass, field

from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_card
from newknot.store.manifest import Entry, Key, Label
from newknot.store.vault import Vault

SLICE_S = 0.08
_STEP = 10
_PARTS = {1: "", 2: ", its secrets", 3: ", its history"}


@dataclass(slots=True)
class ReadThrough:
    """How far it is: done of total records' parts. faulty: those that could not be read, as they
    were then and in words.
    """

    waiting: list[tuple[Key, Entry]] = field(default_factory=list)
    total: int = 0
    faulty: list[tuple[Key, Entry | None, str]] = field(default_factory=list)

    @property
    def done(self) -> int:
        """How many parts were read."""
        return self.total - len(self.waiting)

    def begin(self, vault: Vault) -> None:
        """Everything that the vault holds now is to be read."""
        known = {key for key, _ in vault.damaged}
        self.waiting = [one for one in vault.entries().items() if one[0] not in known]
        self.total, self.faulty = len(self.waiting), []

    def go_on(self, vault: Vault, *, may_go_on: Callable[[], bool]) -> None:
        """Reads for `SLICE_S` seconds at most, and no longer than it may. What was changed
        meanwhile was read by who changed it.
        """
        until = time.monotonic() + SLICE_S
        while self.waiting and may_go_on() and time.monotonic() < until:
            for key, entry in self.waiting[-_STEP:]:
                with vault.lock:
                    if vault.entry(key) != entry:
                        continue
                    try:
                        vault.opened(key, entry)
                    except RecordDamaged:
                        self.faulty.append((key, entry, said(vault, key, entry.label)))
            del self.waiting[-_STEP:]

    def still_faulty(self, vault: Vault) -> list[str]:
        """Those that were not written anew since, in words."""
        return [says for key, entry, says in self.faulty if vault.entry(key) is entry]


def said(vault: Vault, key: Key, label: Label | None) -> str:
    """A record in words: a login by its title, where that can be read."""
    record_id, part = key[0].hex(), key[1]
    kind = "unknown record" if label is None else label.name.lower().replace("_", " ")
    if label is Label.LOGIN:
        try:
            return f"{get_card(vault, record_id).title}{_PARTS[part]}"
        except (RecordDamaged, RecordMissing):
            pass
    return f"{kind} {record_id[:8]}"
