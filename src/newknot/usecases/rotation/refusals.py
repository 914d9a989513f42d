"""A refusal that teaches: the site's policy learns why, and a new secret is there at once."""

from datetime import datetime

from newknot.core.address import domain_of
from newknot.core.errors import FieldInvalid
from newknot.core.generate import RandomSource
from newknot.core.policy import Lesson, NamedPolicy, taught
from newknot.core.rotation import Rotation, RotationEvent
from newknot.store.rotations import get_rotation
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import live_card
from newknot.usecases.policies import default_policy, policy_for, save_policy
from newknot.usecases.rotation.rotations import StageWish, stage_again, take_event


def learn_refusal(
    vault: Vault, rotation_id: str, lesson: Lesson, *, random: RandomSource, now: datetime
) -> tuple[Rotation, NamedPolicy]:
    """The rotation with another secret staged to the policy as it is now, all in one step.

    Raises `FieldInvalid` where the lesson says nothing or the login has no site, the errors of a
    draw where nothing would satisfy the policy, and `EventRefused`; nothing changes then.
    """
    with vault.transaction():
        card = live_card(vault, get_rotation(vault, rotation_id).login_id)
        domain = domain_of(card.address)
        if not domain:
            raise FieldInvalid("address", "is missing: a policy belongs to a site")
        known = policy_for(vault, card.address)
        named = save_policy(
            vault,
            policy_id=known.policy_id if known is not None else None,
            name=known.name if known is not None else card.title,
            domains=known.domains if known is not None else (domain,),
            policy=taught(known.policy if known is not None else default_policy(), lesson),
            source="refusal",
            now=now,
            offers_second_factor=known.offers_second_factor if known is not None else False,
        )
        said = lesson.text or lesson.kind.value.replace("_", " ")
        take_event(vault, rotation_id, RotationEvent.REFUSE, refusal=said[:300], now=now)
        rotation = stage_again(vault, rotation_id, StageWish(), random=random, now=now)
    return rotation, named
