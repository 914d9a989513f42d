"""Backups, and what a restore would change."""

from datetime import datetime

from newknot.api.schemas.base import Shape


class BackupOut(Shape):
    """A copy of the vault. is_read_through: to the last record after writing, which those kept
    before a migration, or by an older program, were not.
    """

    name: str
    path: str
    size_bytes: int
    made_at: datetime
    is_read_through: bool


class RestoreLineOut(Shape):
    """One record that a restore would change. what: back, gone, differs, or made (a loose end).

    login_id: the id of the record, a login or not; kind: which kind it is; title and user name: of
    the login that it is, or is of. kept_secrets, kept_texts: newer ones that go to
    its history.
    """

    login_id: str
    kind: str
    title: str
    user_name: str
    what: str
    kept_secrets: int
    kept_texts: int
