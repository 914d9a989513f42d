"""The manifest follows what was committed, bucket by bucket."""

import os
from pathlib import Path

from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.store.database import connect, migrate
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
