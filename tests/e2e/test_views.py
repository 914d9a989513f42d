"""Every view of the demo: no serious finding of an audit, no refused style, nothing outside."""

from collections.abc import Iterator
from pathlib import Path
from typing import Literal

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import leave, open_login, open_page, prove, walk
from tests.support.running import ROOT, Served
from tests.support.vectors import examples

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
VIEWS: list[tuple[str, str]] = examples("views.json")


def test_no_view_has_a_serious_or_moderate_finding(
    browser_here: Browser, demo_here: Served
) -> None:
    page = open_page(browser_here, demo_here)
    said: list[str] = []
    outside: list[str] = []
    page.on("console", lambda m: said.append(m.text) if m.type in ("error", "warning") else None)
    page.on("request", lambda r: outside.append(r.url) if "//127.0.0.1" not in r.url else None)
    serious: list[str] = []
    moving: list[str] = []

    def audit(where: str) -> None:
        moving.extend([where] * page.evaluate("document.getAnimations().length"))
        look(where, "")
        # In dark only what the scheme changes is asked again.
        in_scheme("dark")
        look(f"{where}, dark", ", runOnly: ['color-contrast', 'link-in-text-block']")
        in_scheme("light")

    def in_scheme(scheme: Literal["light", "dark"]) -> None:
        page.emulate_media(color_scheme=scheme)
        page.wait_for_function("s => document.documentElement.dataset.theme === s", arg=scheme)

    def look(where: str, only: str) -> None:
        found = page.evaluate(
            f"axe.run(document, {{resultTypes: ['violations']{only}}})"
            ".then(r => r.violations"
            ".filter(v => ['moderate', 'serious', 'critical'].includes(v.impact))"
            ".map(v => v.id + ' ' + v.nodes.map(n => n.target.join(' ')).slice(0, 3).join(', ')))"
        )
        serious.extend(f"{where}: {one}" for one in found)

    page.reload()
    page.evaluate(AXE)
    for path, heading in VIEWS:
        walk(page, path)
        page.get_by_role("heading", name=heading).first.wait_for()
        audit(path)
    page.keyboard.press("3")
    page.get_by_text("equally likely").wait_for()
    audit("generate")
    page.get_by_text("Words", exact=True).click()
    page.get_by_text("such words").wait_for()
    audit("words")
    page.get_by_role("button", name="take the words").wait_for()
    page.get_by_role("radiogroup", name="made of").get_by_text("From a line").click()
    page.get_by_role("button", name="Take its first letters").wait_for()
    audit("from a line, side by side")
    page.keyboard.press("9")
    page.get_by_role("button", name="Compare with another").click()
    page.get_by_role("textbox", name="First secret").fill("Lisbon47!")
    page.get_by_role("textbox", name="Second secret").fill("velvet orchard lantern")
    page.get_by_role("button", name="Show what is typed").first.click()
    page.get_by_text("is better").wait_for()
    audit("measure")
    page.keyboard.press("Escape")
    walk(page, "/passphrase")
    page.get_by_role("button", name="Use these words").click()
    page.get_by_text("Good: nothing").wait_for()
    audit("passphrase")
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill("gantry")
    page.get_by_role("option", name="Gantry Rentals").wait_for()
    audit("command box")
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name="Gantry Rentals").wait_for()
    page.keyboard.press("h")
    page.get_by_role("button", name="Hide H").first.wait_for()
    page.get_by_role("button", name="compare their worth").click()
    page.get_by_role("button", name="without their worth").wait_for()
    audit("login")
    for name in ("set up", "backup codes"):
        page.get_by_role("button", name=name).click()
        page.get_by_role("dialog").get_by_role("button").nth(1).wait_for()
        audit(name)
        page.keyboard.press("Escape")
        page.get_by_role("dialog").wait_for(state="hidden")
    page.keyboard.press("s")
    page.get_by_text("Paste the user name").wait_for()
    audit("sign-in")
    page.keyboard.press("Escape")
    page.get_by_role("region", name="Sign in").wait_for(state="hidden")
    page.keyboard.press("4")
    page.get_by_role("button", name="New campaign").click()
    page.get_by_role("dialog").get_by_text("By hand").click()
    page.get_by_role("group", name="Logins").wait_for()
    audit("campaign")
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    page.get_by_role("dialog").wait_for()
    audit("keys")
    page.context.close()
    assert "\n".join(serious) == "" and moving == []
    # What the router says of places that it was not asked for is this test's own doing.
    assert [one for one in said if "on a POP navigation" not in one] == []
    assert [url for url in outside if not url.startswith(("data:", "blob:"))] == []


