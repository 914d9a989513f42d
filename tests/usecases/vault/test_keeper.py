"""What the keeper holds of an open vault, and that a lock leaves none of it."""

import gc
import re
from collections.abc import Callable, Iterator
from functools import partial, partialmethod
from threading import Thread
from typing import Any
from unittest.mock import Mock
from urllib.parse import urlsplit

import pytest

from newknot.core.address import likeness, site_of
from newknot.core.errors import NewKnotError
from newknot.core.safeguards import Safeguards
from newknot.core.secret import Secret
from newknot.store.rekey import write_under_new_key
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.rotation.driving import Drive
from newknot.usecases.vault.first_hour import end_first_hour
from newknot.usecases.vault.keeper import WORK_COUNTS_S
from newknot.usecases.vault.new_keys import new_key
from tests.api.conftest import Api
from tests.api.test_bundles import taken_out
from tests.conftest import PASSPHRASE

MARKER = "zwölf-truss-lantern"


def held_by(root: object) -> Iterator[object]:
    """Everything that can be reached from an object without leaving its own data."""
    seen: set[int] = set()
    waiting = [root]
    while waiting:
        one = waiting.pop()
        if id(one) in seen or isinstance(one, type):
            continue
        seen.add(id(one))
        yield one
        kept = (dict, list, tuple, set, frozenset)
        if isinstance(one, kept) or type(one).__module__.startswith("newknot"):
            waiting.extend(gc.get_referents(one))


def texts(root: object) -> str:
    """All texts, bytes and secrets below an object."""
    found: list[str] = []
    for one in held_by(root):
        if isinstance(one, str):
            found.append(one)
        elif isinstance(one, bytes):
            found.append(one.decode("utf-8", "replace"))
        elif isinstance(one, Secret):
            found.append(one.reveal())
    return "\n".join(found)


def test_after_a_lock_nothing_of_the_vault_is_held(api: Api) -> None:
    own = {"secret": {"own": f"{MARKER}-1"}, "user_name": MARKER}
    login = api.add(MARKER, address="https://lantern.example", **own)["login_id"]
    key = "otpauth://totp/Gantry?secret=JBSWY3DPEHPK3PXP"
    api.add(f"{MARKER} two", **own | {"user_name": "ilse@lantern.example", "code_key": key})
    api.ok("POST", "checks")
    api.ok("POST", "draws", {"length": 20})
    body = f"title,username,password\n{MARKER},{MARKER},{MARKER}\n".encode()
    table = api.ok("POST", "imports", body)
    api.ok("POST", f"imports/{table['import_id']}/apply", {"mapping": table["mapping"]})
    bundle = api.ok("POST", "bundles", taken_out(api))["bundle_id"]
    api.ok("POST", f"bundles/{bundle}/open", {"passphrase": "orchard velvet lantern quarry"})
    judged = {"passphrase": f"{MARKER} lamps over wet gravel"}
    api.ok("POST", "vault/passphrase/judge", judged)
    rotation = api.ok("POST", "rotations", {"login_id": login})["rotation_id"]
    api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
    keeper = api.keeper
    assert MARKER in texts(keeper)
    vault = keeper._vault
    drive = Drive()
    keeper.drives["r"], keeper.not_begun["c"] = drive, {login: NewKnotError()}
    keeper.reading.faulty.append(((b"", 1), None, MARKER))
    assert keeper.spaces._kept and keeper.sessions._open
    api.ok("POST", "imports", body)
    api.ok("POST", "addresses", {"address": "lanterm.example"})
    assert api.call("POST", "exports/cxf", **api.proof()).is_success
    asked_before: tuple[Any, ...] = (site_of, likeness._split, urlsplit)
    assert all(one.cache_info().currsize for one in asked_before)
    # Patterns that were put together are kept by what they were read from.
    patterns = vars(re)["_cache"]
    assert "lantern" in str(patterns)
    with keeper.progress.of_one_act() as step:
        api.ok("POST", "vault/lock")
        assert not step(1, 2) and drive.is_stopped
    # The test's own client has asked for one since.
    assert max(one.cache_info().currsize for one in asked_before) <= 1
    assert "lantern" not in str(patterns)
    assert MARKER not in texts(keeper) and MARKER not in texts(vault)
    assert vault is not None and vault.vault_key == b"" and vault.keys.records == b""
    for name in ("drives", "not_begun", "imports", "bundles"):
        assert not getattr(keeper, name), name
    assert not keeper.spaces._kept and not keeper.sessions._open
    assert keeper.left_out is None and keeper.checked.measures is None
    assert api.call("GET", "logins").status_code == 423


