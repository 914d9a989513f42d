"""Judging what a file would bring in: read, mapped, and each row held against what is there."""

from collections.abc import Collection, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import (
    Importance,
    LoginCard,
    LoginSecrets,
    PlainField,
    SecondFactor,
    SecretField,
)
from newknot.core.rotation import OPEN_STATES
from newknot.core.second_factor import CodeKey
from newknot.core.secret import Secret
from newknot.exchange.csv_logins import (
    CsvTable,
    guess_mapping,
    logins_of,
    read_table,
    write_logins,
    write_rows,
)
from newknot.exchange.cxf import read_cxf
from newknot.exchange.portable_login import (
    FURTHER_COLLECTION,
    PortableLogin,
    ReadLogin,
    with_names_apart,
)
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_secrets
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.errors import ImportStopped
from newknot.usecases.logins.logins import LoginDates, LoginDraft, check_draft, list_logins
from newknot.usecases.progress import Step

NEW, SAME, DIFFERING, KEPT_OUT, BAD = "new", "same", "differing", "kept_out", "bad"
TWICE = "twice"
"""Equal in every field to a row before it in the file."""
SECRET = "secret"  # noqa: S105 - the name of a field
KEY_FIELD = "key of codes that is none"
_STEP_ROWS = 500
CSV, CXF = "csv", "cxf"


@dataclass(frozen=True, slots=True)
class ImportFile:
    """A file that was read. table: where its columns are to be mapped; else logins as they are."""

    kind: str
    table: CsvTable | None
    logins: tuple[ReadLogin, ...]


@dataclass(frozen=True, slots=True)
class Difference:
    """A field of which the file has something that is not here; both empty for a secret."""

    field: str
    here: str
    there: str


@dataclass(frozen=True, slots=True)
class ImportRow:
    """One row as it would come in: its line, status, and why it cannot, without its secret.

    differs: what the file has that the login there has not, a secret by its name alone; left: what
    of it cannot be placed; of_login_id: that login, where it can take from the row; takes_secret:
    whether the secret too.
    """

    line: int
    status: str
    reason: str
    title: str
    user_name: str
    address: str
    has_secret: bool
    differs: tuple[Difference, ...] = ()
    left: tuple[str, ...] = ()
    of_login_id: str | None = None
    takes_secret: bool = False


def read_file(body: bytes) -> ImportFile:
    """A file in either format, told by its first character. Raises `CsvRefused`, `CxfRefused`."""
    if body.lstrip(b"\xef\xbb\xbf \t\r\n")[:1] == b"{":
        return ImportFile(CXF, None, tuple(read_cxf(body)))
    return ImportFile(CSV, read_table(body), ())


def rows_of(file: ImportFile, lines: Collection[int]) -> bytes:
    """These rows of a file as a CSV file of their own: as they were read, where it was one."""
    if file.table is not None:
        return write_rows(file.table, lines)
    return write_logins([one.login for one in file.logins if one.line in lines])


def first_mapping(file: ImportFile) -> tuple[str, ...]:
    """A guess at what each column is; nothing where there is nothing to map."""
    return guess_mapping(file.table.columns) if file.table is not None else ()


def preview_import(
    vault: Vault,
    file: ImportFile,
    mapping: tuple[str, ...],
    *,
    progress: Step = lambda done, total: True,
    now: datetime,
) -> list[ImportRow]:
    """Every row with its status, in the order of lines. Raises `CsvRefused` on a bad mapping,
    `ImportStopped` where progress answers False.
    """
    rows = [row for row, _ in judged_rows(vault, file, mapping, progress=progress, now=now)]
    for line, reason, _ in file.table.broken if file.table is not None else ():
        rows.append(ImportRow(line, BAD, reason, "", "", "", False))
    return sorted(rows, key=lambda row: row.line)


