"""Rotations: each event is on disk, with the secrets it moves, before its effect is shown."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.generate import PasswordSpace, RandomSource
from newknot.core.login import (
    EarlierSecret,
    Origin,
    checked_secret_text,
    checked_text,
    renewed,
)
from newknot.core.place_in_time import place_after
from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.core.rotation import (
    OPEN_STATES,
    HeldSecret,
    Rotation,
    RotationEvent,
    RotationSecrets,
    RotationState,
    RotationStep,
    SecretBreaksPolicy,
    SecretRepeats,
    after,
    require_forgotten,
    require_new,
)
from newknot.core.secret import Secret
from newknot.store.logins import get_history, get_secrets, put_card, put_history, put_secrets
from newknot.store.loose_ends import remove_loose_end
from newknot.store.rotations import (
    get_rotation,
    get_rotation_secrets,
    list_rotations,
    put_rotation,
    put_rotation_secrets,
)
from newknot.store.vault import Transaction, Vault, new_id
from newknot.usecases.drawing.drawing import best_length
from newknot.usecases.errors import NothingHeld, RotationOpen
from newknot.usecases.logins.history import earlier_of, former_ids
from newknot.usecases.logins.logins import NewSecret, live_card, open_rotation_id
from newknot.usecases.logins.superseding import settle_parted, superseded
from newknot.usecases.policies import default_policy, policy_for

__all__ = ["OPEN_STATES", "get_rotation", "list_rotations"]

ROTATED_LENGTH = 20
DRAWS_MOST = 30


@dataclass(frozen=True, slots=True)
class StageWish:
    """How the new secret is to be made: drawn to a policy and length, given, or an earlier one of
    the login restored on purpose.
    """

    length: int | None = None
    policy: SitePolicy | None = None
    given: NewSecret | None = None
    earlier_id: str | None = None


def login_of(vault: Vault, rotation_id: str) -> str:
    """The login that a rotation is of. Raises `RecordMissing`."""
    return get_rotation(vault, rotation_id).login_id


def begin_rotation(
    vault: Vault, login_id: str, wish: StageWish, *, random: RandomSource, now: datetime
) -> Rotation:
    """A rotation with its new secret staged; the one under way where there is one, unless an
    earlier secret is to be restored (`RotationOpen`).

    A given secret is refused where it repeats an earlier one (`SecretRepeats`) or breaks the policy
    of the site (`SecretBreaksPolicy`).
    """
    with vault.transaction() as tx:
        card = live_card(vault, login_id)
        known = open_rotation_id(vault, login_id)
        if known is not None:
            if wish.earlier_id is not None:
                raise RotationOpen()
            return get_rotation(vault, known)
        rotation = Rotation(
            new_id(),
            login_id,
            RotationState.PLANNED,
            now,
            now,
            (),
            is_sign_up=not card.has_secret,
            placed_at=place_after(now, (one.place[0] for one in list_rotations(vault))),
        )
        return _stage(tx, vault, rotation, wish, RotationSecrets(None, None), random, now)


def stage_again(
    vault: Vault, rotation_id: str, wish: StageWish, *, random: RandomSource, now: datetime
) -> Rotation:
    """Another new secret; the one staged before goes to the history, marked never used."""
    with vault.transaction() as tx:
        rotation = get_rotation(vault, rotation_id)
        after(rotation.state, RotationEvent.STAGE)
        held = get_rotation_secrets(vault, rotation_id)
        staged_to_history(tx, vault, rotation, held, now)
        return _stage(tx, vault, rotation, wish, held, random, now)


def hand_out(vault: Vault, rotation_id: str, *, now: datetime) -> tuple[Rotation, Secret]:
    """The staged secret, once it is noted that it went out. Raises `NothingHeld`."""
    with vault.transaction() as tx:
        rotation = get_rotation(vault, rotation_id)
        held = get_rotation_secrets(vault, rotation_id)
        if held.staged is None:
            raise NothingHeld()
        rotation = _step(tx, rotation, RotationEvent.HAND_OUT, now)
    return rotation, held.staged.secret


def current_of(vault: Vault, rotation_id: str, *, now: datetime) -> tuple[Rotation, Secret]:
    """The login's current secret, for the site's form. Raises `NothingHeld`."""
    with vault.transaction() as tx:
        rotation = replace(get_rotation(vault, rotation_id), current_copied_at=now)
        secret = get_secrets(vault, rotation.login_id).secret
        if not len(secret):
            raise NothingHeld()
        put_rotation(tx, rotation)
    return rotation, secret


def former_of(vault: Vault, rotation_id: str) -> Secret:
    """The old secret after the new one was accepted: one key away until it is verified."""
    held = get_rotation_secrets(vault, rotation_id)
    if held.former is None:
        raise NothingHeld()
    return held.former.secret


def take_event(
    vault: Vault, rotation_id: str, event: RotationEvent, *, refusal: str = "", now: datetime
) -> Rotation:
    """Any event but staging and handing out. Raises `EventRefused` and then changes nothing."""
    reason = checked_text(refusal, field="refusal")
    with vault.transaction() as tx:
        rotation = get_rotation(vault, rotation_id)
        after(rotation.state, event)
        held = get_rotation_secrets(vault, rotation_id)
        if event is RotationEvent.ACCEPT:
            _accept(tx, vault, rotation, held, now)
        elif event is RotationEvent.WITHDRAW:
            _withdraw(tx, vault, rotation, held, now)
        elif event is RotationEvent.GIVE_UP:
            staged_to_history(tx, vault, rotation, held, now)
            put_rotation_secrets(tx, rotation_id, RotationSecrets(None, held.former))
        elif event is RotationEvent.VERIFY:
            put_rotation_secrets(tx, rotation_id, RotationSecrets(None, None))
        if event is RotationEvent.REFUSE:
            rotation = replace(rotation, refusal=reason)
        return _step(tx, rotation, event, now)


def _stage(
    tx: Transaction,
    vault: Vault,
    rotation: Rotation,
    wish: StageWish,
    held: RotationSecrets,
    random: RandomSource,
    now: datetime,
) -> Rotation:
    card = live_card(vault, rotation.login_id)
    current = get_secrets(vault, rotation.login_id).secret
    history = get_history(vault, rotation.login_id)
    named = policy_for(vault, card.address)
    if wish.earlier_id is not None:
        earlier = earlier_of(vault, rotation.login_id, wish.earlier_id)
        if earlier.field:
            raise NothingHeld()
        secret, origin = earlier.secret, earlier.origin
        require_new(secret, current, (), also_like=False)
        depth = named.policy.history_depth if named is not None else None
        # The current one is the first of those that the site remembers.
        require_forgotten(secret, history, depth=(depth or 1) - 1)
        _require_allowed(named, secret)
    elif wish.given is not None:
        checked_secret_text(wish.given.secret.reveal(), field="secret")
        secret, origin = wish.given.secret, wish.given.origin
        require_new(secret, current, history, also_like=True)
        _require_allowed(named, secret)
        if wish.given.loose_end_id is not None:
            remove_loose_end(tx, wish.given.loose_end_id)
    else:
        policy = wish.policy or (named.policy if named is not None else default_policy())
        length = wish.length or best_length(policy, wished=ROTATED_LENGTH)
        space = PasswordSpace(policy, length)
        secret = _drawn(space, current, history, random)
        origin = Origin("drawn", space.entropy_bits)
    staged = HeldSecret(secret, origin, now, new_id())
    put_rotation_secrets(tx, rotation.rotation_id, RotationSecrets(staged, held.former))
    return _step(tx, replace(rotation, refusal=""), RotationEvent.STAGE, now)


def _require_allowed(named: NamedPolicy | None, secret: Secret) -> None:
    broken = named.policy.violations(secret.reveal()) if named is not None else []
    if named is not None and broken:
        raise SecretBreaksPolicy(policy=named.name, says=broken[0].says)


def _drawn(
    space: PasswordSpace, current: Secret, history: Sequence[EarlierSecret], random: RandomSource
) -> Secret:
    """A draw that the login did not have before: of a small space the same one can come again."""
    for left in reversed(range(DRAWS_MOST)):
        secret = Secret(space.draw(random))
        try:
            require_new(secret, current, history, also_like=False)
            return secret
        except SecretRepeats:
            if not left:
                raise
    raise AssertionError


def _accept(
    tx: Transaction, vault: Vault, rotation: Rotation, held: RotationSecrets, now: datetime
) -> None:
    """The staged secret becomes current, the old one goes to the history with both dates."""
    if held.staged is None:
        raise NothingHeld()
    card = live_card(vault, rotation.login_id)
    current = get_secrets(vault, rotation.login_id)
    former = None
    if len(current.secret):
        former = HeldSecret(current.secret, current.origin, card.secret_since_at, current.secret_id)
        _superseded(tx, vault, rotation.login_id, former, now, used=True)
    settle_parted(tx, vault, rotation.login_id, now)
    fresh = replace(
        current,
        secret=held.staged.secret,
        origin=held.staged.origin,
        secret_id=held.staged.secret_id or new_id(),
    )
    put_secrets(tx, rotation.login_id, fresh)
    put_card(tx, replace(renewed(card, now), changed_at=now))
    put_rotation_secrets(tx, rotation.rotation_id, RotationSecrets(None, former))


def _withdraw(
    tx: Transaction, vault: Vault, rotation: Rotation, held: RotationSecrets, now: datetime
) -> None:
    """The new secret did not open the site after all: the old one is current again, both kept."""
    card = live_card(vault, rotation.login_id)
    current = get_secrets(vault, rotation.login_id)
    staged = HeldSecret(current.secret, current.origin, card.secret_since_at, current.secret_id)
    former = held.former
    if former is None:
        former = HeldSecret(Secret(""), Origin("own"), now)
    secret_id = former.secret_id or (new_id() if len(former.secret) else "")
    put_secrets(
        tx,
        rotation.login_id,
        replace(current, secret=former.secret, origin=former.origin, secret_id=secret_id),
    )
    put_card(
        tx,
        replace(
            card,
            secret_since_at=former.since_at,
            changed_at=now,
            has_secret=len(former.secret) > 0,
        ),
    )
    history = get_history(vault, rotation.login_id)
    again = former_ids(rotation, held)
    kept = tuple(entry for entry in history if entry.earlier_id not in again)
    put_history(tx, rotation.login_id, kept)
    put_rotation_secrets(tx, rotation.rotation_id, RotationSecrets(staged, None))


def staged_to_history(
    tx: Transaction, vault: Vault, rotation: Rotation, held: RotationSecrets, now: datetime
) -> None:
    """What was staged goes to the history, as one that was never used."""
    if held.staged is not None:
        _superseded(tx, vault, rotation.login_id, held.staged, now, used=False)


def _superseded(
    tx: Transaction, vault: Vault, login_id: str, one: HeldSecret, now: datetime, *, used: bool
) -> None:
    superseded(
        tx,
        vault,
        login_id,
        one.secret,
        one.origin,
        secret_id=one.secret_id,
        since_at=one.since_at,
        until_at=now,
        used=used,
    )


def _step(tx: Transaction, rotation: Rotation, event: RotationEvent, now: datetime) -> Rotation:
    changed = replace(
        rotation,
        state=after(rotation.state, event),
        changed_at=now,
        steps=(*rotation.steps, RotationStep(event, now)),
    )
    put_rotation(tx, changed)
    return changed
