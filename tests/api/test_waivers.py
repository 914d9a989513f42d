"""Accepting findings of the last check, and taking that back."""

import pytest

from tests.api.conftest import Api


@pytest.fixture
def checked(api: Api) -> Api:
    """Two logins share a secret, and were checked."""
    for title in ("Harbour", "Abbey"):
        api.add(title, secret={"own": "Rt7-kkPz!w42mQ"})
    api.ok("POST", "checks")
    return api


def shown(api: Api) -> list[str]:
    return [f["title"] for f in api.ok("GET", "checks/worklist")["findings"]]


def key_of(api: Api, title: str) -> dict[str, str]:
    rows = api.ok("GET", "checks/worklist")["findings"]
    return next({k: r[k] for k in ("kind", "login_id")} for r in rows if r["title"] == title)


def test_an_accepted_finding_leaves_the_worklist_until_its_group_grows(checked: Api) -> None:
    body = {"findings": [key_of(checked, "Abbey")], "reason": "covered", "note": "one door only"}
    (given,) = checked.ok("POST", "waivers", body)
    assert (given["title"], given["holds"], given["note"]) == ("Abbey", True, "one door only")
    assert shown(checked) == ["Harbour"]
    assert checked.ok("GET", "checks/worklist")["waived_count"] == 1
    checked.ok("POST", "checks")
    assert shown(checked) == ["Harbour"]
    checked.add("Chapel", secret={"own": "Rt7-kkPz!w42mQ"})
    checked.ok("POST", "checks")
    assert sorted(shown(checked)) == ["Abbey", "Chapel", "Harbour"]


def test_a_waiver_is_taken_back_and_kept_as_history(checked: Api) -> None:
    keys = [key_of(checked, title) for title in ("Abbey", "Harbour")]
    given = checked.ok("POST", "waivers", {"findings": keys, "reason": "cannot"})
    assert shown(checked) == []
    lifted = checked.ok("POST", "waivers/lift", {"waiver_ids": [w["waiver_id"] for w in given]})
    assert [w["holds"] for w in lifted] == [False, False]
    assert all(w["lifted_at"] for w in lifted)
    assert sorted(shown(checked)) == ["Abbey", "Harbour"]


def test_what_changed_since_the_check_before_is_counted(checked: Api) -> None:
    assert checked.ok("GET", "checks/worklist")["new_count"] is None
    checked.add("Chapel", secret={"own": "dragonfly"})
    checked.ok("POST", "checks")
    found = checked.ok("GET", "checks/worklist")
    assert (found["new_count"], found["gone_count"]) == (1, 0)
    abbey = key_of(checked, "Abbey")["login_id"]
    checked.ok("DELETE", f"logins/{abbey}", **checked.proof())
    checked.ok("POST", "checks")
    found = checked.ok("GET", "checks/worklist")
    assert (found["new_count"], found["gone_count"]) == (0, 2)


def test_what_cannot_be_accepted_is_refused_whole(checked: Api) -> None:
    key = key_of(checked, "Abbey")
    other = {"kind": "weak", "login_id": key["login_id"]}
    body = {"findings": [key, other], "reason": "cannot"}
    assert checked.refused("POST", "waivers", body) == "404 finding_unknown"
    late = {"findings": [key], "reason": "cannot", "until_on": "2020-01-01"}
    answer = checked.call("POST", "waivers", late)
    assert (answer.status_code, answer.json()["data"]["field"]) == (422, "until_on")
    long = {"findings": [key], "reason": "cannot", "note": "x" * 1001}
    assert checked.refused("POST", "waivers", long) == "422 field_invalid"
    assert checked.ok("GET", "waivers") == []
    unknown = {"waiver_ids": ["00" * 16]}
    assert checked.refused("POST", "waivers/lift", unknown) == "404 record_missing"
