"""The practice sites take, refuse and change passwords as their faults say."""

import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import httpx
import pyotp
import pytest
from starlette.testclient import TestClient

from newknot.standins.accounts import Accounts
from newknot.standins.mail_tray import mail_app
from newknot.standins.practice import Practice
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


def changed(visitor: Visitor, old: str, new: str) -> str:
    return visitor.post("/change-password", password=old, new_password=new, again=new)


def test_one_folds_the_case(tmp_path: Path) -> None:
    visitor = Visitor(tmp_path, "northpier.localhost")
    visitor.sign_up("Lantern-Orchard")
    visitor.post("/sign-out")
    assert "Signed in as" in visitor.post("/sign-in", user_name="ilse", password="lANTERN-oRCHARD")


def test_one_states_a_maximum_that_it_does_not_take(tmp_path: Path) -> None:
    visitor = Visitor(tmp_path, "wardrobestore.localhost")
    assert "maxlength: 64" in visitor.get("/sign-up")
    assert "8 to 20 characters" in visitor.sign_up("x" * 21)


def test_one_remembers_the_last_five_and_asks_for_a_change_after_90_days(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    visitor = Visitor(tmp_path, "slatehouse.localhost")
    visitor.sign_up("lantern-orchard0")
    for i in range(1, 5):
        assert "has been changed" in changed(
            visitor, f"lantern-orchard{i - 1}", f"lantern-orchard{i}"
        )
    assert "last 5" in changed(visitor, "lantern-orchard4", "lantern-orchard0")
    changed(visitor, "lantern-orchard4", "lantern-orchard5")
    assert "has been changed" in changed(visitor, "lantern-orchard5", "lantern-orchard0")
    assert "older than" not in visitor.get("/")
    past = datetime.now(UTC) - timedelta(days=91)
    monkeypatch.setattr(Accounts, "changed_at", lambda *_: past)
    assert "older than 90 days" in visitor.get("/")


def test_one_asks_for_a_code_and_one_blocks_pasting(tmp_path: Path) -> None:
    key = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"
    visitor = Visitor(tmp_path, "keylight.localhost")
    fields = {"new_password": "lantern-orchard", "again": "lantern-orchard", "code_key": key}
    assert key in visitor.post("/sign-up", user_name="ilse", **fields)
    visitor.post("/sign-out")
    second = visitor.post("/sign-in", user_name="ilse", password="lantern-orchard")
    token = re.findall(r'name="token" value="([^"]+)"', second)[0]
    assert "Wrong code" in visitor.post("/sign-in/code", token=token, code="000000")
    code = pyotp.TOTP(key).now()
    assert "Signed in as" in visitor.post("/sign-in/code", token=token, code=code)
    assert 'onpaste="return false"' in Visitor(tmp_path, "cellarbar.localhost").get("/sign-up")


def test_one_changes_only_by_the_link_of_a_mail_and_others_tell_of_a_change(tmp_path: Path) -> None:
    visitor = Visitor(tmp_path, "harbourpost.localhost")
    visitor.sign_up("lantern-orchard")
    assert "We sent you a mail" in changed(visitor, "lantern-orchard", "velvet-gravel")
    (mail,) = Accounts(tmp_path / "sites.sqlite").mails()
    link = re.findall(r"http://[^/]+(/confirm\S+)", mail.body)[0]
    assert "wrong" in Visitor(tmp_path, "harbourpost.localhost").post(
        "/sign-in", user_name="ilse", password="velvet-gravel"
    )
    assert "has been changed" in visitor.get(link)
    assert "not good any more" in visitor.get(link)
    visitor.post("/sign-out")
    assert "Signed in as" in visitor.post("/sign-in", user_name="ilse", password="velvet-gravel")
    gantry = Visitor(tmp_path, GANTRY)
    gantry.sign_up("lantern-orchard1")
    changed(gantry, "lantern-orchard1", "velvet-gravel2")
    tray = TestClient(mail_app(Accounts(tmp_path / "sites.sqlite")))
    assert [m["subject"] for m in tray.get("/mails.json").json()] == [
        "Your password was changed",
        "Confirm your new password",
    ]
    assert "Mail tray" in tray.get("/").text
