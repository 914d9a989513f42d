"""Accounts of the practice sites and the mails they send, in an SQLite file of their own."""

import hashlib
import hmac
import secrets
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

_CREATE = (
    """CREATE TABLE IF NOT EXISTS accounts (
  host TEXT NOT NULL, user_name TEXT NOT NULL, salt BLOB NOT NULL, digest BLOB NOT NULL,
  PRIMARY KEY (host, user_name)
) STRICT""",
    """CREATE TABLE IF NOT EXISTS changes (
  change_id INTEGER PRIMARY KEY, host TEXT NOT NULL, user_name TEXT NOT NULL,
  salt BLOB NOT NULL, digest BLOB NOT NULL, changed_at TEXT NOT NULL
) STRICT""",
    """CREATE TABLE IF NOT EXISTS code_keys (
  host TEXT NOT NULL, user_name TEXT NOT NULL, code_key TEXT NOT NULL,
  PRIMARY KEY (host, user_name)
) STRICT""",
    """CREATE TABLE IF NOT EXISTS waiting (
  token TEXT PRIMARY KEY, host TEXT NOT NULL, user_name TEXT NOT NULL,
  salt BLOB NOT NULL, digest BLOB NOT NULL
) STRICT""",
    """CREATE TABLE IF NOT EXISTS mails (
  mail_id INTEGER PRIMARY KEY, host TEXT NOT NULL, user_name TEXT NOT NULL,
  subject TEXT NOT NULL, body TEXT NOT NULL, sent_at TEXT NOT NULL
) STRICT""",
)
_UPSERT = "INSERT OR REPLACE INTO accounts (host, user_name, salt, digest) VALUES (?, ?, ?, ?)"
_SELECT = "SELECT salt, digest FROM accounts WHERE host = ? AND user_name = ?"
_INSERT_CHANGE = (
    "INSERT INTO changes (host, user_name, salt, digest, changed_at) VALUES (?, ?, ?, ?, ?)"
)
_SELECT_CHANGES = (
    "SELECT salt, digest, changed_at FROM changes WHERE host = ? AND user_name = ? "
    "ORDER BY change_id DESC LIMIT ?"
)
_INSERT_KEY = "INSERT OR REPLACE INTO code_keys (host, user_name, code_key) VALUES (?, ?, ?)"
_SELECT_KEY = "SELECT code_key FROM code_keys WHERE host = ? AND user_name = ?"
_INSERT_WAITING = (
    "INSERT INTO waiting (token, host, user_name, salt, digest) VALUES (?, ?, ?, ?, ?)"
)
_SELECT_WAITING = "SELECT host, user_name, salt, digest FROM waiting WHERE token = ?"
_DELETE_WAITING = "DELETE FROM waiting WHERE token = ?"
_INSERT_MAIL = "INSERT INTO mails (host, user_name, subject, body, sent_at) VALUES (?, ?, ?, ?, ?)"
_SELECT_MAILS = (
    "SELECT mail_id, host, user_name, subject, body, sent_at FROM mails "
    "ORDER BY mail_id DESC LIMIT 200"
)


@dataclass(frozen=True, slots=True)
class Mail:
    """A mail in the tray."""

    mail_id: int
    host: str
    user_name: str
    subject: str
    body: str
    sent_at: str


class Accounts:
    """User names with hashed passwords, one set for each site, and a tray of mails for all."""

    def __init__(self, path: Path) -> None:
        self._path = path
        with closing(self._open()) as connection, connection:
            for statement in _CREATE:
                connection.execute(statement)

    def exists(self, host: str, user_name: str) -> bool:
        """Whether the user name is taken at the site."""
        with closing(self._open()) as connection:
            return connection.execute(_SELECT, (host, user_name)).fetchone() is not None

    def put(self, host: str, user_name: str, password: str) -> None:
        """Sets the password of a new or known account."""
        salt = secrets.token_bytes(16)
        self._put(host, user_name, salt, _digest(password, salt))

    def fits(self, host: str, user_name: str, password: str) -> bool:
        """Whether the password opens the account."""
        with closing(self._open()) as connection:
            row = connection.execute(_SELECT, (host, user_name)).fetchone()
        return row is not None and hmac.compare_digest(_digest(password, row[0]), row[1])

    def had(self, host: str, user_name: str, password: str, *, last: int) -> bool:
        """Whether the password is one of the last ones of the account."""
        with closing(self._open()) as connection:
            rows = connection.execute(_SELECT_CHANGES, (host, user_name, last)).fetchall()
        return any(_digest(password, salt) == digest for salt, digest, _ in rows)

    def changed_at(self, host: str, user_name: str) -> datetime | None:
        """When the password was last set."""
        with closing(self._open()) as connection:
            row = connection.execute(_SELECT_CHANGES, (host, user_name, 1)).fetchone()
        return None if row is None else datetime.fromisoformat(row[2])

    def code_key(self, host: str, user_name: str) -> str | None:
        """The key of the account's codes, in Base32; None where it has none."""
        with closing(self._open()) as connection:
            row = connection.execute(_SELECT_KEY, (host, user_name)).fetchone()
        return None if row is None else str(row[0])

    def put_code_key(self, host: str, user_name: str, code_key: str) -> None:
        """Sets the key of the account's codes."""
        with closing(self._open()) as connection, connection:
            connection.execute(_INSERT_KEY, (host, user_name, code_key))

    def let_wait(self, host: str, user_name: str, password: str) -> str:
        """Keeps a new password until its token comes back."""
        token, salt = secrets.token_urlsafe(18), secrets.token_bytes(16)
        with closing(self._open()) as connection, connection:
            row = (token, host, user_name, salt, _digest(password, salt))
            connection.execute(_INSERT_WAITING, row)
        return token

    def confirm(self, host: str, token: str) -> bool:
        """Makes a waiting password the account's; False where there is none."""
        with closing(self._open()) as connection, connection:
            row = connection.execute(_SELECT_WAITING, (token,)).fetchone()
            connection.execute(_DELETE_WAITING, (token,))
        if row is None or row[0] != host:
            return False
        self._put(*row)
        return True

    def send_mail(self, host: str, user_name: str, subject: str, body: str) -> None:
        """Puts a mail into the tray."""
        row = (host, user_name, subject, body, datetime.now(UTC).isoformat(timespec="seconds"))
        with closing(self._open()) as connection, connection:
            connection.execute(_INSERT_MAIL, row)

    def mails(self) -> list[Mail]:
        """The newest mails first."""
        with closing(self._open()) as connection:
            return [Mail(*row) for row in connection.execute(_SELECT_MAILS).fetchall()]

    def _put(self, host: str, user_name: str, salt: bytes, digest: bytes) -> None:
        now = datetime.now(UTC).isoformat()
        with closing(self._open()) as connection, connection:
            connection.execute(_UPSERT, (host, user_name, salt, digest))
            connection.execute(_INSERT_CHANGE, (host, user_name, salt, digest, now))

    def _open(self) -> sqlite3.Connection:
        return sqlite3.connect(self._path)


def _digest(password: str, salt: bytes) -> bytes:
    return hashlib.scrypt(password.encode("utf-8", "replace"), salt=salt, n=2**12, r=8, p=1)
