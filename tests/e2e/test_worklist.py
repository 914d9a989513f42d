"""The worklist in the browser: a finding accepted by keys, and taken back; what falls with what."""

import re

from playwright.sync_api import Browser, expect

from newknot.demo.world import PASSPHRASE
from tests.e2e.conftest import leave, open_page
from tests.support.running import Served


def test_a_finding_is_accepted_by_keys_and_taken_back(
    browser_here: Browser, own_demo: Served
) -> None:
    page = open_page(browser_here, own_demo)
    to_do = page.get_by_role("heading", name="logins to see to")
    before = int(to_do.inner_text().split()[0])
    first = page.get_by_role("row").first
    expect(first).to_contain_text("Fernbank Credit Union")
    expect(first).to_contain_text("would fall with it")
    expect(first.get_by_role("button", name="Accept breached")).to_be_visible()
    # One that has nothing else is gone once that is accepted.
    page.get_by_role("radio", name="Like the passphrase").click()
    expect(first).to_contain_text("Old Abbey practice rooms")
    page.keyboard.press("w")
    dialog = page.get_by_role("dialog")
    dialog.get_by_text("Not mine: someone else decides").click()
    dialog.get_by_label("Note of your own").fill("asked the branch")
    dialog.get_by_role("button", name="Accept it").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("heading", name=f"{before - 1} logins to see to")).to_be_visible()
    page.get_by_text("settled today").click()
    expect(page.get_by_role("link", name="Old Abbey practice rooms")).to_be_visible()
    expect(page.get_by_role("link", name="3 findings accepted")).to_be_visible()
    page.keyboard.press("a")
    row = page.get_by_role("row").filter(has_text="asked the branch")
    expect(row).to_contain_text("Not mine")
    row.get_by_role("checkbox").check()
    page.get_by_role("button", name="Take back 1 finding").click()
    expect(page.get_by_role("heading", name="Earlier ones")).to_be_visible()
    page.keyboard.press("1")
    expect(page.get_by_role("heading", name=f"{before} logins to see to")).to_be_visible()
    leave(page)


def test_the_reuse_map_and_its_table_say_the_same(browser_here: Browser, own_demo: Served) -> None:
    page = open_page(browser_here, own_demo)
    page.keyboard.press("m")
    table = page.get_by_role("table")
    table.get_by_role("button", name="Tallow Post", exact=True).click()
    expect(page.get_by_text("Slate Payroll: reset through it")).to_be_visible()
    fall = page.get_by_role("listitem").count()
    expect(table.get_by_role("row").filter(has_text="Tallow Post ilse.quist")).to_contain_text(
        f"{fall} more"
    )
    assert page.locator(".knot[data-falls]").count() == fall
    page.get_by_role("link", name="Tallow Post", exact=True).click()
    expect(page.get_by_text("If it falls, so do")).to_be_visible()
    leave(page)


def test_notices_come_in_once_they_are_switched_on(browser_here: Browser, own_demo: Served) -> None:
    page = open_page(browser_here, own_demo)
    expect(page.get_by_role("radio", name="Breach notice")).to_have_count(0)
    page.keyboard.press("7")
    page.get_by_label("Fetch breach notices").click()
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    expect(page.get_by_text("not saved yet")).to_have_count(0)
    page.get_by_role("link", name="Worklist").first.click()
    page.get_by_role("radio", name="Breach notice").click()
    rows = page.get_by_role("row")
    expect(rows.first).to_contain_text("harrowdimmers.example says that on")
    expect(rows).to_have_count(2)
    leave(page)


def test_the_report_is_looked_at_and_saved(browser_here: Browser, own_demo: Served) -> None:
    page = open_page(browser_here, own_demo)
    page.keyboard.press("t")
    page.get_by_label("by kind of finding").check()
    expect(page.get_by_role("heading", name="Breached")).to_be_visible()
    expect(page.get_by_text("i.quist")).to_have_count(0)
    page.get_by_label("with user names").check()
    expect(page.get_by_text("i.quist").first).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="Save as a table (CSV)").click()
        page.get_by_label("Vault passphrase").fill(PASSPHRASE)
        page.keyboard.press("Enter")
    text = download.value.path().read_text("utf-8")
    assert text.startswith("Kind,Login,User name,Address,Finding,Evidence,What to do")
    assert "limelight7" not in text and "Fernbank Credit Union" in text
    leave(page)


def test_a_campaign_is_planned_from_a_kind_and_gone_on_with(
    browser_here: Browser, own_demo: Served
) -> None:
    page = open_page(browser_here, own_demo)
    page.get_by_role("radio", name="Overdue").click()
    expect(page.get_by_role("button", name="as a campaign")).to_have_count(0)
    page.get_by_role("radio", name="Reused").click()
    page.get_by_role("button", name="Rotate these 5 logins as a campaign").click()
    part = page.get_by_role("region", name="Campaign of")
    expect(part.get_by_role("heading")).to_contain_text("0 of 5")
    part.get_by_role("button", name="Next: Tallow Post").click()
    expect(page.get_by_role("heading", level=1, name="Tallow Post")).to_be_visible()
    page.wait_for_load_state("networkidle")
    page.keyboard.press("4")
    expect(page.get_by_role("heading", level=1, name="Rotate")).to_be_visible()
    expect(part.get_by_role("button", name="Go on with Tallow Post")).to_be_visible()
    part.get_by_role("button", name="Let it go").click()
    expect(part).to_have_count(0)
    leave(page)


def test_what_a_row_needs_is_one_key_away(browser_here: Browser, demo_here: Served) -> None:
    page = open_page(browser_here, demo_here)
    facets = page.get_by_role("radiogroup", name="Which logins").get_by_role("radio")
    facets.first.focus()
    for key in 3 * ("ArrowDown",):
        page.keyboard.press(key)
    expect(page).to_have_url(re.compile(r"\?facet=second_factor$"))
    # One stop of the tab key, and arrows within.
    assert facets.evaluate_all("all => all.filter(one => one.tabIndex === 0).length") == 1
    row = page.get_by_role("row", selected=True)
    row.get_by_role("button", name="Set up its codes").click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Codes of")
    # It begins in its field, and gives the focus back.
    page.wait_for_function("() => document.activeElement.closest('[role=dialog]')")
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    page.wait_for_function("() => document.activeElement !== document.body")
    page.keyboard.press("1")
    page.get_by_role("radio", name="Correct the address 2").click()
    expect(page.get_by_role("grid")).to_have_attribute("aria-rowcount", "2")
    page.keyboard.press("End")
    title = page.get_by_role("row", selected=True).locator(".name").inner_text()
    page.keyboard.press("2")
    page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()
    page.go_back()
    # View, facet and row are as they were.
    expect(page.get_by_role("radio", name="Correct the address 2")).to_be_checked()
    expect(page.get_by_role("row", selected=True)).to_contain_text(title)
    leave(page)
