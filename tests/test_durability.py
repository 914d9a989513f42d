"""A server that is killed at any instant has lost nothing that it answered for."""

import random
import threading
from dataclasses import dataclass
from pathlib import Path

from newknot.core.rotation import TRANSITIONS, RotationState
from tests.conftest import new_vault
from tests.support.calling import Caller
from tests.support.running import serving

ROTATIONS_LEAST = 20
KILLS_LEAST = 3
WINDOWS = 2
"""Two windows act at once, each over its own connection."""


@dataclass(slots=True)
class Known:
    """What the server has answered for about one login: noted only once the answer was there.

    ever: secrets that went in or came out. current, staged: where an answer said so last; None
    where the last call had no answer, so that either may be true.
    """

    login_id: str
    ever: set[str]
    current: str | None
    rotation: str = ""
    staged: str | None = None
    state: str | None = None


class World:
    """All that was answered for, by all windows."""

    def __init__(self) -> None:
        self.logins: list[Known] = []
        self.loose: set[str] = set()
        self.rotations = 0


def work(caller: Caller, world: World, chance: random.Random) -> None:
    """Rotates logins in every way that the table has, until the server is gone."""
    while True:
        if chance.random() < 0.15:
            drawn = caller.call("POST", "draws", {"length": 20})
            caller.call("POST", f"draws/{drawn['draw_id']}/keep", {})
            world.loose.add(drawn["secret"])
        first = f"first {chance.getrandbits(64):x}"
        login = caller.call("POST", "logins", {"title": "Gantry", "secret": {"own": first}})
        known = Known(login["login_id"], {first}, first)
        world.logins.append(known)
        begun = caller.call("POST", "rotations", {"login_id": known.login_id})
        known.rotation, known.state = f"rotations/{begun['rotation_id']}", "staged"
        world.rotations += 1
        known.staged = None
        known.state = None
        known.staged = caller.secret(f"{known.rotation}/hand-out")
        known.ever.add(known.staged)
        known.state = "at_site"
        for event, state in _way(chance):
            known.state = None
            if event in ("accept", "withdraw"):
                known.current = None
            caller.call("POST", f"{known.rotation}/events", {"event": event})
            known.state = state
            if event in ("accept", "withdraw"):
                known.current = known.staged if event == "accept" else first


def _way(chance: random.Random) -> list[tuple[str, str]]:
    return chance.choice(
        [
            [("accept", "accepted"), ("verify", "verified")],
            [("doubt", "unsure"), ("accept", "accepted")],
            [("refuse", "refused")],
            [("give_up", "given_up")],
            [("accept", "accepted"), ("withdraw", "unsure"), ("accept", "accepted")],
        ]
    )


def test_killed_at_any_instant_through_many_rotations_nothing_is_lost(tmp_path: Path) -> None:
    new_vault(tmp_path).close()
    world, chance, kills = World(), random.Random(11), 0
    while world.rotations < ROTATIONS_LEAST or kills < KILLS_LEAST:
        with serving(tmp_path) as served:
            callers = [Caller(served) for _ in range(WINDOWS)]
            killer = threading.Timer(1.0 + 1.0 * chance.random(), served.process.kill)
            windows = [
                threading.Thread(target=_until_gone, args=(caller, world, chance.getrandbits(32)))
                for caller in callers
            ]
            for thread in (*windows, killer):
                thread.start()
            for thread in (*windows, killer):
                thread.join()
            kills += 1
    with serving(tmp_path) as served:
        _nothing_is_lost(Caller(served), world)


def _until_gone(caller: Caller, world: World, seed: int) -> None:
    try:
        work(caller, world, random.Random(seed))
    except OSError:
        return


def _nothing_is_lost(caller: Caller, world: World) -> None:
    session = caller.call("GET", "vault/session")
    assert session["damaged"] == [] and not session["is_older_copy"]
    ends = caller.call("GET", "loose-ends")
    assert world.loose <= {caller.secret(f"loose-ends/{e['loose_end_id']}/secret") for e in ends}
    for known in world.logins:
        sheet = caller.call("GET", f"logins/{known.login_id}")
        current = caller.secret(f"logins/{known.login_id}/secret")
        assert known.current in (None, current)
        held = {current} | {
            caller.secret(f"logins/{known.login_id}/history/{e['earlier_id']}/secret")
            for e in sheet["history"]
        }
        if known.rotation:
            rotation = caller.call("GET", known.rotation)
            assert rotation["state"] == known.state or known.state is None
            assert rotation["allowed"] == list(TRANSITIONS[RotationState(rotation["state"])])
            if rotation["staged_length"] is not None and "hand_out" in rotation["allowed"]:
                held.add(caller.secret(f"{known.rotation}/hand-out"))
        missing = known.ever - held
        # What a refused rotation has staged is kept with it until another is drawn.
        if missing and known.rotation and rotation["state"] == "refused":
            caller.call("POST", f"{known.rotation}/stage", {})
            sheet = caller.call("GET", f"logins/{known.login_id}")
            held |= {
                caller.secret(f"logins/{known.login_id}/history/{e['earlier_id']}/secret")
                for e in sheet["history"]
            }
        assert known.ever <= held


def test_the_table_of_states_is_the_one_that_was_tried() -> None:
    tried = {"staged", "at_site", "unsure", "refused", "accepted", "verified", "given_up"}
    assert tried | {"planned"} == {state.value for state in RotationState}
