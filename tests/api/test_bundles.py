"""A vault carried to another device in a sealed bundle, and merged when both come together."""

import os
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

from newknot.crypto.bundle import seal_bundle
from newknot.exchange.bundle import write_content
from newknot.store.merging import read_contents
from tests.api.conftest import Api, make_api
from tests.conftest import CHEAP

SEAL = "orchard velvet lantern quarry"


def taken_out(api: Api) -> bytes:
    answer = api.call("POST", "bundles/take-out", {"passphrase": SEAL}, **api.proof())
    assert answer.is_success, answer.text
    return answer.content


def merged(api: Api, bundle: bytes, *back: str) -> list[tuple[str, str]]:
    held = api.ok("POST", "bundles", bundle)["bundle_id"]
    facts = api.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})
    lines = api.ok("POST", f"bundles/{held}/merge", {"take_out_of_bin": list(back)})
    assert lines == facts["lines"]
    return [(line["title"], line["what"]) for line in lines if line["kind"] == "login"]


def everything(api: Api) -> list[Any]:
    logins = api.ok("GET", "logins")["logins"]
    found: list[Any] = []
    for row in logins:
        sheet = api.ok("GET", f"logins/{row['login_id']}")
        secrets = [
            api.ok("POST", f"logins/{row['login_id']}/history/{e['earlier_id']}/secret",
                   {"purpose": "copy"})["secret"]
            for e in sheet["history"]
        ]  # fmt: skip
        found.append([sheet["title"], sheet["notes"], api.secret_of(row["login_id"]), secrets])
    return found


