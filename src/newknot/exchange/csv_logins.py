"""Logins from CSV (RFC 4180) of any column order: decoding, columns, a guessed mapping, rows."""

import csv
import io
import re
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime

from defusedcsv.csv import _escape as defused

from newknot.core.backup_codes import codes_of_text, text_of_codes
from newknot.core.errors import NewKnotError
from newknot.core.login import (
    SECRET_LIMIT,
    Importance,
    PlainField,
    SecondFactor,
    SecretField,
)
from newknot.core.secret import Secret
from newknot.exchange.portable_login import (
    FURTHER_COLLECTION,
    PortableLogin,
    ReadLogin,
    with_names_apart,
)

SIZE_LIMIT = 20 * 1024 * 1024
ROWS_LIMIT = 100_000
COLUMNS_LIMIT = 500
TARGETS = (
    *("title", "user_name", "secret", "address", "notes", "folder", "tags", "code_key", "owner"),
    *("importance", "expires_on", "second_factor", "driven", "backup_codes"),
    *("created_at", "changed_at", "secret_since_at", "field", "secret_field", ""),
)
"""What a column can become; `field` and `secret_field` keep it under its own name, the empty one
leaves it out.
"""
FIELD, SECRET_FIELD = "field: ", "secret field: "
QUOTED_ALL, QUOTED = "quoted with an apostrophe", "texts quoted with an apostrophe"
"""The last column of a file of ours. In those of the first kind, which are no longer written,
secrets were quoted too.
"""
_OWN_COLUMNS = (
    *("title", "user name", "secret", "address", "notes", "folder", "tags"),
    *("key of codes", "in charge", "importance", "expires on"),
    *("second factor", "forms may be filled", "backup codes"),
    *("made at", "changed at", "secret since"),
)
_SECRET_COLUMNS = frozenset(("backup codes", "key of codes", "secret"))
LEFT_OUT = "-"
_FORMULA = ("@", "+", "-", "=", "%", "\\|")
_IMPORTANCE = {one.value: one for one in Importance}
_SECOND_FACTORS = {one.value: one for one in SecondFactor}
_YES = {"yes": True, "no": False}

_NAMES = {
    "title": ("title", "name", "entry", "account name", "site", "item", "label", "service"),
    "user_name": (
        "user name",
        "username",
        "user",
        "login",
        "email",
        "e-mail",
        "account",
        "login name",
    ),
    "secret": ("password", "secret", "pass", "passphrase", "pin"),
    "address": ("address", "url", "website", "web site", "link", "uri", "site url"),
    "notes": ("notes", "note", "comment", "comments", "remark", "remarks", "extra"),
    "folder": ("folder", "group", "category", "collection", "grouping"),
    "tags": ("tags", "tag", "labels", "keywords"),
    "code_key": ("key of codes", "otpauth", "totp", "one-time code", "otp", "two factor"),
    "owner": ("in charge", "owner"),
    "importance": ("importance",),
    "expires_on": ("expires on", "expires", "expiry"),
    "second_factor": ("second factor",),
    "driven": ("forms may be filled",),
    "backup_codes": ("backup codes",),
    "secret_since_at": ("secret since", "password changed", "password last changed"),
    "created_at": ("made at", "created", "created at", "date created", "creation date"),
    "changed_at": ("changed at", "modified", "last modified", "date modified", "updated"),
}
_NOT_A_SECRET = frozenset(
    ("question", "hint", "answer", "history", "strength", "changed", "modified", "date", "count")
)
"""A column about a secret is not one."""


class CsvRefused(NewKnotError):
    """A text that cannot be read as CSV at all. data: reason, line (where known, else 0)."""


@dataclass(frozen=True, slots=True)
class CsvTable:
    """columns: names of the first row. rows: (line in the file, from 1; cells)."""

    encoding: str
    separator: str
    columns: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]
    broken: tuple[tuple[int, str, tuple[str, ...]], ...]
    """Rows with another number of cells than columns: (line, reason, cells)."""


