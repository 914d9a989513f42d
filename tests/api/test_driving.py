"""Driven rotation at real sites over real connections: taken, refused, cut, and where it stops."""

import time
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Any
from urllib.parse import parse_qs

import httpx
import pytest

from newknot.core.rotation.site_form import SitePage
from newknot.outside import driven_site, reaching
from newknot.outside.driven_site import PagesRead
from newknot.usecases.rotation import driving
from tests.api.conftest import Api
from tests.conftest import wait_until
from tests.support.running import Served, practice_sites
from tests.support.vectors import vectors

OLD = "lantern-orchard1"
KEY = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"


@pytest.fixture(scope="module")
def sites(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The practice sites in a process of their own."""
    with practice_sites(tmp_path_factory.mktemp("sites")) as served:
        yield served


def signed_up(sites: Served, host: str, user_name: str, password: str) -> None:
    fields = {"user_name": user_name, "new_password": password, "again": password}
    answer = httpx.post(
        f"http://127.0.0.1:{sites.sites_port}/sign-up",
        data={**fields, "code_key": KEY},
        headers={"host": f"{host}:{sites.sites_port}"},
    )
    assert answer.status_code == 303, answer.text


def opens(sites: Served, host: str, user_name: str, password: str) -> bool:
    answer = httpx.post(
        f"http://127.0.0.1:{sites.sites_port}/sign-in",
        data={"user_name": user_name, "password": password},
        headers={"host": f"{host}:{sites.sites_port}"},
    )
    return answer.status_code in (200, 303) and "wrong" not in answer.text


def begun(api: Api, address: str, user_name: str, secret: str, **more: object) -> tuple[str, str]:
    body = {"address": address, "user_name": user_name, "driven": True, **more}
    login = api.add("A site", secret={"own": secret}, **body)
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    return login["login_id"], f"rotations/{rotation['rotation_id']}"


@pytest.mark.parametrize(
    ("name", "old", "state", "says"),
    [
        ("gantryrentals", OLD, "verified", "signed in afresh with the new secret"),
        (
            "lumensociety",
            "lanternorchard",
            "verified",
            "drew a new secret to the rules of its form",
        ),
        ("papertape", OLD, "verified", "learned the rules of its form"),
        ("slatehouse", OLD, "verified", "signed in afresh with the new secret"),
        ("cellarbar", "lanternorchard", "verified", "signed in afresh with the new secret"),
        ("keylight", OLD, "verified", "signed in afresh with the new secret"),
        ("harbourpost", OLD, "unsure", "so it is not sure which secret holds: both are kept"),
    ],
)
def test_at_the_practice_sites(
    api: Api, sites: Served, name: str, old: str, state: str, says: str
) -> None:
    host, user_name = f"{name}.localhost", f"ilse-{name}"
    signed_up(sites, host, user_name, old)
    more = {"second_factor": "here", "code_key": KEY} if name == "keylight" else {}
    login_id, path = begun(api, sites.site(name), user_name, old, **more)
    assert api.ok("GET", f"{path}/drive")["allowed"]
    api.clock.at = datetime.now(UTC)  # the site's codes go by the real time
    found = api.ok("POST", f"{path}/drive")
    assert found["state"] == state, found
    assert says in found["steps"] and not found["running"]
    secret = api.secret_of(login_id)
    assert opens(sites, host, user_name, secret)
    assert (secret == old) is (state == "unsure")
    assert secret not in str(found) and old not in str(found)
    assert secret not in sites.log.read_text()


def test_a_refusal_is_told_from_a_change_and_leaves_the_old_one(api: Api, sites: Served) -> None:
    host = "wardrobestore.localhost"
    signed_up(sites, host, "ilse", OLD)
    address = sites.site("wardrobestore")
    policy = {
        "min_length": 40,
        "max_length": 64,
        "classes": [{"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}],
    }
    named = {"name": "Wardrobe", "domains": ["wardrobestore.localhost"], "policy": policy}
    api.ok("POST", "policies", named)
    login_id, path = begun(api, address, "ilse", OLD)
    found = api.ok("POST", f"{path}/drive")
    assert found["state"] == "refused"
    assert "the site says: “Your password must have 8 to 20 characters.”" in found["steps"]
    assert api.ok("GET", path)["refusal"] == "Your password must have 8 to 20 characters."
    assert api.secret_of(login_id) == OLD and opens(sites, host, "ilse", OLD)


def test_what_a_site_does_in_silence_is_found_by_sign_ins_and_learned(
    api: Api, sites: Served
) -> None:
    for name, old, cut, folds in (
        ("papertape", "Lantern-Orchard-Velvet", 12, False),
        ("northpier", "Lantern-Orchard-Velvet", None, True),
        ("gantryrentals", "Lantern-Orchard-1", None, False),
    ):
        user_name = f"maud-{name}"
        signed_up(sites, f"{name}.localhost", user_name, old)
        _, path = begun(api, sites.site(name), user_name, old)
        found = api.ok("POST", f"{path}/faults")
        assert (found["keeps_first"], found["folds_case"]) == (cut, folds), found
    learned = [p["policy"] for p in api.ok("GET", "policies")["policies"]]
    kept = [(p["keeps_first"], p["folds_case"]) for p in learned]
    assert sorted(map(str, kept)) == ["(12, False)", "(None, True)"]


def test_only_where_switched_on_and_only_in_a_state_that_can(api: Api, sites: Served) -> None:
    _, path = begun(api, sites.site("gantryrentals"), "nobody", OLD, driven=False)
    assert not api.ok("GET", f"{path}/drive")["allowed"]
    assert api.refused("POST", f"{path}/change-page") == "409 drive_off"
    assert api.refused("POST", f"{path}/drive") == "409 drive_off"
    assert api.refused("POST", f"{path}/faults") == "409 drive_off"
    _, path = begun(api, sites.site("gantryrentals"), "nobody", OLD)
    found = api.ok("POST", f"{path}/drive")
    assert found["state"] == "staged"
    assert found["steps"][-1].startswith(
        "stopped before anything was changed: the site did not let in"
    )
    api.ok("POST", f"{path}/events", {"event": "give_up"})
    assert api.refused("POST", f"{path}/drive") == "409 event_refused"


class OddSite:
    """A site that none of the code has seen: its pages by path, and what was sent to it."""

    def __init__(self) -> None:
        self.pages: dict[str, tuple[int, dict[str, str], str]] = {}
        self.sent: list[tuple[str, dict[str, list[str]]]] = []
        self.came_from: list[tuple[str, str]] = []
        self.changes_at = ""
        self.password = OLD
        self.waits_s = 0.0
        self.wrong_count = 0
        self.lets_all_in = self.only_says_so = False
        self.after_one_wrong: tuple[int, dict[str, str], str] | None = None

    def answer(self, path: str, cookie: str) -> tuple[int, dict[str, str], str]:
        if path == "/.well-known/change-password":
            path = "/account/secret" if "s=1" in cookie else "/enter"
            return 303, {"location": f"{self.changes_at}{path}"}, ""
        return self.pages.get(path, (404, {}, ""))

    def take(self, path: str, fields: dict[str, list[str]]) -> tuple[int, dict[str, str], str]:
        self.sent.append((path, fields))
        time.sleep(self.waits_s if path == "/account/set" else 0)
        right = fields.get("pw") == [self.password]
        if path == "/enter":
            self.wrong_count += not right
        if self.wrong_count and self.after_one_wrong is not None:
            return self.after_one_wrong
        if path == "/enter" and (right or self.lets_all_in):
            return 302, {"location": "/account/secret", "set-cookie": "s=1; Path=/"}, ""
        if path == "/account/set" and fields.get("was") == [self.password]:
            self.password = self.password if self.only_says_so else fields["now"][0]
            return 200, {}, f"<p role=status>From {fields['was'][0]} to {self.password}.</p>"
        return self.pages.get(path, (403, {}, "<p role=alert>No.</p>"))


ENTER = """<form method=post action="/enter">
<input name=who autocomplete="section-a username webauthn">
<input type=hidden name=csrf value="t&quot;1">
<input type=password name=pw autocomplete=current-password>
<input type=checkbox name=stay checked><button name=go value=in>Enter</button></form>"""
SET = """<form method=get action="/search"><input name=q></form>
<form id=f method=POST action="set"></form><input form=f type=password name=was
autocomplete="current-password" required><input form=f type=password name=now maxlength=18
minlength=10 passwordrules="allowed: lower, digit" autocomplete=new-password>
<input form=f type=password name=again autocomplete=new-password>"""


@contextmanager
def serving_odd() -> Iterator[tuple[OddSite, str]]:
    odd = OddSite()
    odd.pages = {"/enter": (200, {}, ENTER), "/account/secret": (200, {}, SET)}

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self._reply(odd.answer(self.path, self.headers.get("cookie", "")))

        def do_POST(self) -> None:
            odd.came_from.append((self.headers["origin"], self.headers["referer"]))
            size = int(self.headers["content-length"])
            fields = parse_qs(self.rfile.read(size).decode(), keep_blank_values=True)
            self._reply(odd.take(self.path, fields))

        def _reply(self, found: tuple[int, dict[str, str], str]) -> None:
            self.send_response(found[0])
            for name, value in found[1].items():
                self.send_header(name, value)
            self.end_headers()
            self.wfile.write(found[2].encode())

        def log_message(self, *parts: object) -> None:
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield odd, f"http://odd.localhost:{server.server_port}/"
    finally:
        server.shutdown()


def test_a_site_of_other_names_and_shapes_is_driven_by_its_tokens(api: Api) -> None:
    with serving_odd() as (odd, address):
        login_id, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == "verified", found
        secret = api.secret_of(login_id)
        assert odd.password == secret and len(secret) == 18
        assert "the site says: “From … to ….”" in found["steps"]
        assert set(secret) <= set("abcdefghijklmnopqrstuvwxyz0123456789")
        first = {"who": ["ilse"], "csrf": ['t"1'], "pw": [OLD], "stay": ["on"], "go": ["in"]}
        assert odd.sent[0] == ("/enter", first)


def test_no_query_of_the_site_is_said_and_no_rules_that_nothing_meets_are_learned(
    api: Api,
) -> None:
    with serving_odd() as (odd, address):
        odd.pages |= page("/enter", "", 302, location="/enter?code=rope-and-plank")
        as_usual = "<form enctype=Application/X-WWW-Form-URLencoded"
        odd.pages |= page("/enter?code=rope-and-plank", ENTER.replace("<form", as_usual))
        odd.pages |= page("/account/secret", SET.replace("minlength=10", "minlength=30"))
        login_id, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        assert f"opened {address}enter" in found["steps"] and "rope" not in str(found)
        assert found["state"] == "verified" and odd.password == api.secret_of(login_id)
        assert api.ok("GET", "policies")["policies"] == []
        empty = api.add("Empty", secret=None, address=address, driven=True)["login_id"]
        begun_empty = api.ok("POST", "rotations", {"login_id": empty})["rotation_id"]
        assert api.refused("POST", f"rotations/{begun_empty}/drive") == "404 nothing_held"


def test_another_origin_of_the_site_gets_the_secrets_only_where_it_was_allowed_by_name(
    api: Api,
) -> None:
    with serving_odd() as (odd, address), serving_odd() as (beside, other):
        beside.take, beside.answer = odd.take, odd.answer  # type: ignore[method-assign]
        odd.pages["/enter"] = (200, {}, ENTER.replace("/enter", f"{other}enter"))
        login_id, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == "staged" and odd.sent == []
        body = {"title": "odd", "address": address, "user_name": "ilse", "driven": True}
        for wrong in ("https://evil.example", "http://other.localhost:1", "", "ftp://x"):
            refused = api.call("PUT", f"logins/{login_id}", {**body, "driven_at": [other, wrong]})
            assert refused.json()["data"]["field"] == "driven_at.1", refused.text
        api.ok("PUT", f"logins/{login_id}", {**body, "driven_at": [f"{other}enter?x"]})
        allowed = odd.changes_at = other.rstrip("/")
        assert api.ok("GET", f"logins/{login_id}")["driven_at"] == [allowed]
        assert allowed in api.ok("GET", f"{path}/drive")["plan"][0]
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == "verified", found
        assert odd.password == api.secret_of(login_id)
        # Each form says where it stood, as a browser does.
        assert all(place.startswith(f"{origin}/") for origin, place in beside.came_from)
        assert allowed in {origin for origin, _ in beside.came_from}


def test_a_form_that_is_stricter_than_the_known_policy_is_drawn_to(api: Api) -> None:
    every = "abcdefghijklmnopqrstuvwxyz0123456789"
    for longest, state in ((30, "verified"), (9, "staged")):
        with serving_odd() as (odd, address):
            classes = [{"name": "any", "characters": every}]
            policy = {"min_length": 6, "max_length": longest, "classes": classes}
            name = f"odd {longest}"
            found = api.ok("GET", "policies")["policies"]
            body = {"name": name, "domains": ["odd.localhost"], "policy": policy}
            if found:
                api.ok("PUT", f"policies/{found[0]['policy_id']}", body)
            else:
                api.ok("POST", "policies", body)
            login_id, path = begun(api, address, "ilse", OLD)
            assert api.ok("POST", f"{path}/drive")["state"] == state
            assert odd.password == api.secret_of(login_id)
            assert (len(odd.password) == 18) is (state == "verified")


def test_a_code_in_the_same_form_as_the_password_is_given(api: Api) -> None:
    with serving_odd() as (odd, address):
        asking = ENTER.replace(
            "<button", "<input name=c required autocomplete=one-time-code><button"
        )
        odd.pages["/enter"] = (200, {}, asking)
        _, path = begun(api, address, "ilse", OLD, second_factor="here", code_key=KEY)
        assert api.ok("POST", f"{path}/drive")["state"] == "verified"
        assert len(odd.sent[0][1]["c"][0]) == 6
    with serving_odd() as (odd, address):
        asking = SET + "<input form=f name=c autocomplete=one-time-code>"
        odd.pages["/account/secret"] = (200, {}, asking)
        _, path = begun(api, address, "ilse", OLD, second_factor="here", code_key=KEY)
        assert api.ok("POST", f"{path}/drive")["state"] == "verified"
        (changed,) = (fields for place, fields in odd.sent if place == "/account/set")
        assert len(changed["c"][0]) == 6


def page(place: str, text: str, status: int = 200, **headers: str) -> dict[str, Any]:
    return {place: (status, headers, text)}


PAGES = {"ENTER": ENTER, "SET": SET}
TOO_LARGE = ("/enter", "ENTER", "", "<p>" + "x" * (2 << 20), "", "too large")


@pytest.mark.parametrize(
    ("place", "name", "part", "instead", "to", "reason"),
    [*vectors("unexpected_pages.tsv"), TOO_LARGE],
    ids=lambda text: text[:40],
)
def test_what_is_unexpected_before_the_change_changes_nothing(
    api: Api, place: str, name: str, part: str, instead: str, to: str, reason: str
) -> None:
    text = PAGES.get(name, name)
    text = text.replace(part, instead) if part else text + instead
    with serving_odd() as (odd, address):
        odd.pages |= page(place, text, 302, location=to) if to else page(place, text)
        login_id, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        said = str(found["steps"])
        assert reason in said
        assert odd.password == OLD and api.secret_of(login_id) == OLD
        assert found["state"] == "staged"
        assert not [1 for place, _ in odd.sent if place == "/account/set"]


@pytest.mark.parametrize(
    ("fault", "reason"),
    [
        ({"lets_all_in": True}, "lets in a secret that cannot be right, so nothing is verified"),
        ({"only_says_so": True}, "not sure which secret holds"),
        ({"after_one_wrong": (429, {}, "later")}, "asks to wait, or has locked the account"),
        ({"after_one_wrong": (423, {}, "locked")}, "asks to wait, or has locked the account"),
        ({"after_one_wrong": (503, {}, "")}, "asks to wait, or has locked the account"),
        ({"after_one_wrong": (403, {}, "<p>locked</p>")}, "not sure which secret holds"),
        (
            {"after_one_wrong": (302, {"location": "/account/secret", "set-cookie": "s=1"}, "")},
            "lets in a secret that cannot be right",
        ),
    ],
)
def test_what_proves_nothing_is_not_said_to_be_verified(
    api: Api, fault: dict[str, Any], reason: str
) -> None:
    with serving_odd() as (odd, address):
        for name, value in fault.items():
            setattr(odd, name, value)
        login_id, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == "unsure"
        assert reason in str(found["steps"])
        new = api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"]
        assert odd.password in (new, OLD) and api.secret_of(login_id) == OLD


def test_the_secret_that_cannot_be_right_is_drawn_tried_once_and_never_kept(api: Api) -> None:
    with serving_odd() as (odd, address):
        login_id, path = begun(api, address, "ilse", OLD, second_factor="here", code_key=KEY)
        plan = api.ok("GET", f"{path}/drive")["plan"]
        assert sum("one wrong sign-in" in line for line in plan) == 1
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == "verified"
        new = api.secret_of(login_id)
        tried = [fields["pw"][0] for place, fields in odd.sent if place == "/enter"]
        (wrong,) = [one for one in tried if one not in (OLD, new)]
        assert len(tried) == 3 and len(wrong) == 20 and wrong.isalnum()
        assert wrong not in str(found) + str(api.ok("GET", f"logins/{login_id}"))


def test_nothing_is_said_of_a_site_that_lets_everything_in(api: Api) -> None:
    with serving_odd() as (odd, address):
        odd.lets_all_in = True
        _, path = begun(api, address, "ilse", OLD)
        assert api.refused("POST", f"{path}/faults") == "502 form_not_understood"
        assert len(odd.sent) == 1


def test_a_site_that_falls_silent_after_sending_is_not_sure_and_both_are_kept(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(reaching, "TIMEOUT_S", 0.5)
    with serving_odd() as (odd, address):
        odd.waits_s = 1.5
        login_id, path = begun(api, address, "ilse", OLD)
        assert api.ok("POST", f"{path}/drive")["state"] == "unsure"
        new = api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"]
        wait_until(lambda: odd.password == new)
        assert api.secret_of(login_id) == OLD


def test_a_site_without_the_well_known_address_is_driven_where_its_login_says(api: Api) -> None:
    with serving_odd() as (odd, address):
        plain = odd.answer

        def answer(path: str, cookie: str) -> tuple[int, dict[str, str], str]:
            if path == "/mine":
                return plain("/.well-known/change-password", cookie)
            return (404, {}, "") if path.startswith("/.well") else plain(path, cookie)

        odd.answer = answer  # type: ignore[method-assign]
        _, path = begun(api, f"{address}mine", "ilse", OLD)
        assert api.ok("POST", f"{path}/drive")["state"] == "verified"


@pytest.mark.parametrize(
    ("address", "reason"),
    [
        ("http://127.0.0.1:47806/", "leads to this application"),
        ("http://gantry.example/", "leads to an address without https"),
    ],
)
def test_neither_this_application_nor_an_open_line_is_driven(
    api: Api, address: str, reason: str
) -> None:
    _, path = begun(api, address, "ilse", OLD)
    found = api.ok("POST", f"{path}/drive")
    assert found["state"] == "staged" and reason in found["steps"][-1]


ASKS_CODE = "<form method=post action=/code><input name=c autocomplete=one-time-code></form>"


@pytest.mark.parametrize(
    ("answer", "state", "reason"),
    [
        ((307, {"location": "/else"}, ""), "staged", "sends the form on to another address"),
        ((200, {}, ASKS_CODE), "unsure", "asks for a code even where the secret is wrong"),
    ],
)
def test_an_answer_to_a_sign_in_that_leads_elsewhere_is_not_followed(
    api: Api, answer: tuple[int, dict[str, str], str], state: str, reason: str
) -> None:
    with serving_odd() as (odd, address):
        plain = odd.take

        def take(path: str, fields: dict[str, list[str]]) -> tuple[int, dict[str, str], str]:
            was_right = path == "/enter" and fields["pw"] == [odd.password]
            found = plain(path, fields)
            return found if (was_right and state == "unsure") or path != "/enter" else answer

        odd.take = take  # type: ignore[method-assign]
        _, path = begun(api, address, "ilse", OLD)
        found = api.ok("POST", f"{path}/drive")
        assert found["state"] == state and reason in str(found["steps"])
        assert {place for place, _ in odd.sent} <= {"/enter", "/account/set"}


def test_no_drive_lasts_for_ever_and_no_page_that_may_repeat_a_secret_is_held(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    held: list[bytes] = []
    read = PagesRead.page

    def page_of(self: PagesRead, body: bytes) -> SitePage:
        held.append(body)
        return read(self, body)

    monkeypatch.setattr(PagesRead, "page", page_of)
    with serving_odd() as (_, address):
        _, path = begun(api, address, "ilse", OLD)
        with monkeypatch.context() as short:
            short.setattr(driving, "TIME_S", -1.0)
            found = api.ok("POST", f"{path}/drive")
            assert found["state"] == "staged" and "the site took too long" in found["steps"][-1]
        assert api.ok("POST", f"{path}/drive")["state"] == "verified"
        assert held and not any(OLD.encode() in body for body in held)


@pytest.mark.parametrize("in_campaign", [False, True])
def test_it_is_driven_once_at_a_time_and_stopped_by_hand(api: Api, in_campaign: bool) -> None:
    with serving_odd() as (odd, address):
        odd.waits_s = 0.8
        login_id, path = begun(api, address, "ilse", OLD)
        campaign = api.ok("POST", "campaigns", {"login_ids": [login_id]})["campaign_id"]
        driven = f"campaigns/{campaign}" if in_campaign else path

        def stop() -> None:
            wait_until(lambda: any(place == "/account/set" for place, _ in odd.sent))
            assert api.refused("POST", f"{path}/drive") == "409 drive_running"
            api.ok("POST", f"campaigns/{campaign}/drive")
            api.ok("POST", f"{driven}/stop" if in_campaign else f"{path}/drive/stop")

        stopping = Thread(target=stop, daemon=True)
        stopping.start()
        api.ok("POST", f"{driven}/drive")
        stopping.join()
        found = api.ok("GET", f"{path}/drive")
        assert found["state"] == "unsure"
        assert "the site was left because you stopped it: both secrets are kept" in found["steps"]
        assert api.secret_of(login_id) == OLD
        assert [place for place, _ in odd.sent].count("/account/set") == 1


def test_a_campaign_goes_mailboxes_first_and_drives_what_it_may_side_by_side(
    api: Api, sites: Served
) -> None:
    ids = {}
    for name in ("gantryrentals", "papertape", "slatehouse"):
        signed_up(sites, f"{name}.localhost", "campaigner", OLD)
        body = {"address": sites.site(name), "user_name": "campaigner", "driven": True}
        ids[name] = api.add(name, secret={"own": OLD}, **body)["login_id"]
    ids["post"] = api.add("post")["login_id"]
    body = {"title": "papertape", "address": sites.site("papertape"), "user_name": "campaigner"}
    body |= {"driven": True, "resets_by": ids["post"]}
    api.ok("PUT", f"logins/{ids['papertape']}", body)
    assert api.refused("POST", "campaigns", {"login_ids": []}) == "422 field_invalid"
    assert api.refused("POST", "campaigns", {"login_ids": ["0" * 32]}) == "422 field_invalid"
    chosen = [ids[name] for name in ("gantryrentals", "papertape", "slatehouse", "post")]
    begun = api.ok("POST", "campaigns", {"login_ids": chosen})
    assert [p["title"] for p in begun["places"]][:2] == ["post", "gantryrentals"]
    assert begun["done_count"] == 0
    api.clock.pass_s(1)
    after = api.ok("POST", f"campaigns/{begun['campaign_id']}/drive")
    assert after["done_count"] == 3
    api.keeper.lock()
    api.enter()
    (again,) = api.ok("GET", "campaigns")
    assert again == after
    assert [p["title"] for p in again["places"] if p["standing"] != "done"] == ["post"]
    for name in ("gantryrentals", "papertape", "slatehouse"):
        assert opens(sites, f"{name}.localhost", "campaigner", api.secret_of(ids[name]))
    api.ok("DELETE", f"campaigns/{begun['campaign_id']}")
    assert api.ok("GET", "campaigns") == []


def unsure(
    api: Api, address: str, *, new: str = "Kv7#Rope.And-Plank88", **more: object
) -> tuple[str, str, str]:
    """A rotation that was handed out and is not sure: its login, its path, the new secret.

    new: one of which no part is another's in small letters.
    """
    login_id, path = begun(api, address, "ilse", OLD, **more)
    api.ok("POST", f"{path}/stage", {"secret": {"own": new}})
    new = api.ok("POST", f"{path}/hand-out", {"purpose": "copy"})["secret"]
    api.ok("POST", f"{path}/events", {"event": "doubt"})
    return login_id, path, new


@pytest.mark.parametrize(("kept_there", "which", "state"), vectors("ways_on.tsv"))
def test_after_not_sure_it_is_found_which_one_opens_the_site(
    api: Api, kept_there: str, which: str, state: str
) -> None:
    with serving_odd() as (odd, address):
        # Short, so that all ways are few enough to be tried.
        login_id, path, new = unsure(api, address, new="Kv7#Rope.A8")
        odd.password = kept_there
        found = api.ok("POST", f"{path}/way-on/drive")
        assert (found["found"], found["rotation"]["state"]) == (which, state), found
        assert api.secret_of(login_id) == (odd.password if state == "verified" else OLD)
        kept = {api.secret_of(login_id), *api.earlier_secrets(login_id)}
        if state == "verified":
            assert {OLD, new} <= kept | {new} and (new in kept)
        if state != "unsure":
            assert api.call("POST", f"{path}/way-on/drive").status_code == 409


def test_the_way_on_is_driven_so_many_at_a_time_and_goes_on_where_it_was(api: Api) -> None:
    with serving_odd() as (odd, address):
        login_id, path, new = unsure(api, address)
        odd.password = new[-9:]
        refused: list[dict[str, object]] = []
        for at_once in (9, 9, 3):
            before = len(odd.sent)
            body = {"refused": refused, "at_most": at_once}
            found = api.ok("POST", f"{path}/way-on/drive", body)
            entered = [fields["pw"][0] for at, fields in odd.sent[before:] if at == "/enter"]
            assert len(entered) == 1 + at_once and found["found"] == ""
            assert found["refused"][: len(refused)] == refused and found["trial"] is not None
            refused = found["refused"]
        assert len(refused) == 21
        done = api.ok("POST", f"{path}/way-on/drive", {"refused": refused})
        assert done["rotation"]["state"] == "verified"
        assert api.secret_of(login_id) == new[-9:]


def test_a_site_that_lets_anything_in_tells_nothing_on_the_way_on(api: Api) -> None:
    with serving_odd() as (odd, address):
        login_id, path, _ = unsure(api, address)
        odd.lets_all_in = True
        assert api.call("POST", f"{path}/way-on/drive").status_code >= 400
        assert api.ok("GET", path)["state"] == "unsure" and api.secret_of(login_id) == OLD


def test_the_way_on_by_hand_asks_one_after_the_other_and_notes_a_part(api: Api) -> None:
    login_id, path, new = unsure(api, "https://odd.example")
    refused: list[dict[str, object]] = []
    said, plain = [], "".join(filter(str.isalnum, new))
    while (found := api.ok("POST", f"{path}/way-on", {"refused": refused}))["trial"] is not None:
        trial = found["trial"]
        said.append(found["says"])
        text = api.ok("POST", f"{path}/way-on/secret", {**trial, "purpose": "copy"})["secret"]
        assert text in (OLD, new[: len(text)], new.lower(), new.upper(), plain)
        if text == new[:10]:
            break
        refused.append(trial)
    assert said[:2] == ["the new secret", "the old secret"] and len(said) > 3
    wrong = {"which": "start_of_new", "characters": 3}
    assert api.refused("POST", f"{path}/way-on", {"refused": [], "opened": wrong}).startswith("422")
    done = api.ok("POST", f"{path}/way-on", {"refused": refused, "opened": found["trial"]})
    assert done["rotation"]["state"] == "verified"
    assert api.secret_of(login_id) == new[:10]
    assert {OLD, new} <= api.earlier_secrets(login_id)
    (policy,) = api.ok("GET", "policies")["policies"]
    assert policy["policy"]["max_length"] == 10


def test_many_logins_of_one_site_learn_its_rules_once(api: Api, sites: Served) -> None:
    ids = []
    for n in range(6):
        signed_up(sites, "gantryrentals.localhost", f"dancer{n}", OLD)
        at = {"address": sites.site("gantryrentals"), "user_name": f"dancer{n}", "driven": True}
        ids.append(api.add(f"Truss {n}", secret={"own": OLD}, **at)["login_id"])
    begun = api.ok("POST", "campaigns", {"login_ids": ids})
    api.clock.pass_s(1)
    after = api.ok("POST", f"campaigns/{begun['campaign_id']}/drive")
    assert after["done_count"] == 6
    assert len(api.ok("GET", "policies")["policies"]) == 1


def test_a_campaign_goes_on_past_a_login_that_cannot_be_begun_and_says_why(
    api: Api, sites: Served
) -> None:
    signed_up(sites, "papertape.localhost", "goes-on", OLD)
    at = {"user_name": "goes-on", "driven": True, "secret": {"own": OLD}}
    digits = [{"name": "digit", "characters": "0123456789", "minimum": 9}]
    rules = {"min_length": 1, "max_length": 4, "classes": digits}
    site = {"name": "Odd", "domains": ["odd.example"], "source": "typed", "policy": rules}
    api.ok("POST", "policies", site)
    odd = api.add("Odd", address="https://odd.example", **at)["login_id"]
    good = api.add("Paper", address=sites.site("papertape"), **at)["login_id"]
    begun = api.ok("POST", "campaigns", {"login_ids": [odd, good]})
    assert all(place["problem"] == "" for place in begun["places"])
    api.clock.pass_s(1)
    after = api.ok("POST", f"campaigns/{begun['campaign_id']}/drive")
    said = {p["login_id"]: (p["standing"], bool(p["problem"])) for p in after["places"]}
    assert said == {odd: ("waiting", True), good: ("done", False)}
    assert api.secret_of(odd) == OLD
    # What stood in the way of a login that is done since is none.
    api.ok("PUT", f"logins/{odd}", {"title": "Odd", "secret": {"own": "rope-and-plank-9"}})
    assert [place["problem"] for place in api.ok("GET", "campaigns")[0]["places"]] == ["", ""]


def test_the_well_known_address_is_opened_where_the_site_means_it(api: Api) -> None:
    with serving_odd() as (odd, address):
        _, path = begun(api, f"{address}start", "ilse", OLD)
        well_known = f"{address}.well-known/change-password"
        assert api.ok("POST", f"{path}/change-page") == {"address": well_known}
        odd.pages[driven_site.NOT_THERE] = (200, {}, "Welcome!")
        assert api.ok("POST", f"{path}/change-page") == {"address": f"{address}start"}
        assert odd.sent == []