def test_two_devices_go_separate_ways_and_come_together(api: Api, other: Api) -> None:
    first = api.add("Gantry", notes="by the day", secret={"own": "rope-and-plank"})["login_id"]
    second = api.add("Lumen", secret={"own": "tallow-and-wick"})["login_id"]
    bundle = taken_out(api)
    assert b"rope" not in bundle
    assert merged(other, bundle) == [("Gantry", "added"), ("Lumen", "added")]
    assert everything(other) == everything(api)

    api.clock.pass_s(60)
    body = {"title": "Gantry", "notes": "by the week"}
    api.ok("PUT", f"logins/{first}", {**body, "secret": {"own": "truss-and-bolt"}})
    other.clock.pass_s(30)
    other.ok("PUT", f"logins/{first}", {"title": "Gantry Rentals", "notes": "by the day",
                                        "secret": {"own": "chain-and-hook"}})  # fmt: skip
    api.ok("DELETE", f"logins/{second}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    here, there = taken_out(api), taken_out(other)
    assert ("Gantry Rentals", "parted") in merged(api, there)
    assert ("Lumen", "removed") in merged(other, here)
    assert everything(api) == everything(other)
    ((title, notes, secret, earlier),) = everything(api)
    assert (title, notes) == ("Gantry Rentals", "by the week")
    assert api.ok("GET", f"logins/{first}")["other_texts"] == []
    assert {secret, *earlier} == {"rope-and-plank", "truss-and-bolt", "chain-and-hook"}
    assert merged(api, there) == [] and merged(api, taken_out(other)) == []

    (found,) = api.ok("GET", "checks/worklist")["findings"]
    assert found["kind"] == "unfinished" and "two copies" in found["evidence"]
    history = api.ok("GET", f"logins/{first}")["history"]
    assert sorted(entry["parted"] for entry in history) == [False, True]
    lost = {entry["earlier_id"] for entry in history if entry["parted"]}
    rotation = api.ok("POST", "rotations", {"login_id": first})["rotation_id"]
    api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
    api.clock.pass_s(90)
    api.ok("POST", f"rotations/{rotation}/events", {"event": "accept"})
    evidence = [f["evidence"] for f in api.ok("GET", "checks/worklist")["findings"]]
    assert not any("two copies" in one for one in evidence)
    settled = api.ok("GET", f"logins/{first}")["history"]
    assert not any(entry["parted"] for entry in settled)
    # It may have served until now, so its retention begins now.
    (until,) = {e["until_at"] for e in settled if e["earlier_id"] in lost}
    assert datetime.fromisoformat(until) == api.clock.now()
    assert merged(api, there) == []


@pytest.mark.parametrize("by_a_new_one", [True, False])
def test_a_new_secret_or_the_other_let_go_for_good_settles_it_too(
    api: Api, other: Api, by_a_new_one: bool
) -> None:
    login = api.add("Gantry")["login_id"]
    merged(other, taken_out(api))
    for one, secret in ((api, "truss-and-bolt"), (other, "chain-and-hook")):
        one.ok("PUT", f"logins/{login}", {"title": "Gantry", "secret": {"own": secret}})
    there = taken_out(other)
    merged(api, there)
    history = api.ok("GET", f"logins/{login}")["history"]
    (parted,) = [e["earlier_id"] for e in history if e["parted"]]
    api.ok("PUT", f"logins/{login}", {"title": "Gantry", "notes": "another matter"})
    assert any("two copies" in one for one in evidence(api))
    if by_a_new_one:
        api.ok("PUT", f"logins/{login}", {"title": "Gantry", "secret": {"own": "hoist-and-pulley"}})
        assert not any(e["parted"] for e in api.ok("GET", f"logins/{login}")["history"])
    else:
        api.ok("DELETE", f"logins/{login}/history/{parted}", **api.proof())
    assert not any("two copies" in one for one in evidence(api))
    assert merged(api, there) == []


def test_deleted_here_and_changed_there_is_asked(api: Api, other: Api) -> None:
    login = api.add("Gantry")["login_id"]
    merged(other, taken_out(api))
    other.ok("PUT", f"logins/{login}", {"title": "Gantry Rentals"})
    not_asked = api.add("Truss")["login_id"]
    for gone in (login, not_asked):
        api.ok("DELETE", f"logins/{gone}", **api.proof())
    lines = merged(api, taken_out(other), login, not_asked)
    assert ("Gantry Rentals", "asked") in lines
    assert [row["title"] for row in api.ok("GET", "logins")["logins"]] == ["Gantry Rentals"]


@pytest.mark.parametrize(
    ("unit", "values"), [("importance", ("low", "high", "critical")), ("tags", "abc")]
)
def test_deleted_here_and_put_elsewhere_there_is_asked_however_often_it_was_here(
    api: Api, other: Api, unit: str, values: tuple[str, ...]
) -> None:
    login = api.add("Gantry")["login_id"]
    merged(other, taken_out(api))
    *here, there = ([one] if unit == "tags" else one for one in values)
    for one in here:
        api.ok("PUT", f"logins/{login}", {"title": "Gantry", unit: one})
    other.ok("PUT", f"logins/{login}", {"title": "Gantry", unit: there})
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    held = api.ok("POST", "bundles", taken_out(other))["bundle_id"]
    lines = api.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})["lines"]
    assert [one["in_bin"] for one in lines if one["what"] == "asked"] == [False]
    api.ok("POST", f"bundles/{held}/merge", {"take_out_of_bin": []})
    assert api.ok("GET", f"logins/{login}")[unit] == there


def test_deleted_here_while_a_rotation_began_there_is_asked(api: Api, other: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    merged(other, taken_out(api))
    rotation = other.ok("POST", "rotations", {"login_id": login})["rotation_id"]
    staged = other.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})["secret"]
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    assert ("Gantry", "asked") in merged(api, taken_out(other))
    merged(other, taken_out(api))
    for copy in (api, other):
        assert copy.secret_of(login) == "rope-and-plank"
        again = copy.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
        assert again["secret"] == staged


