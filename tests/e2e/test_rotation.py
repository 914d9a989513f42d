"""Rotations beside the site itself: given up, cut short by a kill, ten at once, cut in silence."""

import re
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

import httpx
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.api.conftest import Api, make_api
from tests.conftest import PASSPHRASE, HandClock
from tests.e2e.conftest import new_page
from tests.support.running import Served, free_port, practice_sites, serving

OLD = "lantern-orchard1"
PLAIN = {
    "min_length": 6,
    "max_length": 40,
    "classes": [
        {"name": "lower", "characters": "abcdefghijkmnopqrstuvwxyz"},
        {"name": "upper", "characters": "ABCDEFGHJKLMNPQRSTUVWXYZ"},
        {"name": "digit", "characters": "23456789"},
    ],
}


@pytest.fixture(scope="module")
def sites(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The practice sites in a process of their own."""
    with practice_sites(tmp_path_factory.mktemp("sites")) as served:
        yield served


def signed_up(sites: Served, name: str, user_name: str) -> None:
    fields = {"user_name": user_name, "new_password": OLD, "again": OLD}
    url, host = f"http://127.0.0.1:{sites.sites_port}/sign-up", f"{name}.localhost"
    assert httpx.post(url, data=fields, headers={"host": host}).status_code == 303


def opens(sites: Served, name: str, user_name: str, password: str) -> bool:
    url, host = f"http://127.0.0.1:{sites.sites_port}/sign-in", f"{name}.localhost"
    fields = {"user_name": user_name, "password": password}
    return httpx.post(url, data=fields, headers={"host": host}).status_code == 303


@contextmanager
def vault_in(folder: Path) -> Iterator[Api]:
    """A vault to be filled before a server opens it."""
    clock = HandClock()
    clock.at = datetime.now(UTC)
    api = make_api(folder, clock)
    api.enter("create")
    yield api
    api.keeper.lock()


def unlocked(browser: Browser, served: Served) -> Page:
    page = new_page(browser, served)
    unlock(page)
    return page


def unlock(page: Page) -> None:
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    page.get_by_role("link", name="Logins", exact=True).wait_for()


def begin(page: Page, title: str) -> None:
    page.keyboard.press("2")
    page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()
    page.get_by_text(title).first.click()
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=title).wait_for()
    page.keyboard.press("r")
    page.get_by_text("Did the site take it?").wait_for()


def clipboard(page: Page, key: str, what: str) -> str:
    page.bring_to_front()
    page.keyboard.press(key)
    page.get_by_text(re.compile(f"^{what} put on the clipboard")).first.wait_for()
    text: str = page.evaluate("navigator.clipboard.readText()")
    return text


def changed_at_site(page: Page, site: str, old: str, new: str) -> None:
    """In a second tab, as a person does it who knows nothing of New Knot."""
    tab = page.context.new_page()
    tab.goto(f"{site}sign-in")
    tab.get_by_label("User name").fill("quist")
    tab.get_by_label("Password").fill(old)
    tab.keyboard.press("Enter")
    tab.get_by_role("heading", name="Your account").wait_for()
    tab.goto(f"{site}.well-known/change-password")
    tab.get_by_label("Current password").fill(old)
    tab.get_by_label("New password", exact=True).fill(new)
    tab.get_by_label("again").fill(new)
    tab.keyboard.press("Enter")
    tab.get_by_text("Your password has been changed.").wait_for()
    tab.close()


def test_cut_short_by_a_kill_gone_on_with_and_found_out_by_hand(
    browser_here: Browser, sites: Served, tmp_path: Path
) -> None:
    signed_up(sites, "papertape", "quist")
    site = sites.site("papertape")
    with vault_in(tmp_path) as api:
        api.add("Papertape", address=site, user_name="quist", secret={"own": OLD})
        api.ok(
            "POST", "policies", {"name": "P", "domains": ["papertape.localhost"], "policy": PLAIN}
        )
        tray = f"http://mailtray.localhost:{sites.sites_port}/mails.json"
        body = {**api.safeguards(), "mail_address": tray, "mail_used": True}
        api.ok("PUT", "safeguards", body, **api.proof())
    port = free_port()
    with serving(tmp_path, port=port) as served:
        page = unlocked(browser_here, served)
        begin(page, "Papertape")
        assert clipboard(page, "1", "Current secret of Papertape") == OLD
        new = clipboard(page, "3", "New secret of Papertape")
        changed_at_site(page, site, OLD, new)
        served.process.send_signal(signal.SIGKILL)
        served.process.wait()
    with serving(tmp_path, port=port) as served:
        page = unlocked(browser_here, served)
        page.keyboard.press("4")
        page.get_by_role("link", name="Papertape").click()
        page.get_by_role("heading", name="At the site: did it take the new secret?").wait_for()
        mails = page.get_by_role("status", name="Mails of this change")
        expect(mails).to_contain_text("“Your password was changed”")
        expect(mails).to_contain_text("fits this rotation")
        page.keyboard.press("y")
        page.get_by_role("button", name="It opens the site").first.wait_for()
        faults = page.get_by_role("region", name="Silent faults")
        faults.get_by_role("button", name="Look for them").click()
        for place in range(1, 8):
            faults.get_by_role("button", name="Copy this").click()
            page.get_by_text(f"Trial {place} at Papertape put on").first.wait_for()
            typed = page.evaluate("navigator.clipboard.readText()")
            opened = opens(sites, "papertape", "quist", typed)
            tried = faults.get_by_text("Try ").inner_text()
            name = "It opens the site" if opened else "It does not"
            faults.get_by_role("button", name=name).click()
            expect(faults.get_by_text(tried)).to_have_count(0)
            if faults.get_by_role("status").count():
                break
        expect(faults).to_contain_text("It keeps only the first 12 characters.")
        page.keyboard.press("v")
        page.get_by_text("Done.").wait_for()
        page.get_by_role("link", name="Papertape").first.click()
        expect(page.get_by_text("its site keeps only the first 12 of 20")).to_be_visible()
        page.context.close()
    assert opens(sites, "papertape", "quist", new)


def test_given_up_leaves_the_old_secret_and_keeps_the_new_one_as_never_used(
    browser_here: Browser, sites: Served, tmp_path: Path
) -> None:
    signed_up(sites, "gantryrentals", "quist")
    with vault_in(tmp_path) as api:
        address = sites.site("gantryrentals")
        api.add("Gantry", address=address, user_name="quist", secret={"own": OLD})
    with serving(tmp_path) as served:
        page = unlocked(browser_here, served)
        begin(page, "Gantry")
        new = clipboard(page, "3", "New secret of Gantry")
        page.get_by_role("button", name="Give this rotation up").click()
        page.get_by_text("Given up.").wait_for()
        page.get_by_role("link", name="Gantry").first.click()
        page.get_by_text("Reset through", exact=True).wait_for()
        page.wait_for_function("() => document.activeElement !== document.body")
        assert clipboard(page, "y", "Secret of Gantry") == OLD
        page.get_by_role("button", name="copy: the secret of").click()
        page.get_by_text("Earlier secret of Gantry put on the clipboard").first.wait_for()
        assert page.evaluate("navigator.clipboard.readText()") == new
        page.keyboard.press("s")
        page.get_by_role("heading", name="Paste the user name").wait_for()
        assert clipboard(page, "3", "Secret of Gantry") == OLD
        page.context.close()
    assert opens(sites, "gantryrentals", "quist", OLD)


def test_a_campaign_of_ten_chosen_by_site_is_driven_to_its_end(
    browser_here: Browser, sites: Served, tmp_path: Path
) -> None:
    people = [f"dancer{i}" for i in range(10)]
    with vault_in(tmp_path) as api:
        address = sites.site("gantryrentals")
        for person in people:
            signed_up(sites, "gantryrentals", person)
            more = {"address": address, "user_name": person, "driven": True}
            api.add(f"Truss {person}", secret={"own": OLD}, **more)
    with serving(tmp_path) as served:
        page = unlocked(browser_here, served)
        page.keyboard.press("4")
        page.get_by_role("button", name="New campaign").click()
        dialog = page.get_by_role("dialog", name="A new campaign")
        dialog.get_by_text("By site").click()
        dialog.get_by_role("combobox", name="By site").press("ArrowDown")
        expect(page.get_by_text("(10)").first).to_be_visible()
        page.keyboard.press("Enter")
        expect(dialog).to_contain_text("10 logins: mailboxes that can reset others come first")
        dialog.get_by_role("radio", name="By site").press("Enter")
        part = page.get_by_role("region", name="Campaign of")
        expect(part.get_by_role("heading")).to_contain_text("0 of 10")
        part.get_by_role("button", name="Let New Knot do 10 of them").click()
        expect(part.get_by_role("heading")).to_contain_text("10 of 10", timeout=180_000)
        page.context.close()
    assert not any(opens(sites, "gantryrentals", person, OLD) for person in people)


def test_a_secret_is_copied_from_the_find_box_where_the_passphrase_is_asked_first(
    browser_here: Browser, tmp_path: Path
) -> None:
    with vault_in(tmp_path) as api:
        api.add("Gantry", user_name="quist", secret={"own": OLD})
        rules = {**api.safeguards()["proof_before"], "copy": "each"}
        api.ok("PUT", "safeguards", api.safeguards() | {"proof_before": rules}, **api.proof())
    with serving(tmp_path) as served:
        page = unlocked(browser_here, served)
        page.keyboard.press("Control+k")
        page.keyboard.type("gantry")
        page.get_by_text("copies its user name").wait_for()
        for word in ("not it at all", PASSPHRASE):
            page.keyboard.press("Alt+y")
            asked = page.get_by_role("dialog").get_by_label("Vault passphrase")
            expect(asked).to_be_focused()
            page.keyboard.type(word)
            page.keyboard.press("Enter")
            if word != PASSPHRASE:
                page.get_by_role("dialog").get_by_role("alert").wait_for()
                page.keyboard.press("Escape")
                expect(page.get_by_role("combobox", name="Find a login")).to_be_focused()
        expect(page.get_by_text("Secret of Gantry").first).to_be_visible()
        assert page.evaluate("navigator.clipboard.readText()") == OLD
        expect(page.get_by_role("combobox", name="Find a login")).to_be_focused()
        page.context.close()
