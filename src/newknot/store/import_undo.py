"""What came in last and how it was before, as one sealed record: an undo outlives a lock."""

from collections.abc import Collection
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from newknot.core.merging.stamps import unstamped
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import CARD, SECRETS, Transaction, Vault, new_id

RawParts = dict[str, dict[str, Any]]
"""Part of a login -> its document, as the user knew it."""


@dataclass(frozen=True, slots=True)
class Taken:
    """A login that took from a row: the ids of the secret it had and of the one it has since; how
    often it was changed until then; how it was before; whether it took the secret and no more.
    """

    login_id: str
    former_id: str
    taken_id: str
    edition: int
    before: RawParts
    secret_alone: bool


@dataclass(frozen=True, slots=True)
class BroughtIn:
    """What came in last: ids of the logins that were added, and those that took from a row."""

    added: tuple[str, ...] = ()
    taken: tuple[Taken, ...] = ()


def put_brought_in(tx: Transaction, vault: Vault, brought_in: BroughtIn) -> None:
    """Writes the one record, new or over that of the import before."""
    ids = vault.ids(Label.IMPORT_UNDO)
    document = {
        "added": list(brought_in.added),
        "taken": [
            [
                *(one.login_id, one.former_id, one.taken_id),
                *(one.edition, one.before, one.secret_alone),
            ]
            for one in brought_in.taken
        ],
    }
    tx.put(Label.IMPORT_UNDO, ids[0] if ids else new_id(), packed(document), part=SECRETS)


def get_brought_in(vault: Vault) -> BroughtIn:
    """What came in last, unless it was undone."""
    ids = vault.ids(Label.IMPORT_UNDO)
    try:
        found = unpacked(vault.get(Label.IMPORT_UNDO, ids[0], SECRETS)) if ids else {}
    except RecordDamaged:
        found = {}
    taken = tuple(Taken(*one) for one in found.get("taken", ()))
    return BroughtIn(tuple(found.get("added", ())), taken)


def forget_taken(tx: Transaction, vault: Vault, login_ids: Collection[str]) -> None:
    """How these logins were before is no longer kept: what was let go for good is to be so."""
    found = get_brought_in(vault)
    taken = tuple(one for one in found.taken if one.login_id not in login_ids)
    if taken != found.taken:
        put_brought_in(tx, vault, BroughtIn(found.added, taken))


def raw_parts(vault: Vault, login_id: str) -> RawParts:
    """A login's card and secrets as they lie in the vault."""
    parts: RawParts = {}
    for part in (CARD, SECRETS):
        with suppress(RecordMissing):
            document = unstamped(unpacked(vault.get(Label.LOGIN, login_id, part)))
            parts[str(part)] = document or {}
    return parts


def write_raw_parts(tx: Transaction, login_id: str, parts: RawParts) -> None:
    """Puts them back: a change like any other."""
    for part, document in parts.items():
        tx.put(Label.LOGIN, login_id, packed(document), part=int(part))
