"""Strength in the browser: reasons in place, two compared, own details, a new vault passphrase."""

from playwright.sync_api import Browser, Page, expect

from newknot.demo.world import PASSPHRASE
from tests.e2e.conftest import leave, open_page
from tests.support.running import Served

LATER = "gravel oven mitten copper thimble"


def show_typed(page: Page, field: str) -> None:
    """Presses “show” above a secret's field."""
    box = page.locator(".field", has=page.get_by_role("textbox", name=field))
    box.get_by_role("button", name="Show what is typed").click()


def test_reasons_are_in_place_only_while_the_secret_is_shown(
    browser_here: Browser, own_demo: Served
) -> None:
    page = open_page(browser_here, own_demo)
    page.keyboard.press("9")
    page.get_by_role("textbox", name="Secret").fill("Lisbon47!")
    expect(page.get_by_text("Made of: place name, 6 characters")).to_be_visible()
    assert "Lisbon" not in page.locator("main").inner_text()
    show_typed(page, "Secret")
    place = page.get_by_role("listitem").filter(has_text="place name")
    expect(place).to_contain_text("Lisbon")
    expect(place).to_contain_text("1 in 3,200")
    expect(page.get_by_text("one more drawn word")).to_be_visible()

    page.get_by_role("button", name="Compare with another").click()
    page.get_by_role("textbox", name="Second secret").fill("velvet orchard lantern drum")
    expect(page.get_by_text("The second is better")).to_be_visible()
    page.get_by_role("textbox", name="Second secret").fill("")
    page.get_by_role("textbox", name="First secret").fill("пароль\N{UMBRELLA}" + "x7" * 700)
    expect(page.get_by_text("characters are not looked at")).to_be_visible()
    page.get_by_role("button", name="Forget what was typed").click()
    expect(page.get_by_text("it is measured here and kept nowhere")).to_be_visible()
    leave(page)


def test_own_details_make_a_secret_of_them_fall(browser_here: Browser, own_demo: Served) -> None:
    page = open_page(browser_here, own_demo)
    page.keyboard.press("7")
    page.get_by_label("Names, dates and words").fill("Zwiebelfisch\n14.02.1979")
    page.get_by_role("button", name="Save own details").click()
    expect(page.get_by_role("button", name="Save own details")).to_be_disabled()
    page.keyboard.press("Escape")
    page.goto(own_demo.url.rstrip("/") + "/logins/new")
    page.get_by_label("Title", exact=True).fill("Reed Organ Society")
    page.get_by_text("my own", exact=True).click()
    page.get_by_role("textbox", name="Own secret").fill("zwiebelfisch14021979")
    expect(page.get_by_text("Made of: own or site's name, 12 characters")).to_be_visible()
    page.get_by_role("textbox", name="Own secret").fill("dragonfly")
    expect(page.get_by_text("This secret is in the breach corpus")).to_be_visible()
    leave(page)


def test_the_passphrase_is_changed_printed_and_the_former_opens_no_more(
    browser_here: Browser, own_demo: Served
) -> None:
    page = open_page(browser_here, own_demo)
    page.keyboard.press("0")
    expect(page.get_by_text("Compared while you type with")).to_be_visible()
    new = page.get_by_role("textbox", name="New passphrase")
    new.fill(PASSPHRASE + "!")
    expect(page.get_by_text("it is like a passphrase this vault has had")).to_be_visible()
    change = page.get_by_role("button", name="Change the passphrase")
    expect(change).to_be_disabled()
    page.get_by_role("button", name="Keep word 1").click()
    page.get_by_role("button", name="Draw the others again").click()
    expect(page.get_by_text("after what choosing among")).to_be_visible()
    page.get_by_role("button", name="Use these words").click()
    expect(page.get_by_text("Good: nothing in this vault is like it.")).to_be_visible()
    new.fill(LATER)
    page.get_by_role("textbox", name="Present passphrase").fill(PASSPHRASE)
    page.get_by_role("textbox", name="The new one again").fill(LATER)

    page.evaluate("window.print = () => undefined")
    page.get_by_role("button", name="Print it for a safe place").click()
    page.emulate_media(media="print")
    assert page.locator("body").inner_text().strip() == LATER
    page.emulate_media(media="screen")
    page.evaluate("window.dispatchEvent(new Event('afterprint'))")
    expect(page.locator(".paper-sheet")).to_have_count(0)

    change.click()
    expect(page.get_by_text("The vault now opens with the new passphrase")).to_be_visible()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("l")
    field = page.get_by_label("Vault passphrase")
    field.fill(PASSPHRASE)
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    field.fill(LATER)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="The vault's passphrase").wait_for()
    leave(page)
