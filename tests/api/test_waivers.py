"""Accepting findings of the last check, and taking that back."""

import json
from datetime import timedelta
from pathlib import Path

import pytest

from tests.api.conftest import Api, make_api
from tests.api.test_bundles import merged, taken_out
from tests.api.test_outside import answering, switch
from tests.conftest import HandClock


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
    until = f"{checked.clock.at:%F}"
    every = checked.ok("POST", "waivers", body | {"until_on": until})
    assert until in [w["until_on"] for w in every]
    assert (given["title"], given["holds"], given["note"]) == ("Abbey", True, "one door only")
    assert shown(checked) == ["Harbour"]
    assert checked.ok("GET", "checks/worklist")["waived_count"] == 1
    checked.ok("POST", "checks")
    assert shown(checked) == ["Harbour"]
    checked.add("Chapel", secret={"own": "Rt7-kkPz!w42mQ"})
    checked.ok("POST", "checks")
    assert sorted(shown(checked)) == ["Abbey", "Chapel", "Harbour"]
    # Each is said to be what it is now: covered, found on other grounds, not found any more.
    assert given["found_now"] == "accepted"
    assert {w["found_now"] for w in checked.ok("GET", "waivers")} == {"to_do"}
    secret = {"own": "Kv7!rope-9wQ-plank2"}
    checked.clock.pass_s(60)
    checked.ok("PUT", f"logins/{given['login_id']}", {"title": "Abbey", "secret": secret})
    assert {w["found_now"] for w in checked.ok("GET", "waivers")} == {"nothing"}


def test_a_waiver_is_taken_back_and_kept_as_history(checked: Api) -> None:
    keys = [key_of(checked, title) for title in ("Abbey", "Harbour")]
    given = checked.ok("POST", "waivers", {"findings": keys, "reason": "cannot"})
    assert shown(checked) == []
    lifted = checked.ok("POST", "waivers/lift", {"waiver_ids": [w["waiver_id"] for w in given]})
    assert [w["holds"] for w in lifted] == [False, False]
    assert all(w["lifted_at"] for w in lifted)
    checked.clock.pass_s(60)
    again = {"waiver_ids": [w["waiver_id"] for w in given]}
    assert checked.ok("POST", "waivers/lift", again) == lifted
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


def accepted(api: Api, *kinds: str) -> None:
    """Accepts what stands of these kinds; worklist and report then say the same."""
    found = api.ok("GET", "checks/worklist")["findings"]
    keys = [{"kind": f["kind"], "login_id": f["login_id"]} for f in found if f["kind"] in kinds]
    assert {key["kind"] for key in keys} == set(kinds)
    api.ok("POST", "waivers", {"findings": keys, "reason": "covered"})
    after = api.ok("GET", "checks/worklist")
    assert not [f for f in after["findings"] if f["kind"] in kinds]
    assert after["waived_count"] == len([f for f in found if f["kind"] in kinds])
    lines = api.ok("POST", "reports", {"grouped_by": "kind", "with_user_names": True})["lines"]
    assert len(lines) == len(after["findings"])


def test_an_open_rotation_and_a_login_that_differs_in_two_copies_are_accepted(
    api: Api, tmp_path: Path, clock: HandClock
) -> None:
    login = api.add("Gantry")["login_id"]
    other = make_api(tmp_path / "other", HandClock())
    other.enter("create")
    merged(other, taken_out(api))
    for one, secret in ((api, "truss-and-bolt"), (other, "chain-and-hook")):
        one.ok("PUT", f"logins/{login}", {"title": "Gantry", "secret": {"own": secret}})
    merged(api, taken_out(other))
    api.ok("POST", "rotations", {"login_id": api.add("Lumen")["login_id"]})
    assert len(api.ok("GET", "checks/worklist")["findings"]) == 2
    accepted(api, "unfinished")
    other.keeper.lock()


def test_an_unexplained_change_is_accepted_and_a_later_one_shows(api: Api) -> None:
    api.add("Lumen", user_name="ilse", address="https://lumen.example")

    begun = api.clock.now()

    def mail(mail_id: int) -> dict[str, object]:
        at = (begun + timedelta(hours=1 + mail_id)).isoformat()
        parts = {"mail_id": mail_id, "host": "lumen.example", "user_name": "ilse", "sent_at": at}
        return {**parts, "subject": "Your password was changed", "body": ""}

    answers = {"/mails.json": (200, json.dumps([mail(1)]).encode())}
    with answering(answers) as url:
        assert switch(api, mail_address=f"{url}/mails.json", mail_used=True) is None
        api.clock.pass_s(3 * 3600)
        api.enter()
        api.ok("POST", "mails")
        accepted(api, "unexplained_change")
        answers["/mails.json"] = (200, json.dumps([mail(1), mail(2)]).encode())
        api.clock.pass_s(60)
        api.ok("POST", "mails")
        found = api.ok("GET", "checks/worklist")["findings"]
        assert [f["kind"] for f in found] == ["unexplained_change"]
