"""Backups, and what a restore would change."""

from datetime import datetime

from newknot.api.schemas.base import Shape


class BackupOut(Shape):
    """A backup that was read through after writing."""

    name: str
    path: str
    size_bytes: int
    made_at: datetime


class RestoreLineOut(Shape):
    """One login that a restore would change. what: back, gone or differs."""

    login_id: str
    title: str
    user_name: str
    what: str
