"""Bringing logins in: written in one transaction or not at all, and undone by one act."""

from collections.abc import Collection, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.backup_codes import id_of_codes
from newknot.core.errors import FieldInvalid
from newknot.core.login import (
    FIELDS_LIMIT,
    NOTES_LIMIT,
    LoginCard,
    LoginSecrets,
    Origin,
    SecondFactor,
    checked_text,
)
from newknot.core.second_factor import CodeKey
from newknot.core.secret import Secret
from newknot.exchange.portable_login import PortableLogin
from newknot.store.change_stamps import editions_of
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.import_undo import (
    BroughtIn,
    Taken,
    get_brought_in,
    put_brought_in,
    raw_parts,
    write_raw_parts,
)
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
from newknot.store.vault import Transaction, Vault, new_id
from newknot.usecases.errors import ImportStopped
from newknot.usecases.import_export.judging import (
    DIFFERING,
    NEW,
    SAME,
    SECRET,
    TWICE,
    ImportFile,
    ImportRow,
    dates_of,
    draft_of,
    fields_of,
    judged_rows,
)
from newknot.usecases.logins.logins import (
    NewSecret,
    add_login,
    delete_login,
    open_rotation_id,
    with_day,
    with_secret,
)
from newknot.usecases.logins.superseding import (
    codes_superseded,
    fields_superseded,
    superseded,
    with_code_key,
)
from newknot.usecases.progress import Step


@dataclass(frozen=True, slots=True)
class Applied:
    """What came in, and the rows of which something did not, with what became of each in words."""

    brought_in: BroughtIn
    left_out: tuple[ImportRow, ...]


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
    take_fields: Mapping[int, Collection[str]] | None = None,
    not_lines: Collection[int],
    progress: Step = lambda done, total: True,
    now: datetime,
) -> Applied:
    """Adds the new rows but for `not_lines`. Of the differing ones, and those that are in the file
    twice, those in `also_lines` come in as further logins; of those in `take_lines` the login that
    is there takes the secret, of those in `take_fields` the fields that are named; what it had of
    them goes to the history. All or none. Where progress(done, total) answers False, raises
    `ImportStopped`, and nothing came in.
    """
    wanted = {line: {SECRET} for line in take_lines}
    for line, names in (take_fields or {}).items():
        wanted[line] = wanted.get(line, set()) | set(names)
    added: list[str] = []
    taken: list[Taken] = []
    left: list[ImportRow] = []
    with vault.transaction() as tx:
        rows = judged_rows(vault, file, mapping, now=now)
        for done, (row, login) in enumerate(rows):
            if not progress(done, len(rows)):
                raise ImportStopped()
            chosen = row.line in also_lines and row.status in (DIFFERING, TWICE)
            if chosen or (row.status == NEW and row.line not in not_lines):
                card = add_login(
                    vault,
                    draft_of(login),
                    NewSecret(login.secret, Origin("imported")),
                    dates=dates_of(login, now),
                    backup_codes=login.backup_codes,
                    now=now,
                )
                added.append(card.login_id)
                continue
            fields = _takeable(row) & wanted.get(row.line, set())
            if fields and row.of_login_id is not None:
                taken.append(_take(tx, vault, row.of_login_id, login, fields, now))
            rest = _takeable(row) - fields
            if row.status != SAME and (rest or row.status != DIFFERING or not fields):
                left.append(replace(row, reason=_why_left(row, fields)))
        brought_in = BroughtIn(tuple(added), tuple(taken))
        put_brought_in(tx, vault, brought_in)
    broken = file.table.broken if file.table is not None else ()
    left += [ImportRow(line, "bad", reason, "", "", "", False) for line, reason, _ in broken]
    return Applied(brought_in, tuple(sorted(left, key=lambda row: row.line)))


def _takeable(row: ImportRow) -> set[str]:
    """The fields that the login there can take from a row."""
    if row.of_login_id is None:
        return set()
    return {one.field for one in row.differs if one.field != SECRET or row.takes_secret}


def _why_left(row: ImportRow, taken: Collection[str]) -> str:
    if row.status == NEW:
        return "was not chosen"
    if row.status == DIFFERING:
        rest = ", ".join(one.field for one in row.differs if one.field not in taken)
        return f"{row.reason}; not taken: {rest.replace('_', ' ')}"
    return row.reason


def undo_import(vault: Vault, *, now: datetime) -> TakenBack:
    """Takes back what was brought in last: what was not touched since goes for good, what was into
    the bin; a login that took from a row has again what it had, unless it was changed since.
    """
    brought_in = get_brought_in(vault)
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
        put_brought_in(tx, vault, BroughtIn())
    return TakenBack(gone, binned, put_back)


