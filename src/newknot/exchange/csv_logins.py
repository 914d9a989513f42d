"""Logins from CSV (RFC 4180) of any column order: decoding, columns, a guessed mapping, rows."""

import csv
import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from defusedcsv import csv as defused

from newknot.core.errors import NewKnotError
from newknot.core.login import SECRET_LIMIT, Importance, PlainField, SecretField
from newknot.core.secret import Secret
from newknot.exchange.portable_login import PortableLogin, ReadLogin, with_names_apart

SIZE_LIMIT = 20 * 1024 * 1024
ROWS_LIMIT = 100_000
COLUMNS_LIMIT = 100
TARGETS = (
    *("title", "user_name", "secret", "address", "notes", "folder", "tags", "code_key", "owner"),
    *("importance", "expires_on", "field", "secret_field", ""),
)
"""What a column can become; `field` and `secret_field` keep it under its own name, the empty one
leaves it out.
"""
FIELD, SECRET_FIELD, QUOTED = "field: ", "secret field: ", "quoted with an apostrophe"
_OWN_COLUMNS = (
    *("title", "user name", "secret", "address", "notes", "folder", "tags"),
    *("key of codes", "in charge", "importance", "expires on"),
)
LEFT_OUT = "-"
_FORMULA = ("@", "+", "-", "=", "%", "\\|")
_IMPORTANCE = {one.value: one for one in Importance}

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
}


class CsvRefused(NewKnotError):
    """A text that cannot be read as CSV at all. data: reason, line (where known, else 0)."""


@dataclass(frozen=True, slots=True)
class CsvTable:
    """columns: names of the first row. rows: (line in the file, from 1; cells)."""

    encoding: str
    separator: str
    columns: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]
    broken: tuple[tuple[int, str], ...]
    """Rows with another number of cells than columns: (line, reason)."""


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
    broken: list[tuple[int, str]] = []
    columns: tuple[str, ...] = ()
    for line, cells in _records(text, separator):
        if not any(cell.strip() for cell in cells):
            continue
        if not columns:
            columns = tuple(cell.strip() for cell in cells)
            if len(columns) > COLUMNS_LIMIT:
                raise CsvRefused(reason=f"more than {COLUMNS_LIMIT} columns", line=line)
        elif len(cells) != len(columns):
            broken.append((line, f"{len(cells)} cells where the first row has {len(columns)}"))
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
    if columns and columns[-1] == QUOTED:
        guessed[-1] = LEFT_OUT
    for exact in (True, False):
        for i, column in enumerate(columns):
            name = column.casefold().replace("_", " ").strip()
            for target, names in _NAMES.items():
                fits = name in names if exact else any(n in name for n in names)
                if not guessed[i] and target not in taken and fits:
                    guessed[i] = target
                    taken.add(target)
    return tuple("" if target == LEFT_OUT else target or "field" for target in guessed)


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
    own = bool(table.columns) and table.columns[-1] == QUOTED
    for line, row in table.rows:
        cells = tuple(map(_unquoted, row)) if own else row
        yield _login(line, table.columns, mapping, cells)


def write_logins(logins: Sequence[PortableLogin]) -> bytes:
    """A CSV file (RFC 4180, UTF-8) with a column for each further field there is.

    What a spreadsheet would take for a formula is quoted with an apostrophe, and the last column
    says so; read back here it is the same. Raises `CsvRefused` where a text cannot stand in it.
    """
    plain = list(dict.fromkeys(f.name for one in logins for f in one.fields))
    if any("\0" in text for one in logins for text in _texts(one)):
        raise CsvRefused(reason="a login holds a NUL character, which CSV cannot", line=0)
    # A name may stand several times in one login: so many columns of it.
    times = {n: max(sum(f.name == n for f in one.fields) for one in logins) for n in plain}
    secret = list(dict.fromkeys(f.name for one in logins for f in one.secret_fields))
    out = io.StringIO(newline="")
    writer = defused.writer(out)
    plain_columns = [name for name in plain for _ in range(times[name])]
    columns = [*_OWN_COLUMNS, *(FIELD + n for n in plain_columns)]
    writer.writerow([*map(_quoted, (*columns, *(SECRET_FIELD + n for n in secret))), QUOTED])
    for one in logins:
        left = list(one.fields)
        values = [
            one.title,
            one.user_name,
            one.secret.reveal(),
            one.address,
            one.notes,
            one.folder,
            ", ".join(one.tags),
            one.code_key.reveal(),
            one.owner,
            one.importance.value,
            one.expires_on.isoformat() if one.expires_on is not None else "",
        ]
        for name in plain_columns:
            found = next((f for f in left if f.name == name), None)
            if found is not None:
                left.remove(found)
            values.append(found.value if found is not None else "")
        held = {f.name: f.value.reveal() for f in one.secret_fields}
        values += [held.get(name, "") for name in secret]
        writer.writerow([*map(_quoted, values), "yes"])
    return out.getvalue().encode("utf-8")


def _texts(one: PortableLogin) -> Iterator[str]:
    yield from (one.title, one.user_name, one.address, one.notes, one.folder, one.owner)
    yield from (one.secret.reveal(), *one.tags, *(f.value for f in one.fields))
    yield from (f.value.reveal() for f in one.secret_fields)


def _login(
    line: int, columns: tuple[str, ...], mapping: tuple[str, ...], cells: tuple[str, ...]
) -> ReadLogin:
    found = {
        t: c for t, c in zip(mapping, cells, strict=True) if t not in ("", "field", "secret_field")
    }
    further = list(zip(columns, mapping, cells, strict=True))
    title, address = found.get("title", "").strip(), found.get("address", "").strip()
    tags = (t.strip() for t in found.get("tags", "").replace(";", ",").split(","))
    login = PortableLogin(
        title=title or address,
        user_name=found.get("user_name", "").strip(),
        address=address,
        secret=Secret(found.get("secret", "")),
        notes=found.get("notes", "").strip(),
        folder=found.get("folder", "").strip(),
        tags=tuple(t for t in tags if t),
        fields=tuple(
            PlainField(column.removeprefix(FIELD) or "column", cell.strip())
            for column, target, cell in further
            if target == "field" and cell.strip()
        ),
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
    )
    left = [
        f"its “{name.replace('_', ' ')}” is not understood"
        for name, is_known in (
            ("expires_on", login.expires_on is not None),
            ("importance", found.get("importance") in _IMPORTANCE),
        )
        if found.get(name, "").strip() and not is_known
    ]
    return ReadLogin(line, _reason(title, address, login.secret.reveal()), login, tuple(left))


def _quoted(cell: str) -> str:
    """One more apostrophe before one that is there, so that taking one off gives it back."""
    return "'" + cell if cell.startswith("'") else cell


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
