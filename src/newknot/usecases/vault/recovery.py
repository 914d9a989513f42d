"""The way back in: a recovery key on one sheet or split among people; practised, made void."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.generate import RandomSource
from newknot.crypto import KdfParameters
from newknot.crypto.shares import (
    RECOVERY_KEY_BYTES,
    ShareFacts,
    ShareWrong,
    joined,
    read_share,
    split,
    words_of,
)
from newknot.store.recovery import RecoveryFacts, get_recovery, put_recovery
from newknot.store.vault import Vault
from newknot.usecases.errors import SheetsVoid

__all__ = ["get_recovery", "joined"]


@dataclass(frozen=True, slots=True)
class LookedAt:
    """One share as typed: what it says of itself, or what is wrong with it."""

    facts: ShareFacts | None
    reason: str


def make_sheets(
    vault: Vault,
    *,
    threshold: int,
    count: int,
    random: RandomSource,
    parameters: KdfParameters,
    now: datetime,
) -> list[str]:
    """The words of new sheets, given once; all sheets before them are void from now on.

    Raises `FieldInvalid`.
    """
    key = bytes(random.randbelow(256) for _ in range(RECOVERY_KEY_BYTES))
    sheets = split(key, threshold=threshold, count=count)
    with vault.new_recovery(key, parameters=parameters) as tx:
        put_recovery(tx, vault, RecoveryFacts(now, threshold, count))
    return sheets


def void_sheets(vault: Vault) -> None:
    """No sheet opens the vault any more."""
    with vault.new_recovery(None, parameters=None) as tx:
        put_recovery(tx, vault, None)


def look_at(texts: Sequence[str]) -> list[LookedAt]:
    """Each share by itself, and against those before it: which one is wrong, and why."""
    looked: list[LookedAt] = []
    held: dict[int, str] = {}
    set_id: int | None = None
    for text in texts:
        words = " ".join(words_of(text))
        try:
            facts = read_share(words)
        except ShareWrong as error:
            looked.append(LookedAt(None, str(error.data["reason"])))
            continue
        reason = ""
        if set_id is not None and facts.set_id != set_id:
            reason = "is of another set than the first"
        elif facts.place in held:
            same = held[facts.place] == words
            reason = "is there already" if same else "has the place of another: one is not real"
        if not reason:
            set_id = facts.set_id
            held[facts.place] = words
        looked.append(LookedAt(facts, reason))
    return looked


def practise(vault: Vault, texts: Sequence[str], *, now: datetime) -> RecoveryFacts:
    """Rehearses a recovery with the real sheets, changing nothing but the day it was done.

    Raises `ShareWrong`, `SheetsVoid`.
    """
    if not vault.recovers(joined(texts)):
        raise SheetsVoid()
    with vault.transaction() as tx:
        facts = get_recovery(vault)
        if facts is None:
            raise SheetsVoid()
        facts = replace(facts, practised_at=now)
        put_recovery(tx, vault, facts)
    return facts