def test_a_bundle_that_does_not_open_changes_nothing(api: Api) -> None:
    api.add("Gantry")
    before = everything(api)
    bundle = taken_out(api)
    for body, code in (
        (b"", "422 bundle_refused"),
        (b"{}", "422 bundle_refused"),
        (bundle[:-9] + b"AAAAAAAAA", "403 bundle_closed"),
    ):
        answer = api.call("POST", "bundles", body)
        if answer.is_success:
            held = answer.json()["bundle_id"]
            answer = api.call("POST", f"bundles/{held}/open", {"passphrase": SEAL})
            assert api.refused("POST", f"bundles/{held}/merge", {}) == "404 import_unknown"
        assert f"{answer.status_code} {answer.json()['code']}" == code
    assert api.refused("POST", "bundles/take-out", {"passphrase": SEAL}) == "403 proof_needed"
    weak = {"passphrase": "lantern1"}
    assert api.refused("POST", "bundles/take-out", weak, **api.proof()) == (
        "422 passphrase_too_weak"
    )
    assert everything(api) == before


def test_a_bundle_for_another_vault_needs_no_passphrase_and_opens_there_alone(
    api: Api, other: Api
) -> None:
    api.add("Gantry", secret={"own": "rope-and-plank"})
    key = other.ok("POST", "bundles/key")["public_key"]
    assert other.ok("POST", "bundles/key")["public_key"] == key
    answer = api.call("POST", "bundles/take-out", {"recipient": key}, **api.proof())
    for vault, opens in ((api, False), (other, True)):
        held = vault.ok("POST", "bundles", answer.content)
        assert held["for_a_key"]
        path = f"bundles/{held['bundle_id']}/open"
        assert vault.call("POST", path, {}).is_success is opens
    assert merged(other, answer.content) == [("Gantry", "added")]
    assert everything(other) == everything(api)
    wrong = {"recipient": "{}"}
    assert api.refused("POST", "bundles/take-out", wrong, **api.proof()) == "422 field_invalid"


def test_a_document_that_only_looks_like_one_is_refused_whole(api: Api, other: Api) -> None:
    login_id = api.add("Gantry")["login_id"]
    for document in (
        {"importance": "huge"},
        {"created_at": "then"},
        {"driven": [], "owner": 7, "expires_on": 7},
    ):
        with api.keeper.at_work() as vault:
            contents = read_contents(vault)
            contents.records["LOGIN"][login_id]["1"] |= document
            text = write_content(contents, vault_id="v", made_at=api.clock.now())
        bundle = seal_bundle(text, passphrase=SEAL, parameters=CHEAP, random_bytes=os.urandom)
        held = other.ok("POST", "bundles", bundle)["bundle_id"]
        refused = other.refused("POST", f"bundles/{held}/open", {"passphrase": SEAL})
        assert refused == "422 bundle_content_refused"
        assert other.ok("GET", "logins")["logins"] == []


