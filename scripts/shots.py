"""Makes the pictures of docs/screenshots from the demo data, at 1280x800.

shots.py [--only NAME] [--dark] [--into FOLDER]
"""

import argparse
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

sys.path.insert(0, str(Path(__file__).parents[1]))
from tests.support.running import ROOT, Served, demo, launch, serving

from newknot.demo.world import PASSPHRASE

SIZE = {"width": 1280, "height": 800}


def unlock(page: Page, served: Served) -> None:
    """From the locked page to the worklist."""
    page.goto(served.url)
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="to see to").wait_for()


def open_login(page: Page, title: str) -> None:
    """A login's sheet, by the command box."""
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill(title)
    page.get_by_role("option", name=title).first.wait_for()
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=title).wait_for()


def worklist(page: Page) -> None:
    page.keyboard.press("1")
    page.get_by_role("heading", name="to see to").wait_for()


def reuse_map(page: Page) -> None:
    page.keyboard.press("m")
    page.get_by_role("button", name="Tallow Post", exact=True).click()
    page.get_by_text("Slate Payroll: reset").wait_for()


def logins(page: Page) -> None:
    page.keyboard.press("2")
    page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()


def login(page: Page) -> None:
    open_login(page, "Tallow Post")
    page.keyboard.press("h")
    page.get_by_role("button", name="Hide H").first.wait_for()


def generate(page: Page) -> None:
    page.keyboard.press("3")
    page.get_by_text("equally likely").wait_for()
    for _ in range(3):
        page.keyboard.press("Space")
        page.wait_for_timeout(200)
    page.get_by_role("button", name="take the words").wait_for()


def generate_german(page: Page) -> None:
    page.keyboard.press("3")
    page.get_by_text("Sentence", exact=True).click()
    page.get_by_role("combobox", name="Language of the sentence").click()
    page.get_by_title("German").click()
    page.get_by_text("sentence of this form").wait_for()
    page.get_by_role("button", name="take the sentence").wait_for()


def rotate(page: Page) -> None:
    page.keyboard.press("4")
    page.get_by_role("heading", name="Under way").wait_for()


def hand_over(page: Page) -> None:
    open_login(page, "Gantry Rentals")
    page.keyboard.press("r")
    page.get_by_text("Did the site take it?").wait_for()
    page.keyboard.press("1")
    page.get_by_text("put on the clipboard").first.wait_for()
    page.keyboard.press("3")
    page.get_by_role("button", name="Yes, it is changed").wait_for()


def strip(page: Page) -> Page:
    open_login(page, "Moth Lane Lamps")
    page.keyboard.press("r")
    page.get_by_role("button", name="Beside the site").wait_for()
    with page.context.expect_page() as opening:
        page.keyboard.press("w")
    beside = opening.value
    beside.set_viewport_size({"width": 400, "height": 700})
    beside.keyboard.press("1")
    beside.get_by_text("put on the clipboard").first.wait_for()
    return beside


def report(page: Page) -> None:
    page.keyboard.press("t")
    page.get_by_role("heading", name="Joost").wait_for()


def policies(page: Page) -> None:
    page.keyboard.press("5")
    page.get_by_text("Northlight Playhouse").first.wait_for()


def policy_form(page: Page) -> None:
    policies(page)
    page.get_by_role("button", name="New policy").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill("Reed Organ Society")
    dialog.get_by_label("Sites (domains, with commas)").fill("reedorgan.example")
    said = "8 to 16 letters and digits, at least 2 digits, nothing a friend could guess"
    dialog.get_by_label("What the site says").fill(said)
    dialog.get_by_role("button", name="Read").click()
    dialog.get_by_text("Not sure of").wait_for()


def carry(page: Page) -> None:
    page.keyboard.press("6")
    rows = (
        "Site,Login,Password,Link,Colour\nReed Organ Society,ilse,a1b2c3d4,reedorgan.example,red\n"
    )
    rows += "Fernbank Credit Union,i.quist,limelight8,fernbank.example,\nbroken,row\n,,,,\n,x,y,,\n"
    file = {"name": "from-the-old-book.csv", "mimeType": "text/csv", "buffer": rows.encode()}
    page.get_by_label("File to bring in").set_input_files(file)  # type: ignore[arg-type]
    page.get_by_role("button", name="Bring 1 login in").wait_for()
    page.get_by_role("combobox", name="What becomes of Fernbank").press("Enter")
    page.locator(".ant-select-item-option", has_text="take from it").click()
    page.get_by_role("button", name="Bring 1 login in, take from 1 row").wait_for()


