"""Draws, loose ends and policies over the API."""

from typing import Any

import pytest

from tests.api.conftest import Api

DIGITS = {"name": "digit", "characters": "0123456789", "minimum": 2}
LOWER = {"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}
POLICY = {"min_length": 8, "max_length": 16, "classes": [LOWER, DIGITS]}


def test_draws_follow_the_policy_and_can_be_stepped_back(api: Api) -> None:
    draws = [api.ok("POST", "draws", {"length": 12, "policy": POLICY}) for _ in range(3)]
    assert all(len(d["secret"]) == 12 and sum(c.isdigit() for c in d["secret"]) >= 2 for d in draws)
    back = api.ok("GET", f"draws/{draws[2]['draw_id']}/before")
    assert back == draws[1]
    passing = api.ok(
        "POST", "draws", {"length": 9, "policy": POLICY, "replaces": draws[2]["draw_id"]}
    )
    assert api.ok("GET", f"draws/{passing['draw_id']}/before") == draws[1]
    assert api.refused("GET", f"draws/{draws[0]['draw_id']}/before") == "404 draw_unknown"


def test_the_newest_twenty_are_kept_and_gone_at_lock(api: Api) -> None:
    ids = [api.ok("POST", "draws", {"length": 20})["draw_id"] for _ in range(22)]
    assert api.refused("POST", f"draws/{ids[1]}/keep", {}) == "404 draw_unknown"
    api.keeper.lock()
    api.enter()
    assert api.refused("POST", f"draws/{ids[21]}/keep", {}) == "404 draw_unknown"


@pytest.mark.parametrize(
    ("body", "refusal"),
    [
        ({"length": 0}, "422 length_refused"),
        ({"length": 10**9}, "422 length_refused"),
        ({"length": 17, "policy": POLICY}, "422 length_refused"),
        ({"length": 8, "policy": {**POLICY, "min_classes": 3}}, "422 space_empty"),
        ({"length": 8, "policy": {**POLICY, "classes": 3}}, "422 policy_invalid"),
        (
            {"length": 8, "policy": {**POLICY, "folds_case": True, "distinct": True}},
            "422 rule_not_counted",
        ),
        ({"length": 8, "policy": {**POLICY, "first_from": ""}}, "422 space_empty"),
        ({"length": "12"}, "422 request_invalid"),
        ({"length": 8, "policy_id": "0" * 32}, "404 record_missing"),
    ],
)
def test_what_cannot_be_drawn_to_is_refused(api: Api, body: dict[str, Any], refusal: str) -> None:
    assert api.refused("POST", "draws", body) == refusal


def test_words_are_held_against_the_site_at_hand(api: Api) -> None:
    saved = api.ok("POST", "policies", {"name": "G", "domains": [], "policy": POLICY})
    body = {"words": 4, "separator": "-", "policy_id": saved["policy_id"]}
    drawn = api.ok("POST", "draws/words", body)
    assert len(drawn["secret"].split("-")) == 4 and drawn["entropy_bits"] == 44
    assert {"longer than 16", "fewer than 2 of digit"} <= set(drawn["breaks"])
    login = api.add(secret={"draw_id": drawn["draw_id"]})
    assert api.secret_of(login["login_id"]) == drawn["secret"]
    assert api.refused("POST", "draws/words", {"words": 99}) == "422 field_invalid"


def test_a_copied_draw_is_a_loose_end_until_it_is_placed(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    kept = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {"address": "gantry.example"})
    again = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    assert again == kept
    api.keeper.lock()
    api.enter()
    (loose,) = api.ok("GET", "loose-ends")
    assert (loose["length"], loose["address"]) == (20, "gantry.example")
    path = f"loose-ends/{loose['loose_end_id']}"
    assert api.ok("POST", f"{path}/secret", {"purpose": "copy"})["secret"] == drawn["secret"]
    login = api.add(secret={"loose_end_id": loose["loose_end_id"]})
    assert api.secret_of(login["login_id"]) == drawn["secret"]
    assert (login["made"], login["entropy_bits"]) == ("drawn", drawn["entropy_bits"])
    assert api.ok("GET", "loose-ends") == []


def test_placing_a_draw_by_itself_also_ties_its_loose_end(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    api.add(secret={"draw_id": drawn["draw_id"]})
    assert api.ok("GET", "loose-ends") == []


def test_a_loose_end_goes_only_on_purpose(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    kept = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    path = f"loose-ends/{kept['loose_end_id']}"
    assert api.refused("DELETE", path) == "403 proof_needed"
    assert api.refused("POST", "logins", {"title": "", "secret": {"draw_id": drawn["draw_id"]}})
    assert len(api.ok("GET", "loose-ends")) == 1
    api.ok("DELETE", path, **api.proof())
    assert api.ok("GET", "loose-ends") == []


def test_a_policy_is_kept_changed_and_found_by_site(api: Api) -> None:
    body = {"name": "Gantry", "domains": ["https://www.gantry.example/x"], "policy": POLICY}
    saved = api.ok("POST", "policies", body)
    assert saved["domains"] == ["gantry.example"]
    assert len(saved["worth"]["example"]) == 16 and saved["worth"]["is_exact"]
    clash = {**body, "name": "Other", "domains": ["rent.gantry.example"]}
    assert api.refused("POST", "policies", clash) == "422 field_invalid"
    read = api.ok("POST", "policies/read", {"text": saved["attribute_text"]})
    assert (read["policy"]["max_length"], read["unsure"]) == (16, [])
    login = api.add(address="https://rent.gantry.example")
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    assert rotation["staged_length"] == 16
    (listed,) = api.ok("GET", "policies")["policies"]
    assert listed["used_by"] == [
        {"login_id": login["login_id"], "title": "Gantry Rentals", "is_broken": True}
    ]
    conflicting = {**body, "policy": {**POLICY, "max_length": 7}}
    changed = api.ok("PUT", f"policies/{saved['policy_id']}", conflicting)
    assert changed["conflict"]["says"] == "at least 8 but at most 7 characters"
    uncounted = {**body, "policy": {**POLICY, "distinct": True, "keeps_first": 9}}
    assert (
        api.ok("PUT", f"policies/{saved['policy_id']}", uncounted)["not_drawn"]
        == "rule_not_counted"
    )
    api.ok("DELETE", f"policies/{saved['policy_id']}")
    assert api.ok("GET", "policies")["policies"] == []