def read_table(body: bytes) -> CsvTable:
    """The table of a CSV file with a header row. Raises `CsvRefused`."""
    if len(body) > SIZE_LIMIT:
        raise CsvRefused(reason="the file is larger than 20 MB", line=0)
    text, encoding = _decoded(body)
    if "\0" in text:
        line = text[: text.index("\0")].count("\n") + 1
        raise CsvRefused(reason="the file holds a NUL character: it is not text", line=line)
    separator = _separator(text)
    csv.field_size_limit(1_000_000)
    rows: list[tuple[int, tuple[str, ...]]] = []
    broken: list[tuple[int, str, tuple[str, ...]]] = []
    columns: tuple[str, ...] = ()
    for line, cells in _records(text, separator):
        if not any(cell.strip() for cell in cells):
            continue
        if not columns:
            columns = tuple(cell.strip() for cell in cells)
            if len(columns) > COLUMNS_LIMIT:
                raise CsvRefused(reason=f"more than {COLUMNS_LIMIT} columns", line=line)
        elif len(cells) != len(columns):
            reason = f"{len(cells)} cells where the first row has {len(columns)}"
            broken.append((line, reason, cells))
        else:
            rows.append((line, cells))
        if len(rows) + len(broken) > ROWS_LIMIT:
            raise CsvRefused(reason=f"more than {ROWS_LIMIT:,} rows", line=line)
    if not columns:
        raise CsvRefused(reason="the file has no rows", line=0)
    return CsvTable(encoding, separator, columns, tuple(rows), tuple(broken))


def guess_mapping(columns: tuple[str, ...]) -> tuple[str, ...]:
    """For each column what it most likely is; each but `field` and the empty one at most once."""
    taken: set[str] = set()
    guessed = [_further(column) for column in columns]
    if _quoting_of(columns):
        guessed[-1] = LEFT_OUT
    for exact in (True, False):
        for i, column in enumerate(columns):
            name = " ".join(_words(column))
            for target, names in _NAMES.items():
                fits = name in names if exact else _speaks_of(name, target, names)
                if not guessed[i] and target not in taken and fits:
                    guessed[i] = target
                    taken.add(target)
    return tuple("" if target == LEFT_OUT else target or "field" for target in guessed)


def _words(column: str) -> list[str]:
    """The words of a column's name: `userName` and `user_name` have two."""
    apart = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", column)
    return re.sub(r"[^\w-]+|_", " ", apart).casefold().split()


def _speaks_of(name: str, target: str, names: Sequence[str]) -> bool:
    """Whether whole words of a column's name are one of the names of a target."""
    if target == "secret" and _NOT_A_SECRET & set(name.split()):
        return False
    return any(f" {one} " in f" {name} " for one in names)


def _quoting_of(columns: Sequence[str]) -> str:
    """How a file of ours was quoted; empty for one that is not ours."""
    last = columns[-1] if columns else ""
    return last if last in (QUOTED, QUOTED_ALL) else ""


def _further(column: str) -> str:
    if column.startswith(SECRET_FIELD):
        return "secret_field"
    return "field" if column.startswith(FIELD) else ""


def logins_of(table: CsvTable, mapping: tuple[str, ...]) -> Iterator[ReadLogin]:
    """Each row under a mapping (one target for each column). Raises `CsvRefused` on a bad one."""
    if len(mapping) != len(table.columns) or any(t not in TARGETS for t in mapping):
        raise CsvRefused(reason="the mapping does not name what each column is", line=0)
    for target in set(mapping) - {"", "field", "secret_field"}:
        if mapping.count(target) > 1:
            raise CsvRefused(reason=f"two columns are mapped to {target}", line=0)
    quoting = _quoting_of(table.columns)
    plain = [quoting == "" or (quoting == QUOTED and _is_secret(one)) for one in table.columns]
    for line, row in table.rows:
        cells = tuple(
            cell if is_plain else _unquoted(cell) for cell, is_plain in zip(row, plain, strict=True)
        )
        yield _login(line, table.columns, mapping, cells, own=bool(quoting))


def write_logins(logins: Sequence[PortableLogin]) -> bytes:
    """A CSV file (RFC 4180, UTF-8) with a column for each further field there is.

    A text that a spreadsheet would take for a formula is quoted with an apostrophe, and the last
    column says so; a secret stands as it is, so that whatever reads the file reads the secret. Read
    back here all is the same. Raises `CsvRefused` where what is written could not be read here.
    """
    plain = list(dict.fromkeys(f.name for one in logins for f in _fields(one)))
    if any("\0" in text for one in logins for text in _texts(one)):
        raise CsvRefused(reason="a login holds a NUL character, which CSV cannot", line=0)
    if len(logins) > ROWS_LIMIT:
        raise CsvRefused(reason=f"there are more than {ROWS_LIMIT:,} logins", line=0)
    # A name may stand several times in one login: so many columns of it.
    times = {n: max(sum(f.name == n for f in _fields(one)) for one in logins) for n in plain}
    secret = list(dict.fromkeys(f.name for one in logins for f in one.secret_fields))
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    plain_columns = [name for name in plain for _ in range(times[name])]
    columns = [*_OWN_COLUMNS, *(FIELD + n for n in plain_columns)]
    columns += [*(SECRET_FIELD + n for n in secret), QUOTED]
    if len(columns) > COLUMNS_LIMIT:
        reason = f"the further fields need more than {COLUMNS_LIMIT} columns"
        raise CsvRefused(reason=reason, line=0)
    writer.writerow([_written(one, is_secret=False) for one in columns])
    for one in logins:
        values = [*_own_values(one), *_field_values(one, plain_columns, secret), "yes"]
        writer.writerow(
            _written(cell, is_secret=_is_secret(column))
            for column, cell in zip(columns, values, strict=True)
        )
    body = out.getvalue().encode("utf-8")
    if len(body) > SIZE_LIMIT:
        raise CsvRefused(reason="the file would be larger than 20 MB", line=0)
    return body


