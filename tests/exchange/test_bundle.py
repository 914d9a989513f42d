"""What a bundle holds is looked at before it is believed."""

import json
from copy import deepcopy
from datetime import UTC, datetime
from typing import Any

import pytest

from newknot.core.merging.merge import Contents
from newknot.exchange.bundle import BundleContentRefused, read_content, write_content
from tests.support.vectors import examples

AT = datetime(2026, 5, 3, 12, tzinfo=UTC)
ID = "a" * 32
LOGIN, ROTATION = examples("bundle_records.json")
GONE: dict[str, Any] = {"1": {"title": [1, "t"]}, "secrets": ["i"]}


def document(**parts: Any) -> bytes:
    records = {"LOGIN": {ID: deepcopy(LOGIN)}, "ROTATION": {"c" * 32: deepcopy(ROTATION)}}
    contents = Contents(records, {"b" * 32: GONE})
    whole = json.loads(write_content(contents, vault_id="v", made_at=AT))
    return json.dumps(whole | parts).encode()


def with_login(part: str, **values: Any) -> bytes:
    login: dict[str, Any] = deepcopy(LOGIN)
    login[part] = {**login[part], **values}
    return document(records={"LOGIN": {ID: login}})


def test_what_is_written_is_read() -> None:
    found = read_content(document())
    assert (found.vault_id, found.made_at) == ("v", AT)
    records = {"LOGIN": {ID: LOGIN}, "ROTATION": {"c" * 32: ROTATION}}
    assert found.contents == Contents(records, {"b" * 32: GONE})


DEEP: Any = {}
for _ in range(20):
    DEEP = {"a": DEEP}


@pytest.mark.parametrize(
    "text",
    [
        b"",
        b"[]",
        b"[" * 1_000_000,
        b'{"format": "newknot bundle 2"}',
        document(made_at="yesterday"),
        document(removed={"b": GONE}),
        document(removed={"b" * 32: 1}),
        document(removed={"b" * 32: GONE | {"1": {"title": 1}}}),
        document(removed={"b" * 32: {}}),
        document(records=[]),
        document(records={"VAULT": {}}),
        document(records={"LOGIN": {"../../etc": LOGIN}}),
        document(records={"LOGIN": {ID: {"2": {}}}}),
        document(records={"LOGIN": {ID: LOGIN | {"4": {}}}}),
        document(records={"LOGIN": {ID: LOGIN | {"1": []}}}),
        document(records={"POLICY": {ID: {"1": DEEP}}}),
        document(records={"POLICY": {ID: {"1": {"edition": "9"}}}}),
        document(records={"POLICY": {ID: {"1": {"stamps": {"a": None}}}}}),
        *(with_login(part, **values) for part, values in examples("bundle_faults.json")),
        document(records={"ROTATION": {ID: ROTATION | {"1": {}}}}),
        document(records={"ROTATION": {ID: ROTATION | {"2": {"staged": {"secret": "s"}}}}}),
        with_login("1", tags=["a"] * 20_001),
        with_login("1", notes="x" * 2_000_000),
    ],
    ids=lambda text: text[-12:].hex(),
)
def test_what_is_not_as_it_should_be_is_refused(text: bytes) -> None:
    with pytest.raises(BundleContentRefused):
        read_content(text)
