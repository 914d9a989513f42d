"""Silent faults of a site, tried out by the user's own sign-ins, and learned by its policy."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from math import log10

from newknot.core.address import domain_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard
from newknot.core.policy import SitePolicy
from newknot.core.policy.kept_text import kept_says, kept_text
from newknot.core.rotation import EventRefused, RotationEvent, RotationState
from newknot.core.rotation.silent_faults import SilentFaults, Trial, Tried, next_trial, told
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.store.logins import get_secrets
from newknot.store.rotations import get_rotation
from newknot.store.vault import Vault
from newknot.usecases.check.measuring import get_own_details, login_context
from newknot.usecases.errors import NothingHeld
from newknot.usecases.logins.logins import live_card
from newknot.usecases.policies import default_policy, policy_for, save_policy

HOLDING = (RotationState.ACCEPTED, RotationState.VERIFIED)


@dataclass(frozen=True, slots=True)
class SiteWorth:
    """What the secret is worth at its site. says: what the site does to it, empty where nothing."""

    says: str
    guess_number_log10: float


@dataclass(frozen=True, slots=True)
class Standing:
    """How far the trials are: the next one, or None at the end; what they tell so far."""

    trial: Trial | None
    faults: SilentFaults
    worth: SiteWorth | None


def go_on(vault: Vault, rotation_id: str, tried: Sequence[Tried], *, now: datetime) -> Standing:
    """The next trial; at the end the site's policy learns what was found, and the worth is said.

    Raises `EventRefused` before the new secret holds, `NothingHeld`.
    """
    card, text = _holding(vault, rotation_id)
    trial = next_trial(text, tried)
    faults = told(text, tried)
    if trial is not None:
        return Standing(trial, faults, None)
    policy = learn_faults(vault, card, text, faults, now=now)
    return Standing(None, faults, site_worth(vault, card, text, policy))


def trial_secret(vault: Vault, rotation_id: str, trial: Trial) -> Secret:
    """What is to be typed for a trial. Raises as `go_on` does, `FieldInvalid`."""
    _, text = _holding(vault, rotation_id)
    if not 1 <= trial.characters <= len(text):
        raise FieldInvalid("characters", f"are not between 1 and {len(text)}")
    return Secret(trial.of(text))


def learn_faults(
    vault: Vault, card: LoginCard, text: str, faults: SilentFaults, *, now: datetime
) -> SitePolicy | None:
    """The site's policy with what was found; None where nothing was and none is known."""
    known = policy_for(vault, card.address)
    if faults.keeps_first is None and not faults.folds_case:
        return known.policy if known is not None else None
    domain = domain_of(card.address)
    if not domain:
        raise FieldInvalid("address", "is missing: a policy belongs to a site")
    held = known.policy if known is not None else _wide(len(text))
    policy = replace(held, keeps_first=faults.keeps_first, folds_case=faults.folds_case)
    save_policy(
        vault,
        policy_id=known.policy_id if known is not None else None,
        name=known.name if known is not None else card.title,
        domains=known.domains if known is not None else (domain,),
        policy=policy,
        source="form",
        now=now,
        offers_second_factor=known.offers_second_factor if known is not None else False,
    )
    return policy


def site_worth(vault: Vault, card: LoginCard, text: str, policy: SitePolicy | None) -> SiteWorth:
    """What a secret is worth once the site has done to it what it does."""
    context = (
        *login_context(title=card.title, user_name=card.user_name, address=card.address),
        *get_own_details(vault).lines,
    )
    worth = measure(kept_text(policy, text), context).guess_number_log10
    bits = get_secrets(vault, card.login_id).origin.entropy_bits
    if bits is not None:
        worth = min(worth, bits * log10(2)) if kept_says(policy, text) else bits * log10(2)
    return SiteWorth(kept_says(policy, text), round(worth, 2))


def _holding(vault: Vault, rotation_id: str) -> tuple[LoginCard, str]:
    rotation = get_rotation(vault, rotation_id)
    if rotation.state not in HOLDING:
        raise EventRefused(state=rotation.state.value, event=RotationEvent.VERIFY.value)
    text = get_secrets(vault, rotation.login_id).secret.reveal()
    if not text:
        raise NothingHeld()
    return live_card(vault, rotation.login_id), text


def _wide(length: int) -> SitePolicy:
    """What is drawn to elsewhere, to the length that was seen to be taken."""
    return replace(default_policy(), min_length=1, max_length=length)
