"""Every view at every width, light and dark: nothing scrolls sideways, each has one heading and its
title, and no title names a login; rows of a list lie one below the other.
"""

from pathlib import Path

from playwright.sync_api import Browser, expect

from tests.conftest import PASSPHRASE, new_vault
from tests.e2e.conftest import open_page, walk
from tests.support.calling import Caller
from tests.support.fits import TOO_WIDE, WIDTHS
from tests.support.running import Served, serving

PATHS = (
    *("/", "/logins", "/logins/new", "/logins/bin", "/generate", "/rotate", "/policies", "/carry"),
    *("/safeguards", "/reach", "/waivers", "/events", "/address", "/report", "/measure"),
    "/passphrase",
)


OPENED = {
    "/": ("w", "Control+k", "?"),
    "/rotate": ("n",),
    "/policies": ("n",),
    "/generate": ("p",),
}
"""View -> keys that open something over it."""


def test_no_view_scrolls_sideways_or_is_cut_at_any_width(
    browser_here: Browser, demo_here: Served
) -> None:
    page = open_page(browser_here, demo_here)
    login = page.get_by_role("row").first.get_attribute("id") or ""
    login_path = f"/logins/{login.removeprefix('work-')}"
    wide: list[str] = []
    states = 0

    def at_all_widths(where: str) -> None:
        nonlocal states
        # A scheme changes colours alone: dark is asked where most gives way, and where least does.
        for scheme, widths in (("light", WIDTHS), ("dark", (WIDTHS[0], WIDTHS[-1]))):
            page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
            for width in widths:
                page.set_viewport_size({"width": width, "height": 800})
                found = page.evaluate(TOO_WIDE, width)
                wide.extend(f"{where}, {scheme}, at {width}: {one}" for one in found)
                states += 1

    for path in (*PATHS, login_path, f"{login_path}/edit", f"{login_path}/sign-in"):
        walk(page, path)
        expect(page.get_by_role("heading", level=1)).to_have_count(1)
        title = page.title()
        assert title.endswith("New Knot") and "Fernbank" not in title, title
        at_all_widths(path)
        for key in OPENED.get(path, ("Delete",) if path == login_path else ()):
            page.keyboard.press(key)
            dialogue = page.get_by_role("dialog").first
            dialogue.wait_for()
            at_all_widths(f"{path} {key}")
            page.keyboard.press("Escape")
            dialogue.wait_for(state="hidden")
    page.context.close()
    assert "\n".join(wide) == "" and states > 200


def test_a_text_without_an_end_widens_nothing(browser_here: Browser, tmp_path: Path) -> None:
    """An address of two hundred characters as a title, and letters that are wide."""
    new_vault(tmp_path).close()
    with serving(tmp_path) as served:
        call = Caller(served).call
        ids = [
            call("POST", "logins", {"title": text, "user_name": text, "folder": text[:60],
                                    "owner": text[:60], "notes": text, "secret": {"own": "rope"}})
            ["login_id"] for text in ("https://gantry.example/" + "w" * 177, "W" * 200, "Plank")
        ]  # fmt: skip
        call("POST", "checks", {"whole": True})
        rotation = call("POST", "rotations", {"login_id": ids[0]})["rotation_id"]
        call("POST", "campaigns", {"login_ids": ids})
        page = open_page(browser_here, served, passphrase=PASSPHRASE)
        wide: list[str] = []
        for path in (*PATHS, f"/logins/{ids[0]}", f"/logins/{ids[1]}/edit", f"/rotate/{rotation}"):
            walk(page, path)
            for width in (400, 1280):
                page.set_viewport_size({"width": width, "height": 800})
                found = page.evaluate(TOO_WIDE, width)
                wide.extend(f"{path} at {width}: {one}" for one in found)
        page.context.close()
    assert wide == []


STATES = {
    "/": ("[role=row].at", ".facet[aria-checked=true]", "nav a.active"),
    "/logins": ("[role=row].at",),
    "/policies": ("tr.at",),
    "/carry": (".carry-part:has(:checked)",),
    "/rotate": (".step.now .no",),
    "/safeguards": (".ant-switch-checked",),
    "/generate": (".ant-slider-handle",),
}
MARKED = """of => document.querySelectorAll(of).length > 0 &&
  [...document.querySelectorAll(of)].every(one => ["", "::after"].some(part => {
    const style = getComputedStyle(one, part || null);
    return style.outlineStyle === "solid" || parseFloat(style.borderBottomWidth) > 0;
  }))"""


def test_where_the_system_sets_the_colours_each_state_has_a_line_of_its_own(
    browser_here: Browser, demo_here: Served
) -> None:
    page = open_page(browser_here, demo_here)
    page.emulate_media(forced_colors="active")
    unmarked: list[str] = []
    for path, states in STATES.items():
        walk(page, path)
        for state in states:
            page.locator(state).first.wait_for(state="attached")
            if not page.evaluate(MARKED, state):
                unmarked.append(f"{path}: {state}")
    page.context.close()
    assert unmarked == []
