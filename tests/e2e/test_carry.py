"""The vault carried to another device and back, and opened when its passphrase is forgotten."""

import re
from pathlib import Path

from playwright.sync_api import Browser, Page, expect

from newknot.demo.world import PASSPHRASE as DEMO_PASSPHRASE
from tests.conftest import PASSPHRASE
from tests.e2e.conftest import open_page
from tests.e2e.test_rotation import unlocked, vault_in
from tests.support.running import Served, serving

SEAL, FRESH = "orchard velvet lantern quarry", "quarry pepper saddle window"


def part(page: Page, name: str) -> None:
    page.keyboard.press("6")
    page.get_by_role("heading", name="Carry and recover").wait_for()
    page.get_by_role("radiogroup", name="Part").get_by_text(name, exact=True).click()


def prove(page: Page, passphrase: str) -> None:
    page.get_by_role("dialog").get_by_label("Vault passphrase").fill(passphrase)
    page.keyboard.press("Enter")


def sealed(page: Page, folder: Path, passphrase: str) -> Path:
    part(page, "Take out")
    page.get_by_label("Passphrase of the bundle").fill(SEAL)
    page.get_by_label("The same again").fill(SEAL)
    with page.expect_download() as download:
        page.get_by_role("button", name="Seal and save it…").click()
        prove(page, passphrase)
    path = folder / f"{len(list(folder.iterdir()))}.jwe"
    download.value.save_as(path)
    assert b"limelight" not in path.read_bytes()
    return path


def merged(page: Page, bundle: Path) -> None:
    part(page, "Bring in")
    page.get_by_label("File to bring in").set_input_files(bundle)
    page.get_by_label("Passphrase of the bundle").fill(SEAL)
    page.get_by_role("button", name="Open it").click()
    page.get_by_role("button", name="Merge them").click()
    page.get_by_text("Merged:").wait_for()


def retitled(page: Page, title: str, into: str) -> None:
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill(title)
    page.get_by_role("option", name=title).first.wait_for()
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=title).wait_for()
    page.keyboard.press("e")
    page.get_by_label("Title", exact=True).fill(into)
    page.get_by_role("button", name="Save").click()
    page.get_by_role("heading", level=1, name=into).wait_for()


def test_to_a_second_vault_and_back_with_what_changed_on_both(
    browser_here: Browser, own_demo: Served, tmp_path: Path
) -> None:
    files = tmp_path / "files"
    files.mkdir()
    page = open_page(browser_here, own_demo)
    bundle = sealed(page, files, DEMO_PASSPHRASE)
    with vault_in(tmp_path / "second"):
        pass
    with serving(tmp_path / "second") as served:
        there = unlocked(browser_here, served)
        merged(there, bundle)
        retitled(there, "Attic Auctions", "Attic Auctions tickets")
        back = sealed(there, files, PASSPHRASE)
        there.context.close()
    retitled(page, "Wren Music", "Wren Music lessons")
    merged(page, back)
    for title in ("Attic Auctions tickets", "Wren Music lessons"):
        page.keyboard.press("Control+k")
        page.get_by_role("combobox", name="Find a login").fill(title)
        expect(page.get_by_role("option", name=title)).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_role("dialog").wait_for(state="hidden")
    retitled(page, "Attic Auctions tickets", "Attic Auctions")
    retitled(page, "Wren Music lessons", "Wren Music")
    page.context.close()


def test_a_forgotten_passphrase_and_two_of_three_sheets(
    browser_here: Browser, tmp_path: Path
) -> None:
    with vault_in(tmp_path) as api:
        api.add("Gantry", secret={"own": "rope-and-plank"})
    with serving(tmp_path) as served:
        page = unlocked(browser_here, served)
        part(page, "Way back in")
        page.get_by_role("button", name="Split among people…").click()
        prove(page, PASSPHRASE)
        sheets: list[str] = []
        dialog = page.get_by_role("dialog", name="Sheet")
        for i in range(3):
            expect(page.get_by_text(f"Sheet {i + 1} of 3")).to_be_visible()
            sheets.append(" ".join(dialog.locator("ol li").all_inner_texts()))
            if i < 2:
                dialog.get_by_role("button", name="The next").click()
        expect(dialog.get_by_role("button", name="They are on paper: close")).to_be_disabled()
        for field in dialog.locator("fieldset label").all():
            sheet, word = (int(n) for n in re.findall(r"\d+", field.inner_text()))
            field.locator("input").fill(sheets[sheet - 1].split()[word - 1])
        dialog.get_by_role("button", name="They are on paper: close").click()
        page.get_by_role("button", name="Practise…").click()
        page.get_by_label("Words of sheet 1").fill(sheets[2])
        page.get_by_role("button", name="Another sheet").click()
        page.get_by_label("Words of sheet 2").fill(sheets[0])
        page.get_by_role("button", name="Try them").click()
        expect(page.get_by_text("These sheets open the vault.")).to_be_visible()
        page.get_by_role("button", name="Good").click()
        expect(page.get_by_text("last practised today")).to_be_visible()

        page.keyboard.press("l")
        page.get_by_role("button", name="The passphrase is forgotten").click()
        page.get_by_label("Words of sheet 1").fill(sheets[1])
        expect(page.get_by_text("1 sheet more to go")).to_be_visible()
        page.get_by_role("button", name="Another sheet").click()
        words = sheets[2].split()
        wrong = " ".join((*words[:4], "limelight", *words[5:]))
        page.get_by_label("Words of sheet 2").fill(wrong)
        expect(page.get_by_text("has a word that no share has: the 5th")).to_be_visible()
        page.get_by_label("Words of sheet 2").fill(sheets[2])
        page.get_by_label("New vault passphrase").fill(FRESH)
        page.get_by_label("The new one again").fill(FRESH)
        page.get_by_role("button", name="Open it with the sheets").click()
        page.get_by_role("link", name="Logins", exact=True).wait_for()
        page.keyboard.press("l")
        page.get_by_label("Vault passphrase").fill(FRESH)
        page.keyboard.press("Enter")
        page.get_by_role("link", name="Logins", exact=True).wait_for()
        page.context.close()
