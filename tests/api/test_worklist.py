"""The worklist by login, over HTTP: parts, facets, members, and how the day went."""

from typing import Any

import pytest

from newknot.api.routers.check import worklist
from tests.api.conftest import Api


def rows(api: Api, **wish: object) -> dict[str, Any]:
    found: dict[str, Any] = api.ok("POST", "checks/worklist/rows", wish)
    return found


@pytest.fixture
def crowded(api: Api) -> Api:
    """Six logins of one secret, a weak one, one without https; all checked."""
    for n in range(6):
        importance = {"importance": "critical"} if n == 3 else {}
        api.add(f"Gantry {n}", secret={"own": "Kv7!rope-9wQ-plank2"}, **importance)
    api.add("Lumen", secret={"own": "gaffer1"}, address="http://lumen.example")
    api.ok("POST", "checks")
    return api


def test_a_group_is_one_row_and_counts_its_logins(crowded: Api) -> None:
    found = rows(crowded)
    assert found["logins"] == 7 and found["total"] == 2
    group = next(row for row in found["rows"] if row["kind"] == "group")
    assert (group["count"], group["size"], group["title"]) == (6, 6, "Gantry 3")
    assert group["says"].startswith("6 logins share one secret, since November 2026")
    assert group["is_first"] and found["first"] == 6 and found["first_rows"] == 1
    members = crowded.ok("POST", "checks/worklist/members", {"row_id": group["row_id"], "limit": 4})
    assert members["total"] == 6 and members["members"][0]["title"] == "Gantry 3"
    assert len(members["members"]) == 4
    rest = {"row_id": group["row_id"], "offset": 4}
    assert len(crowded.ok("POST", "checks/worklist/members", rest)["members"]) == 2
    assert crowded.refused("POST", "checks/worklist/members", {"row_id": "x"}) == "404 nothing_held"
    chosen = crowded.ok("POST", "checks/worklist/logins", {"row_id": group["row_id"]})["login_ids"]
    assert len(chosen) == 6
    lumen = next(row for row in found["rows"] if row["title"] == "Lumen")
    assert lumen["needs"] == ["new_secret", "address"]
    assert found["by_need"] == {"new_secret": 7, "address": 1}
    assert found["rotations"] == 7


def test_a_facet_and_a_part_are_the_servers(crowded: Api) -> None:
    found = rows(crowded, facet="address")
    assert [row["title"] for row in found["rows"]] == ["Lumen"] and found["logins"] == 7
    assert rows(crowded, facet="reused")["total"] == 1
    for first, end in ((0, 1), (1, 2)):
        part = rows(crowded, offset=first, limit=1)
        assert part["rows"] == rows(crowded)["rows"][first:end] and part["total"] == 2
    assert rows(crowded, offset=99)["rows"] == []
    assert crowded.refused("POST", "checks/worklist/rows", {"facet": "odd"}).startswith("422")
    assert crowded.refused("POST", "checks/worklist/rows", {"limit": 0}).startswith("422")
    for facet, count in (("weak", 1), ("reused", 6), (None, 7), ("new_secret", 7), ("address", 0)):
        assert rows(crowded, facet=facet)["rotations_here"] == count
    by_weak = crowded.ok("POST", "checks/worklist/logins", {"facet": "weak"})["login_ids"]
    assert [api_title(crowded, one) for one in by_weak] == ["Lumen"]


def api_title(api: Api, login_id: str) -> str:
    return str(api.ok("GET", f"logins/{login_id}")["title"])


