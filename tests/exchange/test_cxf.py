"""The Credential Exchange Format: round trips, what others write, what cannot be taken."""

import json
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.login import BackupCode, PlainField
from newknot.core.second_factor import CodeKey
from newknot.core.secret import Secret
from newknot.exchange.cxf import ASIDE, CxfRefused, read_cxf, write_cxf
from newknot.exchange.portable_login import FURTHER_ADDRESS, PortableLogin
from tests.exchange.samples import logins

NOW = datetime(2026, 3, 4, 5, 6, 7, tzinfo=UTC)


def written(found: list[PortableLogin]) -> bytes:
    ids = iter(range(1, 10_000))
    return write_cxf(found, now=NOW, new_id=lambda: next(ids).to_bytes(16))


@settings(deadline=None)
@given(st.lists(logins(), max_size=4))
def test_what_is_written_is_read_back_whole(found: list[PortableLogin]) -> None:
    read = read_cxf(written(found))
    assert [one.reason for one in read] == ["" for _ in found]
    for one, login in zip(read, found, strict=True):
        keys = [one.login.code_key.reveal(), login.code_key.reveal()]
        addresses = [CodeKey.read(key).address if key else "" for key in keys]
        assert addresses[0] == addresses[1]
        values = [
            {name: getattr(of, name) for name in PortableLogin.__slots__ if name != "code_key"}
            for of in (one.login, login)
        ]
        # The order of collections is the file's.
        for value in values:
            value["collections"] = sorted(value["collections"])
        assert values[0] == values[1]


VECTORS = Path(__file__).parents[1] / "vectors"
OTHERS = (VECTORS / "cxf_of_others.json").read_bytes()


def test_what_others_write_is_placed_and_the_rest_is_kept_and_given_back() -> None:
    whole, untitled, none = read_cxf(OTHERS)
    login = whole.login
    assert (login.title, login.user_name, login.address, login.folder) == (
        "Gantry Rentals",
        "quist",
        "https://gantry.example",
        "Work/Hire",
    )
    assert login.secret.reveal() == "rope-and-plank" and login.notes == "By the day"
    assert CodeKey.read(login.code_key.reveal())
    assert [(f.name, f.value) for f in login.fields] == [
        ("further address", "https://hire.gantry.example"),
        ("Yard", "North"),
    ]
    assert [f.name for f in login.secret_fields] == [ASIDE + "passkey", "PIN"]
    assert login.secret_since_at == datetime.fromtimestamp(1700000001, UTC)
    assert whole.left == ("a credential of the kind “passkey”, kept aside",)
    assert untitled.reason == "has neither a title nor an address" and none.reason == "is no item"
    (item,) = json.loads(written([login]))["accounts"][0]["items"]
    assert {"type": "passkey", "credentialId": "AAA", "key": "BBB"} in item["credentials"]


def test_unknown_parts_of_what_is_known_are_kept_and_given_back_and_an_odd_one_costs_itself() -> (
    None
):
    odd = json.loads((VECTORS / "cxf_with_unknown_parts.json").read_bytes())
    items = [odd, {**odd, "creationAt": "soon", "credentials": 4}, {"title": 3, "scope": 1}]
    collections = [
        {"id": "a", "title": "Work", "items": [{"item": "aQ"}]},
        {"id": "b", "title": "Hire", "items": [{"item": "aQ"}, 3]},
        "odd",
    ]
    file = {"version": {"major": 1}, "accounts": [{"items": items, "collections": collections}]}
    first, second, third = read_cxf(json.dumps(file).encode())
    assert (first.login.folder, first.login.collections) == ("Work", ("Hire",))
    assert second.login.title == "Gantry Rentals" and third.reason
    (account,) = json.loads(written([first.login]))["accounts"]
    (item,) = account["items"]
    assert [one["title"] for one in account["collections"]] == ["Work", "Hire"]
    assert (item["subtitle"], item["favorite"], item["scope"]) == (
        "by the day", True, odd["scope"],
    )  # fmt: skip
    assert item["credentials"] == odd["credentials"]
    assert item["extensions"][1:] == odd["extensions"]
    # What was changed here since is what is written.
    login = replace(first.login, user_name="ilse", secret=Secret("plank"))
    (item,) = json.loads(written([login]))["accounts"][0]["items"]
    (basic, _) = item["credentials"]
    assert (basic["username"]["value"], basic["username"]["label"]) == ("ilse", "Customer")
    assert basic["password"]["value"] == "plank"


def test_what_stands_twice_in_an_item_is_all_kept() -> None:
    body = (VECTORS / "cxf_of_corners.json").read_bytes()
    (found,) = read_cxf(b"\xef\xbb\xbf" + body)
    login = found.login
    assert (login.folder, login.collections, login.notes) == (
        "Work", ("Hire",), "By the day\n\nBy the week",
    )  # fmt: skip
    assert (login.user_name, login.secret.reveal()) == ("quist", "plank")
    kept = {f.name: f.value.reveal() for f in login.secret_fields}
    assert (kept["secret of ilse"], kept["secret of quist"]) == ("rope", "chalk")
    key = CodeKey.read(login.code_key.reveal()).address
    assert all(part in key for part in ("JBSWY3DPEHPK3PXP", "digits=8", "issuer=Gantry"))
    aside = [json.loads(v)["secret"] for name, v in kept.items() if name.startswith(ASIDE)]
    assert aside == ["GEZDGNBVGY3TQOJQ", "no key"]
    # A moment without its zone is none.
    assert login.changed_at == datetime.fromtimestamp(1700000001, UTC)
    assert login.secret_since_at == datetime(2025, 1, 2, 3, 4, 5, tzinfo=UTC)


def test_what_others_read_says_nothing_that_is_not_so() -> None:
    used = BackupCode(Secret("4417"), NOW)
    plain = PortableLogin("Gantry", fields=(PlainField(FURTHER_ADDRESS, "https://hire.example"),))
    coded = replace(plain, backup_codes=(used, BackupCode(Secret("1866"))))
    first, second = json.loads(written([plain, coded]))["accounts"][0]["items"]
    assert first["extensions"] == [{"name": "newknot", "folder": "", "importance": "normal"}]
    assert [one["type"] for one in first["credentials"]] == ["basic-auth"]
    assert first["scope"]["urls"] == ["https://hire.example"]
    (field,) = second["credentials"][1]["fields"]
    assert field["value"] == "1866"


@pytest.mark.parametrize(
    "body",
    [
        b"",
        b"{",
        b"[]",
        b"{}",
        b"\xff\xfe{}",
        json.dumps({"version": {"major": 2}}).encode(),
        json.dumps({"version": {"major": 1}, "accounts": 1}).encode(),
        b'{"a":' * 100_000,
        b'{"version":{"major":1},"accounts":' + b"[" * 200 + b"]" * 200 + b"}",
        OTHERS + b" " * (20 << 20),
    ],
    ids=range(10),
)
def test_what_is_no_such_file_is_refused(body: bytes) -> None:
    with pytest.raises(CxfRefused):
        read_cxf(body)
