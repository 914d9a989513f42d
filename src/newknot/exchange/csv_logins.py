"""Logins from CSV (RFC 4180) of any column order: decoding, columns, a guessed mapping, rows."""

import csv
import io
from collections.abc import Iterator
from dataclasses import dataclass

from newknot.core.errors import NewKnotError
from newknot.core.login import SECRET_LIMIT

SIZE_LIMIT = 20 * 1024 * 1024
ROWS_LIMIT = 100_000
COLUMNS_LIMIT = 100
TARGETS = ("title", "user_name", "secret", "address", "notes", "folder", "tags", "field", "")
"""What a column can become; `field` keeps it under its own name, the empty one leaves it out."""

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


@dataclass(frozen=True, slots=True)
class CsvLogin:
    """One row as a login, or the reason why it is none."""

    line: int
    reason: str
    title: str
    user_name: str
    secret: str
    address: str
    notes: str
    folder: str
    tags: tuple[str, ...]
    fields: tuple[tuple[str, str], ...]


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
    guessed = [""] * len(columns)
    for exact in (True, False):
        for i, column in enumerate(columns):
            name = column.casefold().replace("_", " ").strip()
            for target, names in _NAMES.items():
                fits = name in names if exact else any(n in name for n in names)
                if not guessed[i] and target not in taken and fits:
                    guessed[i] = target
                    taken.add(target)
    return tuple(target or "field" for target in guessed)


def logins_of(table: CsvTable, mapping: tuple[str, ...]) -> Iterator[CsvLogin]:
    """Each row under a mapping (one target for each column). Raises `CsvRefused` on a bad one."""
    if len(mapping) != len(table.columns) or any(t not in TARGETS for t in mapping):
        raise CsvRefused(reason="the mapping does not name what each column is", line=0)
    for target in set(mapping) - {"", "field"}:
        if mapping.count(target) > 1:
            raise CsvRefused(reason=f"two columns are mapped to {target}", line=0)
    for line, cells in table.rows:
        found = {t: c for t, c in zip(mapping, cells, strict=True) if t not in ("", "field")}
        fields = tuple(
            (column, cell)
            for column, target, cell in zip(table.columns, mapping, cells, strict=True)
            if target == "field" and cell.strip()
        )
        tags = tuple(t.strip() for t in found.get("tags", "").replace(";", ",").split(","))
        title, address = found.get("title", "").strip(), found.get("address", "").strip()
        yield CsvLogin(
            line=line,
            reason=_reason(title, address, found.get("secret", "")),
            title=title or address,
            user_name=found.get("user_name", "").strip(),
            secret=found.get("secret", ""),
            address=address,
            notes=found.get("notes", "").strip(),
            folder=found.get("folder", "").strip(),
            tags=tuple(t for t in tags if t),
            fields=fields,
        )


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