def _take(
    tx: Transaction,
    vault: Vault,
    login_id: str,
    login: PortableLogin,
    fields: Collection[str],
    now: datetime,
) -> Taken:
    """The login takes these fields of a row; what it had of a secret goes to the history."""
    card, held = get_card(vault, login_id), get_secrets(vault, login_id)
    before = raw_parts(vault, login_id)
    former_id, since_at = held.secret_id, card.changed_at
    if SECRET in fields:
        new_secret = NewSecret(login.secret, Origin("imported"))
        card, held = with_secret(tx, vault, card, held, new_secret, now)
        card = replace(card, secret_since_at=dates_of(login, now).secret_since_at)
    card = _with_texts(card, login, fields, now)
    held = _with_secrets(tx, vault, card, held, login, fields, since_at, now)
    if "code_key" in fields:
        card = replace(card, second_factor=SecondFactor.HERE)
    names = tuple(field.name for field in held.fields)
    put_card(tx, replace(card, secret_field_names=names, changed_at=now))
    put_secrets(tx, login_id, held)
    edition = editions_of(vault, Label.LOGIN, login_id)
    return Taken(login_id, former_id, held.secret_id, edition, before, set(fields) == {SECRET})


def _with_texts(
    card: LoginCard, login: PortableLogin, fields: Collection[str], now: datetime
) -> LoginCard:
    """The card with these texts of a row: notes and fields beside those there are."""
    for name in {"title", "address", "folder", "owner", "importance"} & set(fields):
        card = replace(card, **{name: getattr(login, name)})
    if "expires_on" in fields:
        card = with_day(card, login.expires_on, now)
    if "notes" in fields:
        notes = "\n\n".join(text for text in (card.notes, login.notes) if text)
        card = replace(card, notes=checked_text(notes, field="notes", limit=NOTES_LIMIT))
    if "tags" in fields:
        card = replace(card, tags=tuple(dict.fromkeys((*card.tags, *login.tags))))
    more = tuple(
        one for one in fields_of(login) if f"field: {one.name}" in fields and one not in card.fields
    )
    if len(card.fields) + len(more) > FIELDS_LIMIT:
        raise FieldInvalid("fields", f"are more than {FIELDS_LIMIT}")
    return replace(card, fields=(*card.fields, *more))


def _with_secrets(
    tx: Transaction,
    vault: Vault,
    card: LoginCard,
    held: LoginSecrets,
    login: PortableLogin,
    fields: Collection[str],
    since_at: datetime,
    now: datetime,
) -> LoginSecrets:
    given = {
        one.name: replace(one, secret_id=new_id())
        for one in login.secret_fields
        if f"secret field: {one.name}" in fields
    }
    if given:
        kept = tuple(given.pop(one.name, one) for one in held.fields)
        together = (*kept, *given.values())
        fields_superseded(
            tx, vault, card.login_id, held.fields, together, since_at=since_at, until_at=now
        )
        held = replace(held, fields=together)
    if "code_key" in fields:
        key = Secret(CodeKey.read(login.code_key.reveal()).address)
        held = with_code_key(tx, vault, card.login_id, held, key, since_at, now)
    if "backup_codes" in fields:
        codes_superseded(tx, vault, card, held, login.backup_codes, now=now)
        held = replace(held, backup_codes=login.backup_codes)
    return held


def _put_back(tx: Transaction, vault: Vault, taken: Taken, now: datetime) -> bool:
    """The login as it was before it took from a row; what it took stays in the history, never
    used. Where it was changed since, but not its secret, that alone is put back.
    """
    login_id = taken.login_id
    try:
        card, held = get_card(vault, login_id), get_secrets(vault, login_id)
        get_history(vault, login_id)
    except (RecordMissing, RecordDamaged):
        return False
    as_left = editions_of(vault, Label.LOGIN, login_id) == taken.edition
    if held.secret_id != taken.taken_id or not (as_left or taken.secret_alone):
        return False
    if open_rotation_id(vault, login_id) is not None:
        return False
    write_raw_parts(tx, login_id, taken.before)
    former_card, former = get_card(vault, login_id), get_secrets(vault, login_id)
    if not as_left:
        former = replace(
            held, secret=former.secret, origin=former.origin, secret_id=former.secret_id
        )
        former_card = replace(
            card, has_secret=former_card.has_secret, secret_since_at=former_card.secret_since_at
        )
        put_secrets(tx, login_id, former)
    put_card(tx, replace(former_card, changed_at=now))
    _history_without(tx, vault, login_id, former)
    _superseded_by(tx, vault, card, held, former, now)
    return True


def _history_without(tx: Transaction, vault: Vault, login_id: str, held: LoginSecrets) -> None:
    """What is current again is no longer among the earlier ones."""
    current = {held.secret_id, held.code_key_id, *(one.secret_id for one in held.fields)}
    current.add(id_of_codes(login_id, held.backup_codes))
    history = get_history(vault, login_id)
    kept = tuple(one for one in history if one.earlier_id not in current)
    if kept != history:
        put_history(tx, login_id, kept)


def _superseded_by(
    tx: Transaction,
    vault: Vault,
    card: LoginCard,
    held: LoginSecrets,
    former: LoginSecrets,
    now: datetime,
) -> None:
    """What was taken, and is not what there was before, into the history."""
    login_id = card.login_id
    if held.secret != former.secret:
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
    fields_superseded(
        tx, vault, login_id, held.fields, former.fields, since_at=now, until_at=now, used=False
    )
    with_code_key(tx, vault, login_id, held, former.code_key, now, now)
    codes_superseded(tx, vault, card, held, former.backup_codes, now=now)
