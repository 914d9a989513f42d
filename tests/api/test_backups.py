"""Backups: by schedule, kept by a rule, looked into and restored."""

import sqlite3
import subprocess
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path

import pytest

from newknot.api import app
from tests.api.conftest import Api, make_api
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
    api.ok("PUT", f"logins/{kept}", {"title": "Kept", "secret": {"own": "truss-and-bolt"}})
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
    assert api.secret_of(kept) == "truss-and-bolt"
    assert api.refused("POST", f"backups/{name}/restore") == "403 proof_needed"
    assert api.ok("POST", f"backups/{name}/restore", **api.proof()) == looked
    assert api.secret_of(kept) == "rope-and-plank" and len(names(api)) == 2
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
    assert len(names(api)) == 5 and names(api)[0] == ahead
    made = api.ok("POST", "backups", **api.proof())
    assert made["name"] in names(api) and Path(made["path"]).exists()


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
    with api.http:
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
    looked = api.ok("POST", f"backups/{kept.name}/look")
    assert [(one["title"], one["what"]) for one in looked] == [("Gantry", "differs")]
    assert api.call("GET", f"backups/{kept.name}").content[:15] == b"SQLite format 3"
    api.ok("POST", f"backups/{kept.name}/restore", **api.proof())
    assert api.secret_of(login) == "rope-and-plank" and kept.exists()
