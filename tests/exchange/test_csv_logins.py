"""CSV of any column order, and what cannot be read."""

import csv
import io

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.exchange.csv_logins import (
    CsvRefused,
    guess_mapping,
    logins_of,
    read_table,
    write_logins,
)
from newknot.exchange.portable_login import PortableLogin
from tests.exchange.samples import logins


@pytest.mark.parametrize(
    ("columns", "mapping"),
    [
        ("Name,URL,Username,Password,Notes", "title,address,user_name,secret,notes"),
        ("password,e-mail,website,title", "secret,user_name,address,title"),
        ("Group,Title,User Name,Pass,Link,Colour", "folder,title,user_name,secret,address,field"),
        ("Login Name,Site URL,Secret,Tags", "user_name,address,secret,tags"),
    ],
)
def test_columns_are_guessed_by_name(columns: str, mapping: str) -> None:
    assert guess_mapping(tuple(columns.split(","))) == tuple(mapping.split(","))


@pytest.mark.parametrize(
    ("body", "encoding", "separator"),
    [
        ("title,pass\nZoë,x\n".encode(), "utf-8", ","),
        ("\ufefftitle;pass\r\nZoë;x\r\n".encode(), "utf-8", ";"),
        ("title\tpass\nZoë\tx\n".encode("utf-16"), "utf-16", "\t"),
        ("title,pass\nZoë,x\n".encode("cp1252"), "cp1252", ","),
    ],
)
def test_encoding_and_separator_are_found(body: bytes, encoding: str, separator: str) -> None:
    table = read_table(body)
    assert (table.encoding, table.separator, table.columns) == (
        encoding,
        separator,
        ("title", "pass"),
    )
    assert table.rows == ((2, ("Zoë", "x")),)


def test_quotes_line_breaks_blanks_and_broken_rows() -> None:
    body = b'title,pass,notes\n"Gantry, ""Rentals""", a b ,"one\ntwo"\n\n,,\nshort,row\n,s,\n'
    table = read_table(body)
    assert table.broken == ((6, "2 cells where the first row has 3", ("short", "row")),)
    whole, none = logins_of(table, ("title", "secret", "notes"))
    login = whole.login
    assert (whole.line, login.title, login.secret.reveal(), login.notes) == (
        2, 'Gantry, "Rentals"', " a b ", "one\ntwo",
    )  # fmt: skip
    assert (none.line, none.reason) == (7, "has neither a title nor an address")


@pytest.mark.parametrize(
    ("body", "line"),
    [
        (b"", 0),
        (b"\n \n", 0),
        (b"a,b\n1,\x00\n", 2),
        (b'a,b\n"never closed,1\n', 2),
        (b"\x81\x8d\x8f\x90", 0),
        (b",".join([b"c"] * 501) + b"\n", 1),
        (b"x" * (21 << 20), 0),
    ],
)
def test_what_is_no_csv_is_refused_with_its_line(body: bytes, line: int) -> None:
    with pytest.raises(CsvRefused) as caught:
        read_table(body)
    assert caught.value.data["line"] == line


@pytest.mark.parametrize("mapping", [("title",), ("title", "title"), ("title", "colour")])
def test_a_mapping_that_does_not_fit_is_refused(mapping: tuple[str, ...]) -> None:
    with pytest.raises(CsvRefused):
        list(logins_of(read_table(b"a,b\n1,2\n"), mapping))


@settings(deadline=None)
@given(st.binary(max_size=300))
def test_no_bytes_raise_anything_else(body: bytes) -> None:
    try:
        table = read_table(body)
        list(logins_of(table, guess_mapping(table.columns)))
    except CsvRefused:
        pass


@settings(deadline=None)
@given(st.lists(logins(), min_size=1, max_size=4))
def test_what_is_written_is_read_back_the_same_and_is_no_formula(
    found: list[PortableLogin],
) -> None:
    file = write_logins(found)
    columns, *rows = csv.reader(io.StringIO(file.decode(), newline=""))
    secret = [c in ("backup codes", "key of codes", "secret") or c.startswith("secret field: ")
              for c in columns]  # fmt: skip
    for row in (columns, *rows):
        texts = [c for c, is_secret in zip(row, secret, strict=True) if not is_secret]
        assert not any(c.startswith(("=", "+", "@", "|", "%")) for c in texts)
    # Whatever else reads the file reads the secret itself.
    assert [row[2] for row in rows] == [one.secret.reveal() for one in found]
    table = read_table(file)
    read = list(logins_of(table, guess_mapping(table.columns)))
    for one, login in zip(read, found, strict=True):
        for name in PortableLogin.__slots__:
            values = [getattr(of, name) for of in (one.login, login)]
            if name in ("fields", "secret_fields"):
                values = [sorted(v, key=lambda f: f.name) for v in values]
            assert values[0] == values[1], name


def test_a_cell_under_a_wrong_heading_is_not_said_aloud() -> None:
    table = read_table(b"title,a,b\nGantry,rope-and-plank,truss-and-bolt\n")
    (read,) = logins_of(table, ("title", "expires_on", "importance"))
    assert len(read.left) == 2
    assert not any(text in said for said in read.left for text in ("rope", "truss"))
