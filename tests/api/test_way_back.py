"""Back in from nothing: an empty home folder, and a backup or a bundle from elsewhere."""

import os
import shutil
import sqlite3
from contextlib import closing
from dataclasses import replace
from pathlib import Path

import pytest

from newknot.usecases.copies.backup_names import name_of, read_name
from newknot.usecases.vault import way_back
from tests.api.conftest import Api, make_api
from tests.api.test_bundles import SEAL, taken_out
from tests.conftest import PASSPHRASE, HandClock

FRESH = "orchard velvet lantern quarry mast"


@pytest.fixture
def empty(tmp_path: Path, clock: HandClock) -> Api:
    """A machine that never had a vault."""
    return make_api(tmp_path / "elsewhere", clock)


def backup_of(api: Api) -> bytes:
    name = api.ok("POST", "backups", **api.proof())["name"]
    path: Path = api.keeper.backup_folder / name
    return path.read_bytes()


def state(api: Api) -> tuple[str, bool, int, bool]:
    found = api.ok("GET", "vault")
    return found["state"], found["knew_a_vault"], len(found["copies"]), found["is_placed"]


def test_a_backup_is_entered_by_the_passphrase_of_its_day(api: Api, empty: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    body = backup_of(api)
    new = {"current": PASSPHRASE, "passphrase": FRESH}
    api.ok("PUT", "vault/passphrase", new)
    assert state(empty) == ("new", False, 0, False)
    assert empty.ok("POST", "vault/place", body) == {"kind": "backup"}
    assert state(empty) == ("locked", False, 0, True)
    wrong = {"passphrase": new["passphrase"]}
    assert empty.refused("POST", "vault/unlock", wrong) == "403 wrong_passphrase"
    empty.enter()
    assert empty.secret_of(login) == "rope-and-plank"
    assert state(empty)[3] is False
    # What is there is never written over.
    assert empty.refused("POST", "vault/place", body) == "409 vault_exists"
    empty.ok("POST", "vault/lock")
    assert empty.refused("POST", "vault/place", body) == "409 vault_exists"
    empty.enter()
    assert (empty.keeper.path.stat().st_mode & 0o777) == 0o600


def test_a_backup_is_entered_by_its_recovery_sheets(api: Api, empty: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    made = api.ok("POST", "recovery", {"count": 1, "threshold": 1}, **api.proof())
    body = backup_of(api)
    empty.ok("POST", "vault/place", body)
    answer = empty.ok(
        "POST",
        "vault/recover",
        {
            "sheets": [made["sheets"][0]["words"]],
            "passphrase": "orchard velvet lantern quarry mast",
        },
    )
    empty.http.headers["knot-session"] = answer["token"]
    assert empty.secret_of(login) == "rope-and-plank"


def test_a_bundle_is_opened_into_a_new_vault(
    api: Api, empty: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    body = taken_out(api)
    opened = {"passphrase": SEAL}
    assert empty.refused("POST", "vault/open-bundle", opened) == "404 nothing_held"
    assert empty.ok("POST", "vault/place", body) == {"kind": "bundle"}
    wrong = {"passphrase": PASSPHRASE}
    said = {empty.refused("POST", "vault/open-bundle", wrong) for _ in range(6)}
    assert said == {"403 wrong_passphrase", "429 too_many_guesses"}
    empty.clock.pass_s(60)
    with monkeypatch.context() as failing:
        failing.setattr(way_back, "merge_in", lambda *given, **more: 1 // 0)
        assert empty.refused("POST", "vault/open-bundle", opened) == "500 unexpected"
    assert not empty.keeper.path.exists()
    empty.passphrase = SEAL
    empty.http.headers["knot-session"] = empty.ok("POST", "vault/open-bundle", opened)["token"]
    assert empty.secret_of(login) == "rope-and-plank"
    assert empty.keeper.waiting_bundle is None
    empty.ok("POST", "vault/lock")
    empty.enter()
    assert empty.secret_of(login) == "rope-and-plank"


def test_a_copy_of_a_later_program_is_left_to_that(api: Api, empty: Api, tmp_path: Path) -> None:
    later = tmp_path / "later"
    later.write_bytes(backup_of(api))
    with closing(sqlite3.connect(later)) as connection:
        connection.execute("PRAGMA user_version = 99")
    assert empty.refused("POST", "vault/place", later.read_bytes()) == "409 vault_newer"
    assert state(empty)[0] == "new"


@pytest.mark.parametrize("body", [b"", b"no copy", b"SQLite format 3\0" + b"x" * 4096])
def test_what_is_no_copy_leaves_nothing(empty: Api, body: bytes) -> None:
    assert empty.refused("POST", "vault/place", body) == "422 no_copy"
    assert state(empty)[0] == "new"
    assert not list(empty.keeper.path.parent.glob("own.vault*"))


def test_a_machine_that_knew_a_vault_says_so_and_offers_what_lies_beside(api: Api) -> None:
    login = api.add("Gantry", secret={"own": "rope-and-plank"})["login_id"]
    backup_of(api)
    api.ok("POST", "vault/lock")
    api.keeper.path.unlink()
    assert state(api) == ("new", True, 1, False)
    (copy,) = api.ok("GET", "vault")["copies"]
    folder = api.keeper.backup_folder
    named = read_name(copy["name"])
    assert named is not None
    later = name_of(replace(named, changes=named.changes + 1), 0)
    for at, name in enumerate((later, "newknot-moved.vault")):
        shutil.copy(folder / copy["name"], folder / name)
        os.utime(folder / name, (at, at))
    # The one of most changes first, whatever day its file has; last what says nothing of itself.
    names = [one["name"] for one in api.ok("GET", "vault")["copies"]]
    assert names == [later, copy["name"], "newknot-moved.vault"]
    assert api.refused("POST", "vault/place-beside", {"name": "../x"}) == "404 backup_unknown"
    api.ok("POST", "vault/place-beside", {"name": copy["name"]})
    # Until it is entered, another may take its place.
    api.ok("POST", "vault/place-beside", {"name": copy["name"]})
    api.enter()
    assert api.secret_of(login) == "rope-and-plank"
