"""The practice sites take, refuse and change passwords as their faults say."""

from pathlib import Path

import httpx
import pytest
from starlette.testclient import TestClient

from newknot.standins.__main__ import Practice
from newknot.standins.accounts import Accounts
from newknot.standins.sites import SITES

GANTRY, PAPERTAPE = "gantryrentals.localhost", "papertape.localhost"


class Visitor:
    """Somebody at one practice site."""

    def __init__(self, folder: Path, host: str) -> None:
        app = Practice(Accounts(folder / "sites.sqlite")).app()
        self._http = TestClient(app, base_url=f"http://{host}:8000")

    def get(self, path: str) -> str:
        answer: httpx.Response = self._http.get(path)
        return str(answer.text)

    def post(self, path: str, **fields: str) -> str:
        answer: httpx.Response = self._http.post(path, data=fields)
        return str(answer.text)

    def sign_up(self, password: str, again: str | None = None) -> str:
        fields = {"new_password": password, "again": password if again is None else again}
        return self.post("/sign-up", user_name="ilse", **fields)


@pytest.mark.parametrize(
    ("host", "password", "says"),
    [
        (GANTRY, "short1", "8 to 24 characters"),
        (GANTRY, "x" * 25, "8 to 24 characters"),
        (GANTRY, "lantern!orchard1", "may hold only letters, digits and - _ . @"),
        (GANTRY, "lantern-orchard", "must hold a digit"),
        (GANTRY, "Ilse-orchard-1", "must not hold your user name"),
        ("lumensociety.localhost", "lantern-orchard", "may hold only letters and digits"),
        (GANTRY, "lantern-orchard1", "Signed in as"),
        ("lumensociety.localhost", "lanternorchard", "Signed in as"),
    ],
)
def test_each_site_has_its_rules(tmp_path: Path, host: str, password: str, says: str) -> None:
    assert says in Visitor(tmp_path, host).sign_up(password)


def test_a_password_is_really_changed(tmp_path: Path) -> None:
    visitor = Visitor(tmp_path, GANTRY)
    assert "differ" in visitor.sign_up("lantern-orchard1", "lantern-orchard2")
    visitor.sign_up("lantern-orchard1")
    assert "taken" in Visitor(tmp_path, GANTRY).sign_up("other-orchard1")
    change = {"new_password": "velvet-gravel2", "again": "velvet-gravel2"}
    assert "wrong" in visitor.post("/change-password", password="no", **change)
    assert "has been changed" in visitor.post(
        "/change-password", password="lantern-orchard1", **change
    )
    visitor.post("/sign-out")
    assert "Sign in" in visitor.get("/.well-known/change-password")
    assert "wrong" in visitor.post("/sign-in", user_name="ilse", password="lantern-orchard1")
    assert "Signed in as" in visitor.post("/sign-in", user_name="ilse", password="velvet-gravel2")
    assert "wrong" in Visitor(tmp_path, PAPERTAPE).post(
        "/sign-in", user_name="ilse", password="velvet-gravel2"
    )


def test_one_site_silently_keeps_the_first_twelve(tmp_path: Path) -> None:
    visitor = Visitor(tmp_path, PAPERTAPE)
    visitor.sign_up("lantern-orchard-velvet")
    visitor.post("/sign-out")
    assert "Signed in as" in visitor.post("/sign-in", user_name="ilse", password="lantern-orch")


def test_forms_tell_what_browsers_and_programs_read(tmp_path: Path) -> None:
    page = Visitor(tmp_path, GANTRY).get("/sign-up")
    assert 'autocomplete="new-password" minlength="8"' in page
    assert (
        "minlength: 8; maxlength: 24; required: digit; allowed: upper, lower, digit, [-_.@];"
        in page
    )
    assert "No practice site" in Visitor(tmp_path, "other.localhost").get("/")
    assert all(host == site.host for host, site in SITES.items())
