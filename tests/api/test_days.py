"""A day is that of whoever uses this machine: what is due, accepted until, and settled today."""

import time
from collections.abc import Iterator
from datetime import UTC, date, datetime

import pytest

from newknot.core.calendar_day import day_of
from tests.api.conftest import Api

HOUR_S = 3600


@pytest.fixture
def west(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """Eight hours behind UTC: it is 4 in the morning of 25 November."""
    with monkeypatch.context() as patched:
        patched.setenv("TZ", "XXX8")
        time.tzset()
        yield
    time.tzset()


def due(api: Api) -> dict[str, str]:
    return {one["title"]: one["due"] for one in api.ok("GET", "logins/due")}


@pytest.mark.usefixtures("west")
def test_a_day_ends_at_midnight_here(api: Api) -> None:
    gantry = api.add("Gantry", expires_on="2026-11-25")["login_id"]
    lumen = api.add("Lumen", secret={"own": "gaffer1"}, address="http://lumen.example")["login_id"]
    api.ok("POST", "checks")
    finding = {"kind": "plain_http", "login_id": lumen}
    wish = {"findings": [finding], "reason": "cannot", "note": "", "until_on": "2026-11-25"}
    api.clock.pass_s(8 * HOUR_S)
    api.enter()
    api.ok("POST", "waivers", wish)
    for hours, here in ((11, "2026-11-25"), (2, "2026-11-26")):
        # In UTC it is the 26th both times.
        api.clock.pass_s(hours * HOUR_S)
        api.enter()
        is_over = here == "2026-11-26"
        assert due(api) == {"Gantry": "overdue" if is_over else "today"}
        assert any(one["holds"] for one in api.ok("GET", "waivers")) is not is_over
        checked = api.ok("POST", "checks")
        kinds = {finding["kind"] for finding in checked["findings"]}
        assert ({"overdue", "plain_http"} <= kinds) is is_over
        found = api.ok("POST", "checks/worklist/rows", {})
        assert found["settled_today_count"] == (0 if is_over else 1)
        answer = api.call("POST", "waivers", wish)
        assert answer.is_success is not is_over, answer.text
    # A new secret answers the day that was set for the one before it; another day is another.
    secret, login = {"own": "Kv7!rope-9wQ-plank2"}, f"logins/{gantry}"
    for days, on, body, is_over in (
        (0, "2026-11-25", {"secret": secret}, False),
        (40, "2026-12-20", {}, True),
        (0, "2027-02-01", {}, False),
        # Renewed before it comes, it is answered when it comes.
        (1, "2027-02-01", {"secret": {"own": "Wq2!plank-5vT-rope8"}}, False),
        (60, "2027-02-01", {}, False),
    ):
        api.clock.pass_s(days * 24 * HOUR_S)
        api.enter()
        api.ok("PUT", login, {"title": "Gantry", "expires_on": on, **body})
        for _ in range(2):
            assert due(api).get("Gantry") == ("overdue" if is_over else None)
            kinds = api.ok("POST", "checks/worklist/rows", {})["by_kind"]
            assert ("overdue" in kinds) is is_over
            api.ok("POST", "checks")
    # What is answered is not carried: brought in elsewhere it would be over anew.
    table = api.call("POST", "exports/csv", **api.proof()).text
    assert "2027-02-01" not in table
    begun = api.ok("POST", "imports", table.encode())
    mapping, path = {"mapping": begun["mapping"]}, f"imports/{begun['import_id']}"
    rows = api.ok("POST", f"{path}/preview", mapping)["rows"]
    assert {row["status"] for row in rows} == {"same"}
    # A day that a row brings is for the secret that there is.
    begun = api.ok("POST", "imports", b"title,password,expires on\nGantry,,2027-01-20\n")
    take = {"take_fields": [{"line": 2, "fields": ["expires_on"]}], "mapping": begun["mapping"]}
    api.ok("POST", f"imports/{begun['import_id']}/apply", take)
    assert due(api) == {"Gantry": "overdue"}


@pytest.mark.usefixtures("west")
def test_a_day_in_a_table_is_one_here(api: Api) -> None:
    """Where it began in UTC, it was still the day before."""
    body = b"title,password,password changed\nGantry,rope-and-plank-9,2026-05-01\n"
    begun = api.ok("POST", "imports", body)
    mapping = {"mapping": begun["mapping"]}
    api.ok("POST", f"imports/{begun['import_id']}/preview", mapping)
    api.ok("POST", f"imports/{begun['import_id']}/apply", mapping)
    (login,) = api.ok("GET", "logins")["logins"]
    assert login["secret_since_at"] == "2026-05-01T08:00:00Z"


@pytest.mark.usefixtures("west")
def test_the_first_day_that_there_is_stays_it() -> None:
    assert day_of(datetime.min.replace(tzinfo=UTC)) == date.min
