"""Each dialogue begins within, on its first field or its calm answer, and gives the focus back."""

from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import leave, open_page, prove
from tests.support.running import Served

CSV = b"Site,Login,Password\nReed Organ Society,ilse,a1b2c3d4\nbroken,row\n,x,y\n"
BEGUN = """() => {
  const at = document.activeElement, within = at.closest("[role=dialog]");
  if (!within) return false;
  const has = within.querySelector("input:not([type=hidden]), textarea") !== null;
  return has ? at.matches("input, textarea, [data-begins]") : !at.matches(".ant-modal-close");
}"""


HEADED = {"Worklist": "to see to"}


@pytest.fixture(scope="module")
def page(browser_here: Browser, own_demo: Served) -> Iterator[Page]:
    page = open_page(browser_here, own_demo)
    yield page
    leave(page)


def go(page: Page, name: str) -> None:
    """To a view or a login, by mouse, from wherever the page is."""
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a login").fill(name)
    page.get_by_role("option", name=name).first.click()
    page.get_by_role("heading", level=1, name=HEADED.get(name, name)).wait_for()
    # The view takes the focus once it is there: what is focused before would lose it.
    page.wait_for_function("() => document.activeElement.closest('main')")
    page.wait_for_load_state("networkidle")


def kind_of_words(page: Page) -> None:
    go(page, "Generate")
    page.get_by_text("Words", exact=True).first.click()
    page.get_by_text("such words").wait_for()


def a_hand_over(page: Page) -> None:
    go(page, "Gantry Rentals")
    page.keyboard.press("r")
    page.get_by_text("Did the site take it?").wait_for()
    page.keyboard.press("3")
    page.get_by_role("button", name="Yes, it is changed").wait_for()


def one_in_the_bin(page: Page) -> None:
    go(page, "Tide Tables")
    page.keyboard.press("Delete")
    page.get_by_role("button", name="To the bin").click()
    prove(page)
    page.get_by_role("heading", level=1, name="Logins").wait_for()
    go(page, "Bin")


def old_secrets(page: Page) -> None:
    go(page, "Settings and safeguards")
    page.get_by_label("Keep earlier secrets for so many days").fill("30")
    page.get_by_role("button", name="Save", exact=True).click()
    prove(page)


def part_of_carry(page: Page, name: str) -> None:
    go(page, "Carry and recover")
    page.get_by_text(name, exact=True).first.click()


def rows_left_out(page: Page) -> None:
    part_of_carry(page, "Bring in")
    file = {"name": "from-the-old-book.csv", "mimeType": "text/csv", "buffer": CSV}
    page.get_by_label("File to bring in").set_input_files(file)  # type: ignore[arg-type]
    page.get_by_role("button", name="Bring 1 login in").click()
    page.get_by_text("1 login brought in").wait_for()


def one_backup(page: Page) -> None:
    part_of_carry(page, "Back up")
    page.get_by_role("button", name="Make a sealed backup").click()
    prove(page)
    page.get_by_text("Written, and read through").wait_for()


def sheets_out(page: Page) -> None:
    part_of_carry(page, "Way back in")
    page.get_by_role("button", name="Split among people").click()
    prove(page)
    page.get_by_role("button", name="close without paper").click()
    page.get_by_role("button", name="Close without paper").click()
    page.get_by_role("dialog").first.wait_for(state="hidden")


DIALOGUES: list[tuple[str | Callable[[Page], None], str]] = [
    ("Worklist", "Accept"), ("Generate", "Place in a login"), ("Generate", "Spell it out"),
    (kind_of_words, "take real dice or coins"), ("Rotate", "New campaign"),
    ("Site policies", "New policy"), ("Site policies", "Change Northlight"),
    ("Site policies", "Delete Northlight"), ("Tallow Post", "restore: the secret"),
    ("Tallow Post", "delete: the secret"), ("Tallow Post", "Delete…"),
    ("Gantry Rentals", "set up"), ("Gantry Rentals", "backup codes"),
    (lambda page: part_of_carry(page, "Take out"), "Write CSV"),
    (lambda page: part_of_carry(page, "Back up"), "Make a sealed backup"),
    (a_hand_over, "No, because"), (old_secrets, "past that"), (one_in_the_bin, "Empty the bin"),
    (rows_left_out, "Write them into a file"), (one_backup, "Look into"),
    (sheets_out, "Practise"), (lambda page: part_of_carry(page, "Way back in"), "Make void"),
]  # fmt: skip
"""(the way there, what opens one over it): those that change the vault come last"""


@pytest.mark.parametrize(("way", "opener"), DIALOGUES, ids=[opener for _, opener in DIALOGUES])
def test_a_dialogue_begins_within_and_gives_the_focus_back(
    page: Page, way: str | Callable[[Page], None], opener: str
) -> None:
    go(page, way) if isinstance(way, str) else way(page)
    button = page.get_by_role("button", name=opener).first
    # What a draw is wanted for waits for it.
    expect(button).to_be_enabled()
    button.focus()
    # What is first may be another by then: a list goes on growing.
    opened_by = page.evaluate_handle("() => document.activeElement")
    page.keyboard.press("Enter")
    dialogue = page.get_by_role("dialog").last
    dialogue.wait_for()
    page.wait_for_function(BEGUN)
    page.keyboard.press("Escape")
    dialogue.wait_for(state="hidden")
    page.wait_for_function("one => one === document.activeElement", arg=opened_by)


@pytest.mark.parametrize("end", ["Escape", "beside it", "the same view", "the same login"])
def test_the_command_box_gives_the_focus_back(page: Page, end: str) -> None:
    if end == "the same login":
        go(page, "Tallow Post")
        within = page.get_by_role("button", name="Delete…")
    else:
        go(page, "Logins")
        within = page.get_by_role("grid")
    within.focus()
    page.keyboard.press("Control+k")
    if end == "Escape":
        page.keyboard.press("Escape")
    elif end == "beside it":
        page.mouse.click(5, 780)
    else:
        page.keyboard.type("Logins" if end == "the same view" else "Tallow Post")
        page.get_by_role("option").first.wait_for()
        page.keyboard.press("Enter")
    if end == "the same login":
        within = page.get_by_role("heading", level=1, name="Tallow Post")
    expect(within).to_be_focused()


def test_an_act_that_takes_its_button_away_leaves_the_focus_in_the_view(page: Page) -> None:
    go(page, "Worklist")
    page.get_by_role("button", name="Check again").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_be_focused()


def test_what_is_asked_over_a_form_lies_above_it_each_time(page: Page) -> None:
    go(page, "Site policies")
    for _ in range(2):
        page.get_by_role("button", name="New policy").click()
        page.get_by_role("dialog").get_by_label("Name", exact=True).fill("Lantern Hire")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Throw it away").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
