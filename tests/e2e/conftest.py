"""A browser for each test, and one demo for those that only look."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, expect, sync_playwright

from newknot.demo.world import PASSPHRASE
from tests.support.running import Served, demo, launch

# The machine may be busy: a slow answer is not a wrong one.
expect.set_options(timeout=30_000)
BUSY_MS = 90_000

VIEWPORT = {"width": 1280, "height": 800}


@pytest.fixture(scope="session")
def chromium() -> Iterator[Playwright]:
    """The driver."""
    with sync_playwright() as playwright:
        yield playwright


@pytest.fixture(scope="session")
def browser_here(chromium: Playwright) -> Iterator[Browser]:
    """One Chromium for tests that leave nothing behind."""
    browser = launch(chromium, briefly=True)
    yield browser
    browser.close()


@pytest.fixture(scope="session")
def demo_here(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The demo world."""
    folder: Path = tmp_path_factory.mktemp("demo")
    with demo(folder) as served:
        yield served


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A demo that the tests of a file may change: what they leave is seen by those after them."""
    with demo(tmp_path_factory.mktemp("changing")) as served:
        yield served


def open_page(
    browser: Browser, served: Served, *, scheme: str = "light", passphrase: str = PASSPHRASE
) -> Page:
    """An unlocked page, by the demo's passphrase or another, in a context of its own."""
    context: BrowserContext = browser.new_context(
        viewport=VIEWPORT,  # type: ignore[arg-type]
        color_scheme=scheme,  # type: ignore[arg-type]
        # As whoever asks for less motion sees it.
        reduced_motion="reduce",
    )
    context.set_default_timeout(BUSY_MS)
    context.grant_permissions(["clipboard-read", "clipboard-write"], origin=served.url)
    page = context.new_page()
    page.goto(served.url)
    page.get_by_label("Vault passphrase").fill(passphrase)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="to see to").wait_for()
    return page


def open_login(page: Page, title: str) -> None:
    """A login's sheet, by the command box."""
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill(title)
    page.get_by_role("option", name=title).first.wait_for()
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=title).wait_for()


def prove(page: Page) -> None:
    """The passphrase, where it is asked who is there."""
    asked = page.get_by_role("dialog", name="Show that it is you")
    asked.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    asked.wait_for(state="hidden")
