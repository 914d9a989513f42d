"""Shapes made from what use cases answer, where more than one router needs them."""

from datetime import date, datetime

from newknot.api.deps import Work
from newknot.api.schemas.logins.logins import LoginRow, SecretIn
from newknot.core.address import domain_of
from newknot.core.audit.changed_since import guesses_of
from newknot.core.audit.finding import FindingKind
from newknot.core.audit.overdue import overdue_of
from newknot.core.audit.waiver import Waiver
from newknot.core.calendar_day import day_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard, Origin
from newknot.core.rotation.due import Due, due_on, how_due, own_day
from newknot.core.secret import Secret
from newknot.store.policies import list_policies
from newknot.store.rotations import open_rotations
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers
from newknot.usecases.check.checks import get_check
from newknot.usecases.logins.logins import NewSecret
from newknot.usecases.logins.loose_ends import list_loose_ends, loose_secret
from newknot.usecases.policies import NamedPolicies


class RowMaker:
    """Rows of logins, with what the last check and the open rotations say of each."""

    def __init__(self, vault: Vault, *, now: datetime) -> None:
        self._today = day_of(now)
        self._policies = NamedPolicies(list_policies(vault))
        self._result = get_check(vault)
        self._accepted: dict[str, list[Waiver]] = {}
        for waiver in list_waivers(vault):
            if waiver.kind is FindingKind.OVERDUE and waiver.holds(self._today):
                self._accepted.setdefault(waiver.login_id, []).append(waiver)
        self.rotation_ids = open_rotations(vault)

    def guess_number_log10(self, card: LoginCard) -> float | None:
        """As of the last check, unless the secret changed since."""
        return guesses_of(card, self._result) if self._result is not None else None

    def row(self, card: LoginCard) -> LoginRow:
        """One row of a list."""
        return LoginRow(**self.values(card))

    def due(self, card: LoginCard) -> tuple[date | None, Due | None]:
        """On which day its secret is due, and how near that is; none where that was accepted."""
        named = self._policies.of(card.address)
        age = named.policy.max_age_days if named is not None else None
        day = due_on(own_day(card), card.secret_since_at, age) if card.has_secret else None
        return day, None if self._is_accepted(card, age) else how_due(day, self._today)

    def values(self, card: LoginCard) -> dict[str, object]:
        """The fields of a row, by name."""
        day, due = self.due(card)
        return {
            "login_id": card.login_id,
            "title": card.title,
            "user_name": card.user_name,
            "address": card.address,
            "domain": domain_of(card.address),
            "folder": card.folder,
            "owner": card.owner,
            "tags": list(card.tags),
            "importance": card.importance,
            "expires_on": card.expires_on,
            "expires_answered": card.expires_on is not None and own_day(card) is None,
            "has_secret": card.has_secret,
            "secret_since_at": card.secret_since_at,
            "deleted_at": card.deleted_at,
            "guess_number_log10": self.guess_number_log10(card),
            "second_factor": card.second_factor,
            "driven": card.driven,
            "due_on": day,
            "due": due,
            "rotation_id": self.rotation_ids.get(card.login_id),
        }

    def _is_accepted(self, card: LoginCard, age: int | None) -> bool:
        """Whether that its day is over was accepted, on what it rests on now."""
        waivers = self._accepted.get(card.login_id)
        if not waivers:
            return False
        since = card.secret_since_at
        found = overdue_of(
            card.login_id,
            expires_on=own_day(card),
            since_at=since,
            max_age_days=age,
            today=self._today,
        )
        return found is not None and any(
            one.covers(found, secret_since_at=since, today=self._today) for one in waivers
        )


def new_secret_of(body: SecretIn | None, work: Work) -> NewSecret | None:
    """The secret that a request names. Raises `FieldInvalid` unless it names exactly one."""
    if body is None:
        return None
    given = [v for v in (body.own, body.draw_id, body.loose_end_id) if v is not None]
    if len(given) != 1:
        raise FieldInvalid("secret", "names not exactly one secret")
    if body.own is not None:
        return NewSecret(Secret(body.own.get_secret_value()), Origin("own"))
    if body.loose_end_id is not None:
        return loose_secret(work.vault, body.loose_end_id)
    assert body.draw_id is not None
    drawn = work.keeper.draws.get(body.draw_id)
    kept = {one.loose_end_id for one in list_loose_ends(work.vault)}
    loose_end_id = drawn.draw_id if drawn.draw_id in kept else None
    return NewSecret(drawn.secret, drawn.facts.origin, loose_end_id)
