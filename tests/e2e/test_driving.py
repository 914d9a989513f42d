"""New Knot changes a secret at a practice site by itself, and finds that the site cuts it."""

import re

from playwright.sync_api import Browser, expect

from tests.e2e.conftest import open_page
from tests.support.running import Served


def test_driven_at_a_site_that_cuts_in_silence(browser_here: Browser, changed_demo: Served) -> None:
    page = open_page(browser_here, changed_demo)
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill("Papertape")
    page.get_by_role("option", name="Papertape Licensing").first.wait_for()
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Papertape Licensing").wait_for()
    page.keyboard.press("r")
    page.get_by_role("link", name="switch that on for this login").click()
    page.get_by_label("New Knot may fill the forms of this site").check()
    page.get_by_role("button", name="Save").click()
    page.get_by_role("button", name="Go on rotating").wait_for()
    page.keyboard.press("r")
    expect(page.get_by_text("sign in as quist with the current secret")).to_be_visible()
    page.keyboard.press("g")
    expect(page.get_by_text("Done.")).to_be_visible(timeout=20_000)
    expect(page.get_by_text("signed in afresh with the new secret")).to_be_visible()
    page.get_by_role("button", name="Look for silent faults").click()
    expect(page.get_by_text("It keeps only the first 12 characters.")).to_be_visible(timeout=20_000)
    page.keyboard.press("5")
    row = page.get_by_role("row", name=re.compile("Papertape Licensing"))
    expect(row).to_contain_text("only the first 12 count")
