"""Record ids, and the rows of the one table."""

from pathlib import Path

import pytest

from newknot.store.database import connect, migrate, transaction
from newknot.store.errors import RecordMissing
from newknot.store.records import (
    id_bytes,
    new_id,
    read_record,
    read_tags,
    remove_record,
    write_record,
)


def test_a_row_is_written_over_read_and_removed(tmp_path: Path) -> None:
    connection = connect(tmp_path / "a.vault")
    migrate(connection)
    record_id = id_bytes(new_id())
    with transaction(connection):
        for revision in (1, 2):
            write_record(connection, record_id, 1, revision, bytes([revision]) * 32)
    assert read_record(connection, record_id, 1) == (2, b"\x02" * 32)
    assert list(read_tags(connection)) == [(record_id, 1, 2, b"\x02" * 16)]
    with transaction(connection):
        remove_record(connection, record_id, 1)
    assert read_record(connection, record_id, 1) is None
    connection.close()


@pytest.mark.parametrize("wrong", ["", "x" * 32, "ab", "00" * 17])
def test_what_is_no_id_names_no_record(wrong: str) -> None:
    with pytest.raises(RecordMissing):
        id_bytes(wrong)
