"""The table of sealed records."""

import secrets
import sqlite3
from collections.abc import Iterator

from newknot.store.errors import RecordMissing

ID_BYTES = 16

_UPSERT = """
INSERT INTO records (record_id, part, revision, sealed) VALUES (?, ?, ?, ?)
ON CONFLICT (record_id, part) DO UPDATE SET revision = excluded.revision, sealed = excluded.sealed
"""
_DELETE = "DELETE FROM records WHERE record_id = ? AND part = ?"
_SELECT = "SELECT revision, sealed FROM records WHERE record_id = ? AND part = ?"
_SELECT_PART = "SELECT record_id, revision, sealed FROM records WHERE part = ?"
_TAGS = "SELECT record_id, part, revision, substr(sealed, -16) FROM records"


def write_record(
    connection: sqlite3.Connection, record_id: bytes, part: int, revision: int, sealed: bytes
) -> None:
    """Puts a record, new or over its former revision."""
    connection.execute(_UPSERT, (record_id, part, revision, sealed))


def remove_record(connection: sqlite3.Connection, record_id: bytes, part: int) -> None:
    """Deletes a record; its bytes are overwritten (secure_delete)."""
    connection.execute(_DELETE, (record_id, part))


def read_record(
    connection: sqlite3.Connection, record_id: bytes, part: int
) -> tuple[int, bytes] | None:
    """(revision, sealed), or None where there is no such row."""
    row: tuple[int, bytes] | None = connection.execute(_SELECT, (record_id, part)).fetchone()
    return row


def read_part(connection: sqlite3.Connection, part: int) -> Iterator[tuple[bytes, int, bytes]]:
    """(record_id, revision, sealed) of this part of every record."""
    yield from connection.execute(_SELECT_PART, (part,))


def read_tags(connection: sqlite3.Connection) -> Iterator[tuple[bytes, int, int, bytes]]:
    """(record_id, part, revision, last 16 bytes) of every row, without the sealed texts."""
    yield from connection.execute(_TAGS)


def new_id() -> str:
    """A random record id of 128 bits, in hex."""
    return secrets.token_hex(ID_BYTES)


def id_bytes(record_id: str) -> bytes:
    """The bytes of a record id. Raises `RecordMissing` where it is none."""
    try:
        raw = bytes.fromhex(record_id)
    except ValueError:
        raise RecordMissing() from None
    if len(raw) != ID_BYTES:
        raise RecordMissing()
    return raw
