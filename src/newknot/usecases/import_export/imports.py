"""Bringing logins in: written in one transaction or not at all, and undone by one act."""

from collections.abc import Collection
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.store.change_stamps import editions_of
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import (
    get_card,
    get_history,
    get_secrets,
    put_card,
    put_history,
    put_secrets,
    remove_login,
)
from newknot.store.manifest import Label
from newknot.store.rotations import list_rotations
from newknot.store.vault import Transaction, Vault
from newknot.usecases.errors import ImportStopped
from newknot.usecases.import_export.judging import DIFFERING, NEW, ImportFile, draft_of, judged_rows
from newknot.usecases.logins.logins import (
    NewSecret,
    add_login,
    delete_login,
    open_rotation_id,
    with_secret,
)
from newknot.usecases.logins.superseding import OWN, superseded
from newknot.usecases.progress import Step


@dataclass(frozen=True, slots=True)
class Taken:
    """A login that took the secret of a row: the ids of the one it had and the one it took."""

    login_id: str
    former_id: str
    taken_id: str


@dataclass(frozen=True, slots=True)
class BroughtIn:
    """What came in last: ids of the logins that were added, and those that took a secret."""

    added: tuple[str, ...] = ()
    taken: tuple[Taken, ...] = ()


@dataclass(frozen=True, slots=True)
class TakenBack:
    """How many logins are gone again, lie in the bin, and have their former secret again."""

    gone: int
    binned: int
    put_back: int


def apply_import(
    vault: Vault,
    file: ImportFile,
    mapping: tuple[str, ...],
    *,
    also_lines: Collection[int],
    take_lines: Collection[int] = (),
    not_lines: Collection[int],
    progress: Step = lambda done, total: True,
    now: datetime,
) -> BroughtIn:
    """Adds the new rows but for `not_lines`. Of the differing ones, those in `also_lines` come in
    as further logins; of those in `take_lines` the login that is there takes the secret, and its
    own goes to the history. All or none. Where progress(done, total) answers False, raises
    `ImportStopped`, and nothing came in.
    """
    added: list[str] = []
    taken: list[Taken] = []
    with vault.transaction() as tx:
        rows = judged_rows(vault, file, mapping)
        for done, (row, login) in enumerate(rows):
            if not progress(done, len(rows)):
                raise ImportStopped()
            wanted = row.status == NEW and row.line not in not_lines
            if wanted or (row.status == DIFFERING and row.line in also_lines):
                secret = NewSecret(login.secret, Origin("imported"))
                added.append(add_login(vault, draft_of(login), secret, now=now).login_id)
            elif row.line in take_lines and row.of_login_id is not None:
                taken.append(_take(tx, vault, row.of_login_id, login.secret, now))
    return BroughtIn(tuple(added), tuple(taken))


def undo_import(vault: Vault, brought_in: BroughtIn, *, now: datetime) -> TakenBack:
    """Takes back what was brought in: what was not touched since goes for good, what was into the
    bin; a login that took a secret has its former one again, unless it was changed since.
    """
    gone = binned = 0
    rotated = {rotation.login_id for rotation in list_rotations(vault)}
    with vault.transaction() as tx:
        put_back = sum(_put_back(tx, vault, one, now) for one in brought_in.taken)
        for login_id in brought_in.added:
            with suppress(RecordMissing, RecordDamaged):
                card = get_card(vault, login_id)
                touched = editions_of(vault, Label.LOGIN, login_id) or login_id in rotated
                if not touched:
                    remove_login(tx, login_id)
                    gone += 1
                elif card.deleted_at is None:
                    delete_login(vault, login_id, now=now)
                    binned += 1
    return TakenBack(gone, binned, put_back)


def _take(tx: Transaction, vault: Vault, login_id: str, secret: Secret, now: datetime) -> Taken:
    former, held = get_card(vault, login_id), get_secrets(vault, login_id)
    new_secret = NewSecret(secret, Origin("imported"))
    card, secrets = with_secret(tx, vault, former, held, new_secret, now)
    put_card(tx, replace(card, changed_at=now))
    put_secrets(tx, login_id, secrets)
    return Taken(login_id, held.secret_id, secrets.secret_id)


def _put_back(tx: Transaction, vault: Vault, taken: Taken, now: datetime) -> bool:
    """The former secret is current again, the one that was taken in the history, never used."""
    login_id = taken.login_id
    try:
        card, held = get_card(vault, login_id), get_secrets(vault, login_id)
        history = get_history(vault, login_id)
    except (RecordMissing, RecordDamaged):
        return False
    by_id = {one.earlier_id: one for one in history}
    former = by_id.pop(taken.former_id, None)
    open_now = open_rotation_id(vault, login_id) is not None
    if held.secret_id != taken.taken_id or open_now or (former is None and taken.former_id):
        return False
    put_history(tx, login_id, tuple(by_id.values()))
    superseded(
        tx,
        vault,
        login_id,
        held.secret,
        held.origin,
        secret_id=held.secret_id,
        since_at=card.secret_since_at,
        until_at=now,
        used=False,
    )
    secret, origin, since = Secret(""), OWN, card.created_at
    if former is not None:
        secret, origin, since = former.secret, former.origin, former.since_at
    back = replace(held, secret=secret, origin=origin, secret_id=taken.former_id)
    put_secrets(tx, login_id, back)
    has_secret = len(secret) > 0
    put_card(tx, replace(card, has_secret=has_secret, secret_since_at=since, changed_at=now))
    return True