def test_a_merge_can_be_stopped_at_each_of_its_steps_and_then_nothing_came_in(
    api: Api, other: Api
) -> None:
    for i in range(5):
        api.add(f"Site {i}")
    other.add("Here already")
    held = other.ok("POST", "bundles", taken_out(api))["bundle_id"]
    other.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})
    step, seen = other.keeper.progress.step, []
    for stop_at in range(3):

        def stops(done: int, total: int, third: int = stop_at) -> bool:
            seen.append((done, total))
            if done * 3 >= third * total:
                other.ok("POST", "checks/stop")
            return step(done, total)

        other.keeper.progress.step = stops  # type: ignore[method-assign]
        assert other.refused("POST", f"bundles/{held}/merge", {}) == "409 import_stopped"
        assert [row["title"] for row in other.ok("GET", "logins")["logins"]] == ["Here already"]
    other.keeper.progress.step = step  # type: ignore[method-assign]
    assert {(3 * done) // total for done, total in seen} == {0, 1, 2}
    assert len(other.ok("POST", f"bundles/{held}/merge", {})) == 5


def test_what_a_restore_brought_back_is_not_deleted_again_by_a_merge(api: Api, other: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    api.ok("PUT", f"logins/{login}", {"title": "Gantry Rentals"})
    name = api.ok("POST", "backups", **api.proof())["name"]
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    merged(other, taken_out(api))
    api.clock.pass_s(60)
    api.ok("POST", f"backups/{name}/restore", **api.proof())
    assert merged(api, taken_out(other)) == [("Gantry Rentals", "asked")]
    assert ("Gantry Rentals", "added") in merged(other, taken_out(api))
    for vault in (api, other):
        assert [row["title"] for row in vault.ok("GET", "logins")["logins"]] == ["Gantry Rentals"]
        assert vault.secret_of(login) == "rope-and-plank"


def test_what_is_gone_for_good_goes_by_a_copy_that_never_had_it(
    api: Api, other: Api, tmp_path: Path
) -> None:
    login = api.add("Gantry")["login_id"]
    third = make_api(tmp_path / "third", api.clock)
    third.enter("create")
    merged(third, taken_out(api))
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    assert merged(other, taken_out(api)) == []
    assert merged(third, taken_out(other)) == [("Gantry", "removed")]
    third.keeper.lock()


def test_what_was_staged_before_is_no_news_to_whoever_deleted_the_login(
    api: Api, other: Api
) -> None:
    login = api.add("Gantry")["login_id"]
    rotation = api.ok("POST", "rotations", {"login_id": login})["rotation_id"]
    merged(other, taken_out(api))
    api.ok("POST", f"rotations/{rotation}/stage", {})
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    assert merged(api, taken_out(other)) == []
    assert merged(other, taken_out(api)) == [("Gantry", "removed")]
    assert [copy.ok("GET", "rotations") for copy in (api, other)] == [[], []]


def codes_of(api: Api, login: str) -> list[tuple[str, bool]]:
    found = api.ok("POST", f"logins/{login}/backup-codes", {"purpose": "copy"})
    return [(one["code"], one["used_at"] is not None) for one in found]


def test_two_sets_of_backup_codes_are_never_mixed_and_marks_of_one_set_are_joined(
    api: Api, other: Api
) -> None:
    login = api.add("Gantry")["login_id"]
    path = f"logins/{login}/backup-codes"
    api.ok("PUT", path, {"text": "a1\na2\na3"})
    merged(other, taken_out(api))
    api.ok("POST", f"{path}/0", {"used": True})
    other.ok("POST", f"{path}/2", {"used": True})
    there = taken_out(other)
    merged(other, taken_out(api))
    merged(api, there)
    marked = [("a1", True), ("a2", False), ("a3", True)]
    assert codes_of(api, login) == codes_of(other, login) == marked
    # Now each has a set of its own, of different length.
    api.ok("PUT", path, {"text": "b1\nb2"})
    other.ok("PUT", path, {"text": "c1\nc2\nc3\nc4"})
    other.ok("POST", f"{path}/1", {"used": True})
    there = taken_out(other)
    merged(other, taken_out(api))
    merged(api, there)
    assert codes_of(api, login) == codes_of(other, login)
    sets = {"b": ["b1", "b2"], "c": ["c1", "c2\tused", "c3", "c4"]}
    held = codes_of(api, login)[0][0][0]
    assert [code for code, _ in codes_of(api, login)] == [
        line.partition("\t")[0] for line in sets.pop(held)
    ]
    (lost,) = sets.values()
    for one in (api, other):
        earlier = one.earlier_secrets(login)
        assert any("a1\tused" in text and "a3\tused" in text for text in earlier)
        (text,) = (t for t in earlier if t.startswith(lost[0]))
        assert [line.partition(" ")[0] for line in text.split("\n")] == lost
    assert not any(entry["parted"] for entry in api.ok("GET", f"logins/{login}")["history"])
    assert merged(api, there) == []


def test_a_set_of_backup_codes_that_was_replaced_is_restored_with_its_marks(api: Api) -> None:
    login = api.add("Gantry")["login_id"]
    path = f"logins/{login}/backup-codes"
    api.ok("PUT", path, {"text": "a1\na2"})
    api.ok("POST", f"{path}/1", {"used": True})
    api.ok("PUT", path, {"text": "b1"})
    (entry,) = api.ok("GET", f"logins/{login}")["history"]
    assert entry["field"] == "backup codes"
    api.ok("POST", f"logins/{login}/history/{entry['earlier_id']}/restore")
    assert codes_of(api, login) == [("a1", False), ("a2", True)]
    (entry,) = api.ok("GET", f"logins/{login}")["history"]
    assert api.earlier_secrets(login) == {"b1"}
    # The same codes in another order are the same set.
    api.ok("PUT", path, {"text": "a2\na1"})
    assert codes_of(api, login) == [("a2", True), ("a1", False)]
    assert len(api.ok("GET", f"logins/{login}")["history"]) == 1


def texts(api: Api, login: str) -> list[tuple[str, str, bool]]:
    sheet = api.ok("GET", f"logins/{login}")
    return [(t["field"], t["text"], t["is_apart"]) for t in sheet["other_texts"]]


def evidence(api: Api) -> list[str]:
    return [f["evidence"] for f in api.ok("GET", "checks/worklist")["findings"]]


def test_texts_that_both_sides_changed_are_kept_until_they_are_settled(
    api: Api, other: Api
) -> None:
    yard = [{"name": "Yard", "value": "North"}]
    login = api.add("Gantry", notes="by the day", fields=yard)["login_id"]
    merged(other, taken_out(api))
    path = f"logins/{login}"
    here = {"title": "Gantry", "notes": "by the week", "user_name": "ilse"}
    api.ok("PUT", path, {**here, "fields": [{"name": "Yard", "value": "South"}]})
    there = {"title": "Gantry Rentals", "notes": "by the hour", "user_name": ""}
    other.ok("PUT", path, {**there, "fields": [{"name": "Yard", "value": "East"}]})
    other.ok("PUT", path, {**there, "address": "gantry.example", "fields": [
        {"name": "Yard", "value": "East"}]})  # fmt: skip
    bundles = taken_out(api), taken_out(other)
    held = api.ok("POST", "bundles", bundles[1])["bundle_id"]
    (line,) = api.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})["lines"]
    assert line["what"] == "parted"
    assert {one["field"] for one in line["texts"]} == {"notes", "Yard"}
    merged(other, bundles[0])
    merged(api, bundles[1])
    both = {"by the week", "by the hour"}
    for one in (api, other):
        sheet = one.ok("GET", path)
        kept = {field: text for field, text, _ in texts(one, login)}
        assert {sheet["notes"], kept["notes"]} == both
        assert {sheet["fields"][0]["value"], kept["Yard"]} == {"South", "East"}
        assert (sheet["title"], sheet["user_name"]) == ("Gantry Rentals", "ilse")
        assert any("two copies" in e and "Yard, notes" in e for e in evidence(one))
    current = api.ok("GET", path)["notes"]
    (apart,) = [t for t in api.ok("GET", path)["other_texts"] if t["field"] == "notes"]
    (field,) = [t for t in api.ok("GET", path)["other_texts"] if t["field"] == "Yard"]
    sheet = api.ok("POST", f"{path}/texts/{apart['text_id']}/settle", {"take": True})
    assert sheet["notes"] == apart["text"]
    assert {t["text"] for t in sheet["other_texts"] if t["field"] == "notes"} == both
    assert any("of Yard both" in one for one in evidence(api))
    api.ok("POST", f"{path}/texts/{field['text_id']}/settle", {"take": False})
    assert not any("two copies" in one for one in evidence(api))
    # What was settled here is settled there, and no merge opens it again.
    merged(other, taken_out(api))
    merged(api, taken_out(other))
    for one in (api, other):
        assert one.ok("GET", path)["notes"] == apart["text"]
        assert not any("two copies" in e for e in evidence(one))
    assert ("notes", current, False) in texts(api, login)
    gone = api.ok("GET", path)["other_texts"][0]["text_id"]
    assert api.refused("DELETE", f"{path}/texts/{gone}") == "403 proof_needed"
    left = api.ok("DELETE", f"{path}/texts/{gone}", **api.proof())["other_texts"]
    assert gone not in {t["text_id"] for t in left}


