"""Earlier secrets: compared, restored as rotations, let go on purpose alone."""

from tests.api.conftest import Api
from tests.api.test_outside import switch

DAY_S = 86_400.0


def replaced(api: Api, *secrets: str, days: int = 1) -> str:
    """A login that had these secrets, each for so many days; the last is current."""
    login_id: str = api.add("T", secret={"own": secrets[0]})["login_id"]
    for secret in secrets[1:]:
        api.keeper.lock()
        api.clock.pass_s(days * DAY_S)
        api.enter()
        api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret": {"own": secret}})
    return login_id


def history(api: Api, login_id: str) -> list[dict[str, object]]:
    rows: list[dict[str, object]] = api.ok("GET", f"logins/{login_id}")["history"]
    return rows


def test_restoring_an_earlier_secret_is_a_rotation_exempt_from_likeness(api: Api) -> None:
    login_id = replaced(api, "harbour-lantern-7", "harbour-lantern-8")
    earlier_id = history(api, login_id)[0]["earlier_id"]
    body = {"login_id": login_id, "secret": {"own": "harbour-lantern-9"}}
    assert api.refused("POST", "rotations", body) == "422 secret_repeats"
    begun = api.ok("POST", "rotations", {"login_id": login_id, "earlier_id": earlier_id})
    path = f"rotations/{begun['rotation_id']}"
    assert begun["state"] == "staged" and api.secret_of(login_id) == "harbour-lantern-8"
    again = api.refused("POST", "rotations", {"login_id": login_id, "earlier_id": earlier_id})
    assert again == "409 rotation_open"
    handed = api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})
    assert handed["secret"] == "harbour-lantern-7"
    api.clock.pass_s(60)
    api.ok("POST", f"{path}/events", {"event": "accept"})
    assert api.secret_of(login_id) == "harbour-lantern-7"
    assert len(history(api, login_id)) == 2
    newest = history(api, login_id)[0]["earlier_id"]
    assert (
        api.refused("DELETE", f"logins/{login_id}/history/{newest}", **api.proof())
        == "409 earlier_held"
    )
    api.ok("POST", f"{path}/events", {"event": "verify"})
    api.ok("DELETE", f"logins/{login_id}/history/{newest}", **api.proof())
    assert len(history(api, login_id)) == 1
    body = {"login_id": login_id, "earlier_id": "0" * 32}
    assert api.refused("POST", "rotations", body) == "404 nothing_held"


def test_a_secret_is_compared_by_what_it_is_and_never_said(api: Api) -> None:
    login_id = replaced(api, "lantern-2019", "lantern-2020!", "Qx7#vKp2mZw9")
    answer = api.call("POST", f"logins/{login_id}/history/compare")
    rows = answer.json()
    assert [(r["earlier_id"] is None, r["length"]) for r in rows] == [
        (True, 12),
        (False, 12),
        (False, 13),
    ]
    assert rows[0]["guess_number_log10"] > rows[1]["guess_number_log10"] + 4
    assert rows[0]["shared_start"] == 12 and rows[1]["shared_start"] == 0
    assert "lantern" not in answer.text and "Qx7" not in answer.text


def test_earlier_secrets_go_only_by_setting_and_on_purpose(api: Api) -> None:
    login_id = replaced(api, "one-lantern", "two-orchards", "three-piers", days=100)
    path = "history/past-retention"
    assert api.ok("GET", path) == {"secret_count": 0, "login_count": 0}
    assert switch(api, history_keep_days=30) is None
    assert api.ok("GET", path) == {"secret_count": 1, "login_count": 1}
    api.keeper.lock()
    api.enter()
    assert len(history(api, login_id)) == 2
    assert api.refused("DELETE", path) == "403 proof_needed"
    api.ok("DELETE", path, **api.proof())
    assert len(history(api, login_id)) == 1
    assert api.secret_of(login_id) == "three-piers"
    assert switch(api, history_keep_days=-1) is not None
