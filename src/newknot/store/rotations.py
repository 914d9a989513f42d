"""Rotations as sealed records: state and steps apart from the secrets."""

from datetime import datetime
from functools import partial
from typing import Any

from newknot.core.rotation import (
    OPEN_STATES,
    HeldSecret,
    Rotation,
    RotationEvent,
    RotationSecrets,
    RotationState,
    RotationStep,
)
from newknot.core.secret import Secret
from newknot.store.errors import RecordDamaged
from newknot.store.logins import origin_document, origin_of
from newknot.store.manifest import Label
from newknot.store.record_json import iso, moment, packed, unpacked
from newknot.store.vault import CARD, SECRETS, Transaction, Vault


def put_rotation(tx: Transaction, rotation: Rotation) -> None:
    """Writes state and steps."""
    document = {
        "login_id": rotation.login_id,
        "state": rotation.state.value,
        "began_at": iso(rotation.began_at),
        "changed_at": iso(rotation.changed_at),
        "steps": [[step.event.value, iso(step.at)] for step in rotation.steps],
        "refusal": rotation.refusal,
        "current_copied_at": iso(rotation.current_copied_at),
        "is_sign_up": rotation.is_sign_up,
        "placed_at": iso(rotation.placed_at),
    }
    tx.put(Label.ROTATION, rotation.rotation_id, packed(document), decoded=rotation)


def get_rotation(vault: Vault, rotation_id: str) -> Rotation:
    """One rotation. Raises `RecordMissing`, `RecordDamaged`."""
    return vault.decoded(Label.ROTATION, rotation_id, CARD, partial(_rotation_of, rotation_id))


def _rotation_of(rotation_id: str, text: bytes) -> Rotation:
    d = unpacked(text)
    return Rotation(
        rotation_id=rotation_id,
        login_id=d["login_id"],
        state=RotationState(d["state"]),
        began_at=datetime.fromisoformat(d["began_at"]),
        changed_at=datetime.fromisoformat(d["changed_at"]),
        steps=tuple(
            RotationStep(RotationEvent(event), datetime.fromisoformat(at))
            for event, at in d["steps"]
        ),
        refusal=d["refusal"],
        current_copied_at=moment(d["current_copied_at"]),
        is_sign_up=d.get("is_sign_up", False),
        placed_at=moment(d.get("placed_at")),
    )


def list_rotations(vault: Vault) -> list[Rotation]:
    """All readable rotations, newest first."""
    found: list[Rotation] = []
    for rotation_id in vault.ids(Label.ROTATION):
        try:
            found.append(get_rotation(vault, rotation_id))
        except RecordDamaged:
            continue
    return sorted(found, key=lambda r: r.place, reverse=True)


def open_rotations(vault: Vault) -> dict[str, str]:
    """login_id -> rotation_id of those that are under way."""
    open_ones = [one for one in list_rotations(vault) if one.state in OPEN_STATES]
    return {one.login_id: one.rotation_id for one in reversed(open_ones)}


def put_rotation_secrets(tx: Transaction, rotation_id: str, secrets: RotationSecrets) -> None:
    """Writes the staged and the former secret."""
    document = {"staged": _document(secrets.staged), "former": _document(secrets.former)}
    tx.put(Label.ROTATION, rotation_id, packed(document), part=SECRETS)


def get_rotation_secrets(vault: Vault, rotation_id: str) -> RotationSecrets:
    """The staged and the former secret. Raises `RecordMissing`, `RecordDamaged`."""
    d = unpacked(vault.get(Label.ROTATION, rotation_id, SECRETS))
    return RotationSecrets(_held(d["staged"]), _held(d["former"]))


def remove_rotation(tx: Transaction, rotation_id: str) -> None:
    """Deletes a rotation with its secrets. Raises `RecordMissing`."""
    tx.remove(Label.ROTATION, rotation_id)


def _document(held: HeldSecret | None) -> dict[str, Any] | None:
    if held is None:
        return None
    return {
        "secret": held.secret.reveal(),
        "origin": origin_document(held.origin),
        "since_at": iso(held.since_at),
        "secret_id": held.secret_id,
    }


def _held(d: dict[str, Any] | None) -> HeldSecret | None:
    if d is None:
        return None
    since_at = datetime.fromisoformat(d["since_at"])
    return HeldSecret(Secret(d["secret"]), origin_of(d["origin"]), since_at, d.get("secret_id", ""))
