"""What happened in the vault, told from what is kept anyway: never a secret."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from newknot.core.login import LoginCard
from newknot.store.accesses import list_accesses
from newknot.store.checks import get_check
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_history, list_cards
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers


class EventKind(StrEnum):
    """What an event is about."""

    LOGIN = "login"
    SECRET = "secret"  # noqa: S105
    ROTATION = "rotation"
    WAIVER = "waiver"
    CHECK = "check"
    BACKUP = "backup"
    ACCESS = "access"


@dataclass(frozen=True, slots=True)
class Event:
    """What happened when; to which login, where it was one."""

    at: datetime
    kind: EventKind
    says: str
    login_id: str | None = None


_STEPS = {
    "stage": "new secret staged",
    "hand_out": "new secret handed out",
    "accept": "the site took the new secret",
    "refuse": "the site refused the new secret",
    "doubt": "not sure which secret holds",
    "withdraw": "the old secret is current again",
    "verify": "signed in with the new secret",
    "give_up": "rotation given up",
}


def list_events(vault: Vault) -> list[Event]:
    """All events, newest first."""
    found: list[Event] = []
    cards, _ = list_cards(vault)
    known = {card.login_id for card in cards}
    for card in cards:
        found += _of_login(vault, card)
    for rotation in list_rotations(vault):
        if rotation.login_id in known:
            found += [
                Event(step.at, EventKind.ROTATION, _STEPS[step.event.value], rotation.login_id)
                for step in rotation.steps
            ]
    for waiver in list_waivers(vault):
        login_id = waiver.login_id if waiver.login_id in known else None
        kind = waiver.kind.value.replace("_", " ")
        found.append(Event(waiver.given_at, EventKind.WAIVER, f"accepted: {kind}", login_id))
        if waiver.lifted_at is not None:
            said = f"no longer accepted: {kind}"
            found.append(Event(waiver.lifted_at, EventKind.WAIVER, said, login_id))
    result = get_check(vault)
    if result is not None:
        counts = [(s.checked_at, sum(s.counts.values())) for s in result.earlier]
        counts.append((result.checked_at, len(result.findings)))
        found += [Event(at, EventKind.CHECK, f"checked: {n:,} findings") for at, n in counts]
    backup_at = get_safeguards(vault).last_backup_at
    if backup_at is not None:
        found.append(Event(backup_at, EventKind.BACKUP, "last sealed backup"))
    for access in reversed(list_accesses(vault)):
        login_id = access.login_id if access.login_id in known else None
        found.append(Event(access.at, EventKind.ACCESS, access.says, login_id))
    return sorted(found, key=lambda event: event.at, reverse=True)


def _of_login(vault: Vault, card: LoginCard) -> Iterator[Event]:
    yield Event(card.created_at, EventKind.LOGIN, "added", card.login_id)
    if card.deleted_at is not None:
        yield Event(card.deleted_at, EventKind.LOGIN, "put into the bin", card.login_id)
    try:
        history = get_history(vault, card.login_id)
    except RecordDamaged:
        return
    for earlier in history:
        if earlier.used:
            what = f"“{earlier.field}”" if earlier.field else "secret"
            days = max(0, (earlier.until_at - earlier.since_at).days)
            said = f"{what} replaced, after {days:,} days"
            yield Event(earlier.until_at, EventKind.SECRET, said, card.login_id)