def test_those_that_share_a_secret_are_as_they_are_now_and_all_of_them(api: Api) -> None:
    ids = [
        api.add(f"Truss {n}", secret={"own": "Kv7!rope-9wQ-plank2"})["login_id"] for n in range(60)
    ]
    mark = {"importance": "critical", "address": "http://truss.example"}
    three = [
        api.add(f"Lumen {n}", secret={"own": "vT2-9qLw!4xPk-7rB"}, **mark)["login_id"]
        for n in range(3)
    ]
    api.ok("POST", "checks")
    for asked, shared in ((ids[0], ids), (three[0], three)):
        found = api.ok("POST", "checks/worklist/logins", {"sharing_with": asked})["login_ids"]
        assert found[0] == asked and sorted(found) == sorted(shared)
    by_id = {row["login_id"]: row for row in rows(api)["rows"]}
    assert by_id[three[0]]["shares_count"] == 2
    # One that was accepted still shares it; one that was renewed does not.
    accepted = {"findings": [{"kind": "reused", "login_id": ids[1]}], "reason": "cannot"}
    api.ok("POST", "waivers", {**accepted, "note": "", "until_on": None})
    api.clock.pass_s(5)
    fresh = {"title": "Lumen 1", "secret": {"own": "x9Vv-2mQ!kd-77Lp"}}
    api.ok("PUT", f"logins/{three[1]}", fresh)
    found = rows(api)["rows"]
    (group,) = [row for row in found if row["kind"] == "group"]
    assert (group["size"], group["count"]) == (60, 59)
    assert next(row for row in found if row["login_id"] == three[0])["shares_count"] == 1
    gone = {"sharing_with": "0" * 32}
    assert api.refused("POST", "checks/worklist/logins", gone).startswith("404")


