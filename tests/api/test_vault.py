"""Creating, unlocking, locking, guessing, proving."""

import sqlite3
import threading
from contextlib import closing
from hashlib import sha256
from pathlib import Path

import pytest

from newknot.usecases.errors import VaultLocked
from tests.api.conftest import Api, make_api, routes


def test_first_start_then_locked_then_open(closed: Api) -> None:
    assert closed.ok("GET", "vault")["state"] == "new"
    closed.enter("create")
    assert closed.ok("GET", "vault")["state"] == "unlocked"
    closed.ok("POST", "vault/lock")
    assert closed.ok("GET", "vault")["state"] == "locked"
    assert closed.refused("GET", "logins") == "423 vault_locked"
    closed.enter()
    assert closed.ok("GET", "logins") == {"logins": [], "damaged": []}
    assert (
        closed.refused("POST", "vault/create", {"passphrase": closed.passphrase})
        == "409 vault_exists"
    )


def test_a_weak_vault_passphrase_is_refused_and_makes_no_file(closed: Api) -> None:
    refused = closed.call("POST", "vault/create", {"passphrase": "Sunday2019"})
    assert (refused.status_code, refused.json()["code"]) == (422, "passphrase_too_weak")
    assert not closed.keeper.exists


def test_a_passphrase_that_nothing_explains_is_taken_only_where_chance_drew_it(closed: Api) -> None:
    odd = {"passphrase": "x7Kp2mQz"}
    refused = closed.call("POST", "vault/create", odd)
    assert refused.status_code == 422 and refused.json()["data"]["is_bound"] is True
    assert not closed.keeper.path.exists()
    made = closed.ok("POST", "vault/create", {**odd, "drawn": True})
    closed.http.headers["knot-session"] = made["token"]
    fresh = {"current": "x7Kp2mQz", "passphrase": "Rt9vK2wm"}
    judged = closed.ok("POST", "vault/passphrase/judge", {"passphrase": "Rt9vK2wm"})
    assert judged["rests_on_a_bound"] and judged["verdict"] == "refused"
    assert closed.refused("PUT", "vault/passphrase", fresh) == "422 passphrase_too_weak"
    closed.ok("PUT", "vault/passphrase", {**fresh, "drawn": True})
    closed.passphrase = "Rt9vK2wm"
    bundle, path = {"passphrase": "Vb3xQ8tn"}, "bundles/take-out"
    assert closed.refused("POST", path, bundle, **closed.proof()) == "422 passphrase_too_weak"
    assert closed.call("POST", path, {**bundle, "drawn": True}, **closed.proof()).is_success
    # One that is there already opens its vault, whatever is asked of new ones.
    closed.ok("POST", "vault/lock")
    closed.ok("POST", "vault/unlock", {"passphrase": "Rt9vK2wm"})


def test_measuring_needs_no_session_only_while_there_is_no_vault(closed: Api) -> None:
    body = {"secret": "dragonfly"}
    assert closed.ok("POST", "strength/measure", body)["falls_to"] == "at_form"
    closed.enter("create")
    closed.http.headers.pop("knot-session")
    assert closed.refused("POST", "strength/measure", body) == "401 session_unknown"


def test_guessing_is_slowed_and_the_right_one_ends_it(api: Api) -> None:
    api.ok("POST", "vault/lock")
    wrong = {"passphrase": "seven lamps"}
    for _ in range(3):
        assert api.refused("POST", "vault/unlock", wrong) == "403 wrong_passphrase"
    right = {"passphrase": api.passphrase}
    assert api.refused("POST", "vault/unlock", right) == "429 too_many_guesses"
    api.clock.pass_s(1.1)
    assert api.refused("POST", "vault/unlock", wrong) == "403 wrong_passphrase"
    api.clock.pass_s(1.1)
    assert api.refused("POST", "vault/unlock", right) == "429 too_many_guesses"
    api.clock.pass_s(1)
    api.enter()
    for _ in range(3):
        assert api.refused("POST", "vault/proof", wrong) == "403 wrong_passphrase"
    assert api.refused("POST", "vault/proof", right) == "429 too_many_guesses"


