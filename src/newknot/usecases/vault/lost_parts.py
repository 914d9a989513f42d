"""Going on without what is lost: what cannot be read is let go of, and nothing else."""

from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Literal, TypeVar

from newknot.core.login import Importance, LoginCard, LoginSecrets, Origin, SecondFactor
from newknot.core.loose_end import LooseEnd
from newknot.core.merging.stamps import unstamped
from newknot.core.rotation import OPEN_STATES, RotationSecrets
from newknot.core.secret import Secret
from newknot.store.campaigns import list_campaigns, put_campaign
from newknot.store.copies import unreadable_of
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import (
    get_card,
    get_secrets,
    list_cards,
    put_card,
    put_history,
    put_secrets,
)
from newknot.store.loose_ends import get_loose_secret, put_loose_end
from newknot.store.manifest import Key, Label
from newknot.store.record_json import packed
from newknot.store.rotations import (
    get_rotation,
    get_rotation_secrets,
    list_rotations,
    put_rotation,
    put_rotation_secrets,
)
from newknot.store.vault import HISTORY, Transaction, Vault, new_id
from newknot.store.waivers import list_waivers, put_waiver
from newknot.usecases.logins.superseding import OWN
from newknot.usecases.vault.reading_through import said

Became = Literal["new_card", "without_secret", "without_history", "loose_end", "gone"]
NEW_TITLE = "Login without its card"
"""What a login is called of which only the secrets could be read."""
Read = TypeVar("Read")


@dataclass(frozen=True, slots=True)
class LostPart:
    """One record as it was named, and what became of it: new_card, without_secret,
    without_history, loose_end (its secrets are kept as such), or gone.
    """

    named: str
    became: Became


def go_on_without_lost(vault: Vault, *, now: datetime) -> list[LostPart]:
    """All of a login that can be read stays: one whose card is lost goes on under a new one, and a
    secret that its record can no longer place is a loose end, so that each can be reached.

    Nothing is noted as deleted: a backup, or another copy, still brings it back.
    """
    lost: dict[str, list[Key]] = {}
    found: list[LostPart] = []
    with vault.transaction() as tx:
        # Within it, so that nothing comes back between the look and the act.
        for key in sorted(unreadable_of(vault)):
            lost.setdefault(key[0].hex(), []).append(key)
        for record_id, keys in lost.items():
            label = next((e.label for key in keys if (e := vault.entry(key))), None)
            named = said(vault, keys[0], label)
            if label is Label.LOGIN:
                became = _mend_login(tx, vault, record_id, now)
            else:
                became = _let_go(tx, vault, label, record_id, keys, now)
            found.append(LostPart(named, became))
    return found


def _mend_login(tx: Transaction, vault: Vault, login_id: str, now: datetime) -> Became:
    """Where more than its history is lost, what can be read goes on as another login: so the one
    that comes back from elsewhere never stands against what was put in its place.
    """
    card = _read(lambda: get_card(vault, login_id))
    secrets = _read(lambda: get_secrets(vault, login_id))
    if card is not None and secrets is not None:
        put_history(tx, login_id, ())
        put_card(tx, replace(card, texts_apart=(), parted_at=None))
        return "without_history"
    history = unstamped(tx.document(Label.LOGIN, login_id, HISTORY))
    fresh = new_id()
    if history is not None:
        tx.put(Label.LOGIN, fresh, packed(history), part=HISTORY)
    became: Became = "new_card" if card is None else "without_secret"
    card = card or _new_card(login_id, now, since_at=_since(history, now))
    secrets = secrets or LoginSecrets(Secret(""), OWN)
    put_secrets(tx, fresh, secrets)
    card = replace(
        card,
        login_id=fresh,
        has_secret=len(secrets.secret) > 0,
        secret_field_names=tuple(field.name for field in secrets.fields),
        second_factor=_second_factor(card.second_factor, has_codes=len(secrets.code_key) > 0),
    )
    # What two copies differed in was in the history.
    put_card(tx, card if history else replace(card, texts_apart=(), parted_at=None))
    tx.remove(Label.LOGIN, login_id, noted=False)
    _point_to(tx, vault, login_id, fresh)
    return became


def _since(history: dict[str, Any] | None, now: datetime) -> datetime:
    """Since when a secret stands that followed upon these; unknown, it is taken for new."""
    ends = [datetime.fromisoformat(entry[4]) for entry in (history or {}).get("earlier", ())]
    return max(ends, default=now)


def _point_to(tx: Transaction, vault: Vault, login_id: str, fresh: str) -> None:
    """What was of the one login is of the other."""
    for other in list_cards(vault)[0]:
        if other.resets_by == login_id:
            put_card(tx, replace(other, resets_by=fresh))
    for rotation in list_rotations(vault):
        if rotation.login_id == login_id:
            put_rotation(tx, replace(rotation, login_id=fresh))
    for campaign in list_campaigns(vault):
        if login_id in campaign.login_ids:
            ids = (fresh if one == login_id else one for one in campaign.login_ids)
            put_campaign(tx, replace(campaign, login_ids=tuple(ids)))
    for waiver in list_waivers(vault):
        if waiver.login_id == login_id:
            put_waiver(tx, replace(waiver, login_id=fresh))


def _second_factor(said_of_it: SecondFactor, *, has_codes: bool) -> SecondFactor:
    if has_codes:
        return said_of_it if said_of_it.has_codes else SecondFactor.HERE
    return SecondFactor.NONE if said_of_it.has_codes else said_of_it


def _new_card(login_id: str, now: datetime, *, since_at: datetime) -> LoginCard:
    return LoginCard(
        login_id=login_id,
        title=f"{NEW_TITLE} {login_id[:8]}",
        user_name="",
        address="",
        notes="",
        fields=(),
        secret_field_names=(),
        folder="",
        owner="",
        tags=(),
        importance=Importance.NORMAL,
        expires_on=None,
        resets_by=None,
        created_at=since_at,
        changed_at=now,
        secret_since_at=since_at,
        has_secret=False,
    )


def _let_go(
    tx: Transaction,
    vault: Vault,
    label: Label | None,
    record_id: str,
    keys: list[Key],
    now: datetime,
) -> Became:
    if label is None:
        tx.remove_unknown(keys)
        return "gone"
    if label is Label.ROTATION and _has_ended(vault, record_id):
        put_rotation_secrets(tx, record_id, RotationSecrets(None, None))
        return "without_secret"
    kept: list[tuple[Secret, Origin]] = []
    with suppress(RecordDamaged, RecordMissing, ValueError):
        if label is Label.LOOSE_END:
            kept.append(get_loose_secret(vault, record_id))
        elif label is Label.ROTATION:
            both = get_rotation_secrets(vault, record_id)
            kept.extend((one.secret, one.origin) for one in (both.staged, both.former) if one)
    tx.remove(label, record_id, noted=False)
    for secret, origin in kept:
        put_loose_end(tx, LooseEnd(new_id(), now, "", len(secret)), secret, origin)
    return "loose_end" if kept else "gone"


def _has_ended(vault: Vault, rotation_id: str) -> bool:
    """Its steps can be read, and need no secret any more."""
    rotation = _read(lambda: get_rotation(vault, rotation_id))
    return rotation is not None and rotation.state not in OPEN_STATES


def _read(read: Callable[[], Read]) -> Read | None:
    try:
        return read()
    except (RecordDamaged, RecordMissing, ValueError):
        return None