def judged_rows(
    vault: Vault,
    file: ImportFile,
    mapping: tuple[str, ...],
    *,
    progress: Step = lambda done, total: True,
    now: datetime,
) -> list[tuple[ImportRow, PortableLogin]]:
    """Each row of the file as it stands to what is there, with the login that it holds. What
    bringing it in would refuse is refused here already.
    """
    known: dict[tuple[str, str], list[LoginCard]] = {}
    for card in list_logins(vault)[0]:
        key = (_place(card.address, card.title), card.user_name.casefold())
        known.setdefault(key, []).append(card)
    kept_out = frozenset(get_safeguards(vault).kept_out)
    rotating = {r.login_id for r in list_rotations(vault) if r.state in OPEN_STATES}
    seen: set[PortableLogin] = set()
    out: list[tuple[ImportRow, PortableLogin]] = []
    read = logins_of(file.table, mapping) if file.table is not None else iter(file.logins)
    total = len(file.table.rows) if file.table is not None else len(file.logins)
    for done, one in enumerate(read):
        if done % _STEP_ROWS == 0 and not progress(done, total):
            raise ImportStopped()
        login, left = _fitted(one.login, now)
        row = ImportRow(
            one.line,
            *(NEW, one.reason, login.title, login.user_name, login.address),
            len(login.secret) > 0,
            left=(*one.left, *left),
        )
        out.append((_judged(vault, row, login, known, kept_out, rotating, seen), login))
        seen.add(login)
    return out


def _judged(
    vault: Vault,
    row: ImportRow,
    login: PortableLogin,
    known: dict[tuple[str, str], list[LoginCard]],
    kept_out: Collection[str],
    rotating: Collection[str],
    seen: Collection[PortableLogin],
) -> ImportRow:
    if row.reason:
        return replace(row, status=BAD)
    try:
        check_draft(draft_of(login), login.secret)
    except FieldInvalid as error:
        return replace(row, status=BAD, reason=f"{error.data['field']} {error.data['reason']}")
    place = _place(login.address, login.title)
    if place in kept_out:
        return replace(row, status=KEPT_OUT, reason="its place is on the list of those kept out")
    if login in seen:
        return replace(row, status=TWICE, reason="is in the file twice, equal in every field")
    there = known.get((place, login.user_name.casefold()), [])
    return _compared(vault, row, login, there, rotating) if there else row


def _compared(
    vault: Vault,
    row: ImportRow,
    login: PortableLogin,
    there: Sequence[LoginCard],
    rotating: Collection[str],
) -> ImportRow:
    """Held against each login of its site and user name: that of its own secret, else the first."""
    found: list[tuple[bool, LoginCard, tuple[Difference, ...]]] = []
    for card in there:
        with suppress(RecordDamaged):
            held = get_secrets(vault, card.login_id)
            differs = tuple(differences(card, held, login))
            found.append((held.secret == login.secret, card, differs))
    if not found:
        return row
    if any(not differs for _, _, differs in found):
        return replace(row, status=SAME, reason="is there already, with all that the file has")
    of_same = [one for one in found if one[0]]
    _, card, differs = (of_same or found)[0]
    has_same = any(one.field == SECRET for one in differs)
    says = "another secret" if has_same else "less than the file has"
    one_alone = len(of_same or found) == 1
    return replace(
        row,
        status=DIFFERING,
        reason=f"this site and user name are there, with {says}",
        differs=differs,
        of_login_id=card.login_id if one_alone else None,
        takes_secret=one_alone and has_same and card.login_id not in rotating,
    )


