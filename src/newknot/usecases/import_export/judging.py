"""Judging what a file would bring in: read, mapped, and each row held against what is there."""

from collections.abc import Collection, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.address import same_address, site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import (
    Importance,
    LoginCard,
    LoginSecrets,
    PlainField,
    SecondFactor,
    SecretField,
)
from newknot.core.rotation.due import own_day
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
from newknot.store.rotations import open_rotations
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
COMPARED_MOST = 20
"""Of so many logins of one site, user name and secret is looked whether they hold all of a row; one
that is just the row is found among any number.
"""
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
    known: dict[tuple[str, str], _There] = {}
    for card in list_logins(vault)[0]:
        key = (_place(card.address, card.title), card.user_name.casefold())
        known.setdefault(key, _There(vault)).cards.append(card)
    kept_out = frozenset(get_safeguards(vault).kept_out)
    rotating = open_rotations(vault).keys()
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
        out.append((_judged(row, login, known, kept_out, rotating, seen), login))
        seen.add(login)
    return out


class _There:
    """The logins of one site and user name: each opened once, and found by its secret, so that many
    rows of one place cost no more than as many of different ones.
    """

    def __init__(self, vault: Vault) -> None:
        self.cards: list[LoginCard] = []
        self._vault = vault
        self._opened: list[tuple[LoginCard, LoginSecrets]] | None = None
        self._by_secret: dict[Secret, list[tuple[LoginCard, LoginSecrets]]] = {}
        self._whole: set[tuple[object, ...]] = set()

    def opened(self) -> list[tuple[LoginCard, LoginSecrets]]:
        """Those that can be read."""
        if self._opened is None:
            self._opened = []
            for card in self.cards:
                with suppress(RecordDamaged):
                    one = (card, get_secrets(self._vault, card.login_id))
                    self._opened.append(one)
                    self._by_secret.setdefault(one[1].secret, []).append(one)
                    self._whole.add(_whole_of_here(*one))
        return self._opened

    def has_whole(self, login: PortableLogin) -> bool:
        """Whether one is just what a row says."""
        return bool(self.opened()) and _whole_of_row(login) in self._whole

    def to_compare(self, login: PortableLogin) -> tuple[list[tuple[LoginCard, LoginSecrets]], bool]:
        """Those that a row is held against, and whether they are all that it could be: those of its
        secret, else each.
        """
        of_same = self._by_secret.get(login.secret, []) if len(login.secret) else []
        found = of_same or self.opened()
        return found[:COMPARED_MOST], len(found) == 1


def _whole_of_here(card: LoginCard, held: LoginSecrets) -> tuple[object, ...]:
    return (
        *(card.title, card.address, held.secret, card.notes, card.folder, card.owner),
        *(card.importance, own_day(card), frozenset(card.tags), frozenset(card.fields)),
        frozenset((one.name, one.value) for one in held.fields),
        held.code_key,
        frozenset(one.code for one in held.backup_codes),
    )


def _whole_of_row(login: PortableLogin) -> tuple[object, ...]:
    key = login.code_key
    return (
        *(login.title, login.address, login.secret, login.notes, login.folder, login.owner),
        *(login.importance, login.expires_on, frozenset(login.tags)),
        frozenset(fields_of(login)),
        frozenset((one.name, one.value) for one in login.secret_fields),
        Secret(CodeKey.read(key.reveal()).address) if len(key) else key,
        frozenset(one.code for one in login.backup_codes),
    )


def _judged(
    row: ImportRow,
    login: PortableLogin,
    known: dict[tuple[str, str], _There],
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
    there = known.get((place, login.user_name.casefold()))
    return _compared(row, login, there, rotating) if there is not None else row


def _compared(
    row: ImportRow, login: PortableLogin, there: _There, rotating: Collection[str]
) -> ImportRow:
    """Held against the logins of its site and user name: those of its own secret, else each."""
    if not there.opened():
        return row
    is_same = there.has_whole(login)
    found, one_alone = there.to_compare(login)
    looked = [(card, tuple(differences(card, held, login))) for card, held in found]
    if is_same or any(not differs for _, differs in looked):
        return replace(row, status=SAME, reason="is there already, with all that the file has")
    card, differs = looked[0]
    is_other = any(one.field == SECRET for one in differs)
    says = "another secret" if is_other else "less than the file has"
    return replace(
        row,
        status=DIFFERING,
        reason=f"this site and user name are there, with {says}",
        differs=differs,
        of_login_id=card.login_id if one_alone else None,
        takes_secret=one_alone and is_other and card.login_id not in rotating,
    )


def differences(card: LoginCard, held: LoginSecrets, login: PortableLogin) -> Iterator[Difference]:
    """What a row has that the login has not: what the row does not say differs in nothing."""
    if len(login.secret) and login.secret != held.secret:
        yield Difference(SECRET, "", "")
    is_there = same_address(card.address, login.address)
    texts = (
        ("title", card.title, login.title if login.title != login.address else ""),
        (
            "address",
            card.address,
            "" if is_there else login.address,
        ),
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
