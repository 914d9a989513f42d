"""Earlier secrets of a login: kept, revealed, compared, restored, and deleted on purpose."""

from collections.abc import Collection, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.login import EarlierSecret, LoginCard, Origin, SecretField
from newknot.core.rotation import OPEN_STATES, Rotation, RotationSecrets
from newknot.core.rotation.retention import past_retention
from newknot.core.strength import measure
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import (
    get_card,
    get_history,
    get_secrets,
    list_cards,
    put_card,
    put_history,
    put_secrets,
)
from newknot.store.policies import list_policies
from newknot.store.rotations import get_rotation_secrets, list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Transaction, Vault, new_id
from newknot.usecases.check.measuring import get_own_details, login_context
from newknot.usecases.errors import EarlierHeld, NothingHeld
from newknot.usecases.policies import NamedPolicies

OWN = Origin("own")


@dataclass(frozen=True, slots=True)
class Compared:
    """One secret of a login by what it is, not what it says. earlier_id None: the current one.

    shared_start, shared_end: how many characters it has in common with the current one.
    """

    earlier_id: str | None
    length: int
    guess_number_log10: float
    entropy_bits: float | None
    shared_start: int
    shared_end: int


def move_to_history(tx: Transaction, vault: Vault, login_id: str, earlier: EarlierSecret) -> None:
    """Adds one earlier secret at the end of a login's history, in place of one under its id."""
    history = get_history(vault, login_id)
    kept = (one for one in history if one.earlier_id != earlier.earlier_id)
    put_history(tx, login_id, (*kept, earlier))


def replaced_to_history(
    tx: Transaction, vault: Vault, login_id: str, earlier: EarlierSecret
) -> None:
    """Keeps a secret that served until now; nothing where it is empty."""
    if len(earlier.secret):
        move_to_history(tx, vault, login_id, earlier)


def settle_parted(tx: Transaction, vault: Vault, login_id: str, now: datetime) -> None:
    """A new secret is there: which of two copies' secrets holds is no question any more, and the
    other may have served until now.
    """
    history = get_history(vault, login_id)
    if any(one.parted for one in history):
        put_history(tx, login_id, tuple(_settled(one, now) for one in history))


def _settled(one: EarlierSecret, now: datetime) -> EarlierSecret:
    return replace(one, parted=False, until_at=max(one.since_at, now)) if one.parted else one


def fields_left(
    former: tuple[SecretField, ...], fields: tuple[SecretField, ...]
) -> list[SecretField]:
    """Secret fields whose value is no longer under their name."""
    return [one for one in former if one not in fields]


def earlier_of(vault: Vault, login_id: str, earlier_id: str) -> EarlierSecret:
    """One entry of a login's history. Raises `NothingHeld`."""
    for entry in get_history(vault, login_id):
        if entry.earlier_id == earlier_id:
            return entry
    raise NothingHeld()


def restore_field(vault: Vault, login_id: str, earlier_id: str, *, now: datetime) -> LoginCard:
    """Puts a further field back to an earlier value; the present one goes to the history.

    A login's own secret is restored by a rotation. Raises `NothingHeld` where the entry is one.
    """
    with vault.transaction() as tx:
        card = get_card(vault, login_id)
        earlier = earlier_of(vault, login_id, earlier_id)
        held = get_secrets(vault, login_id)
        if not earlier.field or card.deleted_at is not None:
            raise NothingHeld()
        fields = _with_field(held.fields, SecretField(earlier.field, earlier.secret, new_id()))
        for field in fields_left(held.fields, fields):
            replaced = EarlierSecret(
                field.secret_id, field.value, OWN, card.changed_at, now, True, field.name
            )
            replaced_to_history(tx, vault, login_id, replaced)
        names = tuple(field.name for field in fields)
        card = replace(card, changed_at=now, secret_field_names=names)
        put_card(tx, card)
        put_secrets(tx, login_id, replace(held, fields=fields))
    return card


