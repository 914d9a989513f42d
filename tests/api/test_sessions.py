"""Sessions: tabs of one browser beside one another, their end, and what a new passphrase ends."""

from datetime import datetime

from tests.api.conftest import Api
from tests.conftest import PASSPHRASE

HOUR_S = 3600.0


def cookie(api: Api) -> str:
    return f"newknot_47806={api.http.cookies['newknot_47806']}"


def test_a_second_tab_works_beside_the_first(api: Api) -> None:
    first = api.http.headers["knot-session"]
    half = cookie(api)
    second = api.ok("POST", "vault/unlock", {"passphrase": PASSPHRASE})["token"]
    assert cookie(api) == half and second != first
    for token in (first, second):
        assert api.ok("GET", "vault/session", knot_session=token)
    found = api.ok("GET", "vault/sessions", knot_session=second)
    assert [one["is_this"] for one in found] == [False, True]
    api.ok("POST", "vault/sessions/end-others", knot_session=second)
    assert api.refused("GET", "vault/session", knot_session=first) == "401 session_unknown"


def test_a_cookie_of_no_open_session_is_not_taken_over(api: Api) -> None:
    half = cookie(api)
    api.ok("POST", "vault/lock")
    api.enter()
    assert cookie(api) != half
    api.http.cookies.clear()
    made_up = {"cookie": "newknot_47806=chosen-by-someone"}
    api.ok("POST", "vault/unlock", {"passphrase": PASSPHRASE}, **made_up)
    assert "chosen" not in cookie(api)


def test_a_session_ends_after_twelve_hours_whatever_is_done_in_it(api: Api) -> None:
    api.ok("PUT", "safeguards", api.safeguards() | {"lock_after_s": 28_800}, **api.proof())
    (one,) = api.ok("GET", "vault/sessions")
    ends = datetime.fromisoformat(one["ends_at"]) - datetime.fromisoformat(one["began_at"])
    assert ends.total_seconds() == 12 * HOUR_S
    for _ in range(2):
        api.clock.pass_s(5.9 * HOUR_S)
        api.ok("POST", "vault/touch")
    api.clock.pass_s(0.3 * HOUR_S)
    assert api.refused("GET", "vault/session") == "401 session_unknown"
    assert api.keeper.is_unlocked
    api.enter()
    assert len(api.ok("GET", "vault/sessions")) == 1


def test_of_twenty_one_sessions_the_oldest_is_over(api: Api) -> None:
    first = api.http.headers["knot-session"]
    for _ in range(20):
        assert api.ok("GET", "vault/session", knot_session=first)
        api.enter()
    assert api.refused("GET", "vault/session", knot_session=first) == "401 session_unknown"


def test_a_new_passphrase_ends_all_others(api: Api) -> None:
    first = api.http.headers["knot-session"]
    api.enter()
    new = "orchard velvet lantern quarry mast"
    api.ok("PUT", "vault/passphrase", {"current": PASSPHRASE, "passphrase": new})
    assert api.ok("GET", "vault/session")
    assert api.refused("GET", "vault/session", knot_session=first) == "401 session_unknown"


def test_only_the_one_cookie_of_this_port_is_a_half(api: Api) -> None:
    """Cookies are shared by all ports of a host, and set by whoever serves on one of them."""
    half = cookie(api)
    other = half.replace("47806", "47807")
    api.http.cookies.clear()
    assert api.ok("GET", "vault/session", cookie=f"theme=dark; {half}; newknot_47807=other")
    for wrong in (other, f"{half}; newknot_47806=planted", f"newknot_47806=planted; {half}"):
        assert api.refused("GET", "vault/session", cookie=wrong) == "401 session_unknown"
