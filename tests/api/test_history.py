"""Earlier secrets: compared, restored as rotations, let go on purpose alone."""

from datetime import timedelta
from pathlib import Path

import pytest

from tests.api.conftest import Api, make_api
from tests.api.test_bundles import merged, taken_out
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


def test_what_a_field_held_is_put_back_alone_and_is_no_secret_to_rotate_to(api: Api) -> None:
    def fields(answer: str) -> list[dict[str, str]]:
        return [{"name": "answer", "value": answer}, {"name": "shelf", "value": "seven"}]

    login_id = api.add(secret_fields=fields("the chandler"))["login_id"]
    api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret_fields": fields("the cooper")})
    (earlier,) = history(api, login_id)
    restore = f"logins/{login_id}/history/{earlier['earlier_id']}/restore"
    api.ok("POST", restore)
    held = [
        api.ok("POST", f"logins/{login_id}/secret-field", {"name": name, "purpose": "reveal"})
        for name in ("answer", "shelf")
    ]
    assert [one["secret"] for one in held] == ["the chandler", "seven"]
    assert len(history(api, login_id)) == 2
    body = {"login_id": login_id, "earlier_id": earlier["earlier_id"]}
    assert api.refused("POST", "rotations", body) == "404 nothing_held"
    assert api.ok("GET", "rotations") == []
    api.ok("DELETE", f"logins/{login_id}", **api.proof())
    assert api.refused("POST", restore) == "404 nothing_held"


def test_a_secret_is_compared_by_what_it_is_and_never_said(api: Api) -> None:
    login_id = replaced(api, "lantern-2019", "lantern-2020!", "Qx7#vKp2mZw9")
    for said in ("the chandler", "the cooper"):
        fields = [{"name": "answer", "value": said}]
        api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret_fields": fields})
    assert len(history(api, login_id)) == 3
    answer = api.call("POST", f"logins/{login_id}/history/compare")
    rows = answer.json()
    assert [(r["earlier_id"] is None, r["length"]) for r in rows] == [
        (True, 12),
        (False, 12),
        (False, 13),
    ]
    assert rows[0]["guess_number_log10"] > rows[1]["guess_number_log10"] + 4
    assert rows[0]["shared_start"] == 12 and rows[1]["shared_start"] == 0
    assert [row["shared_end"] for row in rows] == [12, 1, 0]
    assert "lantern" not in answer.text and "Qx7" not in answer.text


def test_earlier_secrets_go_only_by_setting_and_on_purpose(api: Api) -> None:
    login_id = replaced(api, "one-lantern", "two-orchards", "three-piers", days=100)
    path = "history/past-retention"
    assert api.ok("GET", path) == {"secret_count": 0, "login_count": 0}
    assert switch(api, history_keep_days=30) is None
    assert api.ok("GET", path) == {"secret_count": 1, "login_count": 1}
    api.ok("PUT", f"logins/{login_id}", {"title": "T", "address": "site.example"})
    classes = [{"name": "any", "characters": "abcdefghijklmnopqrstuvwxyz-"}]
    rules = {"min_length": 8, "max_length": 20, "history_depth": 2, "classes": classes}
    known = {"name": "Site", "domains": ["site.example"], "policy": rules}
    policy = api.ok("POST", "policies", known)["policy_id"]
    # What a site remembers stays, however old it is.
    assert api.ok("GET", path) == {"secret_count": 0, "login_count": 0}
    api.ok("DELETE", f"policies/{policy}")
    api.keeper.lock()
    api.enter()
    assert len(history(api, login_id)) == 2
    assert api.refused("DELETE", path) == "403 proof_needed"
    api.ok("DELETE", path, **api.proof())
    assert len(history(api, login_id)) == 1
    assert api.secret_of(login_id) == "three-piers"
    assert switch(api, history_keep_days=-1) is not None


@pytest.mark.parametrize("years", [5, -5])
@pytest.mark.parametrize("restarted", [True, False])
def test_a_clock_that_leapt_lets_nothing_go_and_is_said(
    api: Api, tmp_path: Path, years: int, restarted: bool
) -> None:
    login_id = replaced(api, "one-lantern", "two-orchards", "three-piers", days=100)
    binned = api.add("Lumen")["login_id"]
    api.ok("DELETE", f"logins/{binned}", **api.proof())
    assert switch(api, history_keep_days=1000) is None
    at = api.clock.at
    api.clock.at = at + timedelta(days=365 * years)
    assert api.ok("GET", "history/past-retention")["secret_count"] == 0
    api.ok("DELETE", "history/past-retention", **api.proof())
    api.keeper.lock()
    if restarted:
        api = make_api(tmp_path, api.clock)
    api.enter()
    assert len(history(api, login_id)) == 2
    assert [one["login_id"] for one in api.ok("GET", "logins/bin")] == [binned]
    leap = api.ok("GET", "vault/session")["clock_leap"]
    assert leap["after"][:4] == str(api.clock.at.year) and leap["before"][:4] == "2027"
    api.clock.at = at + timedelta(minutes=1)
    api.clock.boot += 60
    api.keeper.look_at_clock()
    assert api.ok("GET", "vault/session")["clock_leap"]["after"] == f"{api.clock.at:%FT%TZ}"
    for _ in range(25):
        api.clock.pass_s(3600)
        api.keeper.touch(7200)
        api.keeper.look_at_clock()
    api.enter()
    assert api.ok("GET", "vault/session")["clock_leap"] is None
    api.keeper.lock()


def test_the_history_stands_in_its_order_whatever_the_clock_says(api: Api, other: Api) -> None:
    login = api.add(secret={"own": "one-lantern"})["login_id"]
    for n, own in enumerate(("two-orchards", "three-piers", "four-gantries")):
        api.clock.at += timedelta(days=(400, -900, 200)[n])
        title = {"title": "Gantry Rentals"}
        api.ok("PUT", f"logins/{login}", {**title, "secret": {"own": own}})
    assert secrets_in_order(api, login) == ["one-lantern", "two-orchards", "three-piers"]
    merged(other, taken_out(api))
    assert secrets_in_order(other, login) == ["one-lantern", "two-orchards", "three-piers"]


def secrets_in_order(api: Api, login: str) -> list[str]:
    ids = [str(one["earlier_id"]) for one in reversed(history(api, login))]
    return [api.earlier_secret(login, one) for one in ids]
