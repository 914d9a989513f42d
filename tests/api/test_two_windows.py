"""Two windows that edit one thing: the second to save is told, and nothing is lost in silence."""

from typing import Any

import pytest

from tests.api.conftest import Api

RULES = {"min_length": 8, "max_length": 16, "classes": [{"name": "l", "characters": "abcdefgh"}]}
POLICY = {"name": "Gantry", "domains": ["gantry.example"], "policy": RULES}


def of_login(api: Api) -> tuple[str, str, dict[str, Any], dict[str, Any]]:
    path = f"logins/{api.add('Gantry')['login_id']}"
    return path, path, {"title": "Gantry", "notes": "first"}, {"title": "Gantry", "notes": "second"}


def of_policy(api: Api) -> tuple[str, str, dict[str, Any], dict[str, Any]]:
    made = api.ok("POST", "policies", POLICY)
    wider = {**POLICY, "policy": {**RULES, "max_length": 20}}
    return f"policies/{made['policy_id']}", "policies", wider, {**POLICY, "name": "Gantry Rentals"}


def of_details(api: Api) -> tuple[str, str, dict[str, Any], dict[str, Any]]:
    path = "strength/own-details"
    api.ok("PUT", path, {"lines": ["Quist"]})
    return path, path, {"lines": ["Quist", "Harwich"]}, {"lines": ["Quist", "Maud"]}


def of_settings(api: Api) -> tuple[str, str, dict[str, Any], dict[str, Any]]:
    held = api.safeguards()
    return "safeguards", "safeguards", {**held, "lock_after_s": 900}, {**held, "proof_minutes": 3}


def seen(api: Api, shown: str) -> str:
    found = api.ok("GET", shown)
    return str(found["policies"][0]["revision"] if shown == "policies" else found["revision"])


@pytest.mark.parametrize("of", [of_login, of_policy, of_details, of_settings])
def test_the_second_to_save_is_told_and_may_then_choose(api: Api, of: Any) -> None:
    path, shown, first, second = of(api)
    revision = seen(api, shown)

    def put(body: dict[str, Any]) -> Any:
        return api.call("PUT", path, body, **api.proof())

    assert put({**first, "revision": revision}).status_code == 200
    saved = seen(api, shown)
    refused = put({**second, "revision": revision})
    assert (refused.status_code, refused.json()["code"]) == (409, "changed_meanwhile")
    assert seen(api, shown) == saved
    assert put({**second, "revision": seen(api, shown)}).status_code == 200
    # Whoever does not say what was seen saves as before.
    assert put(first).status_code == 200


def test_a_rotation_in_between_is_a_change_and_a_backup_is_none(api: Api) -> None:
    login = api.add("Gantry")["login_id"]
    settings = seen(api, "safeguards")
    revision = seen(api, f"logins/{login}")
    api.ok("POST", "backups", **api.proof())
    assert seen(api, f"logins/{login}") == revision and seen(api, "safeguards") == settings
    rotation = api.ok("POST", "rotations", {"login_id": login})["rotation_id"]
    api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
    api.ok("POST", f"rotations/{rotation}/events", {"event": "accept"})
    body = {"title": "Gantry", "secret": {"own": "typed before"}, "revision": revision}
    assert api.refused("PUT", f"logins/{login}", body) == "409 changed_meanwhile"
