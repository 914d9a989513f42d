"""Generating in the browser: words kept and redrawn, dice, comparison, and nothing lost."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import leave, open_page
from tests.support.running import Served


def pick_kind(page: Page, kind: str) -> None:
    """From any view to a kind of secret."""
    page.keyboard.press("3")
    page.get_by_text("equally likely").wait_for()
    page.get_by_role("radiogroup", name="made of").get_by_text(kind, exact=True).click()


def words_shown(page: Page) -> list[str]:
    """The words of the passphrase in view."""
    shown = page.get_by_role("button", name=re.compile("^Keep word")).all_text_contents()
    return [one.split(": ")[1] for one in shown]


def test_words_are_kept_by_wish_and_a_selection_is_sealed_before_it_is_copied(
    browser_here: Browser, changed_demo: Served
) -> None:
    page = open_page(browser_here, changed_demo)
    pick_kind(page, "Words")
    expect(page.get_by_text("77.54 bits", exact=True)).to_be_visible()
    first = words_shown(page)
    page.get_by_role("button", name="Keep word 2").click()
    page.get_by_role("button", name="Draw the others again").click()
    expect(page.get_by_text("at least 71.57 bits")).to_be_visible()
    expect(page.get_by_text("you could have ended with 63 texts")).to_be_visible()
    second = words_shown(page)
    assert second[1] == first[1] and second != first

    ends = page.get_by_role("region", name="Loose ends").get_by_role("button", name="place")
    expect(ends).not_to_have_count(0)
    before = ends.count()
    page.evaluate("getSelection().selectAllChildren(document.querySelector('.words-text'))")
    page.keyboard.press("Control+c")
    expect(ends).to_have_count(before + 1)
    page.get_by_text("New secret put on the clipboard").first.wait_for()
    assert page.evaluate("navigator.clipboard.readText()") == " ".join(second)

    page.keyboard.press("p")
    page.get_by_label("Title, site or user name").fill("tithe")
    page.get_by_role("button", name="A new login: Tithe Office").wait_for()
    page.get_by_label("Title, site or user name").press("Enter")
    expect(page.get_by_label("Title", exact=True)).to_have_value("Tithe Office")
    expect(page.get_by_label("Address")).to_have_value("titheoffice.example")
    page.get_by_role("button", name="Save").click()
    page.get_by_role("heading", level=1, name="Tithe Office").wait_for()
    page.keyboard.press("y")
    page.get_by_text("Secret of Tithe Office").first.wait_for()
    assert page.evaluate("navigator.clipboard.readText()") == " ".join(second)
    leave(page)


def test_dice_lines_sentences_and_the_comparison(
    browser_here: Browser, changed_demo: Served
) -> None:
    page = open_page(browser_here, changed_demo)
    pick_kind(page, "Words")
    page.get_by_role("spinbutton", name="How many words").fill("2")
    page.get_by_role("button", name="take real dice or coins").click()
    page.get_by_label("Word 1", exact=True).wait_for()
    page.keyboard.type("1111166667")
    page.get_by_role("button", name="Take these words").click()
    expect(page.get_by_text("is not 5 throws from 1 to 6")).to_be_visible()
    page.get_by_role("button", name="take real dice or coins").click()
    page.get_by_label("Word 1", exact=True).fill("11111")
    page.get_by_label("Word 2", exact=True).fill("66666")
    page.keyboard.press("Enter")
    expect(page.get_by_text("25.84 bits", exact=True)).to_be_visible()
    # Two words drawn before are worth as much: these are waited for.
    page.get_by_role("button", name=re.compile("Keep word 1: ?aardvark")).wait_for()
    assert words_shown(page) == ["aardvark", "zoom"]

    page.get_by_role("radiogroup", name="made of").get_by_text("From a line").click()
    page.get_by_label("A line that only you").fill("Nobody rigs 7 lamps on a wet ladder")
    page.keyboard.press("Enter")
    expect(page.get_by_text("chosen text: no bits")).to_be_visible()
    page.get_by_role("button", name="Spell it out").click()
    expect(page.get_by_role("cell", name="capital N, november")).to_be_visible()
    # The focus comes into the dialog when its opening is over.
    expect(page.get_by_role("button", name="the next group")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Group 2 of 2")).to_be_visible()
    page.keyboard.press("Escape")

    page.get_by_role("radiogroup", name="made of").get_by_text("Sentence").click()
    expect(page.get_by_text("63.61 bits", exact=True)).to_be_visible()
    expect(page.get_by_text("At least 63 bits")).to_be_visible()
    page.keyboard.press("b")
    page.get_by_role("button", name="take the words").click()
    expect(page.get_by_role("button", name=re.compile("^Keep word"))).to_have_count(5)
    page.get_by_role("button", name=re.compile("^Take From a line, 8 characters")).click()
    expect(page.get_by_text("chosen text: no bits")).to_be_visible()
    leave(page)