@pytest.mark.parametrize("later", [True, False])
def test_of_as_many_changes_the_later_is_current_and_the_other_kept(
    api: Api, other: Api, later: bool
) -> None:
    login = api.add("Gantry", notes="by the day", secret={"own": "rope-and-plank"})["login_id"]
    merged(other, taken_out(api))
    hours = (1, 5) if later else (5, 1)
    for copy, hour, word in zip((api, other), hours, ("truss", "chain"), strict=True):
        copy.clock.at = datetime(2026, 11, 26, hour, tzinfo=UTC)
        body = {"title": "Gantry", "notes": word, "secret": {"own": f"{word}-and-bolt"}}
        copy.ok("PUT", f"logins/{login}", body)
    merged(api, taken_out(other))
    merged(other, taken_out(api))
    word = "chain" if later else "truss"
    for copy in (api, other):
        assert copy.ok("GET", f"logins/{login}")["notes"] == word
        assert copy.secret_of(login) == f"{word}-and-bolt"
        assert len(texts(copy, login)) == 1 and len(copy.earlier_secrets(login)) == 2


def test_a_copy_that_is_only_behind_parts_no_text(api: Api, other: Api) -> None:
    login = api.add("Gantry", notes="by the day")["login_id"]
    path = f"logins/{login}"
    api.ok("PUT", path, {"title": "Gantry", "notes": "by the week"})
    behind = taken_out(api)
    merged(other, behind)
    for notes in ("by the hour", "by the minute"):
        api.ok("PUT", path, {"title": "Gantry", "notes": notes})
    assert merged(api, behind) == [] and texts(api, login) == []
    merged(other, taken_out(api))
    assert texts(other, login) == [] and other.ok("GET", path)["notes"] == "by the minute"