def test_the_rows_follow_each_change_and_say_what_was_settled_today(
    crowded: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    lumen = next(row for row in rows(crowded)["rows"] if row["title"] == "Lumen")
    login_id = lumen["login_id"]
    kinds = [f["kind"] for f in crowded.ok("GET", f"checks/worklist/{login_id}")]
    assert kinds == [f["kind"] for f in lumen["findings"]]
    accepted = {"findings": [{"kind": "plain_http", "login_id": login_id}], "reason": "cannot"}
    crowded.ok("POST", "waivers", {**accepted, "note": "", "until_on": None})
    found = rows(crowded)
    assert found["by_need"] == {"new_secret": 7}
    assert [(s["title"], s["how"]) for s in found["settled_today"]] == [("Lumen", "accepted")]
    crowded.clock.pass_s(5)
    sheet = crowded.ok("GET", f"logins/{login_id}")
    body = {k: sheet[k] for k in ("title", "user_name", "address", "notes", "folder", "owner")}
    crowded.ok("PUT", f"logins/{login_id}", {**body, "secret": {"own": "x9Vv-2mQ!kd-77Lp"}})
    found = rows(crowded)
    assert found["logins"] == 6 and found["settled_today_count"] == 2
    newest = {"login_id": login_id, "title": "Lumen", "how": "a new secret"}
    assert found["settled_today"][0] == newest
    monkeypatch.setattr(worklist, "SETTLED_MOST", 1)
    assert rows(crowded)["settled_today"] == [newest]
    assert crowded.ok("GET", f"checks/worklist/{login_id}") == []
    # Another day begins anew.
    crowded.clock.pass_s(24 * 3600)
    crowded.enter()
    assert rows(crowded)["settled_today_count"] == 0


def test_what_a_new_secret_settles_nothing_of_is_in_no_campaign(crowded: Api) -> None:
    drawn = crowded.ok("POST", "draws", {"length": 20})
    crowded.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    strong = {"secret": {"own": "x9Vv-2mQ!kd-77Lp"}, "address": "http://dimmer.example"}
    crowded.add("Dimmer", **strong)
    pin = {"secret_fields": [{"name": "PIN", "value": "4417"}]}
    crowded.add("Fader", secret={"own": "x9Vv-2mQ!kd-77Lp"}, **pin)
    crowded.ok("POST", "checks")
    found = {row["title"]: row for row in rows(crowded)["rows"]}
    assert {"Loose end", "Lumen"} <= found.keys()
    every = crowded.ok("POST", "checks/worklist/logins", {})["login_ids"]
    assert len(every) == len(set(every)) == 9
    by_address = crowded.ok("POST", "checks/worklist/logins", {"facet": "address"})["login_ids"]
    assert {api_title(crowded, one) for one in by_address} == {"Lumen", "Dimmer"}
    crowded.add("Barn door", **{**strong, "secret": {"own": "another-Kx83!-plank-wW"}})
    crowded.ok("POST", "checks")
    assert crowded.ok("POST", "checks/worklist/logins", {"facet": "address"}) == {
        "login_ids": by_address
    }
    # The least of a login's secrets is what the row shows.
    assert found["Fader"]["guess_number_log10"] < 5 < found["Dimmer"]["guess_number_log10"]


def test_a_rotation_that_ended_is_not_gone_on_with(crowded: Api) -> None:
    def lumen() -> dict[str, Any]:
        found: dict[str, Any] = next(
            row for row in rows(crowded)["rows"] if row["title"] == "Lumen"
        )
        return found

    body = {"login_id": lumen()["login_id"]}
    rotation_id = crowded.ok("POST", "rotations", body)["rotation_id"]
    assert lumen()["rotation_id"] == rotation_id
    crowded.ok("POST", f"rotations/{rotation_id}/events", {"event": "give_up"})
    assert lumen()["rotation_id"] is None


def test_what_was_kept_of_it_is_gone_at_the_lock(crowded: Api) -> None:
    rows(crowded)
    assert crowded.keeper.worklist._held is not None
    crowded.ok("POST", "vault/lock")
    assert crowded.keeper.worklist._held is None
    assert crowded.refused("POST", "checks/worklist/rows", {}) == "423 vault_locked"


@pytest.mark.parametrize(
    ("secret", "says"),
    [
        ("Seven lamps over dry gravel", "4 of its 5 words are the same"),
        ("over wet gravel seven lamps", "three of its words in a row"),
        ("seven lamps over gravel", "all 4 words are the same"),
        ("Seven Lamps Over Wet Gravel", "the same but for capitals and look-alikes"),
        ("seven brass lamps over wet gravel", "5 of its 6 words are the same"),
    ],
)
def test_how_a_secret_is_like_the_passphrase_is_counted(api: Api, secret: str, says: str) -> None:
    api.add(secret={"own": secret})
    api.ok("POST", "checks")
    said = [finding["evidence"] for finding in api.ok("GET", "checks/worklist")["findings"]]
    assert f"Like the passphrase of this vault: {says}" in said


def test_a_new_passphrase_settles_what_it_can_and_no_button_says_more(api: Api) -> None:
    api.add(secret={"own": "Seven lamps over dry gravel"})
    api.ok("POST", "checks")
    api.clock.pass_s(60)

    def said() -> tuple[bool, str]:
        (one,) = [f for f in rows(api)["rows"][0]["findings"] if f["kind"] == "like_passphrase"]
        return one["by_passphrase"], one["evidence"]

    assert said() == (True, "Like the passphrase of this vault: 4 of its 5 words are the same")
    later = {"current": api.passphrase, "passphrase": "harbour pencil meadow violin copper"}
    api.ok("PUT", "vault/passphrase", later)
    before = said()
    api.ok("POST", "checks")
    assert before == said() and not before[0] and "an earlier passphrase" in before[1]


def test_between_two_checks_a_row_says_what_is_left_to_do(crowded: Api) -> None:
    crowded.clock.pass_s(60)
    (lumen,) = [row for row in rows(crowded)["rows"] if row["title"] == "Lumen"]
    login_id, fresh = lumen["login_id"], {"title": "Lumen", "address": "http://lumen.example"}
    crowded.ok("PUT", f"logins/{login_id}", {**fresh, "secret": {"own": "x9Vv-2mQ!kd-77Lp"}})
    (left,) = [row for row in rows(crowded)["rows"] if row["title"] == "Lumen"]
    assert left["needs"] == ["address"] and rows(crowded)["basis"]["changed_count"] == 1
    crowded.clock.pass_s(60)
    crowded.ok("PUT", f"logins/{login_id}", {**fresh, "address": "https://lumen.example"})
    assert all(row["title"] != "Lumen" for row in rows(crowded)["rows"])
    for _ in range(2):
        crowded.keeper.lock()
        crowded.enter()
        settled = rows(crowded)["settled_today"]
        assert [one["how"] for one in settled] == ["the address", "a new secret"]
        crowded.ok("POST", "checks")
    assert rows(crowded)["basis"]["changed_count"] == 0
    crowded.clock.pass_s(60)
    crowded.ok("PUT", f"logins/{login_id}", fresh)
    assert [one["how"] for one in rows(crowded)["settled_today"]] == ["a new secret"]


def test_a_further_secret_is_a_need_of_its_own_which_no_new_secret_settles(api: Api) -> None:
    def left() -> list[Any]:
        found = rows(api)
        said = [[f["evidence"], f["by_new_secret"]] for r in found["rows"] for f in r["findings"]]
        return [found["by_need"], found["rotations"], found["settled_by_rotations"], *said]

    def put(**changed: object) -> None:
        api.keeper.lock()
        api.enter()
        api.clock.pass_s(60)
        api.ok("PUT", f"logins/{login_id}", {"title": "Lumen", **changed})

    pin, falls = {"name": "PIN"}, "“PIN”: digits: falls at the sign-in form itself"
    weak = api.add("Lumen", secret={"own": "gaffer1"}, secret_fields=[pin | {"value": "4417"}])
    login_id = weak["login_id"]
    api.ok("POST", "checks")
    both = ["Rarer word and digits; “PIN”: digits: falls at the sign-in form itself", False]
    assert left() == [{"new_secret": 1, "field": 1}, 1, 0, both]
    put(secret={"own": "x9Vv-2mQ!kd-77Lp"}, secret_fields=[pin])
    for _ in range(2):
        assert left() == [{"field": 1}, 0, 0, [falls, False]]
        api.ok("POST", "checks")
    for facet in ("field", "weak"):
        assert api.ok("POST", "checks/worklist/logins", {"facet": facet}) == {"login_ids": []}
        assert rows(api, facet=facet)["rotations_here"] == 0
    put(secret_fields=[pin | {"value": "x3Kd-81Qm-zz04-RTu7"}])
    assert left() == [{}, 0, 0]


def test_a_campaign_is_chosen_by_what_the_logins_have_in_common(crowded: Api) -> None:
    crowded.add("Empty", address="https://lumen.example", secret=None)

    def made_of(way: str, typed: str = "") -> list[tuple[str, int]]:
        found = crowded.ok("POST", "campaigns/choices", {"way": way, "typed": typed, "limit": 2})
        assert found["total"] >= len(found["choices"])
        for one in found["choices"]:
            body = {"way": way, "choice_id": one["choice_id"]}
            chosen = crowded.ok("POST", "campaigns/chosen", body)
            assert len(chosen["login_ids"]) == one["count"]
            assert crowded.ok("POST", "campaigns", {"login_ids": chosen["login_ids"]})["places"]
        return [(one["label"], one["count"]) for one in found["choices"]]

    assert made_of("finding") == [("reused", 6), ("weak", 1)]
    assert made_of("group") == [("same secret as Gantry 0", 6)]
    # What has no secret is not rotated.
    assert made_of("site", "lumen") == [("lumen.example", 1)]
    reaches = made_of("reach", "gantry 5")
    assert reaches == [("Gantry 5", 6)]
    gone = {"way": "group", "choice_id": "same " + "0" * 32}
    assert crowded.ok("POST", "campaigns/chosen", gone) == {"login_ids": [], "titles": []}
    assert crowded.refused("POST", "campaigns/choices", {"way": "x"}) == "422 request_invalid"
