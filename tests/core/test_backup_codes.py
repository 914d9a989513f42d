"""Backup codes as one text, there and back."""

from datetime import UTC, datetime

from newknot.core.backup_codes import codes_of_text, text_of_codes
from newknot.core.login import BackupCode
from newknot.core.secret import Secret

NOON = datetime(2026, 5, 4, 12, tzinfo=UTC)


def test_codes_are_read_as_they_were_written() -> None:
    codes = BackupCode(Secret("aaaa-1111"), None), BackupCode(Secret("bbbb"), NOON)
    assert codes_of_text(text_of_codes(codes)) == codes
    # A moment without its zone is taken as UTC, one that is none as not struck off.
    read = codes_of_text("cccc\tused 2026-05-04T12:00:00\r\n\ndddd\tused some day")
    assert [one.used_at for one in read] == [NOON, None]
