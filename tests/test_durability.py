"""A server that is killed at any instant has lost nothing that it answered for."""

import http.client
import json
import random
import threading
import time
from pathlib import Path
from typing import Any

from tests.conftest import PASSPHRASE, new_vault
from tests.support.running import Served, serving

KILLS = 6


class Caller:
    """The API over a real connection, with both halves of a session."""

    def __init__(self, served: Served) -> None:
        self._port = int(served.url.rsplit(":", 1)[1].strip("/"))
        self._headers = {
            "Origin": f"http://127.0.0.1:{self._port}",
            "Content-Type": "application/json",
        }
        self._headers["knot-session"] = self.call(
            "POST", "vault/unlock", {"passphrase": PASSPHRASE}
        )["token"]

    def call(self, method: str, path: str, body: object = None) -> Any:
        """The answer's document. Raises `OSError` where the server is gone."""
        connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=10)
        try:
            sent = None if body is None else json.dumps(body)
            connection.request(method, f"/api/{path}", sent, self._headers)
            answer = connection.getresponse()
            text = answer.read()
            cookie = answer.getheader("set-cookie")
            if cookie:
                self._headers["Cookie"] = cookie.split(";")[0]
            assert answer.status < 300, text
            return json.loads(text) if text else None
        except http.client.HTTPException as error:
            raise OSError from error
        finally:
            connection.close()


def work(caller: Caller, kept: set[str], staged: dict[str, str]) -> None:
    """Hands secrets out until the server is gone, noting each only once it was answered for."""
    while True:
        drawn = caller.call("POST", "draws", {"length": 20})
        caller.call("POST", f"draws/{drawn['draw_id']}/keep", {})
        kept.add(drawn["secret"])
        login = caller.call("POST", "logins", {"title": "Gantry", "secret": {"own": "cue-19"}})
        rotation = caller.call("POST", "rotations", {"login_id": login["login_id"]})
        path = f"rotations/{rotation['rotation_id']}"
        staged[path] = caller.call("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"]


def test_killed_at_any_instant_no_secret_that_was_handed_out_is_lost(tmp_path: Path) -> None:
    new_vault(tmp_path).close()
    kept: set[str] = set()
    staged: dict[str, str] = {}
    chance = random.Random(11)
    for _ in range(KILLS):
        with serving(tmp_path) as served:
            caller = Caller(served)
            after_s = 0.2 + chance.random()
            killer = threading.Timer(after_s, served.process.kill)
            killer.start()
            began = time.monotonic()
            try:
                work(caller, kept, staged)
            except OSError:
                assert time.monotonic() - began >= after_s - 0.05
            killer.join()
    assert len(kept) >= 3 and len(staged) >= 3
    with serving(tmp_path) as served:
        caller = Caller(served)
        assert caller.call("GET", "vault/session")["damaged"] == []
        assert not caller.call("GET", "vault/session")["is_older_copy"]
        found = {
            caller.call("POST", f"loose-ends/{one['loose_end_id']}/secret", {"purpose": "copy"})[
                "secret"
            ]
            for one in caller.call("GET", "loose-ends")
        }
        assert kept <= found
        for path, secret in staged.items():
            assert caller.call("GET", path)["state"] == "at_site"
            again = caller.call("POST", f"{path}/hand-out", {"purpose": "copy"})
            assert again["secret"] == secret