def test_guesses_side_by_side_do_not_slip_past_the_brake(api: Api) -> None:
    api.ok("POST", "vault/lock")
    said: list[str] = []

    def guess() -> None:
        said.append(api.refused("POST", "vault/unlock", {"passphrase": "seven lamps"}))

    guesses = [threading.Thread(target=guess) for _ in range(8)]
    for one in guesses:
        one.start()
    for one in guesses:
        one.join(20)
    assert said.count("403 wrong_passphrase") == 3 and said.count("429 too_many_guesses") == 5


def test_it_locks_itself_when_idle_and_only_human_acts_extend(api: Api) -> None:
    for _ in range(5):
        api.clock.pass_s(590)
        api.ok("POST", "vault/touch")
    api.clock.pass_s(590)
    assert api.ok("GET", "vault/session")["seconds_left"] == 10
    api.clock.pass_s(9)
    api.ok("GET", "logins")
    api.clock.pass_s(1)
    assert api.refused("GET", "logins") == "423 vault_locked"


def test_a_lock_waits_for_the_call_that_runs_and_takes_no_new_one(api: Api) -> None:
    entered, go = threading.Event(), threading.Event()

    def work() -> None:
        with api.keeper.at_work() as vault:
            entered.set()
            go.wait(5)
            assert vault.counter > 0

    worker = threading.Thread(target=work)
    worker.start()
    entered.wait(5)
    locker = threading.Thread(target=api.keeper.lock)
    locker.start()
    while api.keeper.is_unlocked:
        pass
    with pytest.raises(VaultLocked), api.keeper.at_work():
        pass
    assert locker.is_alive()
    go.set()
    worker.join(5)
    locker.join(5)
    assert not locker.is_alive() and api.ok("GET", "vault")["state"] == "locked"


def test_another_browser_has_a_session_of_its_own(api: Api) -> None:
    first = (api.http.headers["knot-session"], dict(api.http.cookies))
    api.http.cookies.clear()
    api.enter()
    assert api.ok("GET", "vault/session")
    api.http.cookies.clear()
    api.http.cookies.update(first[1])
    assert api.refused("GET", "vault/session") == "401 session_unknown"
    assert api.ok("GET", "vault/session", knot_session=first[0])


def test_a_damaged_file_gives_one_clear_answer(api: Api) -> None:
    api.ok("POST", "vault/lock")
    connection = sqlite3.connect(api.keeper.path)
    connection.execute("UPDATE head SET sealed = randomblob(100)")
    connection.commit()
    connection.close()
    answer = api.call("POST", "vault/unlock", {"passphrase": api.passphrase})
    assert (answer.status_code, answer.json()) == (
        424, {"code": "vault_damaged", "data": {"part": "its head"}},
    )  # fmt: skip


