"""A browser for each test, and one demo for those that only look."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import (
    Browser,
    BrowserContext,
    Page,
    Playwright,
    TimeoutError,
    expect,
    sync_playwright,
)
from xdist.scheduler import LoadFileScheduling

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


SHARING = ("driving", "generate", "keys", "strip")
"""Files of which the tests change one demo, one after another, in one process."""


class _Together(LoadFileScheduling):  # type: ignore[misc]
    """Files that share a demo are as one."""

    def _split_scope(self, nodeid: str) -> str:
        file = str(super()._split_scope(nodeid))
        return "sharing" if Path(file).stem.removeprefix("test_") in SHARING else file


def pytest_xdist_make_scheduler(config: pytest.Config, log: Any) -> _Together:
    """How tests are shared out among processes."""
    return _Together(config, log)


def _changing(folder: Path) -> Iterator[Served]:
    with demo(folder) as served:
        yield served
        if left := _LEFT.pop(served.url, None):
            left.context.close()


@pytest.fixture(scope="session")
def changed_demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A demo that the tests of all files in `SHARING` change: the next sees what one leaves."""
    yield from _changing(tmp_path_factory.mktemp("changed"))


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A demo that the tests of a file may change."""
    yield from _changing(tmp_path_factory.mktemp("changing"))


_LEFT: dict[str, Page] = {}
"""Address -> the page that the last test of its server left in order."""


def open_page(browser: Browser, served: Served, *, passphrase: str = PASSPHRASE) -> Page:
    """An unlocked page at the worklist: the one left there, read anew, or one of its own."""
    if left := _LEFT.pop(served.url, None):
        left.goto(served.url)
        return at_worklist(left)
    page = new_page(browser, served)
    page.get_by_label("Vault passphrase").fill(passphrase)
    page.keyboard.press("Enter")
    return at_worklist(page)


def at_worklist(page: Page) -> Page:
    """The page, once it is there; else with what is there instead."""
    try:
        page.get_by_role("heading", name="to see to").wait_for()
    except TimeoutError:
        pytest.fail(f"no worklist, but: {page.locator('body').inner_text()}")
    return page


def leave(page: Page) -> None:
    """Without what is asked of it alone: sizes, schemes, listeners, a clock."""
    _LEFT[page.evaluate("origin + '/'")] = page


def new_page(browser: Browser, served: Served) -> Page:
    """In a context of its own, before the vault is open."""
    context: BrowserContext = browser.new_context(
        viewport=VIEWPORT,  # type: ignore[arg-type]
        color_scheme="light",
        # As whoever asks for less motion sees it.
        reduced_motion="reduce",
    )
    context.set_default_timeout(BUSY_MS)
    context.grant_permissions(["clipboard-read", "clipboard-write"], origin=served.url)
    page = context.new_page()
    page.goto(served.url)
    return page


_GO = """path => { history.pushState({}, '', path);
  dispatchEvent(new PopStateEvent('popstate', { state: {} })); }"""


def walk(page: Page, path: str) -> None:
    """Within the page, so that nothing is read anew; by way of none, which is not taken for it."""
    page.evaluate(_GO, "/nowhere")
    page.get_by_text("There is no such view").wait_for()
    page.evaluate(_GO, path)
    page.get_by_role("heading", level=1).first.wait_for()
    page.wait_for_load_state("networkidle")


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