def test_a_check_at_work_counts_as_use_and_no_longer_than_its_time(api: Api) -> None:
    keeper = api.keeper
    keeper.touch(60)
    assert keeper.seconds_left() == 60
    with keeper.progress.of_one_act():
        assert keeper.seconds_left() == WORK_COUNTS_S
        api.clock.pass_s(WORK_COUNTS_S - 1)
        assert keeper.is_unlocked and keeper.seconds_left() == 1
        api.clock.pass_s(2)
        assert not keeper.is_unlocked


def test_a_vault_that_was_opened_before_a_lock_wrote_goes_on_from_what_it_wrote(api: Api) -> None:
    keeper = api.keeper
    gone = [api.add(f"Gone {n}")["login_id"] for n in range(9)]
    early = Vault.unlock(keeper.path, passphrase=api.passphrase, state_folder=keeper.state_folder)
    for one in gone:
        api.ok("DELETE", f"logins/{one}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    api.add("Gantry")
    api.ok("POST", "draws", {"length": 20})
    api.ok("POST", "vault/lock")
    keeper.take(early)
    assert len(keeper.draws.listed()) == 1
    with keeper.at_work() as vault:
        cards, damaged = list_logins(vault)
        assert [card.title for card in cards] == ["Gantry"] and not damaged
        end_first_hour(vault)
    keeper.lock()
    api.enter()
    assert api.ok("GET", "first-hour")["is_over"] and not api.ok("GET", "vault/session")["damaged"]


def test_the_look_for_idleness_while_a_vault_opens_locks_it_not(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    keeper, looks = api.keeper, []

    def opens(vault: Vault, lock_after_s: Callable[[Vault], Safeguards]) -> Safeguards:
        looks.append(_beside(keeper.lock_if_idle))
        return lock_after_s(vault)

    keeper.lock()
    api.clock.pass_s(3600)
    monkeypatch.setattr(
        "newknot.usecases.vault.keeper.get_safeguards", partial(opens, lock_after_s=get_safeguards)
    )
    keeper.unlock(PASSPHRASE)
    for look in looks:
        look.join()
    assert looks and keeper.is_unlocked


def test_what_a_lock_forgets_is_its_own_and_not_that_of_a_vault_opened_meanwhile(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    keeper, opened = api.keeper, []
    api.ok("POST", "draws", {"length": 20})

    def closes(vault: Vault, close: Callable[[Vault], None]) -> None:
        monkeypatch.undo()
        opened.append(_beside(lambda: keeper.unlock(PASSPHRASE)))
        close(vault)

    monkeypatch.setattr(Vault, "close", partialmethod(closes, close=Vault.close))
    keeper.lock()
    opened[0].join()
    assert keeper.is_unlocked and len(keeper.draws.listed()) == 1
    assert len(keeper.sessions.open(api.clock.boot_s())) == 1 and keeper.reading.waiting


def test_a_lock_of_which_a_part_fails_is_a_lock_and_the_vault_opens_again(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    keeper = api.keeper
    for failing in ("keep_draws", "forget_addresses", "Vault.close"):
        with monkeypatch.context() as patched:
            patched.setattr(f"newknot.usecases.vault.keeper.{failing}", Mock(side_effect=OSError))
            with pytest.raises(OSError):
                keeper.lock()
        assert not keeper.is_unlocked and not keeper.sessions.open(api.clock.boot_s())
        api.enter()


def test_an_unlock_while_the_file_gives_way_to_one_under_a_new_key_opens_no_file_that_is_gone(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    unlock = partial(api.call, "POST", "vault/unlock", {"passphrase": PASSPHRASE})
    unlocks, new = [], "harbour pewter lantern orbit fable"

    def writes(*given: Any, **named: Any) -> None:
        unlocks.append(_beside(unlock))
        write_under_new_key(*given, **named)

    monkeypatch.setattr("newknot.usecases.vault.new_keys.write_under_new_key", writes)
    new_key(api.keeper, PASSPHRASE, new, drawn=False)
    unlocks[0].join()
    api.keeper.prove(new)


def _beside(act: Callable[[], object]) -> Thread:
    """Begun, and ended too if nothing holds it up."""
    thread = Thread(target=act)
    thread.start()
    thread.join(0.5)
    return thread