@pytest.mark.parametrize("part", [1, 2, 3])
def test_a_login_that_cannot_be_read_stops_no_list_and_shows_what_can_be(
    api: Api, part: int
) -> None:
    """Of a login with all that there can be: its card, its secrets, or its history."""
    other, login_id = api.add("Other")["login_id"], api.add("Gantry")["login_id"]
    change = {"title": "Gantry", "secret": {"own": "rope-and-plank-9"}}
    api.ok("PUT", f"logins/{login_id}", change)
    for one in (login_id, other):
        api.ok("POST", "rotations", {"login_id": one})
    api.ok("POST", "campaigns", {"login_ids": [login_id, other]})
    api.ok("POST", "checks", {"whole": False})
    good = api.ok("POST", "backups", **api.proof())["name"]
    api.ok("POST", "vault/lock")
    with closing(sqlite3.connect(api.keeper.path, isolation_level=None)) as connection:
        where = (bytes.fromhex(login_id), part)
        damage = "UPDATE records SET sealed = randomblob(length(sealed))"
        connection.execute(f"{damage} WHERE record_id = ? AND part = ?", where)
    api.enter()
    for method, path in routes():
        if method == "GET" and "{" not in path:
            assert api.call(method, f"/api{path}").status_code == 200, path
    api.ok("POST", "checks", {"whole": True})
    assert api.ok("POST", "checks/worklist/rows", {})["total"]
    listed = api.ok("GET", "logins")
    assert len(listed["logins"]) == (1 if part == 1 else 2)
    assert listed["damaged"] == ([login_id] if part == 1 else [])
    assert other in [one["login_id"] for one in api.ok("GET", "rotations")]
    assert len(api.ok("GET", "vault/session")["damaged"]) == 1
    # Nothing is put over what may come back out of a backup.
    changed = {**change, "secret": {"own": "counter-weight-58"}}
    assert api.refused("PUT", f"logins/{login_id}", changed) == "424 record_damaged"
    sheet = api.call("GET", f"logins/{login_id}")
    assert sheet.status_code == (200 if part == 3 else 424)
    if part == 3:
        assert (sheet.json()["history_is_damaged"], sheet.json()["history"]) == (True, [])
        assert api.secret_of(login_id) == "rope-and-plank-9"
    # And it comes back, though no whole backup of the present can be made before.
    assert api.refused("POST", "backups", **api.proof()) == "424 backup_not_verified"
    api.clock.pass_s(1)
    api.ok("POST", f"backups/{good}/restore", **api.proof())
    assert api.secret_of(login_id) == "rope-and-plank-9"
    assert api.earlier_secrets(login_id) == {"cue-to-cue-19"}
    assert api.ok("GET", "vault/session")["damaged"] == []
    api.clock.pass_s(1)
    assert api.ok("POST", "backups", **api.proof())


KEPT_OF_LOST = {
    1: ("new_card", "rope-and-plank-9", {"cue-to-cue-19"}),
    2: ("without_secret", "", {"cue-to-cue-19"}),
    3: ("without_history", "rope-and-plank-9", set()),
}
"""Part of a login -> what becomes of it, its secret then, and its earlier ones."""


@pytest.mark.parametrize("part", KEPT_OF_LOST)
def test_what_nothing_can_bring_back_is_let_go_of_and_all_else_of_it_stays(
    api: Api, part: int
) -> None:
    became, secret, earlier = KEPT_OF_LOST[part]
    login_id, other = api.add("Gantry")["login_id"], api.add("Other")["login_id"]
    change = {"title": "Gantry", "secret": {"own": "rope-and-plank-9"}}
    api.ok("PUT", f"logins/{login_id}", change)
    path = f"rotations/{api.ok('POST', 'rotations', {'login_id': other})['rotation_id']}"
    staged = api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"]
    api.ok("POST", "campaigns", {"login_ids": [login_id, other]})
    policy = {"name": "P", "domains": ["p.example"], "policy": {"min_length": 8, "max_length": 9}}
    gone = api.ok("POST", "policies", policy)["policy_id"]
    api.ok("POST", "vault/lock")
    with closing(sqlite3.connect(api.keeper.path, isolation_level=None)) as connection:
        for one, of in ((login_id, part), (path.removeprefix("rotations/"), 1), (gone, 1)):
            damage = "UPDATE records SET sealed = randomblob(length(sealed))"
            where = (bytes.fromhex(one), of)
            connection.execute(f"{damage} WHERE record_id = ? AND part = ?", where)
        connection.execute("INSERT INTO records SELECT randomblob(16), part, revision, sealed"
                           " FROM records LIMIT 1")  # fmt: skip
    api.enter()
    assert len(api.ok("GET", "vault/session")["damaged"]) == 4
    lost = api.ok("POST", "vault/go-on-without-lost", **api.proof())
    assert sorted(one["became"] for one in lost) == sorted([became, "loose_end", "gone", "gone"])
    assert api.ok("GET", "vault/session")["damaged"] == api.ok("GET", "policies")["policies"] == []
    title = f"Login without its card {login_id[:8]}" if part == 1 else "Gantry"
    listed = {one["title"]: one["login_id"] for one in api.ok("GET", "logins")["logins"]}
    assert listed.keys() == {title, "Other"}
    login_id = listed[title]
    (campaign,) = api.ok("GET", "campaigns")
    assert {one["login_id"] for one in campaign["places"]} == set(listed.values())
    assert api.earlier_secrets(login_id) == earlier
    if secret:
        assert api.secret_of(login_id) == secret
    (end,) = api.ok("GET", "loose-ends")
    shown = api.ok("POST", f"loose-ends/{end['loose_end_id']}/secret", {"purpose": "copy"})
    assert shown["secret"] == staged and api.secret_of(other) == "cue-to-cue-19"
    api.clock.pass_s(1)
    assert api.ok("POST", "backups", **api.proof())
    assert api.ok("POST", "vault/go-on-without-lost", **api.proof()) == []
    api.ok("POST", "vault/lock")
    api.enter()
    assert api.ok("GET", "vault/session")["damaged"] == []


