"""Backups: by schedule, kept by a rule, looked into and restored."""

import sqlite3
import subprocess
from collections import Counter
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path

import pytest

from newknot.api import app
from tests.api.conftest import Api, make_api
from tests.api.test_bundles import merged, taken_out
from tests.api.test_outside import switch
from tests.conftest import PASSPHRASE, HandClock, wait_until

HOUR_S = 3600.0


def names(api: Api) -> list[str]:
    return [one["name"] for one in api.ok("GET", "backups")]


def later(api: Api, hours: float) -> None:
    api.keeper.lock()
    api.clock.pass_s(hours * HOUR_S)
    api.enter("unlock")
    api.keeper.backup_if_due()


def test_one_a_day_by_itself_kept_by_the_rule_in_a_folder_of_choice(
    api: Api, tmp_path: Path
) -> None:
    api.keeper.backup_if_due()
    assert len(names(api)) == 1
    later(api, 23)
    assert len(names(api)) == 1
    place = tmp_path / "stick" / "safe"
    assert switch(api, backup_place=str(place), backup_daily=3, backup_monthly=1) is None
    assert api.ok("GET", "safeguards")["last_backup_at"] and place.stat().st_mode & 0o777 == 0o700
    for _ in range(12):
        later(api, 24)
    assert 3 <= len(names(api)) <= 3 + 5 + 1 and (place / names(api)[0]).exists()
    assert switch(api, backup_every_h=0) is None
    before = names(api)
    later(api, 240)
    assert names(api) == before
    for wrong in ("stick", "/proc/nowhere"):
        assert "backup_place" in (switch(api, backup_place=wrong) or "")
    assert "backup_daily" in (switch(api, backup_daily=0) or "")


def test_a_folder_that_went_away_is_said_and_tried_again(api: Api, tmp_path: Path) -> None:
    place = tmp_path / "stick"
    assert switch(api, backup_place=str(place)) is None
    place.rmdir()
    place.write_text("no folder any more")
    api.keeper.backup_if_due()
    assert api.ok("GET", "safeguards")["backup_problem"] == "vault_folder_refused"
    place.unlink()
    api.keeper.backup_if_due()
    assert api.ok("GET", "safeguards")["backup_problem"] == "" and len(names(api)) == 1


