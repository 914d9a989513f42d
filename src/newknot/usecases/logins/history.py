"""Earlier secrets of a login: kept, revealed, compared, restored, and deleted on purpose."""

from collections.abc import Collection, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.backup_codes import codes_of_text
from newknot.core.login import (
    BACKUP_CODES_FIELD,
    CODE_KEY_FIELD,
    EarlierSecret,
    LoginCard,
    Origin,
    SecondFactor,
    SecretField,
)
from newknot.core.rotation import OPEN_STATES, Rotation, RotationSecrets
from newknot.core.rotation.retention import past_retention
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.import_undo import forget_taken
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
from newknot.usecases.logins.superseding import (
    codes_superseded,
    fields_superseded,
    with_code_key,
)
from newknot.usecases.policies import NamedPolicies


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


def earlier_of(vault: Vault, login_id: str, earlier_id: str) -> EarlierSecret:
    """One entry of a login's history. Raises `NothingHeld`."""
    for entry in get_history(vault, login_id):
        if entry.earlier_id == earlier_id:
            return entry
    raise NothingHeld()


def restore_earlier(vault: Vault, login_id: str, earlier_id: str, *, now: datetime) -> LoginCard:
    """Puts a further field, the key of its codes or a set of backup codes back, each by its kind;
    the present one goes to the history.

    A login's own secret is restored by a rotation. Raises `NothingHeld` where the entry is one.
    """
    with vault.transaction() as tx:
        card = get_card(vault, login_id)
        earlier = earlier_of(vault, login_id, earlier_id)
        if not earlier.field or card.deleted_at is not None:
            raise NothingHeld()
        if earlier.field == CODE_KEY_FIELD:
            return _restore_code_key(tx, vault, card, earlier.secret, now)
        if earlier.field == BACKUP_CODES_FIELD:
            return _restore_codes(tx, vault, card, earlier, now)
        return _restore_field(tx, vault, card, earlier, now)


def _restore_code_key(
    tx: Transaction, vault: Vault, card: LoginCard, code_key: Secret, now: datetime
) -> LoginCard:
    held = get_secrets(vault, card.login_id)
    secrets = with_code_key(tx, vault, card.login_id, held, code_key, card.changed_at, now)
    factor = card.second_factor if card.second_factor.has_codes else SecondFactor.HERE
    card = replace(card, changed_at=now, second_factor=factor)
    put_card(tx, card)
    put_secrets(tx, card.login_id, secrets)
    return card


def _restore_codes(
    tx: Transaction, vault: Vault, card: LoginCard, earlier: EarlierSecret, now: datetime
) -> LoginCard:
    held, codes = get_secrets(vault, card.login_id), codes_of_text(earlier.secret.reveal())
    kept = (one for one in get_history(vault, card.login_id) if one != earlier)
    put_history(tx, card.login_id, tuple(kept))
    codes_superseded(tx, vault, card, held, codes, now=now)
    card = replace(card, changed_at=now)
    put_card(tx, card)
    put_secrets(tx, card.login_id, replace(held, backup_codes=codes))
    return card


def _restore_field(
    tx: Transaction, vault: Vault, card: LoginCard, earlier: EarlierSecret, now: datetime
) -> LoginCard:
    held = get_secrets(vault, card.login_id)
    fields = _with_field(held.fields, SecretField(earlier.field, earlier.secret, new_id()))
    since_at = card.changed_at
    fields_superseded(
        tx, vault, card.login_id, held.fields, fields, since_at=since_at, until_at=now
    )
    names = tuple(field.name for field in fields)
    card = replace(card, changed_at=now, secret_field_names=names)
    put_card(tx, card)
    put_secrets(tx, card.login_id, replace(held, fields=fields))
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


def history_past_retention(vault: Vault, *, now: datetime, steady: bool) -> dict[str, set[str]]:
    """Earlier secrets past the retention that the safeguards set, by login. steady: whether the
    clock is to be believed; while it is not, nothing is past its day.
    """
    keep_days = get_safeguards(vault).history_keep_days
    if not keep_days or not steady:
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


def delete_past_retention(vault: Vault, *, now: datetime, steady: bool) -> int:
    """Deletes all of them for good. Answers how many."""
    with vault.transaction() as tx:
        found = history_past_retention(vault, now=now, steady=steady)
        for login_id, gone in found.items():
            _let_go(tx, vault, login_id, gone)
    return sum(map(len, found.values()))


def _let_go(tx: Transaction, vault: Vault, login_id: str, gone: Collection[str]) -> None:
    kept = tuple(e for e in get_history(vault, login_id) if e.earlier_id not in gone)
    put_history(tx, login_id, kept)
    forget_taken(tx, vault, {login_id})
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
