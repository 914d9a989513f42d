"""Records as they are sealed: nothing is seen of them, and no change from outside is believed."""

from pathlib import Path

import pytest

from newknot.store.errors import (
    RecordDamaged,
    RecordMissing,
)
from newknot.store.manifest import Label
from newknot.store.vault import Vault, new_id
from tests.conftest import PASSPHRASE, new_vault, reopened
from tests.store.samples import put, raw


@pytest.mark.parametrize("wrong", ["", "xyz", "00", "0" * 32])
def test_an_id_that_is_none_is_missing(vault: Vault, wrong: str) -> None:
    with pytest.raises(RecordMissing):
        vault.get(Label.LOGIN, wrong)


def test_a_record_under_another_label_is_missing(vault: Vault) -> None:
    record_id = put(vault, b"card")
    with pytest.raises(RecordMissing):
        vault.get(Label.POLICY, record_id)


def test_many_are_read_at_once_and_each_as_it_is_now(tmp_path: Path) -> None:
    """What was changed since they were fetched is read again; what cannot be read is none."""
    vault = new_vault(tmp_path)
    ids = [put(vault, f"card {at}".encode()) for at in range(130)]
    policy = new_id()
    with vault.transaction() as tx:
        tx.put(Label.POLICY, policy, b"policy")
    found = vault.texts(Label.LOGIN, 1, [*ids, policy, "0" * 32])
    assert next(found) == (ids[0], b"card 0")
    with vault.transaction() as tx:
        tx.put(Label.LOGIN, ids[5], b"changed")
        tx.remove(Label.LOGIN, ids[6])
    told = dict(found)
    assert told[ids[5]] == b"changed" and told[ids[7]] == b"card 7"
    assert [one for one, text in told.items() if text is None] == [ids[6], policy, "0" * 32]
    with raw(tmp_path) as connection:
        connection.execute("UPDATE records SET sealed = zeroblob(60) WHERE rowid = 9")
    damaged = [one for one, text in vault.texts(Label.LOGIN, 1, ids) if text is None]
    assert len(damaged) == 2 and ids[6] in damaged


def test_all_of_a_kind_are_as_they_are_now_and_within_a_transaction_as_it_leaves_them(
    vault: Vault,
) -> None:
    def texts() -> list[bytes]:
        return vault.decoded_all(Label.LOGIN, 1, lambda _, text: text)[0]

    record_id = put(vault, b"one")
    assert texts() == [b"one"] == texts()
    with pytest.raises(ZeroDivisionError), vault.transaction() as tx:
        tx.put(Label.LOGIN, record_id, b"two")
        assert texts() == [b"two"]
        raise ZeroDivisionError
    assert texts() == [b"one"]
    with vault.transaction() as tx:
        tx.put(Label.LOGIN, record_id, b"three")
    assert texts() == [b"three"]