def test_restoring_says_first_what_changes_and_backs_the_present_up(api: Api) -> None:
    kept = api.add("Kept", secret={"own": "rope-and-plank"})["login_id"]
    api.add("Dropped")
    name = api.ok("POST", "backups", **api.proof())["name"]
    api.clock.pass_s(60)
    since = {"title": "Kept", "notes": "by the rope", "secret": {"own": "truss-and-bolt"}}
    api.ok("PUT", f"logins/{kept}", since)
    dropped = next(r for r in api.ok("GET", "logins")["logins"] if r["title"] == "Dropped")
    api.ok("DELETE", f"logins/{dropped['login_id']}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    api.add("Fresh")
    looked = api.ok("POST", f"backups/{name}/look")
    assert [(one["title"], one["what"]) for one in looked] == [
        ("Dropped", "back"),
        ("Fresh", "gone"),
        ("Kept", "differs"),
    ]
    assert {one["kind"] for one in looked} == {"login"}
    assert (looked[2]["kept_secrets"], looked[2]["kept_texts"]) == (1, 1)
    assert api.secret_of(kept) == "truss-and-bolt"
    assert api.refused("POST", f"backups/{name}/restore") == "403 proof_needed"
    assert api.ok("POST", f"backups/{name}/restore", **api.proof()) == looked
    assert api.secret_of(kept) == "rope-and-plank" and len(names(api)) == 2
    assert api.earlier_secrets(kept) == {"truss-and-bolt"}
    (other,) = api.ok("GET", f"logins/{kept}")["other_texts"]
    assert (other["field"], other["text"], other["is_apart"]) == ("notes", "by the rope", False)
    assert [one["title"] for one in api.ok("GET", "logins/bin")] == ["Fresh"]
    assert api.ok("POST", f"backups/{name}/look") == []
    newest = names(api)[0]
    assert len(api.ok("POST", f"backups/{newest}/look")) == 3
    assert api.refused("POST", "backups/newknot-20260101-000000.vault/look") == (
        "404 backup_unknown"
    )


def test_a_backup_of_another_vault_is_not_restored(api: Api) -> None:
    name = api.ok("POST", "backups", **api.proof())["name"]
    path = api.keeper.backup_folder / name
    path.write_bytes(path.read_bytes()[:8192] + b"x" * 4096)
    assert api.refused("POST", f"backups/{name}/look") == "409 backup_of_other_key"


def test_a_backup_that_would_not_give_everything_back_is_said_and_put_apart(api: Api) -> None:
    kept = api.add("Kept", secret={"own": "rope-and-plank"})["login_id"]
    assert switch(api, backup_daily=1, backup_weekly=1, backup_monthly=1) is None
    good = api.ok("POST", "backups", **api.proof())["name"]
    for n in range(3):
        api.clock.pass_s(25 * HOUR_S)
        api.keeper.lock()
        api.enter()
        connection = sqlite3.connect(api.keeper.path, isolation_level=None)
        damage = "UPDATE records SET sealed = CAST(zeroblob(9) || substr(sealed, -16) AS BLOB)"
        if n == 0:
            connection.execute("DELETE FROM slots WHERE slot_copy = 1")
        elif n == 1:
            connection.execute("UPDATE slots SET checksum = zeroblob(16)")
        else:
            damage += " WHERE record_id = ? AND part = 2"
            connection.execute(damage, (bytes.fromhex(kept),))
        connection.close()
        answer = api.call("POST", "backups", **api.proof())
        assert (answer.status_code, answer.json()["code"]) == (424, "backup_not_verified")
        said = answer.json()["data"]
        assert said == (
            {"part": "a key slot (passphrase)", "title": ""} if n < 2
            else {"part": "login", "title": "Kept"}
        )  # fmt: skip
        assert names(api) == [good]
        apart = [p.name for p in api.keeper.backup_folder.iterdir() if p.name != good]
        assert len(apart) == 1 and apart[0].endswith(".vault.failed")
        if n == 1:
            # Both copies are gone; what is still in memory is the way to new ones.
            fresh = {"current": PASSPHRASE, "passphrase": "eight lamps over dry gravel"}
            api.ok("PUT", "vault/passphrase", fresh)
            api.passphrase = fresh["passphrase"]
    api.keeper.backup_if_due()
    safeguards = api.ok("GET", "safeguards")
    assert safeguards["backup_problem"] == "backup_not_verified"
    assert safeguards["backup_problem_data"] == {"part": "login", "title": "Kept"}
    assert names(api) == [good]


def test_two_vaults_in_one_folder_have_each_their_own(tmp_path: Path, clock: HandClock) -> None:
    first, second = make_api(tmp_path / "a", clock), make_api(tmp_path / "b", clock)
    second.keeper.backup_folder = first.keeper.backup_folder
    for api in (first, second):
        api.enter("create")
        assert switch(api, backup_daily=1, backup_weekly=1, backup_monthly=1) is None
    made = {api: [api.ok("POST", "backups", **api.proof())["name"]] for api in (first, second)}
    # One from before names bore the vault: it says itself whose it is.
    old = first.keeper.backup_folder / "newknot-20260101-000000.vault"
    (first.keeper.backup_folder / made[first][0]).rename(old)
    made[first] = [old.name]
    for api in (first, second):
        assert names(api) == made[api]
    for _ in range(6):
        clock.pass_s(25 * HOUR_S)
        for api in (second,):
            api.keeper.lock()
            api.enter()
            api.ok("POST", "backups", **api.proof())
    first.keeper.lock()
    first.enter()
    assert names(first) == [old.name] and len(names(second)) == 1
    for api in (first, second):
        api.keeper.lock()


def test_a_clock_that_ran_ahead_puts_nothing_off_and_hides_nothing(api: Api) -> None:
    now = api.clock.at
    api.clock.at = now + timedelta(days=900)
    ahead = api.ok("POST", "backups", **api.proof())["name"]
    api.clock.at = now
    api.keeper.backup_if_due()
    assert len(names(api)) == 2
    for _ in range(3):
        later(api, 25)
    # In the order in which they were made, whatever their names say.
    assert len(names(api)) == 5 and names(api)[-1] == ahead
    made = api.ok("POST", "backups", **api.proof())
    assert made["name"] in names(api) and Path(made["path"]).stat().st_mode & 0o777 == 0o600


def test_an_older_copy_of_the_vault_is_not_backed_up_by_itself(api: Api) -> None:
    api.keeper.lock()
    copy = api.keeper.path.read_bytes()
    api.enter("unlock")
    api.add("Newer")
    api.keeper.lock()
    api.keeper.path.write_bytes(copy)
    api.enter("unlock")
    assert api.ok("GET", "vault/session")["is_older_copy"]
    api.keeper.backup_if_due()
    assert names(api) == []


@pytest.fixture
def small_disk(tmp_path: Path) -> Iterator[Path]:
    """A disk of 128 KiB."""
    place = tmp_path / "disk"
    place.mkdir()
    mounted = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=128k", "small", str(place)], capture_output=True
    )
    if mounted.returncode:
        pytest.skip("only root mounts a disk")
    yield place
    subprocess.run(["umount", str(place)], check=True)