def part(page: Page, name: str) -> None:
    page.keyboard.press("6")
    page.get_by_role("radiogroup", name="Part").get_by_text(name, exact=True).click()


def show_that_it_is_you(page: Page) -> None:
    page.get_by_role("dialog").get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")


def back_up(page: Page) -> None:
    part(page, "Back up")
    page.get_by_role("button", name="Make a sealed backup").click()
    show_that_it_is_you(page)
    page.get_by_text("Written, and read through").wait_for()


def way_back_in(page: Page) -> None:
    part(page, "Way back in")
    page.get_by_role("button", name="Split among people").click()
    show_that_it_is_you(page)
    page.get_by_role("dialog", name="Sheet 1 of 3").wait_for()


def safeguards(page: Page) -> None:
    page.keyboard.press("7")
    page.get_by_role("heading", name="Settings and safeguards").wait_for()
    page.get_by_text("none damaged").wait_for()


def measure(page: Page) -> None:
    page.keyboard.press("9")
    page.get_by_role("button", name="Compare with another").click()
    first, second = (page.get_by_role("textbox", name=f"{n} secret") for n in ("First", "Second"))
    first.fill("Lisbon47!")
    second.fill("velvet orchard lantern drum")
    for _ in range(2):
        page.get_by_role("button", name="Show what is typed").first.click()
    page.get_by_text("is better").wait_for()


def passphrase(page: Page) -> None:
    page.keyboard.press("0")
    page.get_by_text("Compared while you type").wait_for()
    page.get_by_label("New passphrase", exact=True).fill("gravel oven mitten copper")
    page.get_by_role("button", name="Show what is typed").nth(1).click()
    page.get_by_text("list word").or_(page.get_by_text("word of a list")).first.wait_for()


VIEWS: dict[str, Callable[[Page], Page | None]] = {
    "worklist": worklist,
    "reuse-map": reuse_map,
    "logins": logins,
    "login": login,
    "generate": generate,
    "generate-german": generate_german,
    "rotate": rotate,
    "hand-over": hand_over,
    "strip": strip,
    "report": report,
    "site-policies": policies,
    "policy-form": policy_form,
    "bring-in": carry,
    "back-up": back_up,
    "way-back-in": way_back_in,
    "safeguards": safeguards,
    "measure": measure,
    "passphrase": passphrase,
}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--only", action="append")
    parser.add_argument("--dark", action="store_true")
    parser.add_argument("--into", type=Path, default=ROOT / "docs" / "screenshots")
    arguments = parser.parse_args()
    arguments.into.mkdir(parents=True, exist_ok=True)
    wanted = arguments.only or ["create", *VIEWS]
    scheme = "dark" if arguments.dark else "light"
    with sync_playwright() as playwright, tempfile.TemporaryDirectory() as folder:
        browser = launch(playwright)
        context = browser.new_context(viewport=SIZE, color_scheme=scheme)  # type: ignore[arg-type]

        def keep(page: Page, name: str) -> None:
            page.wait_for_timeout(250)
            page.screenshot(path=arguments.into / f"{name}.png")
            print(name, flush=True)

        if "create" in wanted:
            with serving(Path(folder) / "own") as served:
                page = context.new_page()
                page.goto(served.url)
                page.get_by_text("equally likely").wait_for()
                keep(page, "create-vault")
        with demo(Path(folder) / "demo") as served:
            context.grant_permissions(["clipboard-read", "clipboard-write"], origin=served.url)
            page = context.new_page()
            page.on("console", lambda message: print("console:", message.text))
            unlock(page, served)
            for name, visit in VIEWS.items():
                if name in wanted:
                    page.goto(served.url)
                    page.get_by_role("heading", name="to see to").wait_for()
                    keep(visit(page) or page, name)
        browser.close()


if __name__ == "__main__":
    main()
