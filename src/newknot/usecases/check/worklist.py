"""The worklist as it is asked for: kept while nothing changes, and how the day went."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from threading import Lock

from newknot.core.audit.importance import Importances
from newknot.core.audit.reach import CordKind
from newknot.core.audit.worklist import Need, Worklist, to_set_right, worklist_of
from newknot.core.calendar_day import day_of
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers
from newknot.usecases.check.checks import met_since
from newknot.usecases.check.reach import cords
from newknot.usecases.check.standing import Standing, came_up_before, standing


@dataclass(frozen=True, slots=True)
class Settled:
    """A login that something was settled for, and how: a new secret, what else was set right, or
    accepted.
    """

    login_id: str
    title: str
    how: str


@dataclass(frozen=True, slots=True)
class AsNow:
    """The rows, what they rest on, who shares a secret now, and what was settled today, the latest
    first.
    """

    worklist: Worklist
    standing: Standing
    sharing: Mapping[str, tuple[str, ...]]
    settled_today: tuple[Settled, ...]


_DAY = timedelta(days=1)
_MET = {
    Need.FIELD: "a further secret",
    Need.SECOND_FACTOR: "a second factor",
    Need.ADDRESS: "the address",
}


class WorklistMemory:
    """The worklist as it was last asked for. It holds titles: in memory alone, gone at the lock."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._key: tuple[int, date, bool, bool] | None = None
        self._held: AsNow | None = None
        self._importances = Importances()

    def clear(self) -> None:
        """Forgets it."""
        self._key = self._held = None
        self._importances = Importances()

    def as_now(self, vault: Vault, *, now: datetime) -> AsNow:
        """The worklist at this moment; made anew where anything changed, or with a new day."""
        with self._lock:
            used = get_safeguards(vault)
            key = vault.changes_of_contents, day_of(now), used.feed_used, used.mail_used
            held = self._held
            if held is None or key != self._key:
                held = _made(vault, self._importances, now=now)
                self._key, self._held = key, held
            return held


def _made(vault: Vault, importances: Importances, *, now: datetime) -> AsNow:
    found = standing(vault, now=now)
    groups, links = cords(vault)
    mailboxes = {link.by for link in links}
    wanting = {finding.login_id for finding in found.to_do} & found.cards.keys()
    importance = {
        one: importances.of(found.cards[one], resets_others=one in mailboxes)[0] for one in wanting
    }
    rows = worklist_of(found.to_do, groups, importance=importance, loose_ends=found.loose_ends)
    sharing = {
        one: group.login_ids
        for group in groups
        if group.kind is CordKind.SAME
        for one in group.login_ids
    }
    return AsNow(rows, found, sharing, tuple(_settled(vault, found, now=now)))


def _settled(vault: Vault, found: Standing, *, now: datetime) -> list[Settled]:
    """What was renewed, set right or accepted today."""
    today = day_of(now)
    done: list[tuple[datetime, Settled]] = []
    result = found.result
    known = result.first_found if result is not None else {}
    for login_id, found_at in known.items():
        card = found.cards.get(login_id)
        since_at = card.secret_since_at if card is not None else found_at
        if card is not None and since_at > found_at and day_of(since_at) == today:
            done.append((since_at, Settled(card.login_id, card.title, "a new secret")))
    # What came up without a check is in none: whether it stood against the secret before.
    seen = result.secrets_since if result is not None else {}
    before = [
        replace(card, secret_since_at=seen[one])
        for one, card in found.cards.items()
        if card.secret_since_at > now - _DAY
        and one not in known
        and seen.get(one, card.secret_since_at) < card.secret_since_at
        and day_of(card.secret_since_at) == today
    ]
    for one in came_up_before(vault, before, today):
        card = found.cards[one]
        done.append((card.secret_since_at, Settled(one, card.title, "a new secret")))
    if result is not None:
        left = to_set_right((*found.to_do, *found.accepted))
        done += [
            (at, Settled(one, found.cards[one].title, _MET[need]))
            for need, one, at in (*result.met, *met_since(result, left, found.cards))
            if one in found.cards and (need, one) not in left and day_of(at) == today
        ]
    for waiver in list_waivers(vault):
        card_of = found.cards.get(waiver.login_id)
        if card_of is not None and day_of(waiver.given_at) == today and waiver.holds(today):
            done.append((waiver.given_at, Settled(waiver.login_id, card_of.title, "accepted")))
    done.sort(key=lambda one: (one[0], one[1].login_id), reverse=True)
    return list(dict.fromkeys(one for _, one in done))
