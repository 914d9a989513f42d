"""Judging what a file would bring in: read, mapped, and each row held against what is there."""

from collections.abc import Collection
from contextlib import suppress
from dataclasses import dataclass

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard, SecondFactor
from newknot.core.rotation import OPEN_STATES
from newknot.core.second_factor import CodeKey
from newknot.core.secret import Secret
from newknot.exchange.csv_logins import CsvTable, guess_mapping, logins_of, read_table
from newknot.exchange.cxf import read_cxf
from newknot.exchange.portable_login import PortableLogin, ReadLogin
from newknot.store.errors import RecordDamaged
from newknot.store.logins import (
    get_secrets,
)
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import (
    LoginDraft,
    list_logins,
)

NEW, SAME, DIFFERING, KEPT_OUT, BAD = "new", "same", "differing", "kept_out", "bad"
CSV, CXF = "csv", "cxf"


@dataclass(frozen=True, slots=True)
class ImportFile:
    """A file that was read. table: where its columns are to be mapped; else logins as they are."""

    kind: str
    table: CsvTable | None
    logins: tuple[ReadLogin, ...]


@dataclass(frozen=True, slots=True)
class Difference:
    """A field that is one thing here and another in the file; both empty for a secret."""

    field: str
    here: str
    there: str


@dataclass(frozen=True, slots=True)
class ImportRow:
    """One row as it would come in: its line, status, and why it cannot, without its secret.

    differs: what differs from the login that is there, a secret by its name alone; left: what of it
    cannot be placed; of_login_id: that login, where it is one alone and can take the row's secret.
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


def read_file(body: bytes) -> ImportFile:
    """A file in either format, told by its first character. Raises `CsvRefused`, `CxfRefused`."""
    if body.lstrip(b"\xef\xbb\xbf \t\r\n")[:1] == b"{":
        return ImportFile(CXF, None, tuple(read_cxf(body)))
    return ImportFile(CSV, read_table(body), ())


def first_mapping(file: ImportFile) -> tuple[str, ...]:
    """A guess at what each column is; nothing where there is nothing to map."""
    return guess_mapping(file.table.columns) if file.table is not None else ()


def preview_import(vault: Vault, file: ImportFile, mapping: tuple[str, ...]) -> list[ImportRow]:
    """Every row with its status, in the order of lines. Raises `CsvRefused` on a bad mapping."""
    rows = [row for row, _ in judged_rows(vault, file, mapping)]
    for line, reason in file.table.broken if file.table is not None else ():
        rows.append(ImportRow(line, BAD, reason, "", "", "", False))
    return sorted(rows, key=lambda row: row.line)


def judged_rows(
    vault: Vault, file: ImportFile, mapping: tuple[str, ...]
) -> list[tuple[ImportRow, PortableLogin]]:
    """Each row of the file as it stands to what is there, with the login that it holds."""
    known: dict[tuple[str, str], list[tuple[Secret, LoginCard | None]]] = {}
    for card in list_logins(vault)[0]:
        key = (_place(card.address, card.title), card.user_name.casefold())
        with suppress(RecordDamaged):
            held = get_secrets(vault, card.login_id)
            known.setdefault(key, []).append((held.secret, card))
    kept_out = frozenset(get_safeguards(vault).kept_out)
    rotating = {r.login_id for r in list_rotations(vault) if r.state in OPEN_STATES}
    out: list[tuple[ImportRow, PortableLogin]] = []
    read = logins_of(file.table, mapping) if file.table is not None else file.logins
    for one in read:
        login, status, reason = one.login, NEW, one.reason
        differs: tuple[Difference, ...] = ()
        of_login_id = None
        if reason:
            status = BAD
        else:
            try:
                key = (_place_checked(login), login.user_name.casefold())
            except FieldInvalid as error:
                status, reason = BAD, f"{error.data['field']} {error.data['reason']}"
            else:
                if key[0] in kept_out:
                    status, reason = KEPT_OUT, "its place is on the list of those kept out"
                else:
                    there = known.get(key, [])
                    status, reason, differs = _compared(there, login)
                    if status == DIFFERING:
                        of_login_id = _taker(there, login, rotating)
                known.setdefault(key, []).append((login.secret, None))
        row = ImportRow(
            one.line,
            status,
            reason,
            login.title,
            login.user_name,
            login.address,
            len(login.secret) > 0,
            differs,
            one.left,
            of_login_id,
        )
        out.append((row, login))
    return out


def _compared(
    held: list[tuple[Secret, LoginCard | None]], login: PortableLogin
) -> tuple[str, str, tuple[Difference, ...]]:
    if not held:
        return NEW, "", ()
    if any(secret == login.secret for secret, _ in held):
        return SAME, "is there already, with this secret", ()
    card = held[0][1]
    if card is None:
        return DIFFERING, "stands in the file twice, with another secret", ()
    pairs = (
        ("title", card.title, login.title),
        ("address", card.address, login.address),
        ("notes", card.notes, login.notes),
        ("folder", card.folder, login.folder),
        ("tags", ", ".join(card.tags), ", ".join(login.tags)),
    )
    others = (Difference(*pair) for pair in pairs if pair[1] != pair[2])
    reason = "this site and user name are there, with another secret"
    return DIFFERING, reason, (Difference("secret", "", ""), *others)


def _taker(
    there: list[tuple[Secret, LoginCard | None]], login: PortableLogin, rotating: Collection[str]
) -> str | None:
    """The one login there that can take the secret: not of several, none under rotation."""
    cards = [card for _, card in there]
    if len(cards) != 1 or cards[0] is None or not len(login.secret):
        return None
    return None if cards[0].login_id in rotating else cards[0].login_id


def draft_of(login: PortableLogin) -> LoginDraft:
    """What a login of a file gives for one here."""
    key = login.code_key
    return LoginDraft(
        title=login.title,
        user_name=login.user_name,
        address=login.address,
        notes=login.notes,
        folder=login.folder,
        tags=login.tags,
        fields=login.fields,
        secret_fields=tuple((f.name, f.value) for f in login.secret_fields),
        owner=login.owner,
        importance=login.importance,
        expires_on=login.expires_on,
        second_factor=SecondFactor.HERE if len(key) else SecondFactor.NONE,
        code_key=key if len(key) else None,
    )


def _place_checked(login: PortableLogin) -> str:
    site_of(login.address)
    if len(login.code_key):
        CodeKey.read(login.code_key.reveal())
    texts = {
        "title": login.title,
        "user_name": login.user_name,
        "address": login.address,
        "notes": login.notes,
        "secret": login.secret.reveal(),
    }
    for name, text in texts.items():
        try:
            text.encode("utf-8")
        except UnicodeEncodeError:
            raise FieldInvalid(name, "holds half of a character pair") from None
    return _place(login.address, login.title)


def _place(address: str, title: str) -> str:
    try:
        site = site_of(address)
    except FieldInvalid:
        site = None
    return site.domain if site is not None else title.casefold()