def test_find_open_and_show_by_keys_alone_and_nothing_in_the_address(
    browser_here: Browser, demo_here: Served
) -> None:
    page = open_page(browser_here, demo_here)
    page.keyboard.press("2")
    page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()
    page.keyboard.press("f")
    page.keyboard.type("fernbank")
    expect(page.get_by_text("2 of 66 logins")).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name="Fernbank savings").wait_for()
    page.keyboard.press("h")
    page.get_by_role("button", name="Hide H").wait_for()
    page.keyboard.press("u")
    expect(
        page.get_by_text("User name of Fernbank savings put on the clipboard").first
    ).to_be_visible()
    assert page.evaluate("navigator.clipboard.readText()") == "i.quist.2"
    assert "ernbank" not in page.url and page.title() == "A login · New Knot"
    assert "ernbank" not in page.evaluate("JSON.stringify(history.state) + document.cookie")
    assert page.evaluate("Object.keys(sessionStorage).join()") == "newknot.session"
    assert page.evaluate("localStorage.length + document.cookie.length") == 0
    leave(page)


def test_delete_asks_and_needs_proof_and_the_bin_gives_back(
    browser_here: Browser, demo_here: Served
) -> None:
    page = open_page(browser_here, demo_here)
    open_login(page, "Tide Tables")
    page.keyboard.press("Delete")
    page.get_by_role("button", name="To the bin").click()
    dialog = page.get_by_role("dialog", name="Show that it is you")
    dialog.get_by_label("Vault passphrase").fill("not this one")
    page.keyboard.press("Enter")
    expect(dialog.get_by_text("That is not the vault's passphrase")).to_be_visible()
    prove(page)
    expect(page.get_by_text("of 65 logins")).to_be_visible()
    page.keyboard.press("8")
    page.get_by_role("button", name="Restore Tide Tables").click()
    expect(page.get_by_text("The bin is empty")).to_be_visible()
    leave(page)


@pytest.fixture(scope="module")
def logins_by_a_clock(browser_here: Browser, demo_here: Served) -> Iterator[Page]:
    """The list of logins, on a page whose time is set by the test."""
    page = open_page(browser_here, demo_here)
    page.clock.install()
    page.reload()
    page.get_by_role("heading", name="to see to").wait_for()
    page.keyboard.press("2")
    page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()
    page.get_by_role("row").first.wait_for()
    yield page
    page.context.close()


def test_the_clipboard_is_emptied_when_due_or_when_the_window_is_in_front_again(
    logins_by_a_clock: Page,
) -> None:
    page = logins_by_a_clock
    for in_front in (True, False):
        page.keyboard.press("y")
        expect(page.get_by_text("emptied in 30 s").first).to_be_visible()
        assert len(page.evaluate("navigator.clipboard.readText()")) == 20
        if not in_front:
            page.evaluate("document.hasFocus = () => false")
        page.clock.run_for(31_000)
        if not in_front:
            expect(page.get_by_text("as soon as this window is in front").first).to_be_visible()
            page.evaluate(
                "document.hasFocus = () => true; window.dispatchEvent(new Event('focus'))"
            )
            page.clock.run_for(600)
        expect(page.get_by_text("it has been emptied").first).to_be_visible()
        assert page.evaluate("navigator.clipboard.readText()") == ""


def test_what_was_copied_elsewhere_since_is_not_destroyed(
    logins_by_a_clock: Page,
) -> None:
    page = logins_by_a_clock
    page.keyboard.press("y")
    expect(page.get_by_text("emptied in 30 s").first).to_be_visible()
    page.evaluate("navigator.clipboard.writeText('a cue sheet')")
    page.clock.run_for(31_000)
    expect(page.get_by_text("something else was copied").first).to_be_visible()
    assert page.evaluate("navigator.clipboard.readText()") == "a cue sheet"


def test_a_file_is_brought_in_and_the_clear_file_is_named(
    browser_here: Browser, demo_here: Served, tmp_path: Path
) -> None:
    file = tmp_path / "old-book.csv"
    file.write_text(
        "Where,Who,Password,Link\nReed Organ Society,ilse,a1b2c3d4,\nbroken,row\n"
        "Fernbank Credit Union,i.quist,limelight8,fernbank.example\n"
    )
    page = open_page(browser_here, demo_here)
    page.keyboard.press("6")
    page.get_by_label("File to bring in").set_input_files(file)
    expect(page.get_by_text("2 cells where the first row has 4")).to_be_visible()
    for column, target in (("Where", "title"), ("Who", "user name")):
        page.get_by_label(f"What {column} is").click()
        page.keyboard.type(target)
        page.keyboard.press("Enter")
    choice = page.get_by_role("combobox", name="What becomes of Fernbank Credit Union of line 4")
    choice.focus()
    for key in ("Enter", "ArrowDown", "ArrowDown", "Enter"):
        page.keyboard.press(key)
    page.get_by_role("button", name="Bring 1 login in, take from 1 row").click()
    expect(page.get_by_text("1 login brought in, 1 login took from a row.")).to_be_visible()
    expect(page.get_by_role("region", name="Left out", exact=True)).to_contain_text("2 cells where")
    expect(page.get_by_text("old-book.csv")).to_be_visible()
    expect(page.get_by_text("delete it for good")).to_be_visible()
    page.get_by_role("button", name="Undo it").click()
    expect(page.get_by_text("1 login as before again")).to_be_visible()
    leave(page)
