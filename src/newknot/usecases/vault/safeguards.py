"""The safeguards: read and change them at the server, where they are enforced."""

import os
from dataclasses import replace
from pathlib import Path
from typing import Any

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.safeguards import Safeguards
from newknot.outside.reaching import checked_service
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault

__all__ = ["change_safeguards", "get_safeguards"]


def change_safeguards(vault: Vault, wanted: Safeguards, *, own_port: int) -> Safeguards:
    """Writes the safeguards; the day of the last backup is not the user's to set, and
    the list of first steps is dismissed where it stands.

    Raises `FieldInvalid` where a service that is to be used has no address that can be.
    """
    with vault.transaction() as tx:
        held = get_safeguards(vault)
        fresh = replace(
            wanted,
            last_backup_at=held.last_backup_at,
            first_hour_over=held.first_hour_over,
            kept_out=_domains(wanted.kept_out),
        )
        place = wanted.backup_place.strip()
        if place:
            _require_folder(place)
        fresh = replace(fresh, backup_place=place)
        services: dict[str, Any] = {}
        for service in ("range", "feed", "mail"):
            field = f"{service}_address"
            address: str = getattr(wanted, field)
            if address.strip() or getattr(wanted, f"{service}_used"):
                checked = checked_service(address, field=field, own_port=own_port)
                services[field] = checked
        fresh = replace(fresh, **services)
        put_safeguards(tx, vault, fresh)
    return fresh


def _domains(places: tuple[str, ...]) -> tuple[str, ...]:
    """The sites of places as typed. Raises `FieldInvalid` naming the line."""
    found: set[str] = set()
    for i, place in enumerate(places):
        try:
            site = site_of(place)
        except FieldInvalid as error:
            raise FieldInvalid(f"kept_out.{i}", str(error.data["reason"])) from None
        if site is not None:
            found.add(site.domain)
    return tuple(sorted(found))


def _require_folder(place: str) -> None:
    folder = Path(place)
    if not folder.is_absolute():
        raise FieldInvalid("backup_place", "is not the whole path of a folder")
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError as error:
        raise FieldInvalid("backup_place", f"cannot be used: {error.strerror}") from None
    if not os.access(folder, os.W_OK):
        raise FieldInvalid("backup_place", "cannot be written to")