def compare_history(vault: Vault, login_id: str) -> list[Compared]:
    """The current secret and each earlier one by length, guess number and what they share."""
    card = get_card(vault, login_id)
    context = (
        *login_context(title=card.title, user_name=card.user_name, address=card.address),
        *get_own_details(vault).lines,
    )
    held = get_secrets(vault, login_id)
    current = held.secret.reveal()
    rows: list[tuple[str | None, str, Origin]] = []
    if current:
        rows.append((None, current, held.origin))
    for earlier in get_history(vault, login_id):
        if not earlier.field:
            rows.append((earlier.earlier_id, earlier.secret.reveal(), earlier.origin))
    return [
        Compared(
            earlier_id,
            len(text),
            round(measure(text, context).guess_number_log10, 2),
            origin.entropy_bits,
            _shared(text, current),
            _shared(text[::-1], current[::-1]),
        )
        for earlier_id, text, origin in rows
    ]


def delete_earlier(vault: Vault, login_id: str, earlier_id: str) -> None:
    """Deletes one earlier secret for good. Raises `NothingHeld`, `EarlierHeld`."""
    with vault.transaction() as tx:
        earlier_of(vault, login_id, earlier_id)
        if earlier_id in _held_by_rotations(vault):
            raise EarlierHeld()
        _let_go(tx, vault, login_id, {earlier_id})


def history_past_retention(vault: Vault, *, now: datetime) -> dict[str, set[str]]:
    """Earlier secrets past the retention that the safeguards set, by login."""
    keep_days = get_safeguards(vault).history_keep_days
    if not keep_days:
        return {}
    policies = NamedPolicies(list_policies(vault))
    held = _held_by_rotations(vault)
    found: dict[str, set[str]] = {}
    for card in list_cards(vault)[0]:
        try:
            history = get_history(vault, card.login_id)
        except RecordDamaged:
            continue
        named = policies.of(card.address)
        depth = named.policy.history_depth if named is not None else 0
        past = past_retention(
            history, keep_days=keep_days, history_depth=depth or 0, held=held, now=now
        )
        if past:
            found[card.login_id] = {e.earlier_id for e in past}
    return found


def delete_past_retention(vault: Vault, *, now: datetime) -> int:
    """Deletes all of them for good. Answers how many."""
    with vault.transaction() as tx:
        found = history_past_retention(vault, now=now)
        for login_id, gone in found.items():
            _let_go(tx, vault, login_id, gone)
    return sum(map(len, found.values()))


def _let_go(tx: Transaction, vault: Vault, login_id: str, gone: Collection[str]) -> None:
    kept = tuple(e for e in get_history(vault, login_id) if e.earlier_id not in gone)
    put_history(tx, login_id, kept)
    card = get_card(vault, login_id)
    if card.parted_at is not None and not any(e.parted for e in kept):
        put_card(tx, replace(card, parted_at=None))


def _held_by_rotations(vault: Vault) -> Collection[str]:
    """The entries that the withdrawal of an accepted rotation would need."""
    held: set[str] = set()
    for rotation in list_rotations(vault):
        if rotation.state in OPEN_STATES:
            secrets = RotationSecrets(None, None)
            with suppress(RecordDamaged, RecordMissing):
                secrets = get_rotation_secrets(vault, rotation.rotation_id)
            held |= former_ids(rotation, secrets)
    return held


def former_ids(rotation: Rotation, held: RotationSecrets) -> set[str]:
    """The id of a rotation's former secret in the history; before secrets had one, that of the
    rotation.
    """
    former = held.former.secret_id if held.former is not None else ""
    return {former or rotation.rotation_id}


def _shared(text: str, other: str) -> int:
    for i, (a, b) in enumerate(zip(text, other, strict=False)):
        if a != b:
            return i
    return min(len(text), len(other))


def _with_field(former: Sequence[SecretField], field: SecretField) -> tuple[SecretField, ...]:
    """The fields with one set: in its place where the name is there, else at the end."""
    if any(one.name == field.name for one in former):
        return tuple(field if one.name == field.name else one for one in former)
    return (*former, field)