def differences(card: LoginCard, held: LoginSecrets, login: PortableLogin) -> Iterator[Difference]:
    """What a row has that the login has not: what the row does not say differs in nothing."""
    if len(login.secret) and login.secret != held.secret:
        yield Difference(SECRET, "", "")
    texts = (
        ("title", card.title, login.title if login.title != login.address else ""),
        ("address", card.address, "" if _same_address(card, login) else login.address),
        ("folder", card.folder, login.folder),
        ("owner", card.owner, login.owner),
        ("expires_on", _day(card.expires_on), _day(login.expires_on)),
    )
    yield from (Difference(*one) for one in texts if one[2] and one[1] != one[2])
    if login.notes and login.notes not in card.notes:
        yield Difference("notes", card.notes, login.notes)
    if login.importance not in (Importance.NORMAL, card.importance):
        yield Difference("importance", card.importance.value, login.importance.value)
    if not set(login.tags) <= set(card.tags):
        yield Difference("tags", ", ".join(card.tags), ", ".join(login.tags))
    for field in fields_of(login):
        if field not in card.fields:
            same_name = (one.value for one in card.fields if one.name == field.name)
            yield Difference(f"field: {field.name}", next(same_name, ""), field.value)
    values = {one.name: one.value for one in held.fields}
    for one in login.secret_fields:
        if values.get(one.name) != one.value:
            yield Difference(f"secret field: {one.name}", "", "")
    if len(login.code_key) and not _same_key(login.code_key, held.code_key):
        yield Difference("code_key", "", "")
    codes = {one.code for one in held.backup_codes}
    if any(one.code not in codes for one in login.backup_codes):
        yield Difference("backup_codes", "", "")


def fields_of(login: PortableLogin) -> tuple[PlainField, ...]:
    """Its further fields as a login here has them."""
    return (*login.fields, *(PlainField(FURTHER_COLLECTION, one) for one in login.collections))


def dates_of(login: PortableLogin, now: datetime) -> LoginDates:
    """When what it holds came to be, so far as the file says."""
    created = login.created_at or login.changed_at or login.secret_since_at or now
    since = login.secret_since_at or created
    return LoginDates(min(created, since), login.changed_at or now, since)


def draft_of(login: PortableLogin) -> LoginDraft:
    """What a login of a file gives for one here."""
    key = login.code_key
    factor = login.second_factor or (SecondFactor.HERE if len(key) else SecondFactor.NONE)
    if factor.has_codes and not len(key):
        factor = SecondFactor.NONE
    return LoginDraft(
        title=login.title,
        user_name=login.user_name,
        address=login.address,
        notes=login.notes,
        folder=login.folder,
        tags=login.tags,
        fields=fields_of(login),
        secret_fields=tuple((f.name, f.value) for f in login.secret_fields),
        owner=login.owner,
        importance=login.importance,
        expires_on=login.expires_on,
        second_factor=factor,
        code_key=key if len(key) else None,
        driven=login.driven,
    )


def _fitted(login: PortableLogin, now: datetime) -> tuple[PortableLogin, list[str]]:
    """The login with what is odd in it put where it does no harm, and what was so, in words."""
    left: list[str] = []
    if len(login.code_key):
        try:
            CodeKey.read(login.code_key.reveal())
        except FieldInvalid:
            left.append("its key of codes is none: kept as a secret field")
            aside = SecretField(KEY_FIELD, login.code_key)
            fields = with_names_apart((*login.secret_fields, aside))
            login = replace(login, secret_fields=fields, code_key=Secret(""))
    dates = (login.created_at, login.changed_at, login.secret_since_at)
    if any(at is not None and at > now for at in dates):
        left.append("a date of it is in the future: left out")
        created, changed, since = (None if at is None or at > now else at for at in dates)
        login = replace(login, created_at=created, changed_at=changed, secret_since_at=since)
    return login, left


def _same_address(card: LoginCard, login: PortableLogin) -> bool:
    """Whether both are one page: without a scheme it is https."""
    here, there = (one.address.removeprefix("https://").rstrip("/") for one in (card, login))
    return here == there


def _same_key(given: Secret, held: Secret) -> bool:
    return given == held or CodeKey.read(given.reveal()).address == held.reveal()


def _day(day: object) -> str:
    return str(day) if day is not None else ""


def _place(address: str, title: str) -> str:
    try:
        site = site_of(address)
    except FieldInvalid:
        site = None
    return site.domain if site is not None else title.casefold()
