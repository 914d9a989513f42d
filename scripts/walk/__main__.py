"""Walks every state of the interface at every width, light and dark, and says what is wrong there.

python -m scripts.walk [--only JOURNEY]… [--into FOLDER]   (FOLDER: a picture of each state, at
1,280 and at 640)
"""

import argparse
import re
import sys
import tempfile
import time
from pathlib import Path

from benchmarks.served import PASSPHRASE as OF_MANY
from benchmarks.served import Client, fill, served_as_users_do
from playwright.sync_api import Browser, Error, sync_playwright
from tests.support.fits import WIDTHS
from tests.support.running import Served, demo, launch, serving

from newknot.demo.world import PASSPHRASE
from scripts.walk.journeys import IN_THE_DEMO, crowded, new_vault
from scripts.walk.walker import AXE, Journey, Walker

PATIENCE_MS = 15_000
MANY = 3_000
"""Logins of the crowded vault: groups of 120 and a mailbox that resets a thousand."""


def page_of(browser: Browser, served: Served) -> Walker:
    """A page in a context of its own, as whoever asks for less motion sees it."""
    context = browser.new_context(reduced_motion="reduce", viewport={"width": 1280, "height": 800})
    context.set_default_timeout(PATIENCE_MS)
    context.grant_permissions(["clipboard-read", "clipboard-write"], origin=served.url)
    context.add_init_script(AXE)
    page = context.new_page()
    return Walker(page, served)


def unlock(walk: Walker, passphrase: str = PASSPHRASE) -> None:
    """From the locked page to the worklist."""
    walk.page.goto(walk.served.url)
    walk.page.get_by_label("Vault passphrase").fill(passphrase)
    walk.page.keyboard.press("Enter")
    walk.page.get_by_role("heading", name="to see to").wait_for()


def follow(journey: Journey, walk: Walker, into: Path | None) -> None:
    """Holds each state of a journey; what it cannot come to is a fault."""
    last = "its beginning"
    try:
        for name in journey(walk):
            last = name
            walk.hold(name)
            if into:
                picture(walk, name, into)
    except Error as error:
        walk.faults.append(f"{journey.__name__}, after {last}: {str(error).splitlines()[0]}")
        if into:
            walk.page.screenshot(path=into / f"not-reached-{journey.__name__}.png")
        walk.page.keyboard.press("Escape")


def picture(walk: Walker, name: str, into: Path) -> None:
    """A state at half a screen and a whole one."""
    file = "".join(c if c.isalnum() else "-" for c in name)
    for width in (640, 1280):
        walk.page.set_viewport_size({"width": width, "height": 800})
        walk.page.screenshot(path=into / f"{file}-{width}.png")


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--only", action="append")
    parser.add_argument("--into", type=Path)
    arguments = parser.parse_args()
    if arguments.into:
        arguments.into.mkdir(parents=True, exist_ok=True)
    wanted = [
        one
        for one in (*IN_THE_DEMO, new_vault, crowded)
        if not arguments.only or one.__name__ in arguments.only
    ]
    faults: list[str] = []
    states, pages, began = 0, 0, time.monotonic()
    with sync_playwright() as playwright, tempfile.TemporaryDirectory() as folder:
        browser = launch(playwright)
        if any(one in IN_THE_DEMO for one in wanted):
            with demo(Path(folder) / "demo") as served:
                walk = page_of(browser, served)
                for journey in (one for one in wanted if one in IN_THE_DEMO):
                    if "locked" in walk.page.title() or walk.page.url == "about:blank":
                        unlock(walk)
                    follow(journey, walk, arguments.into)
                    print(f"{journey.__name__}: {walk.states} states so far", flush=True)
                faults += walk.faults
                states += walk.states
                pages += walk.pages
        if new_vault in wanted:
            with serving(Path(folder) / "new") as served:
                walk = page_of(browser, served)
                follow(new_vault, walk, arguments.into)
                faults += walk.faults
                states += walk.states
                pages += walk.pages
        if crowded in wanted:
            many = Path(folder) / "many"
            many.mkdir()
            fill(many, MANY)
            with served_as_users_do(many) as served:
                client = Client(served)
                client.unlock()
                client.post("checks")
                walk = page_of(browser, served)
                unlock(walk, OF_MANY)
                follow(crowded, walk, arguments.into)
                faults += walk.faults
                states += walk.states
                pages += walk.pages
        browser.close()
    told: dict[str, list[str]] = {}
    for fault in dict.fromkeys(faults):
        where, _, says = fault.partition(": ")
        name, *width = re.split(r", (?=(?:light|dark), at )", where, maxsplit=1)
        told.setdefault(f"{name}: {says}", []).extend(width)
    for says, widths in told.items():
        print(says, f"({', '.join(widths)})" if widths else "")
    print(
        f"{states} states, {pages} pages at {len(WIDTHS)} widths in two schemes, "
        f"{len(faults)} faults, {time.monotonic() - began:.0f} s"
    )
    if faults or not states:
        sys.exit(1)


if __name__ == "__main__":
    main()
