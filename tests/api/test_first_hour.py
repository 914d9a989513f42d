"""The first hour: each step is done when it is so, and the list is dismissed for good."""

from pathlib import Path

from tests.api.conftest import Api


def test_each_step_is_done_when_it_is_so(api: Api, tmp_path: Path) -> None:
    def done() -> set[str]:
        return {name for name, is_so in api.ok("GET", "first-hour").items() if is_so}

    assert done() == set()
    api.add("Gantry")
    assert done() == {"has_logins"}
    api.ok("POST", "checks")
    assert done() == {"has_logins", "is_checked"}
    api.ok("POST", "recovery", {"threshold": 1, "count": 1}, **api.proof())
    held = api.safeguards() | {"backup_place": str(tmp_path / "elsewhere")}
    api.ok("PUT", "safeguards", held, **api.proof())
    steps = {"has_logins", "is_checked", "has_recovery_sheet", "has_backup_place"}
    assert done() == steps


def test_dismissed_it_stays_so_whatever_is_set_and_after_a_lock(api: Api) -> None:
    seen = api.ok("GET", "safeguards")["revision"]
    api.ok("POST", "first-hour/end")
    held = api.safeguards() | {"lock_after_s": 300, "revision": seen}
    api.ok("PUT", "safeguards", held, **api.proof())
    api.ok("POST", "vault/lock")
    api.enter()
    assert api.ok("GET", "first-hour")["is_over"]
