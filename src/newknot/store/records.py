"""The table of sealed records."""

import sqlite3
from collections.abc import Iterator

_UPSERT = """
INSERT INTO records (record_id, part, revision, sealed) VALUES (?, ?, ?, ?)
ON CONFLICT (record_id, part) DO UPDATE SET revision = excluded.revision, sealed = excluded.sealed
"""
_DELETE = "DELETE FROM records WHERE record_id = ? AND part = ?"
_SELECT = "SELECT revision, sealed FROM records WHERE record_id = ? AND part = ?"
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


def read_tags(connection: sqlite3.Connection) -> Iterator[tuple[bytes, int, int, bytes]]:
    """(record_id, part, revision, last 16 bytes) of every row, without the sealed texts."""
    yield from connection.execute(_TAGS)