def _own_values(one: PortableLogin) -> list[str]:
    return [
        one.title,
        one.user_name,
        one.secret.reveal(),
        one.address,
        one.notes,
        one.folder,
        _tags_cell(one.tags),
        one.code_key.reveal(),
        one.owner,
        one.importance.value,
        one.expires_on.isoformat() if one.expires_on is not None else "",
        one.second_factor.value if one.second_factor is not None else "",
        "yes" if one.driven else "no",
        text_of_codes(one.backup_codes),
        *map(_moment_cell, (one.created_at, one.changed_at, one.secret_since_at)),
    ]


def _fields(one: PortableLogin) -> list[PlainField]:
    """Its fields; a collection beyond the first is one."""
    return [*one.fields, *(PlainField(FURTHER_COLLECTION, name) for name in one.collections)]


def _field_values(
    one: PortableLogin, plain_columns: Sequence[str], secret: Sequence[str]
) -> Iterator[str]:
    left = _fields(one)
    for name in plain_columns:
        found = next((f for f in left if f.name == name), None)
        if found is not None:
            left.remove(found)
        yield found.value if found is not None else ""
    held = {f.name: f.value.reveal() for f in one.secret_fields}
    yield from (held.get(name, "") for name in secret)


def _is_secret(column: str) -> bool:
    return column in _SECRET_COLUMNS or column.startswith(SECRET_FIELD)


def _written(cell: str, *, is_secret: bool) -> str:
    """A cell as it stands in a file of ours. One more apostrophe before one that is there, so that
    taking one off gives it back.
    """
    if is_secret:
        return cell
    return "'" + cell if cell.startswith("'") else str(defused(cell))


def _tags_cell(tags: Sequence[str]) -> str:
    """Tags as a row of their own: one with a comma in it stands in quotes."""
    out = io.StringIO(newline="")
    csv.writer(out, lineterminator="").writerow(tags)
    return out.getvalue()


def _read_tags(cell: str, *, own: bool) -> tuple[str, ...]:
    found = next(csv.reader(io.StringIO(cell, newline="")), []) if own else re.split("[,;]", cell)
    return tuple(dict.fromkeys(tag.strip() for tag in found if tag.strip()))


def _moment_cell(moment: datetime | None) -> str:
    return moment.isoformat() if moment is not None else ""


def _moment(text: str) -> datetime | None:
    """An ISO 8601 day or moment, or seconds or milliseconds since 1970; None for anything else."""
    text = text.strip()
    try:
        if re.fullmatch(r"[0-9]{9,13}", text):
            seconds = int(text) / (1000 if len(text) > 11 else 1)
            return datetime.fromtimestamp(seconds, UTC)
        # Without a zone it is the time here, as in other tables.
        return datetime.fromisoformat(text).astimezone(UTC)
    except (ValueError, OverflowError):
        return None


def write_rows(table: CsvTable, lines: Collection[int]) -> bytes:
    """These rows of a table, cells as they were read, under its first row."""
    rows = {line: cells for line, cells in table.rows if line in lines}
    rows |= {line: cells for line, _, cells in table.broken if line in lines}
    out = io.StringIO(newline="")
    csv.writer(out, delimiter=table.separator).writerows(
        (table.columns, *(rows[line] for line in sorted(rows)))
    )
    return out.getvalue().encode("utf-8")


def _texts(one: PortableLogin) -> Iterator[str]:
    yield from (one.title, one.user_name, one.address, one.notes, one.folder, one.owner)
    yield from (one.secret.reveal(), *one.tags, *(f.value for f in one.fields))
    yield from (f.value.reveal() for f in one.secret_fields)
    yield from (c.code.reveal() for c in one.backup_codes)


