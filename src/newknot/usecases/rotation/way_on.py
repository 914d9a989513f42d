"""After "not sure": which secret opens the site is found by sign-ins, and noted."""

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.address import domain_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard, Origin
from newknot.core.rotation import EventRefused, Rotation, RotationEvent, RotationState
from newknot.core.rotation.way_on import WayOnTrial, Which, next_trial, trials
from newknot.core.secret import Secret
from newknot.store.logins import get_secrets
from newknot.store.rotations import get_rotation, get_rotation_secrets, put_rotation_secrets
from newknot.store.vault import Vault, new_id
from newknot.usecases.errors import NothingHeld
from newknot.usecases.logins.logins import live_card
from newknot.usecases.policies import default_policy, policy_for, save_policy
from newknot.usecases.rotation.rotations import staged_to_history, take_event


@dataclass(frozen=True, slots=True)
class Held:
    """The two secrets of a rotation that is not sure, and what its site says it takes at most."""

    card: LoginCard
    new: Secret
    current: Secret
    longest: int | None

    def text(self, trial: WayOnTrial) -> Secret:
        """What is to be typed for a trial."""
        return Secret(trial.of(self.new.reveal(), self.current.reveal()))


def held_of(vault: Vault, rotation_id: str) -> Held:
    """Raises `EventRefused` where the rotation is not "not sure", `NothingHeld`."""
    rotation = get_rotation(vault, rotation_id)
    if rotation.state is not RotationState.UNSURE:
        raise EventRefused(state=rotation.state.value, event=RotationEvent.DOUBT.value)
    staged = get_rotation_secrets(vault, rotation_id).staged
    if staged is None:
        raise NothingHeld()
    card = live_card(vault, rotation.login_id)
    named = policy_for(vault, card.address)
    longest = named.policy.max_length if named is not None else None
    return Held(card, staged.secret, get_secrets(vault, rotation.login_id).secret, longest)


def next_of(held: Held, refused: Collection[WayOnTrial]) -> WayOnTrial | None:
    """The next trial; None where none is left: then only the site's own reset helps."""
    new, current = held.new.reveal(), held.current.reveal()
    return next_trial(new, current, refused, longest=held.longest)


def trial_text(held: Held, trial: WayOnTrial) -> Secret:
    """What is to be typed for it. Raises `FieldInvalid` where it is none of the trials."""
    new, current = held.new.reveal(), held.current.reveal()
    if trial not in trials(new, current, longest=held.longest):
        raise FieldInvalid("which", "is no trial of this rotation")
    return held.text(trial)


def opened(vault: Vault, rotation_id: str, trial: WayOnTrial, *, now: datetime) -> Rotation:
    """A trial opened the site. The old one: the site refused the new one. The new one, or a part of
    it: that is current and verified; of a part the site's policy learns what it is.
    """
    with vault.transaction() as tx:
        held = held_of(vault, rotation_id)
        text = trial_text(held, trial)
        if trial.which is Which.CURRENT:
            return take_event(vault, rotation_id, RotationEvent.REFUSE, now=now)
        if trial.is_part:
            secrets = get_rotation_secrets(vault, rotation_id)
            assert secrets.staged is not None
            # What was sent whole is kept, as one that never opened anything.
            staged_to_history(tx, vault, get_rotation(vault, rotation_id), secrets, now)
            part = replace(secrets.staged, secret=text, origin=Origin("own"), secret_id=new_id())
            put_rotation_secrets(tx, rotation_id, replace(secrets, staged=part))
            if trial.stores_first is not None:
                _learn_longest(vault, held.card, trial.stores_first, now=now)
        take_event(vault, rotation_id, RotationEvent.ACCEPT, now=now)
        return take_event(vault, rotation_id, RotationEvent.VERIFY, now=now)


def _learn_longest(vault: Vault, card: LoginCard, longest: int, *, now: datetime) -> None:
    """The site stores no more than that: nothing longer is to be drawn for it."""
    known, domain = policy_for(vault, card.address), domain_of(card.address)
    if not domain:
        return
    policy = known.policy if known is not None else default_policy()
    save_policy(
        vault,
        policy_id=known.policy_id if known is not None else None,
        name=known.name if known is not None else card.title,
        domains=known.domains if known is not None else (domain,),
        policy=replace(policy, max_length=longest, min_length=min(policy.min_length, longest)),
        source="form",
        now=now,
        offers_second_factor=known.offers_second_factor if known is not None else False,
    )
