"""Backups: by schedule, kept by a rule, looked into and restored."""

from pathlib import Path

from tests.api.conftest import Api
from tests.api.test_outside import switch

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
