"""What is shown, copied or taken out leaves an event, and never the secret."""

from typing import Any

from tests.api.conftest import Api
from tests.api.test_bundles import taken_out

CODE_KEY = "otpauth://totp/Gantry?secret=GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"


def told(api: Api) -> list[tuple[str, str | None]]:
    events = api.ok("GET", "events")
    return [(e["says"], e["title"]) for e in events if e["kind"] == "access"]


def ways_out(api: Api) -> dict[str, dict[str, Any]]:
    """Every call that gives a secret out, with a body for it."""
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    api.clock.pass_s(60)
    body = {"title": "Gantry", "secret": {"own": "truss-and-bolt"}}
    api.ok("PUT", f"logins/{login}", {**body, "secret_fields": [{"name": "PIN", "value": "4417"}]})
    api.ok("POST", f"logins/{login}/second-factor", {"code_key": CODE_KEY})
    api.ok("PUT", f"logins/{login}/backup-codes", {"text": "seven-lamps"})
    earlier = api.ok("GET", f"logins/{login}")["history"][0]["earlier_id"]
    rotation = api.ok("POST", "rotations", {"login_id": login})["rotation_id"]
    other = api.add("Gantry", secret={"own": "rope-of-hemp"})["login_id"]
    accepted = api.ok("POST", "rotations", {"login_id": other})["rotation_id"]
    api.ok("POST", f"rotations/{accepted}/hand-out", {"purpose": "copy"})
    api.ok("POST", f"rotations/{accepted}/events", {"event": "accept"})
    return {
        f"logins/{login}/secret": {},
        f"logins/{login}/secret-field": {"name": "PIN"},
        f"logins/{login}/code": {},
        f"logins/{login}/backup-codes": {},
        f"logins/{login}/history/{earlier}/secret": {},
        f"rotations/{rotation}/current": {},
        f"rotations/{rotation}/hand-out": {},
        f"rotations/{accepted}/former": {},
    }


def test_each_way_out_leaves_its_event_and_not_the_secret(api: Api) -> None:
    ways = ways_out(api)
    given = len(told(api))
    for path, body in ways.items():
        before = told(api)
        for purpose in ("reveal", "copy"):
            api.ok("POST", path, {**body, "purpose": purpose})
        after = told(api)
        assert len(after) == len(before) + 2, path
        assert all(title == "Gantry" for _, title in after)
    text = str(told(api))
    for word in ("rope", "truss", "4417", "GEZD", "seven"):
        assert word not in text
    taken_out(api)
    assert api.call("POST", "exports/csv", **api.proof()).is_success
    assert {one for one, _ in told(api)[:2]} == {
        "the vault taken out as a sealed bundle",
        "all logins taken out as CSV in the clear",
    }
    api.keeper.lock()
    api.enter()
    assert len(told(api)) == given + 2 * len(ways) + 2


def test_what_does_not_go_out_leaves_none(api: Api) -> None:
    held = api.safeguards()
    api.ok("PUT", "safeguards", {**held, "reveal_allowed": False}, **api.proof())
    login = api.add()["login_id"]
    assert api.refused("POST", f"logins/{login}/secret", {"purpose": "reveal"}).startswith("403")
    assert api.refused("POST", f"logins/{'0' * 32}/secret", {"purpose": "copy"}).startswith("404")
    assert told(api) == []


def test_a_code_that_is_renewed_on_the_screen_is_one_event(api: Api) -> None:
    login = api.add("Gantry")["login_id"]
    api.ok("POST", f"logins/{login}/second-factor", {"code_key": CODE_KEY})
    for _ in range(5):
        api.ok("POST", f"logins/{login}/code", {"purpose": "reveal"})
        api.clock.pass_s(30)
    assert len(told(api)) == 1
    api.ok("POST", f"logins/{login}/code", {"purpose": "copy"})
    assert len(told(api)) == 2


def test_what_rests_on_the_secrets_is_not_read_again_for_it(api: Api) -> None:
    login = api.add("Gantry")["login_id"]
    with api.keeper.at_work() as vault:
        seen = vault.changes_of_contents
    api.ok("POST", f"logins/{login}/secret", {"purpose": "copy"})
    with api.keeper.at_work() as vault:
        assert vault.changes_of_contents == seen and vault.counter > seen
