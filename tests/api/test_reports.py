"""The report: who has to do what, without any secret, and with user names only where asked."""

import csv
import io
from datetime import timedelta

import pytest

from tests.api.conftest import Api

SHARED = "Rt7-kkPz!w42mQ"


@pytest.fixture
def checked(api: Api) -> Api:
    """Two logins of one title share a secret; a third would be a formula in a spreadsheet."""
    for user_name in ("ilse.quist", "maud.ferrier"):
        api.add("Slate", user_name=user_name, owner="Maud <b>", secret={"own": SHARED})
    api.add("=1+2", user_name="ilse.quist", folder="@home", secret={"own": "lantern1"})
    api.ok("POST", "checks")
    return api


@pytest.mark.parametrize("grouped_by", ["owner", "folder", "kind"])
@pytest.mark.parametrize("with_user_names", [True, False])
def test_no_secret_and_no_user_name_unless_asked(
    checked: Api, grouped_by: str, with_user_names: bool
) -> None:
    wish = {"grouped_by": grouped_by, "with_user_names": with_user_names}
    table = checked.call("POST", "reports/csv", wish, **checked.proof()).text
    page = checked.call("POST", "reports/html", wish, **checked.proof()).text
    lines = checked.ok("POST", "reports", wish)["lines"]
    for text in (table, page, str(lines)):
        assert SHARED not in text and "lantern1" not in text
        assert ("maud.ferrier" in text) is with_user_names
    rows = list(csv.reader(io.StringIO(table)))
    assert len(rows) == len(lines) + 1 == 4
    assert not any(cell[:1] in "=+-@" for row in rows for cell in row if cell)
    assert "<b>" not in page
    # Each line in the table of its own group, once.
    assert page.count("<tr><td>") == len(lines)
    assert [line["group"].casefold() for line in lines] == sorted(
        line["group"].casefold() for line in lines
    )


def test_taking_it_out_needs_the_proof_of_an_export(checked: Api) -> None:
    wish = {"grouped_by": "kind", "with_user_names": False}
    for kind in ("csv", "html"):
        assert checked.refused("POST", f"reports/{kind}", wish) == "403 proof_needed"


def test_loose_ends_and_progress_stand_in_the_worklist(checked: Api) -> None:
    rows = checked.ok("GET", "checks/worklist")
    assert (rows["renewed_count"], rows["renewable_count"]) == (0, 3)
    first = next(r for r in rows["findings"] if r["kind"] == "weak")
    checked.clock.pass_s(5)
    body = {"title": "=1+2", "secret": {"own": "kV!8q-Lz3#Rw0pXt_2mB"}}
    checked.ok("PUT", f"logins/{first['login_id']}", body)
    after = checked.ok("POST", "checks")
    assert (after["renewed_count"], after["renewable_count"]) == (1, 3)
    checked.clock.pass_s(5)
    body = {"title": "=1+2", "secret": {"own": "lantern2"}}
    checked.ok("PUT", f"logins/{first['login_id']}", body)
    again = checked.ok("POST", "checks")
    assert (again["renewed_count"], again["renewable_count"]) == (0, 3)


def test_a_second_factor_gives_codes_by_its_own_call(api: Api) -> None:
    key = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"
    login = api.add("Tallow", second_factor="here", code_key=key)
    found = api.ok("POST", f"logins/{login['login_id']}/code", {"purpose": "copy"})
    assert len(found["code"]) == 6 and 1 <= found["valid_s"] <= 30
    kept = {"title": "Tallow", "second_factor": "here"}
    sheet = api.ok("PUT", f"logins/{login['login_id']}", kept)
    assert key not in str(sheet) and sheet["second_factor"] == "here"
    api.ok("PUT", f"logins/{login['login_id']}", {"title": "Tallow", "second_factor": "elsewhere"})
    assert api.refused("POST", f"logins/{login['login_id']}/code", {"purpose": "copy"}) == (
        "404 nothing_held"
    )
    history = api.ok("GET", f"logins/{login['login_id']}")["history"]
    assert [one["field"] for one in history] == ["key of its codes"]
    none = {"title": "Bare", "second_factor": "here"}
    assert api.refused("POST", "logins", none) == "422 field_invalid"


def test_events_tell_what_happened_to_which_login_and_no_secret(api: Api) -> None:
    login = api.add("Tallow", secret={"own": "lantern-orchard"})
    api.clock.pass_s(60)
    body = {"title": "Tallow", "secret": {"own": "velvet-gravel"}}
    api.ok("PUT", f"logins/{login['login_id']}", body)
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    api.ok("POST", "checks")
    api.ok("POST", "backups", **api.proof())
    api.clock.pass_s(4 * 86_400)
    api.enter()
    assert api.ok("GET", f"rotations/{rotation['rotation_id']}")["is_stalled"]
    api.ok("DELETE", f"logins/{login['login_id']}", **api.proof())
    events = api.ok("GET", "events")
    said = [(e["kind"], e["says"], e["title"]) for e in events]
    assert said[0] == ("login", "put into the bin", "Tallow")
    assert said[-1] == ("login", "added", "Tallow")
    assert {e["kind"] for e in events} == {"login", "secret", "rotation", "check", "backup"}
    assert "orchard" not in str(events) and "gravel" not in str(events)


def test_a_login_is_due_by_its_own_day_or_its_sites_age(api: Api) -> None:
    classes = [{"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}]
    policy = {"min_length": 8, "max_length": 30, "classes": classes, "max_age_days": 90}
    api.ok("POST", "policies", {"name": "Slate", "domains": ["slate.example"], "policy": policy})
    api.add("Slate", address="https://slate.example")
    today = api.clock.at.date()
    api.add("Own", expires_on=str(today + timedelta(days=80)))
    api.clock.pass_s(78 * 86_400)
    api.enter()
    rows = {row["title"]: row for row in api.ok("GET", "logins")["logins"]}
    assert (rows["Slate"]["due"], rows["Own"]["due"]) == ("soon", "soon")
    assert rows["Slate"]["due_on"] == str(today + timedelta(days=90))
    api.clock.pass_s(2 * 86_400)
    api.enter()
    rows = {row["title"]: row for row in api.ok("GET", "logins")["logins"]}
    assert (rows["Slate"]["due"], rows["Own"]["due"]) == ("soon", "today")


def test_the_report_counts_what_the_worklist_does(checked: Api) -> None:
    draw = checked.ok("POST", "draws", {"length": 12})["draw_id"]
    checked.ok("POST", f"draws/{draw}/keep", {"address": "odd.example"})
    todo = checked.ok("GET", "checks/worklist")["findings"]
    assert any(row["loose_end_id"] for row in todo)
    for grouped_by in ("owner", "folder", "kind"):
        wish = {"grouped_by": grouped_by, "with_user_names": False}
        lines = checked.ok("POST", "reports", wish)["lines"]
        assert len(lines) == len(todo)
        assert [one["address"] for one in lines if one["title"] == "Loose end"] == ["odd.example"]
