"""A copy is believed only when every byte of use in it was read."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from threading import Thread

import pytest

from newknot.core.errors import NewKnotError
from newknot.store.copies import (
    CopyFaulty,
    opened_copy,
    require_whole_copy,
    unreadable_of,
    vault_id_of,
    write_copy,
)
from newknot.store.vault import HISTORY, SECRETS, Label, Vault, new_id
from tests.conftest import CHEAP, PASSPHRASE, new_vault, reopened

SLOTS = "slots", "recovery_slots"


@pytest.fixture
def filled(tmp_path: Path) -> Iterator[Vault]:
    """A vault with both ways in and a login of three parts."""
    vault = new_vault(tmp_path)
    with vault.new_recovery(bytes(32), parameters=CHEAP):
        pass
    with vault.transaction() as tx:
        for part in (1, SECRETS, HISTORY):
            tx.put(Label.LOGIN, "ab" * 16, b'{"part": 1}', part=part)
        tx.put(Label.POLICY, new_id(), b"{}")
    yield vault
    vault.close()


def copied(vault: Vault, folder: Path) -> Path:
    folder.mkdir(exist_ok=True)
    path = folder / "own.vault"
    write_copy(vault, path)
    return path


def test_a_whole_copy_is_believed_opens_by_the_passphrase_and_says_whose_it_is(
    tmp_path: Path, filled: Vault
) -> None:
    path = copied(filled, tmp_path / "copy")
    require_whole_copy(filled, path, least_counter=filled.counter)
    assert [one.name for one in path.parent.iterdir()] == ["own.vault"]
    assert vault_id_of(path) == filled.vault_id
    # Not of the kind that keeps a log beside it (SQLite's file format, section 1.3.3).
    assert path.read_bytes()[18:20] == b"\x01\x01"
    copy = reopened(path.parent)
    assert copy.get(Label.LOGIN, "ab" * 16, SECRETS) == b'{"part": 1}'
    copy.close()
    with pytest.raises(CopyFaulty):
        require_whole_copy(filled, path, least_counter=filled.counter + 1)


def changed(sql: str, *parameters: object) -> tuple[str, tuple[object, ...]]:
    return sql, parameters


ZEROED = """UPDATE {} SET sealed = CAST(zeroblob(length(sealed) - 16) || substr(sealed, -16) AS
BLOB)"""
CHANGED = """UPDATE records SET sealed = CAST(substr(sealed, 1, 40)
|| iif(substr(sealed, 41, 1) = X'00', X'01', X'00') || substr(sealed, 42)
AS BLOB) WHERE record_id = ? AND part = ?"""


@pytest.mark.parametrize(
    ("sql", "parameters", "part"),
    [
        (ZEROED.format("records"), (), ""),
        (ZEROED.format("manifest"), (), "manifest"),
        (ZEROED.format("head"), (), "head"),
        *(((CHANGED, (b"\xab" * 16, part), "login")) for part in (1, 2, 3)),
        ("DELETE FROM records WHERE part = 3", (), "login"),
        ("DELETE FROM manifest", (), "manifest"),
        ("DELETE FROM slots WHERE slot_copy = 2", (), "passphrase"),
        ("DELETE FROM recovery_slots", (), "recovery sheet"),
        *(
            (f"UPDATE {table} SET {what} = {value} WHERE slot_copy = ?", (n,), "key slot")  # noqa: S608
            for table in SLOTS
            for what, value in (("salt", "zeroblob(16)"), ("checksum", "zeroblob(16)"),
                                ("sealed_key", "zeroblob(92)"), ("passes", "passes + 1"),
                                ("passes", "0"))
            for n in (1, 2)
        ),
        ("CREATE TABLE more (id INTEGER)", (), "schema"),
    ],
)  # fmt: skip
def test_a_copy_with_any_fault_is_not_believed(
    tmp_path: Path, filled: Vault, sql: str, parameters: tuple[object, ...], part: str
) -> None:
    path = copied(filled, tmp_path / "copy")
    connection = sqlite3.connect(path, isolation_level=None)
    connection.execute(sql, parameters)
    connection.close()
    with pytest.raises(CopyFaulty) as caught:
        require_whole_copy(filled, path, least_counter=filled.counter)
    assert part in caught.value.part


def test_it_may_lack_what_the_vault_itself_has_lost_and_nothing_else(
    tmp_path: Path, filled: Vault
) -> None:
    filled.connection.execute(CHANGED, (b"\xab" * 16, SECRETS))
    path, lost = copied(filled, tmp_path / "copy"), unreadable_of(filled)
    require_whole_copy(filled, path, least_counter=filled.counter, but_for=lost)
    with closing(sqlite3.connect(path, isolation_level=None)) as connection:
        connection.execute(CHANGED, (b"\xab" * 16, HISTORY))
    with pytest.raises(CopyFaulty):
        require_whole_copy(filled, path, least_counter=filled.counter, but_for=lost)


def test_a_record_that_is_no_document_is_a_fault(tmp_path: Path, filled: Vault) -> None:
    with filled.transaction() as tx:
        tx.put(Label.LOGIN, "cd" * 16, b"{half")
    path = copied(filled, tmp_path / "copy")
    with pytest.raises(CopyFaulty) as caught:
        require_whole_copy(filled, path, least_counter=0)
    assert caught.value.record_id == "cd" * 16


def test_cut_at_any_page_and_not_a_vault_at_all(tmp_path: Path, filled: Vault) -> None:
    path = copied(filled, tmp_path / "copy")
    whole = path.read_bytes()
    for pages in range(0, len(whole) // 4096):
        path.write_bytes(whole[: pages * 4096])
        with pytest.raises((CopyFaulty, NewKnotError)):
            require_whole_copy(filled, path, least_counter=filled.counter)
    path.write_bytes(b"no vault" * 600)
    assert opened_copy(filled, path) is None and vault_id_of(path) is None


def test_a_copy_is_made_beside_others_at_work(tmp_path: Path, filled: Vault) -> None:
    """Read and written while one thread holds the vault's own lock."""
    made: list[Path] = []

    def copy() -> None:
        made.append(copied(filled, tmp_path / "copy"))
        require_whole_copy(filled, made[0], least_counter=filled.counter)
        made.append(made[0])

    with filled.lock:
        thread = Thread(target=copy)
        thread.start()
        thread.join(10)
        assert len(made) == 2


def test_the_file_gone_from_its_place_is_still_copied(tmp_path: Path, filled: Vault) -> None:
    (tmp_path / "own.vault").unlink()
    path = copied(filled, tmp_path / "copy")
    require_whole_copy(filled, path, least_counter=filled.counter)


def test_one_damaged_copy_of_a_slot_is_mended_from_the_other(tmp_path: Path) -> None:
    new_vault(tmp_path).close()
    for n in (1, 2):
        connection = sqlite3.connect(tmp_path / "own.vault", isolation_level=None)
        connection.execute("UPDATE slots SET salt = zeroblob(16) WHERE slot_copy = ?", (n,))
        connection.close()
        vault = reopened(tmp_path, PASSPHRASE)
        assert len(vault.mended) == 1
        require_whole_copy(vault, copied(vault, tmp_path / f"copy {n}"), least_counter=0)
        vault.close()
        vault = reopened(tmp_path)
        assert vault.mended == []
        vault.close()