def _login(
    line: int,
    columns: tuple[str, ...],
    mapping: tuple[str, ...],
    cells: tuple[str, ...],
    *,
    own: bool,
) -> ReadLogin:
    found = {
        t: c for t, c in zip(mapping, cells, strict=True) if t not in ("", "field", "secret_field")
    }
    further = list(zip(columns, mapping, cells, strict=True))
    fields = [
        PlainField(column.removeprefix(FIELD) or "column", cell.strip())
        for column, target, cell in further
        if target == "field" and cell.strip()
    ]
    title, address = found.get("title", "").strip(), found.get("address", "").strip()
    moments = {
        name: _moment(found.get(name, ""))
        for name in ("created_at", "changed_at", "secret_since_at")
    }
    login = PortableLogin(
        title=title or address,
        user_name=found.get("user_name", "").strip(),
        address=address,
        secret=Secret(found.get("secret", "")),
        notes=found.get("notes", "").strip(),
        folder=found.get("folder", "").strip(),
        tags=_read_tags(found.get("tags", ""), own=own),
        fields=tuple(one for one in fields if one.name != FURTHER_COLLECTION),
        collections=tuple(one.value for one in fields if one.name == FURTHER_COLLECTION),
        secret_fields=with_names_apart(
            tuple(
                SecretField(column.removeprefix(SECRET_FIELD) or "column", Secret(cell))
                for column, target, cell in further
                if target == "secret_field" and cell
            )
        ),
        code_key=Secret(found.get("code_key", "").strip()),
        owner=found.get("owner", "").strip(),
        importance=_IMPORTANCE.get(found.get("importance", ""), Importance.NORMAL),
        expires_on=_day(found.get("expires_on", "")),
        second_factor=_SECOND_FACTORS.get(found.get("second_factor", "").strip()),
        driven=_YES.get(found.get("driven", "").strip().casefold(), False),
        backup_codes=codes_of_text(found.get("backup_codes", "")),
        created_at=moments["created_at"],
        changed_at=moments["changed_at"],
        secret_since_at=moments["secret_since_at"],
    )
    left = [
        f"its “{name.replace('_', ' ')}” is not understood"
        for name, is_known in (
            ("expires_on", login.expires_on is not None),
            ("importance", found.get("importance") in _IMPORTANCE),
            ("second_factor", login.second_factor is not None),
            ("driven", found.get("driven", "").strip().casefold() in _YES),
            *((name, moment is not None) for name, moment in moments.items()),
        )
        if found.get(name, "").strip() and not is_known
    ]
    return ReadLogin(line, _reason(title, address, login.secret.reveal()), login, tuple(left))


def _unquoted(cell: str) -> str:
    if not cell.startswith("'"):
        return cell
    rest = cell[1:]
    # The package that guards against formulas also puts a stroke before each bar of such a cell.
    return rest.replace("\\|", "|") if rest.startswith(_FORMULA) else rest


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text.strip())
    except ValueError:
        return None


def _reason(title: str, address: str, secret: str) -> str:
    if not title and not address:
        return "has neither a title nor an address"
    if len(title) > 1_000 or len(address) > 1_000:
        return "has a title or an address of more than 1,000 characters"
    if len(secret) > SECRET_LIMIT:
        return f"has a secret of more than {SECRET_LIMIT:,} characters"
    return ""


def _decoded(body: bytes) -> tuple[str, str]:
    if body.startswith((b"\xff\xfe", b"\xfe\xff")):
        candidates = ["utf-16"]
    else:
        candidates = ["utf-8-sig", "cp1252"]
    for encoding in candidates:
        try:
            return body.decode(encoding), encoding.removesuffix("-sig")
        except UnicodeDecodeError:
            continue
    raise CsvRefused(reason="the file is neither UTF-8, UTF-16 nor Windows-1252 text", line=0)


def _separator(text: str) -> str:
    first = text.lstrip("\r\n").split("\n", 1)[0]
    return max(",;\t|", key=lambda s: first.count(s))


def _records(text: str, separator: str) -> Iterator[tuple[int, tuple[str, ...]]]:
    """(first line, cells) of each record."""
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=True)
    while True:
        line = reader.line_num + 1
        try:
            cells = next(reader)
        except StopIteration:
            return
        except csv.Error as error:
            raise CsvRefused(reason=f"not readable as CSV: {error}", line=line) from None
        yield line, tuple(cells)
