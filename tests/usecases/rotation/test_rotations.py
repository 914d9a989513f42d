"""Whatever happens in whatever order, every secret that ever was is still in the vault."""

from datetime import UTC, datetime, timedelta
from pathlib import Path

from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.errors import NewKnotError
from newknot.core.login import Origin
from newknot.core.rotation import OPEN_STATES, RotationEvent
from newknot.core.secret import Secret
from newknot.edge import SystemRandom
from newknot.store.logins import get_history, get_secrets
from newknot.store.rotations import get_rotation, get_rotation_secrets, list_rotations
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, edit_login
from newknot.usecases.rotation.rotations import (
    StageWish,
    begin_rotation,
    hand_out,
    stage_again,
    take_event,
)
from tests.conftest import CHEAP, PASSPHRASE

AT = datetime(2026, 11, 25, tzinfo=UTC)
ACTS = st.lists(st.sampled_from([*RotationEvent, "begin", "edit", "reopen"]), max_size=14)


def held(vault: Vault, login_id: str) -> set[str]:
    """Every secret that the vault still has for a login."""
    found = {get_secrets(vault, login_id).secret.reveal()}
    found |= {e.secret.reveal() for e in get_history(vault, login_id)}
    for rotation in list_rotations(vault):
        both = get_rotation_secrets(vault, rotation.rotation_id)
        found |= {h.secret.reveal() for h in (both.staged, both.former) if h is not None}
    return found


@settings(max_examples=60, deadline=None)
@given(ACTS)
def test_no_order_of_events_loses_a_secret(
    tmp_path_factory: object, acts: list[RotationEvent | str]
) -> None:
    folder: Path = tmp_path_factory.mktemp("rotations")  # type: ignore[attr-defined]
    path, state = folder / "own.vault", folder / "state"
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=CHEAP, state_folder=state)
    first = NewSecret(Secret("the first"), Origin("own"))
    login_id = add_login(vault, LoginDraft("Gantry"), first, now=AT).login_id
    ever = {"the first"}
    rotation_id = begin_rotation(
        vault, login_id, StageWish(), random=SystemRandom(), now=AT
    ).rotation_id
    for step, act in enumerate(acts):
        now = AT + timedelta(minutes=step)
        ever |= held(vault, login_id)
        try:
            if act == "begin":
                begun = begin_rotation(vault, login_id, StageWish(), random=SystemRandom(), now=now)
                rotation_id = begun.rotation_id
            elif act == "edit":
                own = NewSecret(Secret(f"own {step}"), Origin("own"))
                edit_login(vault, login_id, LoginDraft("Gantry"), own, now=now)
            elif act == "reopen":
                vault.close()
                vault = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
            elif act is RotationEvent.STAGE:
                stage_again(vault, rotation_id, StageWish(), random=SystemRandom(), now=now)
            elif act is RotationEvent.HAND_OUT:
                _, secret = hand_out(vault, rotation_id, now=now)
                ever.add(secret.reveal())
            else:
                take_event(vault, rotation_id, RotationEvent(act), now=now)
        except NewKnotError:
            pass
        assert ever <= held(vault, login_id), act
        assert sum(r.state in OPEN_STATES for r in list_rotations(vault)) <= 1
        assert get_rotation(vault, rotation_id)
    vault.close()
