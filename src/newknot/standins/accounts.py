"""Accounts of the practice sites, in an SQLite file of their own."""

import hashlib
import hmac
import secrets
import sqlite3
from pathlib import Path

_CREATE = """
CREATE TABLE IF NOT EXISTS accounts (
  host TEXT NOT NULL, user_name TEXT NOT NULL, salt BLOB NOT NULL, digest BLOB NOT NULL,
  PRIMARY KEY (host, user_name)
) STRICT
"""
_UPSERT = "INSERT OR REPLACE INTO accounts (host, user_name, salt, digest) VALUES (?, ?, ?, ?)"
_SELECT = "SELECT salt, digest FROM accounts WHERE host = ? AND user_name = ?"


class Accounts:
    """User names with hashed passwords, one set for each site."""

    def __init__(self, path: Path) -> None:
        self._path = path
        with self._open() as connection:
            connection.execute(_CREATE)

    def exists(self, host: str, user_name: str) -> bool:
        """Whether the user name is taken at the site."""
        with self._open() as connection:
            return connection.execute(_SELECT, (host, user_name)).fetchone() is not None

    def put(self, host: str, user_name: str, password: str) -> None:
        """Sets the password of a new or known account."""
        salt = secrets.token_bytes(16)
        with self._open() as connection:
            connection.execute(_UPSERT, (host, user_name, salt, _digest(password, salt)))

    def fits(self, host: str, user_name: str, password: str) -> bool:
        """Whether the password opens the account."""
        with self._open() as connection:
            row = connection.execute(_SELECT, (host, user_name)).fetchone()
        return row is not None and hmac.compare_digest(_digest(password, row[0]), row[1])

    def _open(self) -> sqlite3.Connection:
        return sqlite3.connect(self._path)


def _digest(password: str, salt: bytes) -> bytes:
    return hashlib.scrypt(password.encode("utf-8", "replace"), salt=salt, n=2**12, r=8, p=1)
