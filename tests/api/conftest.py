"""The API on a real temporary vault, without a network."""

import atexit
from collections.abc import Iterator
from copy import copy
from functools import cache
from pathlib import Path
from typing import Any

import httpx
import pytest
from anyio.from_thread import BlockingPortal, start_blocking_portal
from fastapi import FastAPI
from starlette.datastructures import State
from starlette.testclient import TestClient

import newknot.api.app
from newknot.api.app import make_api as make_bare_api
from newknot.edge import SystemRandom
from newknot.outside import driven_site, page_rules
from newknot.outside.limited_child import run_limited
from newknot.store.corpus import Corpus
from newknot.usecases.vault.keeper import Keeper
from tests.conftest import CHEAP, PASSPHRASE, HandClock

PORT = 47806
ORIGIN = f"http://127.0.0.1:{PORT}"


@cache
def shared_portal() -> BlockingPortal:
    """One event loop for all calls of this process: one for each call costs more than the call."""
    context = start_blocking_portal()
    portal = context.__enter__()
    atexit.register(context.__exit__, None, None, None)
    return portal


@cache
def routed() -> FastAPI:
    """The API over no vault: putting its routes together costs more than most tests."""
    return make_bare_api(None, port=PORT)  # type: ignore[arg-type]


def routed_over(keeper: Keeper, *, port: int) -> FastAPI:
    """The same routes with a state of their own."""
    one = copy(routed())
    one.state = State({"keeper": keeper, "port": port})
    return one


@pytest.fixture(scope="session", autouse=True)
def once_a_process() -> Iterator[None]:
    """What comes out the same: the routes, and what a child reads in one foreign page."""
    with pytest.MonkeyPatch.context() as patched:
        patched.setattr(newknot.api.app, "make_api", routed_over)
        for reader in (driven_site, page_rules):
            patched.setattr(reader, "run_limited", cache(run_limited))
        yield


@cache
def document() -> dict[str, Any]:
    """The OpenAPI document, which rests on no vault."""
    return routed().openapi()


def routes() -> list[tuple[str, str]]:
    """(method, path) of every operation."""
    return [(m.upper(), path) for path, each in document()["paths"].items() for m in each]


class Api:
    """Calls as the page makes them, with both halves of the session."""

    def __init__(self, keeper: Keeper, clock: HandClock, web: Path) -> None:
        self.keeper = keeper
        self.clock = clock
        app = newknot.api.app.make_app(keeper, port=PORT, web_folder=web)
        self.http = TestClient(app, base_url=ORIGIN, raise_server_exceptions=False)
        self.http.portal = shared_portal()
        self.http.headers["origin"] = ORIGIN
        self.passphrase = PASSPHRASE

    def call(self, method: str, path: str, body: object = None, **headers: str) -> httpx.Response:
        """Any answer."""
        url = path if path.startswith("/") else f"/api/{path}"
        sent = {k.replace("_", "-"): v for k, v in headers.items()}
        content = {"content": body} if isinstance(body, bytes) else {"json": body}
        answer: httpx.Response = self.http.request(method, url, headers=sent, **content)
        return answer

    def ok(self, method: str, path: str, body: object = None, **headers: str) -> Any:
        """The answer's document; anything but a success fails the test."""
        answer = self.call(method, path, body, **headers)
        assert answer.is_success, (answer.status_code, answer.text)
        return answer.json() if answer.content else None

    def refused(self, method: str, path: str, body: object = None, **headers: str) -> str:
        """`status code` of a refusal."""
        answer = self.call(method, path, body, **headers)
        assert not answer.is_success
        return f"{answer.status_code} {answer.json()['code']}"

    def enter(self, act: str = "unlock") -> None:
        """Creates or unlocks the vault, and keeps both halves."""
        answer = self.ok("POST", f"vault/{act}", {"passphrase": self.passphrase})
        self.http.headers["knot-session"] = answer["token"]

    def proof(self) -> dict[str, str]:
        """A header that proves presence once."""
        given = self.ok("POST", "vault/proof", {"passphrase": self.passphrase})
        return {"knot_proof": given["proof"]}

    def add(self, title: str = "Gantry Rentals", **more: object) -> dict[str, Any]:
        """A login; its secret is one's own unless said otherwise."""
        body = {"title": title, "secret": {"own": "cue-to-cue-19"}, **more}
        added: dict[str, Any] = self.ok("POST", "logins", body)
        return added

    def safeguards(self) -> dict[str, Any]:
        """What may be set of them, as it is."""
        held: dict[str, Any] = self.ok("GET", "safeguards")
        added = {"last_backup_at", "corpora", "vault_path", "backup_folder", "revision"}
        added |= {"backup_problem", "backup_problem_data"}
        return {k: v for k, v in held.items() if k not in added}

    def secret_of(self, login_id: str) -> str:
        """The current secret."""
        answer = self.ok("POST", f"logins/{login_id}/secret", {"purpose": "copy"})
        return str(answer["secret"])

    def earlier_secret(self, login_id: str, earlier_id: str) -> str:
        """One of its history."""
        path = f"logins/{login_id}/history/{earlier_id}/secret"
        return str(self.ok("POST", path, {"purpose": "copy"})["secret"])

    def earlier_secrets(self, login_id: str) -> set[str]:
        """Every secret of its history."""
        history = self.ok("GET", f"logins/{login_id}")["history"]
        return {self.earlier_secret(login_id, one["earlier_id"]) for one in history}


def make_api(folder: Path, clock: HandClock, *corpora: Corpus) -> Api:
    """An API over a vault file in the folder."""
    keeper = Keeper(
        folder / "own.vault",
        state_folder=folder / "state",
        backup_folder=folder / "backups",
        clock=clock,
        random=SystemRandom(),
        parameters=CHEAP,
        corpora=corpora,
    )
    web = folder / "web"
    (web / "assets").mkdir(parents=True, exist_ok=True)
    (web / "index.html").write_text('<meta property="csp-nonce" nonce="__CSP_NONCE__">')
    (web / "assets" / "a.js").write_text("1")
    return Api(keeper, clock, web)


@pytest.fixture
def closed(tmp_path: Path, clock: HandClock) -> Iterator[Api]:
    """Nothing there yet."""
    api = make_api(tmp_path, clock)
    yield api
    api.keeper.lock()


@pytest.fixture
def api(closed: Api) -> Api:
    """A new vault, unlocked."""
    closed.enter("create")
    return closed


@pytest.fixture
def other(tmp_path: Path) -> Iterator[Api]:
    """A vault of its own on another device, with a clock of its own."""
    made = make_api(tmp_path / "other", HandClock())
    made.enter("create")
    yield made
    made.keeper.lock()
