"""After a lock nothing of the vault is shown, by whatever way one comes back."""

import sqlite3
from pathlib import Path

from playwright.sync_api import Browser, Playwright, expect

from newknot.demo.world import PASSPHRASE
from tests.conftest import PASSPHRASE as OWN
from tests.conftest import new_vault
from tests.e2e.conftest import open_page
from tests.support.running import Served, launch, serving


def test_a_lock_in_one_window_is_a_lock_in_all(browser_here: Browser, demo_here: Served) -> None:
    first, second = (open_page(browser_here, demo_here) for _ in range(2))
    first.keyboard.press("l")
    expect(first.get_by_text("The vault is locked")).to_be_visible()
    second.keyboard.press("2")
    expect(second.get_by_text("The vault is locked")).to_be_visible()
    expect(second.get_by_text("Gantry Rentals")).to_have_count(0)
    for page in (first, second):
        page.context.close()


def test_the_back_button_after_a_lock_shows_the_locked_page(
    chromium: Playwright, demo_here: Served
) -> None:
    browser = launch(chromium, ignore_default_args=["--disable-back-forward-cache"])
    page = open_page(browser, demo_here)
    other = page.context.new_page()
    page.goto(demo_here.site("gantryrentals"))
    other.goto(demo_here.url)
    other.get_by_label("Vault passphrase").fill(PASSPHRASE)
    other.keyboard.press("Enter")
    other.get_by_role("heading", name="to do").wait_for()
    other.keyboard.press("l")
    expect(other.get_by_text("The vault is locked")).to_be_visible()
    page.go_back()
    expect(page.get_by_text("The vault is locked")).to_be_visible()
    expect(page.get_by_text("Fernbank")).to_have_count(0)
    browser.close()


def test_wrong_passphrase_and_damaged_file_have_one_clear_answer_each(
    browser_here: Browser, tmp_path: Path
) -> None:
    new_vault(tmp_path).close()
    with serving(tmp_path) as served:
        page = browser_here.new_page()
        page.goto(served.url)
        page.get_by_label("Vault passphrase").fill("something else")
        page.keyboard.press("Enter")
        expect(
            page.get_by_text("That is not the vault's passphrase. Nothing was changed.")
        ).to_be_visible()
        connection = sqlite3.connect(tmp_path / "own.vault")
        connection.execute("UPDATE head SET sealed = randomblob(200)")
        connection.commit()
        connection.close()
        page.get_by_label("Vault passphrase").fill(OWN)
        page.keyboard.press("Enter")
        expect(page.get_by_text("The vault file is damaged: its head.")).to_be_visible()
        page.close()
