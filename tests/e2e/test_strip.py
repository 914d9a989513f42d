"""The hand-over in a small window of its own: its keys, its clipboard, its dialogue."""

from playwright.sync_api import Browser, expect

from tests.e2e.conftest import leave, open_login, open_page
from tests.support.running import Served


def test_a_refusal_is_learned_from_within_the_strip(
    browser_here: Browser, changed_demo: Served
) -> None:
    page = open_page(browser_here, changed_demo)
    open_login(page, "Wren Music")
    page.keyboard.press("r")
    expect(page.get_by_role("heading", name="Copy the current secret")).to_be_visible()
    with page.context.expect_page() as opening:
        page.keyboard.press("w")
    strip = opening.value
    expect(strip.get_by_role("heading", name="Copy the current secret")).to_be_visible()
    expect(page.get_by_text("The steps are in the small window")).to_be_visible()
    strip.bring_to_front()
    strip.keyboard.press("3")
    expect(strip.get_by_text("New secret of Wren Music put on the clipboard").first).to_be_visible()
    copied = strip.evaluate("navigator.clipboard.readText()")
    expect(strip.get_by_role("button", name="No, because…")).to_be_visible()
    strip.keyboard.press("p")
    expect(strip.get_by_role("dialog")).to_contain_text("Group 1 of")
    strip.keyboard.press("Escape")
    expect(strip.get_by_role("dialog")).to_have_count(0)
    strip.keyboard.press("n")
    dialog = strip.get_by_role("dialog")
    dialog.get_by_text("too long").click()
    dialog.get_by_label("Length that it takes").fill("11")
    strip.keyboard.press("Enter")
    expect(strip.get_by_text("11 characters, ")).to_be_visible()
    expect(strip.get_by_text(copied)).to_have_count(0)
    page.bring_to_front()
    with strip.expect_event("close"):
        page.keyboard.press("w")
    expect(page.get_by_role("button", name="Beside the site")).to_be_visible()
    leave(page)


def test_signing_in_is_a_row_above_the_sheet_and_a_window_beside_the_site(
    browser_here: Browser, changed_demo: Served
) -> None:
    page = open_page(browser_here, changed_demo)
    open_login(page, "Gantry Rentals")
    page.keyboard.press("s")
    row = page.get_by_role("region", name="Sign in", exact=True)
    row.get_by_role("button", name="Copy name").wait_for()
    page.keyboard.press("2")
    expect(page.get_by_role("status").filter(has_text="User name of Gantry")).to_be_visible()
    expect(page.locator(".step.now")).to_contain_text("Paste the secret")
    expect(page.get_by_text("Reset through", exact=True)).to_be_visible()
    with page.context.expect_page() as opening:
        page.keyboard.press("w")
    beside = opening.value
    expect(page.get_by_role("heading", level=1)).to_have_count(1)
    beside.bring_to_front()
    beside.keyboard.press("3")
    expect(
        beside.get_by_text("Secret of Gantry Rentals put on the clipboard").first
    ).to_be_visible()
    assert beside.evaluate("navigator.clipboard.readText()") != "ilse.quist"
    page.bring_to_front()
    with beside.expect_event("close"):
        page.keyboard.press("Escape")
    expect(row).to_have_count(0)
    assert page.url.rpartition("/")[2] != "sign-in"