def test_a_full_disk_is_told_leaves_nothing_and_stops_nothing(api: Api, small_disk: Path) -> None:
    for n in range(40):
        api.add(f"Login {n}")
    assert switch(api, backup_place=str(small_disk)) is None
    assert api.refused("POST", "backups", **api.proof()) == "507 disk_full"
    assert list(small_disk.iterdir()) == []
    api.keeper.backup_if_due()
    assert api.ok("GET", "safeguards")["backup_problem"] == "disk_full"
    assert api.ok("GET", "logins")["logins"]


def test_whatever_goes_wrong_in_a_backup_the_vault_still_locks_when_idle(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(app, "IDLE_LOOK_S", 0.01)
    monkeypatch.setattr(app, "BACKUP_LOOK_S", 0.01)
    api.keeper.backup_folder = Path("no\0folder")
    monkeypatch.setattr(app, "CLOCK_LOOK_S", 0.01)
    looked: list[str] = []

    def fails() -> None:
        looked.append("clock")
        raise OSError()

    monkeypatch.setattr(api.keeper, "look_at_clock", fails)
    monkeypatch.setattr(api.keeper, "read_on", lambda: looked.append("read"))
    with api.http:
        wait_until(lambda: looked.count("clock") > 1 and "read" in looked)
        wait_until(lambda: api.keeper.backup_problem is not None)
        assert api.ok("GET", "safeguards")["backup_problem"] == "backup_failed"
        api.clock.boot += 10_000
        wait_until(lambda: not api.keeper.is_unlocked and api.keeper._vault is None)


def test_a_copy_kept_before_an_upgrade_is_listed_looked_into_and_never_dropped(api: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    made = api.ok("POST", "backups", **api.proof())
    kept = api.keeper.path.with_name(api.keeper.path.name + ".version-1")
    Path(made["path"]).rename(kept)
    api.ok("PUT", f"logins/{login}", {"title": "Gantry", "secret": {"own": "truss-and-bolt"}})
    assert switch(api, backup_daily=1, backup_weekly=1, backup_monthly=1) is None
    later(api, 25)
    assert len(names(api)) == 2 and kept.name in names(api)
    # That one was read through is said of those alone that were.
    read = {one["name"]: one["is_read_through"] for one in api.ok("GET", "backups")}
    assert read.pop(kept.name) is False and all(read.values())
    looked = api.ok("POST", f"backups/{kept.name}/look")
    assert [(one["title"], one["what"]) for one in looked] == [("Gantry", "differs")]
    assert api.call("GET", f"backups/{kept.name}").content[:15] == b"SQLite format 3"
    api.ok("POST", f"backups/{kept.name}/restore", **api.proof())
    assert api.secret_of(login) == "rope-and-plank" and kept.exists()


def test_a_restore_shows_all_that_changes_and_loses_nothing_that_was_handed_out(
    api: Api, other: Api
) -> None:
    ids = [api.add(t, address=f"{t.lower()}.example")["login_id"] for t in ("Gantry", "Lumen")]
    rotations = [api.ok("POST", "rotations", {"login_id": i})["rotation_id"] for i in ids]
    classes = [{"name": "lower", "characters": "abcdefghijkmnop"}]
    policy = {
        "name": "Gantry",
        "domains": ["gantry.example"],
        "policy": {"min_length": 8, "max_length": 16, "classes": classes},
    }
    api.ok("POST", "policies", policy)
    name = api.ok("POST", "backups", **api.proof())["name"]
    settings = api.safeguards()
    copy = {"purpose": "copy"}
    out = [api.ok("POST", f"rotations/{r}/hand-out", copy)["secret"] for r in rotations]
    api.clock.pass_s(60)
    api.ok("POST", f"rotations/{rotations[1]}/events", {"event": "accept"})
    fresh = api.add("Fresh")["login_id"]
    begun = [api.ok("POST", "rotations", {"login_id": fresh})["rotation_id"]]
    out.append(api.ok("POST", f"rotations/{begun[0]}/hand-out", copy)["secret"])
    never = api.add("Never")["login_id"]
    begun.append(api.ok("POST", "rotations", {"login_id": never})["rotation_id"])
    drawn = api.ok("POST", "draws", {"length": 20})
    api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    made = {**policy, "name": "Lumen", "domains": ["lumen.example"]}
    api.ok("POST", "policies", made)
    given = [{"kind": "reused", "login_id": fresh}]
    api.ok("POST", "checks")
    kinds = {(f["kind"], f["login_id"]) for f in api.ok("GET", "checks/worklist")["findings"]}
    assert ("reused", fresh) in kinds
    api.ok("POST", "waivers", {"findings": given, "reason": "covered"})
    api.ok("PUT", "safeguards", api.safeguards() | {"lock_after_s": 900}, **api.proof())
    merged(other, taken_out(api))
    looked = api.ok("POST", f"backups/{name}/look")
    counted = Counter((one["kind"], one["what"]) for one in looked)
    assert counted == {
        ("login", "gone"): 2, ("login", "differs"): 1, ("rotation", "differs"): 2,
        ("rotation", "gone"): 2, ("loose_end", "made"): 2, ("policy", "gone"): 1,
        ("waiver", "gone"): 1,
    }  # fmt: skip
    assert {one["title"] for one in looked if one["kind"] == "loose_end"} == {"Gantry", "Fresh"}
    done = api.ok("POST", f"backups/{name}/restore", **api.proof())
    assert Counter((one["kind"], one["what"]) for one in done) == counted
    ends = api.ok("GET", "loose-ends")
    loose = {api.ok("POST", f"loose-ends/{e['loose_end_id']}/secret", copy)["secret"] for e in ends}
    assert loose == {out[0], out[2], drawn["secret"]}
    assert out[1] in api.earlier_secrets(ids[1])
    assert api.safeguards() == settings | {"lock_after_s": 900}
    assert {r["state"] for r in api.ok("GET", "rotations")} == {"staged"}

    # The other copy still has all of it, and a merge takes nothing out of it.
    def known() -> dict[str, set[str]]:
        ids = [row["login_id"] for row in other.ok("GET", "logins")["logins"]]
        return {i: other.earlier_secrets(i) | {other.secret_of(i)} for i in ids}

    before = known()
    merged(other, taken_out(api))
    after = known()
    assert before.keys() - after.keys() <= {fresh, never}  # in the bin, as here
    assert all(before[login_id] <= after[login_id] for login_id in after)
    policies = other.ok("GET", "policies")["policies"]
    assert {one["name"] for one in policies} == {"Gantry", "Lumen"}


def test_a_restore_leaves_alone_what_the_copy_cannot_read(api: Api) -> None:
    first = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    name = api.ok("POST", "backups", **api.proof())["name"]
    path = api.keeper.backup_folder / name
    with sqlite3.connect(path) as connection:
        connection.execute(
            "UPDATE records SET sealed = CAST(zeroblob(9) || substr(sealed, -16) AS BLOB)"
            " WHERE record_id = ? AND part = 2",
            (bytes.fromhex(first),),
        )
    api.ok("PUT", f"logins/{first}", {"title": "Gantry Rentals", "secret": {"own": "newer"}})
    assert api.ok("POST", f"backups/{name}/look") == []
    api.ok("POST", f"backups/{name}/restore", **api.proof())
    assert api.secret_of(first) == "newer" and api.ok("GET", "logins/bin") == []