def test_a_change_from_a_clock_that_ran_ahead_gives_way_and_it_is_said(
    api: Api, other: Api
) -> None:
    login = api.add("Gantry", notes="by the day", secret={"own": "rope-and-plank"})["login_id"]
    merged(other, taken_out(api))
    path = f"logins/{login}"
    right = api.clock.at
    other.clock.at = right + timedelta(days=400)
    other.ok("PUT", path, {"title": "Gantry", "notes": "ahead", "secret": {"own": "chain-and-nut"}})
    other.clock.at = right + timedelta(hours=1)
    api.clock.at = right + timedelta(hours=2)
    api.ok("PUT", path, {"title": "Gantry", "notes": "right", "secret": {"own": "truss-and-nut"}})
    bundles = taken_out(api), taken_out(other)
    held = api.ok("POST", "bundles", bundles[1])["bundle_id"]
    (line,) = api.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})["lines"]
    assert line["secret_taken"] == "clock_ahead"
    assert line["texts"] == [
        {"field": "notes", "taken": "right", "kept": "ahead", "why": "clock_ahead"}
    ]
    merged(other, bundles[0])
    merged(api, bundles[1])
    for copy in (api, other):
        assert copy.ok("GET", path)["notes"] == "right"
        assert copy.secret_of(login) == "truss-and-nut"
        assert [kept for _, kept, _ in texts(copy, login)] == ["ahead"]
    # Both know now: what each takes out changes nothing in the other.
    assert merged(api, taken_out(other)) == [] and merged(other, taken_out(api)) == []
