"""What is asked of a state, and how a journey comes to one."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Literal

from playwright.sync_api import Locator, Page
from tests.support.fits import TOO_WIDE, WIDTHS
from tests.support.running import ROOT, Served

from newknot.demo.world import PASSPHRASE
from scripts.walk.laws import AUDIT, DRAWN, HEADED, HELD, OVERLAID

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
HEIGHT = 800
NARROW = 400
USUAL = 1280
GO = """path => { history.pushState({}, '', path);
  dispatchEvent(new PopStateEvent('popstate', { state: {} })); }"""
Journey = Callable[["Walker"], Iterator[str]]
"""Comes to one state after another and says the name of each."""


@dataclass
class Walker:
    """A page, the laws that each state on it is held against, and what was found."""

    page: Page
    served: Served
    faults: list[str] = field(default_factory=list)
    states: int = 0
    pages: int = 0
    """States at a width in a scheme."""

    def go(self, path: str) -> None:
        """To a view within the page, so that the session stays."""
        self.page.evaluate(GO, "/nowhere")
        self.page.get_by_text("There is no such view").wait_for()
        self.page.evaluate(GO, path)
        self.page.get_by_role("heading", level=1).first.wait_for()
        self.page.wait_for_load_state("networkidle")
        self.page.wait_for_function("() => document.activeElement !== document.body")

    def login(self, title: str) -> None:
        """To a login's sheet, by the command box."""
        self.page.keyboard.press("Control+k")
        self.page.get_by_role("combobox", name="Find a login").fill(title)
        self.page.get_by_role("option", name=title).first.wait_for()
        self.page.keyboard.press("Enter")
        self.page.get_by_role("heading", level=1, name=title).wait_for()
        self.page.wait_for_function("() => document.activeElement !== document.body")

    def prove(self) -> None:
        """Gives the proof of presence that is asked."""
        asked = self.page.get_by_role("dialog", name="Show that it is you")
        asked.get_by_label("Vault passphrase").fill(PASSPHRASE)
        self.page.keyboard.press("Enter")
        asked.wait_for(state="hidden")

    def button(self, name: str) -> Locator:
        """The first button of a name."""
        return self.page.get_by_role("button", name=name).first

    def leave(self) -> Iterator[str]:
        """Out of a form that is half typed: what asks is a state of its own."""
        self.page.keyboard.press("Escape")
        self.page.get_by_role("dialog", name="Leave what is not saved?").wait_for()
        yield "leave what is not saved"
        self.page.get_by_role("button", name="Throw it away").click()
        self.page.get_by_role("dialog", name="Leave what").wait_for(state="hidden")
        self.page.wait_for_timeout(100)

    @contextmanager
    def opened(self, opener: Locator, where: str) -> Iterator[Locator]:
        """A dialogue, from its opener to its end: where it begins, and that the focus returns."""
        opener.focus()
        self.page.keyboard.press("Enter")
        dialogue = self.page.get_by_role("dialog").first
        dialogue.wait_for()
        self.page.wait_for_function("() => document.activeElement.closest('[role=dialog]')")
        self.page.wait_for_timeout(100)
        self._ask(where, HELD)
        yield dialogue
        if dialogue.is_visible():
            self.page.keyboard.press("Escape")
        dialogue.wait_for(state="hidden")
        self.page.wait_for_function("() => document.activeElement !== document.body")
        if not opener.evaluate("one => one === document.activeElement"):
            at = self.page.evaluate("document.activeElement.textContent.trim().slice(0, 40)")
            self.faults.append(f"{where}: the focus went to {at!r}, not to what opened it")

    def hold(self, where: str) -> None:
        """Holds the state that stands against the laws, at each width in both schemes."""
        self.states += 1
        self._ask(where, HEADED)
        if not self.page.title().endswith("New Knot"):
            self.faults.append(f"{where}: the title is {self.page.title()!r}")
        for scheme in ("light", "dark"):
            self._in_scheme(scheme)
            for width in WIDTHS:
                self.page.set_viewport_size({"width": width, "height": HEIGHT})
                self.page.evaluate(DRAWN)
                at = f"{where}, {scheme}, at {width}"
                self.pages += 1
                self._ask(at, TOO_WIDE, width)
                self._ask(at, OVERLAID)
                if width in (NARROW, USUAL):
                    self._ask(at, AUDIT, self._part_of_audit(scheme))
        self._in_scheme("light")
        self.page.set_viewport_size({"width": USUAL, "height": HEIGHT})

    def narrow(self, where: str) -> None:
        """Holds what stands at half a screen alone against the laws there."""
        self.states += 1
        self.pages += 1
        width = self.page.viewport_size["width"] if self.page.viewport_size else USUAL
        # What was put in before the page wrote into its window knows another document.
        self.page.evaluate(AXE)
        for law, argument in ((TOO_WIDE, width), (OVERLAID, None), (AUDIT, {})):
            self._ask(f"{where}, at {width}", law, argument)

    @staticmethod
    def _part_of_audit(scheme: str) -> object:
        # In dark only what the scheme changes is asked again.
        only = ["color-contrast", "link-in-text-block"]
        return {} if scheme == "light" else {"runOnly": only}

    def _in_scheme(self, scheme: Literal["light", "dark"]) -> None:
        self.page.emulate_media(color_scheme=scheme)
        self.page.wait_for_function("s => document.documentElement.dataset.theme === s", arg=scheme)

    def _ask(self, where: str, law: str, argument: object = None) -> None:
        self.faults += [f"{where}: {one}" for one in self.page.evaluate(law, argument)]