def test_the_file_shows_neither_text_nor_kind(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    for i in range(20):
        put(vault, f"Gantry Rentals {i} login".encode())
    files = list(tmp_path.glob("own.vault*"))
    assert len(files) >= 2
    for path in files:
        body = path.read_bytes()
        assert b"Gantry" not in body and PASSPHRASE.encode() not in body and b"LOGIN" not in body
    vault.close()


CHANGES = {
    "flipped": (
        "UPDATE records SET sealed = CAST(iif(substr(sealed, 1, 1) = X'00', X'01', X'00') "
        "|| substr(sealed, 2) AS BLOB) WHERE rowid = 1"
    ),
    "cut": "UPDATE records SET sealed = substr(sealed, 1, 40) WHERE rowid = 1",
    "dropped": "DELETE FROM records WHERE rowid = 1",
    "revision": "UPDATE records SET revision = revision + 1 WHERE rowid = 1",
    "swapped": (
        "UPDATE records SET sealed = (SELECT sealed FROM records WHERE rowid = 2) WHERE rowid = 1"
    ),
    "added": (
        "INSERT INTO records (record_id, part, revision, sealed) "
        "VALUES (randomblob(16), 1, 1, randomblob(1052))"
    ),
}


@pytest.mark.parametrize("change", CHANGES.values(), ids=CHANGES.keys())
def test_a_record_changed_from_outside_is_named_and_never_read(tmp_path: Path, change: str) -> None:
    vault = new_vault(tmp_path)
    ids = [put(vault, b"one"), put(vault, b"two"), put(vault, b"three")]
    vault.close()
    connection = raw(tmp_path)
    connection.execute(change)
    connection.close()
    vault = reopened(tmp_path)
    read: list[bytes] = []
    for record_id in ids:
        try:
            read.append(vault.get(Label.LOGIN, record_id))
        except RecordDamaged:
            continue
    if change == CHANGES["added"]:
        assert len(read) == 3 and len(vault.damaged) == 1
    else:
        assert len(set(read)) == 2 and set(read) < {b"one", b"two", b"three"}
    if change != CHANGES["flipped"]:
        assert len(vault.damaged) == 1
    vault.close()


def test_an_older_record_put_back_is_noticed(tmp_path: Path) -> None:
    vault = new_vault(tmp_path)
    record_id = put(vault, b"old")
    connection = raw(tmp_path)
    old = connection.execute("SELECT revision, sealed FROM records").fetchone()
    put(vault, b"new", record_id)
    vault.close()
    connection.execute("UPDATE records SET revision = ?, sealed = ?", old)
    connection.close()
    vault = reopened(tmp_path)
    with pytest.raises(RecordDamaged):
        vault.get(Label.LOGIN, record_id)
    vault.close()


def test_what_another_vault_of_the_same_key_wrote_at_the_same_revision_is_noticed(
    tmp_path: Path,
) -> None:
    vault = new_vault(tmp_path)
    record_id = put(vault, b"first")
    vault.close()
    there = tmp_path / "there"
    there.mkdir()
    (there / "own.vault").write_bytes((tmp_path / "own.vault").read_bytes())
    ours, theirs = reopened(tmp_path), reopened(there)
    put(ours, b"ours", record_id)
    put(theirs, b"theirs", record_id)
    theirs.close()
    source, target = raw(there), raw(tmp_path)
    row = source.execute("SELECT revision, sealed FROM records").fetchone()
    target.execute("UPDATE records SET revision = ?, sealed = ?", row)
    source.close()
    target.close()
    with pytest.raises(RecordDamaged):
        ours.get(Label.LOGIN, record_id)
    ours.close()


def test_a_vault_that_catches_up_names_what_is_damaged_once_and_reads_what_is_new(
    tmp_path: Path,
) -> None:
    vault = new_vault(tmp_path)
    first, second = put(vault, b"one"), put(vault, b"two")
    connection = raw(tmp_path)
    connection.execute("DELETE FROM records WHERE record_id = ?", (bytes.fromhex(first),))
    connection.close()
    early, late = reopened(tmp_path), reopened(tmp_path)
    assert early.decoded(Label.LOGIN, second, 1, bytes) == b"two"
    put(late, b"three", second)
    early.catch_up()
    assert len(early.damaged) == 1 and early.decoded(Label.LOGIN, second, 1, bytes) == b"three"
    for one in (vault, early, late):
        one.close()


def test_what_is_made_once_is_made_anew_when_its_kind_changes_and_not_otherwise(
    vault: Vault,
) -> None:
    made: list[int] = []

    def count() -> int:
        made.append(1)
        return len(vault.ids(Label.LOGIN))

    one = put(vault, b"{}")
    for _ in range(3):
        assert vault.once("count", (Label.LOGIN,), count) == 1
    with vault.transaction() as tx:
        tx.put(Label.POLICY, new_id(), b"{}")
    assert vault.once("count", (Label.LOGIN,), count) == 1 and len(made) == 1
    assert vault.once("other", (Label.LOGIN, Label.POLICY), count) == 1
    put(vault, b"{}")
    assert vault.once("count", (Label.LOGIN,), count) == 2
    with vault.transaction() as tx:
        tx.remove(Label.LOGIN, one)
        # Within a transaction it is as that leaves it, and not kept.
        assert vault.once("count", (Label.LOGIN,), count) == 1
    assert vault.once("count", (Label.LOGIN,), count) == 1
    with pytest.raises(RuntimeError), vault.transaction() as tx:
        put(vault, b"{}")
        assert vault.once("count", (Label.LOGIN,), count) == 2
        raise RuntimeError
    assert vault.once("count", (Label.LOGIN,), count) == 1
