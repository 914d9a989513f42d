"""The whole main job by keyboard, and with how few keys.

A chord is one key, and a text typed in a field is one; the passphrase and the picker of files are
none.
"""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from newknot.demo.world import PASSPHRASE
from tests.e2e.conftest import leave, open_page
from tests.support.running import Served


class Keys:
    """Presses keys one after another as the page is ready for them, and counts them."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.count = 0

    def press(self, *keys: str) -> None:
        """Keys or chords."""
        for key in keys:
            self.page.keyboard.press(key)
            self.count += 1

    def text(self, text: str) -> None:
        """All of a text, into the field that has the focus."""
        self.page.keyboard.type(text)
        self.count += 1

    def heading(self, name: str) -> None:
        """Waits until a view stands."""
        expect(self.page.get_by_role("heading", level=1, name=name)).to_be_visible()

    def proves(self) -> None:
        """The passphrase where it is asked, which is not counted."""
        self.page.get_by_label("Vault passphrase").fill(PASSPHRASE)
        self.page.keyboard.press("Enter")

    def login(self, name: str) -> None:
        """From anywhere to a login's sheet."""
        self.press("Control+k")
        self.text(name)
        self.press("Enter")
        self.heading(name)


def sign_up(keys: Keys, folder: Path) -> None:
    keys.press("3")
    keys.heading("Generate")
    expect(keys.page.get_by_role("button", name="Copy Y")).to_be_enabled()
    keys.press("p")
    field = keys.page.get_by_label("Title, site or user name")
    expect(field).to_be_focused()
    keys.text("Cyclorama Guild")
    keys.press("Enter")
    keys.heading("New login")
    expect(keys.page.get_by_label("Title")).to_have_value("Cyclorama Guild")
    keys.press("Enter")
    keys.heading("Cyclorama Guild")
    expect(keys.page.get_by_text("126.07 bits").first).to_be_visible()


def copied(keys: Keys, folder: Path) -> None:
    def held() -> str:
        return str(keys.page.evaluate("navigator.clipboard.readText()"))

    keys.press("Control+k")
    keys.text("Gantry Rentals")
    expect(keys.page.get_by_text("copies its user name")).to_be_visible()
    keys.press("Alt+u")
    expect(keys.page.get_by_role("status").filter(has_text="User name of Gantry")).to_be_visible()
    name = held()
    keys.press("Alt+y")
    expect(keys.page.get_by_role("status").filter(has_text="Secret of Gantry")).to_be_visible()
    assert name and held() not in ("", name)


def gravest(keys: Keys, folder: Path) -> None:
    keys.press("r")
    for key, ready in (("3", "Copy new"), ("y", "Yes"), ("v", "It opens the site")):
        expect(keys.page.get_by_role("button", name=ready).first).to_be_enabled()
        keys.press(key)
    expect(keys.page.get_by_text("Done. It is changed")).to_be_visible()


def policy(keys: Keys, folder: Path) -> None:
    keys.press("5")
    keys.heading("Site policies")
    expect(keys.page.get_by_role("row", selected=True)).to_have_count(1)
    keys.press("f")
    keys.text("gantry")
    keys.press("Enter")
    field = keys.page.get_by_label("Least length")
    expect(field).to_be_focused()
    before = int(field.input_value())
    keys.text(str(before + 1))
    keys.press("Enter")
    expect(keys.page.get_by_role("dialog")).to_have_count(0)
    expect(keys.page.get_by_role("row").nth(1)).to_contain_text(str(before + 1))


def accepted(keys: Keys, folder: Path) -> None:
    before = keys.page.get_by_role("link", name="accepted").inner_text()
    keys.press("w")
    dialogue = keys.page.get_by_role("dialog", name="Accept")
    expect(dialogue.get_by_role("radio", checked=True)).to_be_focused()
    keys.press("ArrowDown", "Enter")
    expect(dialogue).to_have_count(0)
    expect(keys.page.get_by_role("link", name="accepted")).not_to_have_text(before)


def restored(keys: Keys, folder: Path) -> None:
    keys.login("Tallow Post")
    keys.press("b")
    expect(keys.page.get_by_role("button", name="Stage it")).to_be_focused()
    keys.press("Enter")
    expect(keys.page.get_by_role("button", name="Copy new")).to_be_visible()


def sheet(keys: Keys, folder: Path) -> None:
    keys.press("6")
    keys.heading("Carry and recover")
    keys.press("w")
    expect(keys.page.get_by_role("region", name="Way back in", exact=True)).to_be_visible()
    keys.press("n")
    made = keys.page.get_by_role("dialog", name="The recovery sheet")
    again = keys.page.get_by_role("button", name="Make new ones")
    proof = keys.page.get_by_label("Vault passphrase")
    expect(made.or_(again).or_(proof)).to_be_visible()
    if again.is_visible():
        keys.press("Tab", "Enter")
        expect(made.or_(proof)).to_be_visible()
    if proof.is_visible():
        keys.proves()
    expect(made.get_by_role("listitem")).to_have_count(20)
    expect(made.get_by_role("button", name="Print it")).to_be_focused()
    # Printed it may be closed; the sheet is seen this once.
    keys.press("Enter", "Escape")
    expect(made).to_have_count(0)


def brought_in(keys: Keys, folder: Path) -> None:
    table = folder / "logins.csv"
    table.write_text("title,username,password\nFly Loft,ilse,counter-weight-58\n")
    # Listened for from before the view opens: the browser hears of a listener later than of a key.
    with keys.page.expect_file_chooser() as chooser:
        keys.press("6")
        keys.heading("Carry and recover")
        keys.press("f")
    chooser.value.set_files(table)
    expect(keys.page.get_by_role("button", name="Bring 1 login in")).to_be_focused()
    keys.press("Enter")
    expect(keys.page.get_by_text("1 login brought in")).to_be_visible()


@pytest.fixture(scope="module")
def page(browser_here: Browser, own_demo: Served) -> Iterator[Page]:
    page = open_page(browser_here, own_demo)
    yield page
    leave(page)


@pytest.mark.parametrize(
    ("job", "most"),
    [
        (sign_up, 6),
        (copied, 4),
        (gravest, 5),
        (policy, 6),
        (accepted, 4),
        (restored, 6),
        (sheet, 5),
        (brought_in, 6),
    ],
)
def test_a_job_takes_no_more_keys_than_it_may(
    page: Page, tmp_path: Path, job: Callable[[Keys, Path], None], most: int
) -> None:
    page.get_by_role("link", name="Worklist").first.click()
    expect(page.get_by_role("heading", name="to see to")).to_be_visible()
    keys = Keys(page)
    job(keys, tmp_path)
    assert keys.count <= most
    page.keyboard.press("Escape")
