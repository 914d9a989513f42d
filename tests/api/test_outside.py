"""Services outside: off by default, shown, bounded, and never taken for clean where they fail."""

import json
import time
from collections.abc import Iterator
from contextlib import contextmanager
from hashlib import sha1
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from threading import Thread
from typing import Any

import pytest

from newknot.outside import reaching
from tests.api.conftest import Api
from tests.support.running import practice_sites

ABOUT = {"name": "odd list", "dated_on": "2026-09-15", "unique_count": 3, "prefix_bits": 16}


def sha(text: str) -> bytes:
    return sha1(text.encode(), usedforsecurity=False).digest()


def switch(api: Api, **parts: object) -> str | None:
    """Sets safeguards; the refusal, if it was refused."""
    answer = api.call("PUT", "safeguards", api.safeguards() | parts, **api.proof())
    return None if answer.is_success else answer.text


@contextmanager
def answering(answers: dict[str, Any]) -> Iterator[str]:
    """A server of this machine that answers a path with (status, body), or waits so long."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            found = answers.get(self.path) or answers.get("*") or (404, b"")
            if isinstance(found, float):
                time.sleep(found)
                return
            self.send_response(found[0])
            self.end_headers()
            self.wfile.write(found[1])

        def log_message(self, *parts: object) -> None:
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.server_port}"
    finally:
        server.shutdown()


def breached(worklist: dict[str, Any]) -> list[str]:
    return [f["title"] for f in worklist["findings"] if f["kind"] == "breached"]


def test_a_list_held_elsewhere_is_asked_by_prefix_and_only_when_switched_on(
    api: Api, tmp_path: Path
) -> None:
    (tmp_path / "list.txt").write_text(f"{sha('limelight7').hex()}:1500\n{'ab' * 20}\n")
    api.add("Fernbank", secret={"own": "limelight7"})
    api.add("Harbour", secret={"own": "Rt7-kkPz!w42mQ"})
    with practice_sites(tmp_path, "--ranges", str(tmp_path / "list.txt")) as sites:
        address = f"http://ranges.localhost:{sites.sites_port}"
        assert switch(api, range_address=address) is None
        assert api.ok("POST", "checks")["asked"] == []
        assert switch(api, range_used=True) is None
        found = api.ok("POST", "checks")
        assert breached(found) == ["Fernbank"]
        (asked,) = found["asked"]
        assert (asked["unique_count"], asked["unchecked_count"], asked["sent_count"]) == (2, 0, 2)
        assert api.ok("POST", "checks")["asked"][0]["sent_count"] == 0
        log = sites.log.read_text()
        assert sha("limelight7").hex()[4:12] not in log
    gone = api.ok("POST", "checks")
    (asked,) = gone["asked"]
    assert (asked["unchecked_count"], asked["reason"]) == (None, "could not be reached")


@pytest.mark.parametrize(
    ("answers", "reason"),
    [
        ({"/about": (200, b"{}")}, "does not say what it is"),
        ({"/about": (200, json.dumps(ABOUT | {"prefix_bits": 64}).encode())}, "does not say what"),
        ({"/about": (200, b"[" * 9_000)}, "does not say what it is"),
        ({"/about": (302, b"")}, "answered with status 302"),
        ({"/about": (200, b"x" * 20_000)}, "sent more than 10,000 bytes"),
        ({"/about": 1.0}, "did not answer in time"),
        ({"*": (500, b"")}, "answered with status 500"),
    ],
)
def test_a_service_that_is_none_gives_not_checked(
    api: Api, monkeypatch: pytest.MonkeyPatch, answers: dict[str, Any], reason: str
) -> None:
    monkeypatch.setattr(reaching, "TIMEOUT_S", 0.3)
    api.add("Fernbank", secret={"own": "limelight7"})
    with answering(answers) as address:
        switch(api, range_address=address, range_used=True)
        (asked,) = api.ok("POST", "checks")["asked"]
    assert asked["unchecked_count"] is None and asked["reason"].startswith(reason)


@pytest.mark.parametrize(
    "body",
    [(500, b""), (200, b"12345"), (200, b"12345678\x63"), (200, b"x" * (2 << 20)), 1.0],
)
def test_prefixes_that_fail_are_not_checked_and_asked_again_the_next_time(
    api: Api, monkeypatch: pytest.MonkeyPatch, body: Any
) -> None:
    monkeypatch.setattr(reaching, "TIMEOUT_S", 0.3)
    api.add("Fernbank", secret={"own": "limelight7"})
    api.add("Harbour", secret={"own": "Rt7-kkPz!w42mQ"})
    path = f"/ranges/{sha('limelight7').hex()[:4]}"
    entry = sha("limelight7")[2:10] + b"\x0b"
    answers = {"/about": (200, json.dumps(ABOUT).encode()), "*": (200, b""), path: body}
    with answering(answers) as address:
        switch(api, range_address=address, range_used=True)
        first = api.ok("POST", "checks")
        assert breached(first) == [] and first["asked"][0]["unchecked_count"] == 1
        assert first["asked"][0]["reason"] and first["asked"][0]["sent_count"] == 4
        answers[path] = (200, entry)
        second = api.ok("POST", "checks")
    assert breached(second) == ["Fernbank"]
    assert (second["asked"][0]["unchecked_count"], second["asked"][0]["sent_count"]) == (0, 1)


@pytest.mark.parametrize(
    "address", ["", "http://ranges.example", "ftp://x.example", "http://127.0.0.1:47806/x"]
)
def test_a_service_has_to_be_https_or_another_of_this_machine(api: Api, address: str) -> None:
    said = switch(api, feed_address=address, feed_used=True)
    assert said is not None and "feed_address" in said
    assert api.refused("POST", "notices/fetch", {}) == "409 service_off"


def item(site: str, day: str, **more: object) -> dict[str, object]:
    about = {"site": site, "breached_on": day, "taken": ["passwords"], **more}
    return {"id": f"{site} {day}", "title": "Notice", "_notice": about}


def feed(*items: object) -> tuple[int, bytes]:
    document = {"version": "https://jsonfeed.org/version/1.1", "title": "x", "items": items}
    return 200, json.dumps(document).encode()


def test_a_notice_comes_into_the_worklist_without_a_check(api: Api) -> None:
    today = str(api.clock.at.date())
    api.add("Harbour", address="https://shop.harbourdye.example")
    api.add("Abbey", address="https://oldabbey.example")
    dye = {"title": "Dye", "address": "https://harbourdye.example"}
    renewed = api.add(**dye)["login_id"]
    answers = {"/feed.json": feed(item("www.harbourdye.example", today))}
    with answering(answers) as address:
        switch(api, feed_address=f"{address}/feed.json", feed_used=True)
        assert api.ok("POST", "notices/fetch", {})["unread_count"] == 0
        assert len(api.ok("GET", "checks/worklist")["findings"]) == 2
        # What is renewed once the notice is known is newer than what it tells, on the same day too.
        api.clock.pass_s(1)
        api.ok("PUT", f"logins/{renewed}", dye | {"secret": {"own": "Kv7!rope-9wQ-plank2"}})
        api.ok("POST", "notices/fetch", {"at_once": True})
        (row,) = api.ok("GET", "checks/worklist")["findings"]
        assert (row["kind"], row["title"]) == ("notice", "Harbour")
        assert row["evidence"].startswith("harbourdye.example says that on ")
        accepted = {"kind": "notice", "login_id": row["login_id"]}
        body = {"findings": [accepted], "reason": "covered", "note": "", "until_on": None}
        api.ok("POST", "waivers", body)
        assert api.ok("GET", "checks/worklist")["findings"] == []
        answers["/feed.json"] = feed(
            item("oldabbey.example", today, taken=["mail addresses"]), {"id": "x"}, item("", today)
        )
        assert len(api.ok("POST", "notices/fetch", {})["notices"]) == 1
        found = api.ok("POST", "notices/fetch", {"at_once": True})
        assert (len(found["notices"]), found["unread_count"]) == (1, 2)
        assert api.ok("GET", "checks/worklist")["findings"] == []
        answers["/feed.json"] = (200, b"x" * (5 << 20))
        assert api.refused("POST", "notices/fetch", {"at_once": True}) == "502 outside_failed"
        answers["/feed.json"] = (200, b"[]")
        assert api.refused("POST", "notices/fetch", {"at_once": True}) == "502 feed_refused"
        kept = api.ok("POST", "notices/fetch", {})
        assert kept["notices"] == found["notices"]


def test_mails_of_changes_are_held_against_the_rotations(api: Api) -> None:
    login = api.add("Site", address="https://gantry.example", user_name="ilse")
    other = api.add("Other", address="https://lumen.example", user_name="ilse")
    answers: dict[str, Any] = {"/mails.json": (200, b"[]")}
    assert api.refused("POST", "mails") == "409 service_off"

    def mail(mail_id: int, host: str, subject: str, body: str = "") -> dict[str, object]:
        at = api.clock.now().isoformat()
        parts = {"mail_id": mail_id, "host": host, "user_name": "ilse", "sent_at": at}
        return {**parts, "subject": subject, "body": body}

    def looked() -> list[tuple[str, str | None]]:
        api.clock.pass_s(10)
        return [(m["subject"], m["rotation_id"]) for m in api.ok("POST", "mails")]

    with answering(answers) as url:
        assert switch(api, mail_address=f"{url}/mails.json", mail_used=True) is None
        assert looked() == []
        rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})["rotation_id"]
        api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
        api.clock.pass_s(300)
        api.keeper.touch(600)
        link = "see https://gantry.example/confirm?token=1. Or https://elsewhere.example"
        mails = [
            mail(1, "gantry.example", "Confirm your new password", link),
            mail(2, "gantry.example", "Your invoice"),
            mail(3, "unknown.example", "Your password was changed"),
        ]
        answers["/mails.json"] = (200, json.dumps(mails).encode())
        assert looked() == [("Confirm your new password", rotation)]
        assert api.ok("POST", "mails")[0]["link"] == "https://gantry.example/confirm?token=1"
        assert "unexplained_change" not in str(api.ok("GET", "checks/worklist")["findings"])

        api.keeper.lock()
        api.clock.pass_s(7_200)
        api.enter()
        mails.append(mail(4, "lumen.example", "Your password was changed"))
        answers["/mails.json"] = (200, json.dumps(mails).encode())
        assert looked()[0] == ("Your password was changed", None)
        (found,) = [
            f
            for f in api.ok("GET", "checks/worklist")["findings"]
            if f["kind"] == "unexplained_change"
        ]
        assert found["login_id"] == other["login_id"]
        for broken in (b"{", b"{}", b"[" * 100_000, b"\xff"):
            answers["/mails.json"] = (200, broken)
            api.clock.pass_s(10)
            assert api.refused("POST", "mails") == "502 mails_refused"
        api.ok("POST", "checks")
        api.clock.pass_s(10)
        body = {"title": "Other", "address": "https://lumen.example", "user_name": "ilse"}
        api.ok("PUT", f"logins/{other['login_id']}", body | {"secret": {"own": "mQ4!zr-plank-9"}})
        assert api.ok("POST", "checks/worklist/rows", {})["settled_today_count"] == 1
