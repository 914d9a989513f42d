"""Rotations over the API: each way through, and none that loses a secret."""

from typing import Any

import pytest

from tests.api.conftest import Api


def begun(api: Api) -> tuple[str, str]:
    """(login id, rotation id)"""
    login = api.add(address="https://gantry.example")
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    assert (rotation["state"], rotation["staged_length"]) == ("staged", 20)
    return login["login_id"], f"rotations/{rotation['rotation_id']}"


def hand_out(api: Api, path: str) -> str:
    return str(api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"])


def event(api: Api, path: str, name: str, **more: str) -> dict[str, Any]:
    answer: dict[str, Any] = api.ok("POST", f"{path}/events", {"event": name, **more})
    return answer


def test_accepted_the_new_one_is_current_and_the_old_one_a_key_away(api: Api) -> None:
    login_id, path = begun(api)
    current = api.ok("POST", f"{path}/current", {"purpose": "copy"})
    assert current["secret"] == "cue-to-cue-19" and current["rotation"]["current_copied_at"]
    new = hand_out(api, path)
    assert api.secret_of(login_id) == "cue-to-cue-19"
    accepted = event(api, path, "accept")
    assert accepted["has_former"] and accepted["staged_length"] is None
    assert api.secret_of(login_id) == new
    assert api.ok("POST", f"{path}/former", {"purpose": "copy"})["secret"] == "cue-to-cue-19"
    assert event(api, path, "verify")["is_open"] is False
    assert api.refused("POST", f"{path}/former", {"purpose": "copy"}) == "404 nothing_held"
    (earlier,) = api.ok("GET", f"logins/{login_id}")["history"]
    assert earlier["used"] and earlier["until_at"]


def test_refused_it_is_drawn_again_and_the_first_is_kept_as_never_used(api: Api) -> None:
    login_id, path = begun(api)
    first = hand_out(api, path)
    refused = event(api, path, "refuse", refusal="No symbols, please")
    assert refused["refusal"] == "No symbols, please"
    policy = {
        "min_length": 12,
        "max_length": 12,
        "classes": [{"name": "d", "characters": "0123456789"}],
    }
    again = api.ok("POST", f"{path}/stage", {"length": 12, "policy": policy})
    assert (again["state"], again["staged_length"], again["refusal"]) == ("staged", 12, "")
    (unused,) = api.ok("GET", f"logins/{login_id}")["history"]
    assert not unused["used"]
    body = {"purpose": "copy"}
    kept = api.ok("POST", f"logins/{login_id}/history/{unused['earlier_id']}/secret", body)
    assert kept["secret"] == first


def test_given_up_the_current_one_stays(api: Api) -> None:
    login_id, path = begun(api)
    hand_out(api, path)
    event(api, path, "give_up")
    assert api.secret_of(login_id) == "cue-to-cue-19"
    assert [e["used"] for e in api.ok("GET", f"logins/{login_id}")["history"]] == [False]
    assert api.refused("POST", f"{path}/hand-out", {"purpose": "copy"}) == "404 nothing_held"


def test_withdrawn_both_are_kept_and_the_history_is_as_before(api: Api) -> None:
    login_id, path = begun(api)
    new, since = hand_out(api, path), api.ok("GET", f"logins/{login_id}")["secret_since_at"]
    api.clock.pass_s(60)
    event(api, path, "accept")
    assert event(api, path, "withdraw")["state"] == "unsure"
    assert api.secret_of(login_id) == "cue-to-cue-19"
    sheet = api.ok("GET", f"logins/{login_id}")
    assert (sheet["history"], sheet["secret_since_at"]) == ([], since)
    assert hand_out(api, path) == new
    event(api, path, "accept")
    assert api.secret_of(login_id) == new


def test_a_sign_up_that_is_withdrawn_leaves_the_login_without_a_secret(api: Api) -> None:
    login_id = api.add(secret=None)["login_id"]
    rotation = api.ok("POST", "rotations", {"login_id": login_id})
    assert rotation["is_sign_up"]
    path = f"rotations/{rotation['rotation_id']}"
    hand_out(api, path)
    for name, has in (("accept", True), ("withdraw", False)):
        event(api, path, name)
        assert api.ok("GET", f"logins/{login_id}")["has_secret"] is has


def test_of_a_space_of_two_the_current_secret_is_never_drawn_again(api: Api) -> None:
    login_id = api.add(secret={"own": "a"})["login_id"]
    policy = {"min_length": 1, "max_length": 1, "classes": [{"name": "x", "characters": "ab"}]}
    begun = api.ok("POST", "rotations", {"login_id": login_id, "length": 1, "policy": policy})
    path = f"rotations/{begun['rotation_id']}"
    for _ in range(6):
        assert hand_out(api, path) == "b"
        event(api, path, "refuse", refusal="")
        api.ok("POST", f"{path}/stage", {"length": 1, "policy": policy})


def test_one_rotation_at_a_time_and_a_second_window_cannot_go_against_the_table(api: Api) -> None:
    login_id, path = begun(api)
    again = api.ok("POST", "rotations", {"login_id": login_id})
    assert path.endswith(again["rotation_id"])
    assert api.refused("POST", f"{path}/events", {"event": "accept"}) == "409 event_refused"
    hand_out(api, path)
    event(api, path, "accept")
    for name in ("accept", "refuse", "doubt", "give_up"):
        assert api.refused("POST", f"{path}/events", {"event": name}) == "409 event_refused"


@pytest.mark.parametrize(
    "body",
    [{"secret": {}}, {"length": 3}, {"policy": {"min_length": 1}}, {"secret": {"draw_id": "x"}}],
)
def test_a_wish_that_cannot_be_met_begins_nothing(api: Api, body: dict[str, Any]) -> None:
    login = api.add()
    assert api.refused("POST", "rotations", {"login_id": login["login_id"], **body})
    assert api.ok("GET", "rotations") == []


def test_a_code_key_and_fields_stay_through_a_change_and_its_withdrawal(api: Api) -> None:
    more = {"second_factor": "here", "code_key": "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"}
    login = api.add(secret_fields=[{"name": "answer", "value": "the chandler"}], **more)
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    path = f"rotations/{rotation['rotation_id']}"
    hand_out(api, path)
    for name in ("accept", "withdraw", "accept", "verify"):
        event(api, path, name)
        assert api.ok("POST", f"logins/{login['login_id']}/code", {"purpose": "copy"})["code"]
        body = {"name": "answer", "purpose": "copy"}
        found = api.ok("POST", f"logins/{login['login_id']}/secret-field", body)
        assert found["secret"] == "the chandler"


def test_a_secret_of_ones_own_that_repeats_or_breaks_the_policy_is_not_staged(api: Api) -> None:
    classes = [{"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}]
    policy = {"min_length": 8, "max_length": 30, "classes": classes}
    body = {"name": "Gantry", "domains": ["gantry.example"], "policy": policy}
    api.ok("POST", "policies", body)
    login = api.add(address="https://gantry.example", secret={"own": "lanternorchard"})
    for own, code in (
        ("lanternorchard", "422 secret_repeats"),
        ("lanternorchards", "422 secret_repeats"),
        ("velvet-gravel", "422 secret_breaks_policy"),
    ):
        wish = {"login_id": login["login_id"], "secret": {"own": own}}
        assert api.refused("POST", "rotations", wish) == code
    assert api.ok("GET", "rotations") == []
    wish = {"login_id": login["login_id"], "secret": {"own": "velvetgravel"}}
    assert api.ok("POST", "rotations", wish)["state"] == "staged"


def test_a_refusal_teaches_the_policy_and_another_secret_is_there_at_once(api: Api) -> None:
    login_id, path = begun(api)
    first = hand_out(api, path)
    nothing = {"kind": "its_words", "text": "Sorry, no"}
    assert api.refused("POST", f"{path}/lesson", nothing) == "422 field_invalid"
    assert api.ok("GET", path)["state"] == "at_site"
    api.clock.pass_s(1)
    taught = api.ok("POST", f"{path}/lesson", {"kind": "too_long", "length": 12})
    assert (taught["state"], taught["staged_length"], taught["handed_out_at"]) == (
        "staged",
        12,
        None,
    )
    second = hand_out(api, path)
    api.ok("POST", f"{path}/lesson", {"kind": "no_symbols"})
    third = hand_out(api, path)
    assert len(second) == len(third) == 12 and third.isalnum()
    (policy,) = api.ok("GET", "policies")["policies"]
    assert (policy["source"], policy["domains"]) == ("refusal", ["gantry.example"])
    history = api.ok("GET", f"logins/{login_id}")["history"]
    assert [one["used"] for one in history] == [False, False] and len({first, second, third}) == 3


def test_a_full_disk_leaves_each_step_done_or_not_begun(api: Api) -> None:
    login_id = api.add("T", secret={"own": "harbour 7 " * 500})["login_id"]
    with api.keeper.at_work() as vault:
        connection = vault.connection
    stages: list[tuple[str, dict[str, object]]] = [
        ("rotations", {"login_id": login_id}),
        ("hand-out", {"purpose": "copy"}),
        ("events", {"event": "refuse", "refusal": "too long " * 100}),
        ("stage", {"secret": {"own": "pier 9 " * 900}}),
        ("hand-out", {"purpose": "copy"}),
        ("events", {"event": "accept"}),
        ("events", {"event": "withdraw"}),
        ("events", {"event": "accept"}),
        ("events", {"event": "verify"}),
    ]
    path, full, state = "", 0, None

    def stands() -> tuple[object, ...]:
        rotation = api.ok("GET", path) if path else None
        history = api.ok("GET", f"logins/{login_id}")["history"]
        return rotation, history, api.secret_of(login_id)

    for name, body in stages:
        target = f"{path}/{name}" if path else name
        before = stands()
        pages = connection.execute("PRAGMA page_count").fetchone()[0]
        connection.execute(f"PRAGMA max_page_count = {pages}")
        answer = api.call("POST", target, body)
        if not answer.is_success:
            assert (answer.status_code, answer.json()["code"]) == (507, "disk_full")
            assert stands() == before
            full += 1
            connection.execute("PRAGMA max_page_count = 1000000")
            answer = api.call("POST", target, body)
        connection.execute("PRAGMA max_page_count = 1000000")
        assert answer.is_success, answer.text
        if not path:
            path = f"rotations/{answer.json()['rotation_id']}"
        state = api.ok("GET", path)["state"]
    assert state == "verified" and full >= 2


def test_a_loose_end_that_is_staged_is_loose_no_more(api: Api) -> None:
    login = api.add()["login_id"]
    drawn = api.ok("POST", "draws", {"length": 20})
    loose = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {"address": ""})["loose_end_id"]
    body = {"login_id": login, "secret": {"loose_end_id": loose}}
    rotation = api.ok("POST", "rotations", body)["rotation_id"]
    assert api.ok("GET", "loose-ends") == []
    handed = api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
    assert len(handed["secret"]) == 20
