"""Logins, their history, and the bin."""

from typing import Any

import pytest

from newknot.store.vault import Label
from tests.api.conftest import Api
from tests.support.vectors import examples

(WHOLE,) = examples("whole_login.json")


def test_a_login_comes_back_as_it_was_given(api: Api) -> None:
    mailbox = api.add("Tallow Post")
    fields = [{"name": "PIN", "value": "4417"}]
    added = api.add(
        **WHOLE, secret={"own": "s3"}, secret_fields=fields, resets_by=mailbox["login_id"]
    )
    sheet = api.ok("GET", f"logins/{added['login_id']}")
    assert {k: sheet[k] for k in WHOLE} == WHOLE
    assert (sheet["resets_by"], sheet["domain"]) == (mailbox["login_id"], "fernbank.example")
    assert sheet["secret_field_names"] == ["PIN"] and sheet["made"] == "own"
    body = {"purpose": "reveal", "name": "PIN"}
    assert api.ok("POST", f"logins/{added['login_id']}/secret-field", body)["secret"] == "4417"


def test_a_replaced_secret_goes_to_the_history(api: Api) -> None:
    login_id = api.add()["login_id"]
    api.clock.pass_s(86400 * 30 - 600)
    api.enter()
    edited = api.ok(
        "PUT", f"logins/{login_id}", {"title": "New title", "secret": {"own": "second"}}
    )
    (earlier,) = edited["history"]
    assert (earlier["used"], earlier["made"]) == (True, "own")
    assert earlier["until_at"] == edited["secret_since_at"] > earlier["since_at"]
    path = f"logins/{login_id}/history/{earlier['earlier_id']}"
    assert api.ok("POST", f"{path}/secret", {"purpose": "copy"})["secret"] == "cue-to-cue-19"
    assert api.refused("POST", f"{path}/restore") == "404 nothing_held"
    api.clock.pass_s(60)
    same = api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret": {"own": "second"}})
    assert [same[k] == edited[k] for k in ("history", "secret_since_at")] == [True, True]


def test_editing_the_card_alone_leaves_secrets_as_they_are(api: Api) -> None:
    login_id = api.add(secret_fields=[{"name": "PIN", "value": "4417"}])["login_id"]
    edited = api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret_fields": [{"name": "PIN"}]})
    assert edited["history"] == [] and edited["has_secret"]
    of_itself = {"title": "T", "resets_by": login_id}
    assert api.refused("PUT", f"logins/{login_id}", of_itself) == "422 field_invalid"
    assert api.secret_of(login_id) == "cue-to-cue-19"
    body = {"purpose": "copy", "name": "PIN"}
    assert api.ok("POST", f"logins/{login_id}/secret-field", body)["secret"] == "4417"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        *examples("wrong_fields.json"),
        ({"title": "x" * 1001}, "title"),
        ({"secret": {"own": "x" * 10_001}}, "secret"),
    ],
)
def test_a_wrong_field_is_named_and_nothing_is_written(
    api: Api, change: dict[str, Any], field: str
) -> None:
    body = {"title": "T", "secret": {"own": "x"}, **change}
    answer = api.call("POST", "logins", body)
    assert (answer.status_code, answer.json()["code"]) == (422, "field_invalid")
    assert answer.json()["data"]["field"] == field
    assert api.ok("GET", "logins")["logins"] == []


def test_the_bin_keeps_for_thirty_days_and_gives_back_what_it_holds(api: Api) -> None:
    login_id = api.add()["login_id"]
    rotation = api.ok("POST", "rotations", {"login_id": login_id})
    assert api.refused("DELETE", f"logins/{login_id}") == "403 proof_needed"
    api.ok("DELETE", f"logins/{login_id}", **api.proof())
    assert api.ok("GET", "logins")["logins"] == []
    assert api.refused("POST", f"logins/{login_id}/secret", {"purpose": "copy"}) == "409 in_bin"
    assert [row["login_id"] for row in api.ok("GET", "logins/bin")] == [login_id]
    api.ok("POST", f"logins/{login_id}/restore")
    assert api.secret_of(login_id) == "cue-to-cue-19"
    api.ok("DELETE", f"logins/{login_id}", **api.proof())
    for days, left in ((29, 1), (2, 0)):
        api.keeper.lock()
        api.clock.pass_s(86400 * days)
        api.enter()
        assert len(api.ok("GET", "logins/bin")) == left
    assert api.refused("GET", f"rotations/{rotation['rotation_id']}") == "404 record_missing"
    with api.keeper.at_work() as vault:
        assert vault.ids(Label.ROTATION) == []


def test_the_bin_is_emptied_on_purpose(api: Api) -> None:
    kept, gone = api.add("Kept"), api.add("Gone")
    body = {"title": "Kept", "resets_by": gone["login_id"]}
    api.ok("PUT", f"logins/{kept['login_id']}", body)
    api.ok("DELETE", f"logins/{gone['login_id']}", **api.proof())
    assert api.refused("DELETE", "logins/bin") == "403 proof_needed"
    api.clock.pass_s(1)
    api.ok("DELETE", f"logins/{api.add('Later')['login_id']}", **api.proof())
    assert [row["title"] for row in api.ok("GET", "logins/bin")] == ["Later", "Gone"]
    assert api.ok("DELETE", "logins/bin", **api.proof()) == {"deleted_count": 2}
    assert api.refused("GET", f"logins/{gone['login_id']}") == "404 record_missing"
    assert api.ok("GET", f"logins/{kept['login_id']}")["resets_by"] is None


def test_a_secret_field_that_is_overwritten_or_removed_is_not_lost(api: Api) -> None:
    login_id = api.add(secret_fields=[{"name": "PIN", "value": "4417"}])["login_id"]
    path = f"logins/{login_id}"
    api.ok("PUT", path, {"title": "T", "secret_fields": [{"name": "PIN", "value": "9921"}]})
    api.clock.pass_s(60)
    sheet = api.ok("PUT", path, {"title": "T"})
    assert [(e["field"], e["used"]) for e in sheet["history"]] == [("PIN", True), ("PIN", True)]
    oldest = sheet["history"][1]["earlier_id"]
    api.ok("POST", f"{path}/history/{oldest}/restore")
    restored = api.ok("GET", path)
    assert restored["secret_field_names"] == ["PIN"] and len(restored["history"]) == 2
    body = {"purpose": "copy", "name": "PIN"}
    assert api.ok("POST", f"{path}/secret-field", body)["secret"] == "4417"
    assert api.secret_of(login_id) == "cue-to-cue-19"


def test_an_earlier_field_is_put_back_in_its_place_and_never_into_the_bin(api: Api) -> None:
    fields = [{"name": "PIN", "value": "4417"}, {"name": "answer", "value": "the chandler"}]
    login_id = api.add(secret_fields=fields)["login_id"]
    path, changed = f"logins/{login_id}", [{"name": "PIN", "value": "9026"}, fields[1]]
    (earlier,) = api.ok("PUT", path, {"title": "T", "secret_fields": changed})["history"]
    api.clock.pass_s(1)
    restore = f"{path}/history/{earlier['earlier_id']}/restore"
    api.ok("POST", restore)
    for field in fields:
        body = {"purpose": "copy", "name": field["name"]}
        assert api.ok("POST", f"{path}/secret-field", body)["secret"] == field["value"]
    assert "9026" in api.earlier_secrets(login_id)
    api.ok("DELETE", path, **api.proof())
    assert api.refused("POST", restore) == "404 nothing_held"
    assert api.refused("POST", f"{path}/secret-field", body) == "409 in_bin"
