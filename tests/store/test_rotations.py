"""A rotation comes back as it was put."""

from newknot.core.rotation import (
    HeldSecret,
    Rotation,
    RotationEvent,
    RotationSecrets,
    RotationState,
    RotationStep,
)
from newknot.core.secret import Secret
from newknot.store import rotations
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, DRAWN, ODD


def test_a_rotation_and_its_secrets(vault: Vault) -> None:
    steps = (RotationStep(RotationEvent.STAGE, AT), RotationStep(RotationEvent.HAND_OUT, AT))
    rotation = Rotation(
        new_id(), new_id(), RotationState.AT_SITE, AT, AT, steps, refusal=ODD, current_copied_at=AT
    )
    held = RotationSecrets(HeldSecret(Secret("new"), DRAWN, AT), None)
    with vault.transaction() as tx:
        rotations.put_rotation(tx, rotation)
        rotations.put_rotation_secrets(tx, rotation.rotation_id, held)
    assert rotations.list_rotations(vault) == [rotation]
    assert rotations.get_rotation_secrets(vault, rotation.rotation_id) == held
