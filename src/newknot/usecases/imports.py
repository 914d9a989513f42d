"""Bringing logins in: read, preview, and write in one transaction or not at all."""

from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginSecrets, Origin, PlainField
from newknot.core.secret import Secret
from newknot.exchange.csv_logins import CsvLogin, CsvTable, logins_of
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_secrets
from newknot.store.vault import Vault
from newknot.usecases.logins import LoginDraft, NewSecret, add_login, list_logins

NEW, SAME, DIFFERING, BAD = "new", "same", "differing", "bad"


@dataclass(frozen=True, slots=True)
class ImportRow:
    """One row as it would come in: its line, status, and why it cannot, without its secret."""

    line: int
    status: str
    reason: str
    title: str
    user_name: str
    address: str
    has_secret: bool


def preview_import(vault: Vault, table: CsvTable, mapping: tuple[str, ...]) -> list[ImportRow]:
    """Every row with its status, in the order of lines. Raises `CsvRefused` on a bad mapping."""
    rows = [row for row, _ in _judged(vault, table, mapping)]
    rows.extend(ImportRow(line, BAD, reason, "", "", "", False) for line, reason in table.broken)
    return sorted(rows, key=lambda row: row.line)


def apply_import(
    vault: Vault,
    table: CsvTable,
    mapping: tuple[str, ...],
    *,
    also_differing: bool,
    now: datetime,
) -> int:
    """Adds new rows, and differing ones as further logins if wished. All or none; how many."""
    count = 0
    with vault.transaction():
        for row, login in _judged(vault, table, mapping):
            if row.status == NEW or (row.status == DIFFERING and also_differing):
                secret = NewSecret(Secret(login.secret), Origin("imported"))
                add_login(vault, _draft(login), secret, now=now)
                count += 1
    return count


def _judged(
    vault: Vault, table: CsvTable, mapping: tuple[str, ...]
) -> list[tuple[ImportRow, CsvLogin]]:
    known: dict[tuple[str, str], list[LoginSecrets]] = {}
    for card in list_logins(vault)[0]:
        key = (_place(card.address, card.title), card.user_name.casefold())
        with suppress(RecordDamaged):
            known.setdefault(key, []).append(get_secrets(vault, card.login_id))
    out: list[tuple[ImportRow, CsvLogin]] = []
    for login in logins_of(table, mapping):
        status, reason = NEW, login.reason
        if reason:
            status = BAD
        else:
            try:
                key = (_place_checked(login), login.user_name.casefold())
            except FieldInvalid as error:
                status, reason = BAD, f"{error.data['field']} {error.data['reason']}"
            else:
                status, reason = _compared(known.get(key, []), login)
                fresh = LoginSecrets(Secret(login.secret), Origin("imported"))
                known.setdefault(key, []).append(fresh)
        row = ImportRow(
            login.line,
            status,
            reason,
            login.title,
            login.user_name,
            login.address,
            bool(login.secret),
        )
        out.append((row, login))
    return out


def _compared(held: list[LoginSecrets], login: CsvLogin) -> tuple[str, str]:
    if not held:
        return NEW, ""
    if any(one.secret == Secret(login.secret) for one in held):
        return SAME, "is there already, with this secret"
    return DIFFERING, "this site and user name are there, with another secret"


def _draft(login: CsvLogin) -> LoginDraft:
    return LoginDraft(
        title=login.title,
        user_name=login.user_name,
        address=login.address,
        notes=login.notes,
        folder=login.folder,
        tags=login.tags,
        fields=tuple(PlainField(name or "column", value) for name, value in login.fields),
    )


def _place_checked(login: CsvLogin) -> str:
    site_of(login.address)
    for name in ("title", "user_name", "address", "notes", "secret"):
        try:
            getattr(login, name).encode("utf-8")
        except UnicodeEncodeError:
            raise FieldInvalid(name, "holds half of a character pair") from None
    return _place(login.address, login.title)


def _place(address: str, title: str) -> str:
    try:
        site = site_of(address)
    except FieldInvalid:
        site = None
    return site.domain if site is not None else title.casefold()
