"""What is typed while a box, dialogue or view is opening goes there, or nowhere: never to a key."""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.e2e.conftest import leave, open_page
from tests.support.running import Served

VIEW = {"1": "Worklist", "2": "Logins"}
HEADING = {"1": re.compile("logins to see to"), "2": re.compile("^Logins$")}
GAPS_MS = (0, 40, 150, 300)
TYPED = "lyrenhcdw"
"""Letters that lock, copy, rotate, edit, go to a new login, show, check, delete, accept."""


@pytest.fixture(scope="module")
def page(browser_here: Browser, changed_demo: Served) -> Iterator[Page]:
    page = open_page(browser_here, changed_demo)
    yield page
    leave(page)


def go(page: Page, view: str) -> None:
    """By mouse, so that no key of the way there is held back."""
    page.get_by_role("link", name=VIEW[view]).first.click()
    expect(page.get_by_role("heading", name=HEADING[view])).to_be_visible()


def box(page: Page) -> Locator:
    return page.get_by_role("combobox", name="Find a login")


def by_chord(page: Page) -> Locator:
    page.keyboard.press("Control+k")
    return box(page)


def by_slash(page: Page) -> Locator:
    page.keyboard.press("/")
    return box(page)


def by_button(page: Page) -> Locator:
    page.get_by_role("button", name="Find a login, or do").click()
    return box(page)


def new_login(page: Page) -> Locator:
    page.keyboard.press("n")
    return page.get_by_label("Title")


def new_login_by_name(page: Page) -> Locator:
    page.keyboard.press("Control+k")
    page.keyboard.type("New login")
    page.keyboard.press("Enter")
    return page.get_by_label("Title")


WAYS = [
    ("1", by_chord),
    ("1", by_slash),
    ("1", by_button),
    ("2", by_chord),
    ("2", new_login),
    ("1", new_login_by_name),
]


@pytest.mark.parametrize(("view", "call"), WAYS)
def test_what_is_typed_after_the_call_lands_in_the_field(
    page: Page, view: str, call: Callable[[Page], Locator]
) -> None:
    for gap in GAPS_MS:
        go(page, view)
        field = call(page)
        page.wait_for_timeout(gap)
        page.keyboard.type(TYPED)
        expect(field).to_have_value(TYPED)
        page.keyboard.press("Escape")
        page.keyboard.press("Escape")
        if call in (new_login, new_login_by_name):
            page.get_by_role("button", name="Throw it away").click()
    expect(page.get_by_text("The vault is locked")).to_have_count(0)


@pytest.mark.parametrize("view", "1234567890mtva")
def test_no_key_answers_while_a_view_opens(page: Page, view: str) -> None:
    before = "2" if view != "2" else "1"
    go(page, before)
    calls: list[str] = []
    page.on("request", lambda r: calls.append(r.url) if r.method != "GET" else None)
    page.evaluate(
        """([view, typed]) => {
            const press = (key) => document.activeElement.dispatchEvent(
                new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
            press(view);
            for (const key of typed) press(key);
        }""",
        [view, TYPED],
    )
    page.wait_for_load_state("networkidle")
    acts = [url for url in calls if any(x in url for x in ("lock", "secret", "rotations"))]
    assert acts == []
    expect(page.get_by_role("dialog")).to_have_count(0)


BEGINS = {
    **{"1": "logins to see to", "2": "Logins", "3": "Generate", "4": "Rotate"},
    **{"5": "Site policies", "6": "Carry and recover", "7": "Settings and safeguards", "8": "Bin"},
    **{"9": "Measure a secret of your own", "0": "The vault's passphrase", "m": "Reuse map"},
    **{"t": "Report", "i": "Whose address is this?", "v": "Events", "a": "Accepted findings"},
}
FOCUS = """() => {
  const at = document.activeElement;
  return at.closest("main") && (at.matches("[role=grid], h1, input") ? at.nodeName : "");
}"""

THROUGH = """() => document.querySelectorAll("main input, main textarea").forEach((field) => {
  field.focus();
  field.blur();
})"""


def test_each_view_begins_with_the_focus_on_its_list_or_heading(page: Page) -> None:
    # From another view: whoever presses the link of the one that is open stays on the link.
    go(page, "1")
    go(page, "2")
    page.wait_for_function(FOCUS)
    for key, heading in BEGINS.items():
        page.keyboard.press(key)
        expect(page.get_by_role("heading", level=1)).to_contain_text(heading)
        page.wait_for_function(FOCUS)
        assert page.get_by_role("heading", level=1).count() == 1
        # What has the focus takes no key away from the view.
        if page.evaluate(FOCUS) == "INPUT":
            page.keyboard.press("Escape")
        # Who only goes through the fields has changed nothing: no question holds the next view.
        page.evaluate(THROUGH)
    page.keyboard.press("2")
    page.wait_for_function("() => document.activeElement.getAttribute('role') === 'grid'")
    page.keyboard.press("ArrowDown")
    active = page.evaluate("document.activeElement.getAttribute('aria-activedescendant')")
    assert page.locator(f"[id='{active}']").get_attribute("aria-selected") == "true"
