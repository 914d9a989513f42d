"""Shapes of a vault's first hour."""

from newknot.api.schemas.base import Shape


class FirstHourOut(Shape):
    """Which steps are done; is_over: all of them, or dismissed."""

    has_logins: bool
    has_corpus: bool
    has_recovery_sheet: bool
    has_backup_place: bool
    is_checked: bool
    is_over: bool