def test_words_are_offered(closed: Api) -> None:
    offered = closed.ok("GET", "vault/words?count=7")
    assert len(offered["words"]) == 7 and offered["entropy_bits"] == 90.47
    assert closed.refused("GET", "vault/words?count=0") == "422 field_invalid"


@pytest.mark.parametrize("rule", ["each", "minutes"])
def test_a_proof_is_asked_as_the_safeguards_say(api: Api, rule: str) -> None:
    login = api.add()
    wanted = api.safeguards()
    rules = dict.fromkeys(wanted["proof_before"], rule)
    body = {**wanted, "lock_after_s": 3600, "proof_before": rules}
    assert api.refused("PUT", "safeguards", body) == "403 proof_needed"
    api.ok("PUT", "safeguards", body, **api.proof())
    path, purpose = f"logins/{login['login_id']}/secret", {"purpose": "copy"}
    if rule == "each":
        proof = api.proof()
        api.ok("POST", path, purpose, **proof)
        assert api.refused("POST", path, purpose, **proof) == "403 proof_needed"
        late = api.proof()
        api.clock.pass_s(61)
        assert api.refused("POST", path, purpose, **late) == "403 proof_needed"
    else:
        api.ok("POST", path, purpose)
        api.clock.pass_s(301)
        assert api.refused("POST", path, purpose) == "403 proof_needed"
        api.proof()
        api.ok("POST", path, purpose)


def test_showing_can_be_switched_off_while_copying_stays(api: Api) -> None:
    login = api.add()
    body = api.safeguards()
    api.ok("PUT", "safeguards", {**body, "reveal_allowed": False}, **api.proof())
    path = f"logins/{login['login_id']}/secret"
    assert api.refused("POST", path, {"purpose": "reveal"}) == "403 reveal_switched_off"
    assert api.ok("POST", path, {"purpose": "copy"})["secret"] == "cue-to-cue-19"
    wrong = {**body, "reveal_allowed": True, "lock_after_s": 5}
    assert api.refused("PUT", "safeguards", wrong, **api.proof()) == "422 field_invalid"


def test_what_was_written_is_there_for_the_next_process(api: Api) -> None:
    api.add("Kept")
    api.keeper.lock()
    next_one = make_api(api.keeper.path.parent, api.clock)
    next_one.enter()
    assert [row["title"] for row in next_one.ok("GET", "logins")["logins"]] == ["Kept"]
    next_one.keeper.lock()


def test_what_is_damaged_is_named_by_reading_the_vault_through(api: Api) -> None:
    ids = [api.add(f"Gantry {n}", notes="x")["login_id"] for n in range(30)]
    api.ok("POST", "vault/lock")
    with sqlite3.connect(api.keeper.path) as connection:
        # The tag stays, so that only reading it shows what became of the body.
        connection.execute(
            "UPDATE records SET sealed = CAST(zeroblob(length(sealed) - 16)"
            " || substr(sealed, -16) AS BLOB) WHERE record_id = ? AND part = 2",
            (bytes.fromhex(ids[7]),),
        )
    api.enter()
    session = api.ok("GET", "vault/session")
    assert session["damaged"] == [] and session["read_count"] == 0
    with api.keeper.at_work() as vault:
        # A call that comes meanwhile does not wait for the rest.
        api.keeper.reading.go_on(vault, may_go_on=iter((True, False)).__next__)
        assert 0 < api.keeper.reading.done < 20
    api.keeper.read_on()
    session = api.ok("GET", "vault/session")
    assert session["damaged"] == ["Gantry 7, its secrets"]
    assert session["read_count"] == session["record_count"] > 60


