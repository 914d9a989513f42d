"""The manifest follows what was committed, bucket by bucket."""

import os
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.store.database import connect, migrate
from newknot.store.errors import VaultDamaged
from newknot.store.manifest import Entry, Key, Label, Manifest, bucket_of

KEYS = st.tuples(st.binary(min_size=16, max_size=16), st.integers(1, 3))


@settings(max_examples=25, deadline=None)
@given(st.lists(st.tuples(KEYS, st.booleans()), max_size=60))
def test_what_was_settled_is_what_loads(
    tmp_path_factory: object, acts: list[tuple[Key, bool]]
) -> None:
    folder: Path = tmp_path_factory.mktemp("manifest")  # type: ignore[attr-defined]
    connection = connect(folder / "a.vault")
    migrate(connection)
    manifest = Manifest(bytes(32), bytes(16))
    for revision, (key, keep) in enumerate(acts, 1):
        entry = Entry(Label.LOGIN, revision, os.urandom(16)) if keep else None
        manifest.settle(manifest.write(connection, {key: entry}, os.urandom))
    if not acts:
        manifest.settle(manifest.write(connection, {}, os.urandom))
    again = Manifest(bytes(32), bytes(16))
    again.load(connection)
    assert again.entries == manifest.entries
    assert (again.counter, again.head_tag) == (max(1, len(acts)), manifest.head_tag)
    written = connection.execute("SELECT total(revision) FROM manifest").fetchone()[0]
    assert written == len(acts)  # each of one bucket, whose revision is one more
    connection.close()


def test_ids_spread_over_all_buckets() -> None:
    assert {bucket_of(bytes([i]) + bytes(15)) for i in range(256)} == set(range(64))


def test_one_bucket_of_before_is_told_and_what_was_not_committed_is_in_no_later_one(
    tmp_path: Path,
) -> None:
    connection = connect(tmp_path / "a.vault")
    migrate(connection)
    manifest = Manifest(bytes(32), bytes(16))
    key, other = (bytes(16), 1), (bytes(16), 2)
    first, second = (Entry(Label.LOGIN, n, bytes([n]) * 16) for n in (1, 2))
    manifest.settle(manifest.write(connection, {key: first}, os.urandom))
    before = connection.execute("SELECT revision, sealed FROM manifest").fetchone()
    manifest.write(connection, {key: second}, os.urandom)
    manifest.settle(manifest.write(connection, {other: second}, os.urandom))
    again = Manifest(bytes(32), bytes(16))
    again.load(connection)
    assert again.entries == manifest.entries == {key: first, other: second}
    connection.execute("UPDATE manifest SET revision = ?, sealed = ?", before)
    with pytest.raises(VaultDamaged):
        again.load(connection)
    connection.close()
