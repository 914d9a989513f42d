"""The list of logins in parts, over HTTP: searched, by folder, by site or by findings."""

from typing import Any

import pytest

from tests.api.conftest import Api


@pytest.fixture
def listed(api: Api) -> Api:
    """Two at one site, one elsewhere in a folder with an accent and a tag, one weak."""
    api.add("Gantry hire", address="https://gantry.example", user_name="ilse")
    api.add("Gantry office", address="https://gantry.example", user_name="quist")
    api.add("Zoë’s Lamps", folder="Bühne", tags=["dimmer"], address="https://zoe.example")
    api.add("Lumen", secret={"own": "gaffer1"}, address="https://lumen.example")
    return api


def rows(api: Api, **wish: object) -> dict[str, Any]:
    found: dict[str, Any] = api.ok("POST", "logins/rows", wish)
    return found


def titles(found: dict[str, Any]) -> list[str]:
    return [
        line["login"]["title"] if line["login"] else f"[{line['site']} {line['site_count']}]"
        for line in found["rows"]
    ]


def test_logins_of_one_site_stand_under_its_name_a_part_at_a_time(listed: Api) -> None:
    found = rows(listed)
    together = ["[gantry.example 2]", "Gantry hire", "Gantry office", "Lumen", "Zoë’s Lamps"]
    assert titles(found) == together
    assert (found["lines_total"], found["found"], found["logins_count"]) == (5, 4, 4)
    assert [line["place"] for line in found["rows"]] == [None, 0, 1, 2, 3]
    assert titles(rows(listed, offset=3, limit=1)) == ["Lumen"]
    assert found["folders"] == {"": 3, "Bühne": 1}


@pytest.mark.parametrize(
    ("typed", "found"),
    [
        ("gantry", ["[gantry.example 2]", "Gantry hire", "Gantry office"]),
        ("QUIST gan", ["Gantry office"]),
        ("zoe", ["Zoë’s Lamps"]),
        ("dimmer", ["Zoë’s Lamps"]),
        ("buhne zoe.example", ["Zoë’s Lamps"]),
        ("nothing of it", []),
        ("gaffer1", []),
    ],
)
def test_every_word_typed_stands_somewhere_in_what_is_found(
    listed: Api, typed: str, found: list[str]
) -> None:
    assert titles(rows(listed, search=typed)) == found
    assert titles(rows(listed, search=typed, folder="none")) == []


def test_by_findings_the_most_urgent_are_first_with_their_kinds(listed: Api) -> None:
    listed.ok("POST", "checks")
    found = rows(listed, order="findings")
    urgent = [row["title"] for row in listed.ok("POST", "checks/worklist/rows", {})["rows"]]
    assert titles(found) == urgent and urgent != titles(rows(listed))
    lumen = next(line for line in found["rows"] if line["login"]["title"] == "Lumen")
    assert "weak" in lumen["kinds"] and lumen["in_group"] is False


def test_the_list_follows_each_change(listed: Api) -> None:
    assert rows(listed, search="gantry")["found"] == 2
    listed.add("Gantry new")
    found = rows(listed, search="gantry")
    assert found["found"] == 3
    gone = next(line["login"] for line in found["rows"] if line["login"])["login_id"]
    listed.ok("DELETE", f"logins/{gone}", **listed.proof())
    assert rows(listed, search="gantry")["found"] == 2


def test_the_nearest_title_is_found_first(listed: Api) -> None:
    listed.add("The Lumen Society")
    found = listed.ok("POST", "logins/find", {"typed": "lumen"})
    assert [one["title"] for one in found] == ["Lumen", "The Lumen Society"]
    assert found[0]["domain"] == "lumen.example"
    assert len(listed.ok("POST", "logins/find", {"typed": "", "limit": 2})) == 2
    assert listed.refused("POST", "logins/rows", {"order": "odd"}).startswith("422")
    assert listed.refused("POST", "logins/rows", {"search": "x" * 1001}).startswith("422")
    listed.ok("POST", "vault/lock")
    assert listed.keeper.login_list._cards == []


def test_those_that_are_due_come_with_the_nearest_first(api: Api) -> None:
    for title, day in (("Later", "2026-12-05"), ("Past", "2026-11-01"), ("Far", "2027-11-01")):
        api.add(title, expires_on=day)
    api.add("Never")
    due = api.ok("GET", "logins/due")
    assert [(one["title"], one["due"]) for one in due] == [("Past", "overdue"), ("Later", "soon")]
    assert all(one in api.ok("GET", "logins")["logins"] for one in due)


def test_a_login_that_is_typed_is_known_by_title_or_host(api: Api) -> None:
    bare = {"title": "Gantry", "user_name": "ilse", "address": "https://gantry.example/rent"}
    gantry = api.add(**bare, folder="Yard")["login_id"]
    api.add("Gantry", user_name="payroll", address="https://gantry.example")
    api.add("Lumen", user_name="ilse", address="https://münze.example")

    def known(**typed: str) -> tuple[str | None, str, list[str]]:
        found = api.ok("POST", "logins/known", typed)
        return (found["same"] or {}).get("login_id"), found["address"], found["user_names"]

    assert known(title=" gÄntry".replace("Ä", "ä"), user_name="ILSE")[0] == gantry
    assert known(title="gantry") == (None, "https://gantry.example/rent", ["ilse", "payroll"])
    # By the host that a browser would open, in any writing of it.
    assert known(address="HTTPS://gantry.EXAMPLE:443/other", user_name="ilse")[0] == gantry
    assert known(address="xn--mnze-0ra.example") == (None, "", ["ilse"])
    for nothing in ({}, {"title": "Gan"}, {"address": "https://gantry.example.org"}):
        assert known(**nothing) == (None, "", [])
    assert api.ok("GET", "logins/habits") == {
        "folders": ["Yard"],
        "user_names": ["ilse", "payroll"],
    }