def test_a_proof_serves_for_the_act_and_record_that_it_was_given_for(api: Api) -> None:
    first, second = (api.add(title)["login_id"] for title in ("Gantry", "Lumen"))

    def proof(method: str, path: str, body: bytes = b"") -> dict[str, str]:
        call = {"method": method, "path": f"/api/{path}", "body_sha256": sha256(body).hexdigest()}
        given = api.ok("POST", "vault/proof", {"passphrase": api.passphrase} | call)
        return {"knot_proof": given["proof"]}

    given = proof("DELETE", f"logins/{first}")
    for method, path in (("DELETE", f"logins/{second}"), ("DELETE", "logins/bin")):
        assert api.refused(method, path, **given) == "403 proof_needed"
    # Tried for another act, it is used up.
    assert api.refused("DELETE", f"logins/{first}", **given) == "403 proof_needed"
    given = proof("DELETE", f"logins/{first}")
    assert api.refused("DELETE", f"logins/{first}?all", **given) == "403 proof_needed"
    api.ok("DELETE", f"logins/{first}", **proof("DELETE", f"logins/{first}"))
    assert api.refused("POST", "backups", **proof("DELETE", "logins/bin")) == "403 proof_needed"
    # Records that the body names are part of the call.
    json = {"content_type": "application/json"}
    one, other = b'{"kind": "csv"}', b'{"kind": "cxf"}'
    for sent in (other, one + b" "):
        given = proof("POST", "exports/files", one) | json
        assert api.refused("POST", "exports/files", sent, **given) == "403 proof_needed"
    api.ok("POST", "exports/files", one, **proof("POST", "exports/files", one), **json)


def test_a_secret_that_came_since_is_no_passphrase_either(api: Api) -> None:
    wish = {"current": api.passphrase, "passphrase": "orchard velvet lantern quarry mast"}
    weak = wish | {"passphrase": "plank"}
    assert api.refused("PUT", "vault/passphrase", weak) == "422 passphrase_too_weak"
    api.add(secret={"own": wish["passphrase"]})
    assert api.refused("PUT", "vault/passphrase", wish) == "422 passphrase_resembles"


def test_showing_and_copying_have_each_their_own_rule(api: Api) -> None:
    path = f"logins/{api.add()['login_id']}/secret"
    rules = api.safeguards()["proof_before"] | {"reveal": "each", "copy": "unlock"}
    api.ok("PUT", "safeguards", api.safeguards() | {"proof_before": rules}, **api.proof())
    assert api.refused("POST", path, {"purpose": "reveal"}) == "403 proof_needed"
    api.ok("POST", path, {"purpose": "copy"})


def test_bringing_in_and_its_undo_ask_as_other_changes_do(api: Api) -> None:
    rules = api.safeguards()["proof_before"] | {"edit": "each"}
    api.ok("PUT", "safeguards", api.safeguards() | {"proof_before": rules}, **api.proof())
    table = api.ok("POST", "imports", b"title,password\nGantry,rope\n")
    path, body = f"imports/{table['import_id']}/apply", {"mapping": table["mapping"]}
    assert api.refused("POST", path, body) == "403 proof_needed"
    assert api.ok("POST", path, body, **api.proof())["added_count"] == 1
    assert api.refused("POST", "imports/undo") == "403 proof_needed"
    assert api.ok("POST", "imports/undo", **api.proof())["gone_count"] == 1


def test_a_place_that_others_may_write_to_is_said(api: Api, tmp_path: Path) -> None:
    assert api.ok("GET", "vault/session")["place_doubts"] == []
    tmp_path.chmod(0o777)
    assert api.ok("GET", "vault/session")["place_doubts"] == ["folder_shared"]
    tmp_path.chmod(0o700)
