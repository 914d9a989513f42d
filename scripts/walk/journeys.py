"""The journeys of the walk: through the demo's vault, a locked one and a new one."""

from collections.abc import Iterator
from contextlib import suppress

from playwright.sync_api import Error

from newknot.demo.world import PASSPHRASE
from scripts.walk.walker import Journey, Walker

CSV = (
    "Site,Login,Password,Link,Colour\nReed Organ Society,ilse,a1b2c3d4,reedorgan.example,red\n"
    "Fernbank Credit Union,i.quist,limelight8,fernbank.example,\nbroken,row\n,,,,\n,x,y,,\n"
)
SEAL = "orchard velvet lantern quarry"
LONG = "The Very Long Named Society for Stage Lanterns, Lamps and Limelight of the Northern Quay"


def views(walk: Walker) -> Iterator[str]:
    """Each view as it opens."""
    for path in (
        *("/", "/logins", "/logins/new", "/logins/bin", "/generate", "/rotate", "/policies"),
        *("/carry", "/safeguards", "/reach", "/waivers", "/events", "/address", "/report"),
        *("/measure", "/passphrase"),
    ):
        walk.go(path)
        yield f"view {path}"


def frame(walk: Walker) -> Iterator[str]:
    """What opens over any view."""
    page = walk.page
    walk.go("/logins")
    page.keyboard.press("Control+k")
    box = page.get_by_role("combobox", name="Find a login")
    box.wait_for()
    yield "command box"
    box.fill("fernbank")
    page.get_by_role("option", name="Fernbank").first.wait_for()
    yield "command box, found"
    box.fill("https://fernbank.example.evil.example/sign-in")
    page.wait_for_load_state("networkidle")
    yield "command box, an address"
    box.fill("zzzzqq")
    page.wait_for_load_state("networkidle")
    yield "command box, nothing"
    page.keyboard.press("Escape")
    page.get_by_role("dialog").first.wait_for(state="hidden")
    page.keyboard.press("?")
    page.get_by_role("dialog", name="Keys").wait_for()
    yield "keys"
    page.keyboard.press("Escape")
    page.get_by_role("dialog").first.wait_for(state="hidden")
    page.set_viewport_size({"width": 640, "height": 800})
    walk.button("More").click()
    page.wait_for_timeout(100)
    walk.narrow("views folded under one button")
    page.keyboard.press("Escape")
    page.set_viewport_size({"width": 1280, "height": 800})


def worklist(walk: Walker) -> Iterator[str]:
    """Rows, facets, waivers, plot."""
    page = walk.page
    walk.go("/")
    page.keyboard.press("ArrowDown")
    yield "worklist, second row"
    page.keyboard.press("End")
    page.wait_for_load_state("networkidle")
    yield "worklist, last row"
    page.keyboard.press("Home")
    for facet in ("Breached", "Reused", "Weak", "New secret"):
        one = page.locator(".facet", has_text=facet).first
        one.click()
        page.wait_for_load_state("networkidle")
        yield f"worklist, {facet}"
        page.locator(".facet").first.click()
    with walk.opened(walk.button("Accept"), "accept") as dialogue:
        yield "accept"
        dialogue.get_by_label("Note of your own").fill("as agreed with the theatre")
        yield "accept, with a note"
        yield from walk.leave()
    page.keyboard.press("c")
    page.get_by_text("Check again").wait_for()
    yield "worklist, checked"


def reuse_map(walk: Walker) -> Iterator[str]:
    """The map with one chosen."""
    page = walk.page
    walk.go("/reach")
    page.get_by_role("button", name="Tallow Post", exact=True).click()
    page.get_by_text("Slate Payroll: reset").wait_for()
    yield "reuse map, a mailbox chosen"


def logins(walk: Walker) -> Iterator[str]:
    """The list: sought, by findings, in a folder."""
    page = walk.page
    walk.go("/logins")
    page.keyboard.press("f")
    page.keyboard.type("fernbank")
    page.get_by_text("2 of 66 logins").wait_for()
    yield "logins, sought"
    page.get_by_label("Find as you type").fill("zzzz")
    page.get_by_text("0 of 66 logins").wait_for()
    yield "logins, none found"
    page.get_by_label("Find as you type").fill("")
    page.get_by_role("button", name="Findings").click()
    page.wait_for_load_state("networkidle")
    yield "logins, by findings"
    page.locator(".facet").nth(1).click()
    page.wait_for_load_state("networkidle")
    yield "logins, in a folder"
    page.locator(".facet").first.click()


def login(walk: Walker) -> Iterator[str]:
    """A sheet and what opens over it."""
    page = walk.page
    walk.login("Tallow Post")
    yield "login"
    page.keyboard.press("h")
    walk.button("Hide H").wait_for()
    yield "login, shown"
    walk.button("compare their worth").click()
    walk.button("without their worth").wait_for()
    yield "login, worths compared"
    walk.button("show: the secret").click()
    page.wait_for_load_state("networkidle")
    yield "login, an earlier secret shown"
    with walk.opened(walk.button("restore: the secret"), "restore"):
        yield "go back to an earlier secret"
    with walk.opened(walk.button("delete: the secret"), "delete an earlier secret"):
        yield "delete an earlier secret"
    with walk.opened(walk.button("Delete…"), "to the bin"):
        yield "to the bin"
    walk.login("Gantry Rentals")
    for name in ("set up", "backup codes"):
        with walk.opened(walk.button(name), name):
            yield f"login, {name}"
    page.keyboard.press("s")
    page.get_by_text("Paste the user name").wait_for()
    yield "sign in"
    with walk.opened(walk.button("Spell it out"), "spell it out"):
        yield "spell it out"
    page.keyboard.press("s")
    walk.login("Fernbank savings")
    yield "login, another"


def login_form(walk: Walker) -> Iterator[str]:
    """New and edited, with what it says while one types."""
    page = walk.page
    walk.go("/logins/new")
    page.get_by_label("Title", exact=True).fill("Fernbank Credit Union")
    page.get_by_label("User name", exact=True).fill("i.quist")
    page.wait_for_load_state("networkidle")
    yield "new login, known already"
    page.get_by_label("Title", exact=True).fill(LONG)
    for name in ("my own", "none yet", "drawn"):
        page.get_by_role("radiogroup", name="Where the secret").get_by_text(name).click()
        page.wait_for_load_state("networkidle")
        yield f"new login, secret {name}"
    page.get_by_role("heading", level=1).click()
    yield from walk.leave()
    walk.login("Tallow Post")
    page.keyboard.press("e")
    page.get_by_label("Title", exact=True).wait_for()
    page.wait_for_load_state("networkidle")
    yield "edit login"
    page.get_by_label("Title", exact=True).fill("")
    walk.button("Save").click()
    page.wait_for_timeout(300)
    yield "edit login, refused"
    page.get_by_label("Title", exact=True).fill(LONG)
    walk.button("Save").click()
    page.get_by_role("heading", level=1, name=LONG).wait_for()
    yield "login, long title"
    for path in ("/", "/logins", "/reach", "/report", "/rotate", "/events"):
        walk.go(path)
        yield f"long title in {path}"


def bin_of_logins(walk: Walker) -> Iterator[str]:
    """The bin with one in it, emptied."""
    page = walk.page
    walk.login("Tide Tables")
    page.keyboard.press("Delete")
    walk.button("To the bin").click()
    page.get_by_role("dialog", name="Show that it is you").wait_for()
    yield "proof of presence"
    page.get_by_role("dialog").get_by_label("Vault passphrase").fill("not this one")
    page.keyboard.press("Enter")
    page.get_by_text("That is not the vault's passphrase").wait_for()
    yield "proof of presence, wrong"
    walk.prove()
    page.get_by_role("heading", level=1, name="Logins").wait_for()
    walk.go("/logins/bin")
    yield "bin with one"
    with walk.opened(walk.button("Empty the bin"), "empty the bin"):
        yield "empty the bin"
    walk.button("Restore Tide Tables").click()
    page.get_by_text("The bin is empty").wait_for()
    yield "bin, empty"


def generate(walk: Walker) -> Iterator[str]:
    """Each kind, and what opens over it."""
    page = walk.page
    walk.go("/generate")
    page.get_by_text("equally likely").wait_for()
    for kind in ("Words", "Sentence", "PIN", "Answer", "From a line", "Characters"):
        page.locator(".kinds label", has_text=kind).first.click()
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(200)
        yield f"generate, {kind}"
    page.get_by_role("slider").first.press("End")
    page.wait_for_load_state("networkidle")
    yield "generate, the longest"
    page.get_by_role("slider").first.press("Home")
    page.wait_for_load_state("networkidle")
    yield "generate, the shortest"
    page.get_by_text("Words", exact=True).first.click()
    page.get_by_text("such words").wait_for()
    with walk.opened(walk.button("take real dice or coins"), "dice") as dialogue:
        yield "dice"
        dialogue.get_by_role("textbox").first.fill("1 2 3 4 5 6 1 2 3 9")
        page.wait_for_load_state("networkidle")
        yield "dice, one that is none"
    walk.go("/generate")
    page.get_by_text("Characters", exact=True).first.click()
    page.get_by_text("equally likely").wait_for()
    page.keyboard.press("Space")
    page.wait_for_load_state("networkidle")
    yield "generate, drawn again"
    with walk.opened(walk.button("Place in a login"), "place in a login") as dialogue:
        yield "place in a login"
        dialogue.get_by_role("combobox").or_(dialogue.get_by_role("textbox")).first.fill("fern")
        page.wait_for_load_state("networkidle")
        yield "place in a login, found"
        page.keyboard.press("Escape")
        page.wait_for_timeout(200)
    with walk.opened(walk.button("Spell it out"), "spell out"):
        yield "spell a draw out"
    loose = page.get_by_role("region", name="Loose ends").get_by_role("button")
    with walk.opened(loose.last, "a loose end let go"):
        yield "a loose end let go"


def rotations(walk: Walker) -> Iterator[str]:
    """A hand-over in each of its states, and a campaign."""
    page = walk.page
    walk.login("Gantry Rentals")
    page.keyboard.press("r")
    page.get_by_text("Did the site take it?").wait_for()
    page.wait_for_load_state("networkidle")
    yield "hand-over"
    page.keyboard.press("1")
    page.get_by_text("put on the clipboard").first.wait_for()
    page.keyboard.press("3")
    walk.button("Yes, it is changed").wait_for()
    yield "hand-over, copied"
    with walk.opened(walk.button("No, because"), "refused") as dialogue:
        yield "refused"
        for i, reason in enumerate(dialogue.locator(".ant-radio-wrapper").all()):
            reason.click()
            yield f"refused, reason {i + 1}"
        yield from walk.leave()
    page.keyboard.press("s")
    page.get_by_role("region", name="Which one opens it").wait_for()
    page.wait_for_load_state("networkidle")
    yield "hand-over, not sure"
    walk.button("Try them by hand").click()
    page.wait_for_load_state("networkidle")
    yield "hand-over, tried by hand"
    walk.login("Moth Lane Lamps")
    page.keyboard.press("r")
    page.get_by_text("Did the site take it?").wait_for()
    with page.context.expect_page() as opening:
        page.keyboard.press("w")
    beside = Walker(opening.value, walk.served, walk.faults)
    beside.page.set_viewport_size({"width": 400, "height": 700})
    beside.page.keyboard.press("3")
    beside.button("Yes, it is changed").wait_for()
    beside.narrow("the strip beside a site")
    beside.page.keyboard.press("n")
    beside.page.get_by_role("dialog").wait_for()
    beside.narrow("the strip, refused")
    beside.page.get_by_role("button", name="Back", exact=True).click()
    beside.page.keyboard.press("y")
    beside.button("It opens the site").wait_for()
    beside.narrow("the strip, said to be changed")
    walk.states += beside.states
    walk.pages += beside.pages
    with suppress(Error):
        # It closes its own window, at times before the key is let go.
        beside.page.keyboard.press("w")
    walk.button("It opens the site").wait_for()
    page.wait_for_load_state("networkidle")
    yield "hand-over, said to be changed"
    page.keyboard.press("v")
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    yield "hand-over, ended"
    walk.go("/rotate")
    with walk.opened(walk.button("New campaign"), "campaign") as dialogue:
        yield "campaign"
        dialogue.get_by_text("By hand").click()
        page.get_by_role("group", name="Logins").wait_for()
        yield "campaign, by hand"
        page.get_by_role("group", name="Logins").get_by_role("checkbox").nth(2).check()
        yield "campaign, one chosen"
    walk.button("New campaign").click()
    page.get_by_role("dialog").first.wait_for()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    if walk.button("Plan it").is_enabled():
        walk.button("Plan it").click()
        page.get_by_role("dialog").first.wait_for(state="hidden")
        page.wait_for_load_state("networkidle")
        yield "rotate, a campaign planned"


def policies(walk: Walker) -> Iterator[str]:
    """The list and the form."""
    page = walk.page
    walk.go("/policies")
    page.keyboard.press("ArrowDown")
    yield "policies, second row"
    with walk.opened(walk.button("Delete Northlight"), "delete a policy"):
        yield "delete a policy"
    with walk.opened(walk.button("Change Northlight"), "change a policy"):
        yield "change a policy"
    with walk.opened(walk.button("New policy"), "new policy") as dialogue:
        yield "new policy"
        dialogue.get_by_role("button", name="Save").click()
        dialogue.locator(".problem").first.wait_for()
        yield "new policy, refused"
        dialogue.get_by_label("Name", exact=True).fill(LONG)
        said = "8 to 16 letters and digits, at least 2 digits, nothing a friend could guess"
        dialogue.get_by_label("What the site says").fill(said)
        dialogue.get_by_role("button", name="Read").click()
        dialogue.get_by_text("Not sure of").wait_for()
        yield "new policy, read"
        for fold in dialogue.locator("summary").all():
            fold.click()
        page.wait_for_timeout(200)
        yield "new policy, rare rules"
        yield from walk.leave()


def carry(walk: Walker) -> Iterator[str]:
    """In, out, backed up, the way back in."""
    page = walk.page
    walk.go("/carry")
    file = {"name": "from-the-old-book.csv", "mimeType": "text/csv", "buffer": CSV.encode()}
    page.get_by_label("File to bring in").set_input_files(file)  # type: ignore[arg-type]
    walk.button("Bring 1 login in").wait_for()
    yield "bring in, preview"
    walk.button("Bring 1 login in").click()
    page.get_by_text("1 login brought in").wait_for()
    page.wait_for_load_state("networkidle")
    yield "brought in"
    left = page.get_by_role("region", name="Left out", exact=True).get_by_role("button").first
    if left.count():
        with walk.opened(left, "left out"):
            yield "left-out rows in the clear"
    walk.go("/carry")
    broken = {"name": "broken.csv", "mimeType": "text/csv", "buffer": b"\x00\xff\x00"}
    page.get_by_label("File to bring in").set_input_files(broken)  # type: ignore[arg-type]
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    yield "bring in, refused"
    page.keyboard.press("o")
    page.get_by_role("heading", name="A sealed bundle").wait_for()
    yield "take out"
    page.get_by_text("for the key of another vault").click()
    yield "take out, for a key"
    page.get_by_text("under a passphrase", exact=True).click()
    page.get_by_label("Passphrase of the bundle").fill(SEAL)
    page.get_by_label("The same again").fill("another")
    walk.button("Seal and save it").click()
    page.get_by_text("The two differ").wait_for()
    yield "take out, refused"
    with walk.opened(walk.button("Write CSV"), "in the clear"):
        yield "in the clear"
    walk.button("Write CSV").click()
    walk.button("Write it beside the vault").click()
    walk.prove()
    page.get_by_text("lies in the clear in a file").wait_for()
    yield "a file in the clear"
    walk.go("/carry")
    page.keyboard.press("k")
    walk.button("Make a sealed backup").click()
    walk.prove()
    page.get_by_text("Written, and read through").wait_for()
    yield "backed up"
    with walk.opened(walk.button("Look into"), "look into a backup"):
        yield "look into a backup"


def way_back_in(walk: Walker) -> Iterator[str]:
    """Sheets made, closed, practised with, made void."""
    page = walk.page
    walk.go("/carry")
    page.keyboard.press("w")
    walk.button("Split among people").wait_for()
    page.wait_for_load_state("networkidle")
    yield "way back in"
    walk.button("Split among people").click()
    agree = page.get_by_role("button", name="Make new ones")
    page.get_by_role("dialog").first.wait_for()
    if agree.count():
        yield "new sheets?"
        agree.click()
    walk.prove()
    page.get_by_role("dialog", name="Sheet 1 of 3").wait_for()
    yield "sheets"
    walk.button("The next").click()
    walk.button("close without paper").click()
    yield "sheets, closed without paper"
    walk.button("Close without paper").click()
    page.get_by_role("dialog").first.wait_for(state="hidden")
    page.wait_for_load_state("networkidle")
    yield "way back in, with sheets"
    with walk.opened(walk.button("Practise"), "practise") as dialogue:
        yield "practise"
        dialogue.get_by_label("Words of sheet 1").fill("lantern orchard")
        yield "practise, half typed"
        page.keyboard.press("Escape")
        page.wait_for_timeout(200)
    with walk.opened(walk.button("Make void"), "make void"):
        yield "make void"


def safeguards(walk: Walker) -> Iterator[str]:
    """Settings changed and refused."""
    page = walk.page
    walk.go("/safeguards")
    page.get_by_text("none damaged").wait_for()
    yield "safeguards, vault read through"
    lock = page.get_by_label("Lock after so many seconds")
    lock.fill("700")
    lock.press("Tab")
    page.wait_for_timeout(200)
    yield "safeguards, changed"
    walk.button("Save").click()
    walk.prove()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(200)
    yield "safeguards, saved"
    page.get_by_label("Keep earlier secrets for so many days").scroll_into_view_if_needed()
    page.get_by_label("Keep earlier secrets for so many days").fill("30")
    walk.button("Save").click()
    walk.prove()
    page.wait_for_load_state("networkidle")
    opener = page.get_by_role("button", name="past that")
    with walk.opened(opener, "delete old secrets"):
        yield "delete old secrets"


def measure(walk: Walker) -> Iterator[str]:
    """One, two, and several guises."""
    page = walk.page
    walk.go("/measure")
    field = page.get_by_role("textbox").first
    for name, text in {
        "a word": "Lisbon47!",
        "typed one key to the right": "[sddeptf",
        "long": "a" * 300,
        "by chance": "7gK!w2_pQz9vLm4x",
        "several parts": "xX_limelight_Xx 2031 14:30 qwertyuiop counting 3 6 9 12 orchard",
    }.items():
        field.fill(text)
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(200)
        yield f"measure, {name}"
    walk.button("Show what is typed").click()
    yield "measure, shown in its place"
    walk.button("Compare with another").click()
    page.get_by_role("textbox", name="First secret").fill("Lisbon47!")
    page.get_by_role("textbox", name="Second secret").fill("velvet orchard lantern")
    page.get_by_text("is better").wait_for()
    yield "measure, two compared"


def passphrase(walk: Walker) -> Iterator[str]:
    """The vault's own."""
    page = walk.page
    walk.go("/passphrase")
    page.get_by_text("Compared while you type").wait_for()
    page.get_by_label("New passphrase", exact=True).fill("abc")
    page.wait_for_load_state("networkidle")
    yield "passphrase, too weak"
    walk.button("Use these words").click()
    page.get_by_text("Good: nothing").wait_for()
    yield "passphrase, good"
    walk.button("Change the passphrase").click()
    page.wait_for_timeout(400)
    yield "passphrase, refused"


def addresses(walk: Walker) -> Iterator[str]:
    """Whose address is this?"""
    page = walk.page
    for name, text in {
        "known": "https://fernbank.example/sign-in",
        "like a known one": "https://fernbamk.example/",
        "none": "not an address",
        "long": "https://" + "a" * 60 + "." + "b" * 60 + ".example/" + "c" * 200,
    }.items():
        walk.go("/address")
        page.get_by_role("textbox").first.fill(text)
        page.keyboard.press("Enter")
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(200)
        yield f"address, {name}"


def locked(walk: Walker) -> Iterator[str]:
    """The locked page: comes last."""
    page = walk.page
    walk.go("/logins")
    page.keyboard.press("l")
    page.get_by_role("heading", name="The vault is locked").wait_for()
    yield "locked"
    page.get_by_label("Vault passphrase").fill("not this one")
    page.keyboard.press("Enter")
    page.get_by_text("That is not the vault's passphrase").wait_for()
    yield "locked, wrong passphrase"
    walk.button("The passphrase is forgotten").click()
    page.get_by_role("heading", name="A way back in").wait_for()
    yield "way back in, locked"
    page.get_by_label("Words of sheet 1").fill("lantern orchard what is this")
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(200)
    yield "way back in, wrong words"
    walk.button("Back to the passphrase").click()
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1).first.wait_for()


def server_away(walk: Walker) -> Iterator[str]:
    """The line at the top when the server has ended: the last of all."""
    page = walk.page
    walk.go("/logins")
    walk.served.process.terminate()
    walk.served.process.wait()
    page.wait_for_timeout(3_000)
    yield "the server is away"


def crowded(walk: Walker) -> Iterator[str]:
    """What looks otherwise at thousands of logins."""
    page = walk.page
    walk.go("/")
    page.get_by_role("heading", name="to see to").wait_for()
    page.wait_for_load_state("networkidle")
    yield "worklist of thousands"
    page.locator(".facet", has_text="Reused").first.click()
    page.wait_for_load_state("networkidle")
    yield "worklist of thousands, reused"
    for _ in range(3):
        page.keyboard.press("PageDown")
        page.wait_for_load_state("networkidle")
    yield "worklist of thousands, further down"
    page.locator(".facet").first.click()
    for path in ("/logins", "/reach", "/report", "/rotate", "/events", "/waivers"):
        walk.go(path)
        page.wait_for_load_state("networkidle")
        yield f"thousands in {path}"
    walk.go("/reach")
    page.get_by_role("row").nth(1).click()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    yield "reuse map of thousands, one chosen"
    walk.go("/rotate")
    with walk.opened(walk.button("New campaign"), "campaign of thousands") as dialogue:
        dialogue.get_by_text("By hand").click()
        page.get_by_role("group", name="Logins").wait_for()
        yield "campaign of thousands"


def new_vault(walk: Walker) -> Iterator[str]:
    """A vault made, and its first hour."""
    page = walk.page
    page.goto(walk.served.url)
    page.get_by_text("equally likely").wait_for()
    yield "a new vault"
    page.get_by_label("Vault passphrase").fill("abc")
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(200)
    yield "a new vault, too weak"
    words = page.locator(".create-vault-p").inner_text()
    walk.button("use these, then type them again").click()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(200)
    yield "a new vault, words taken"
    page.get_by_label("The same again").fill(words)
    walk.button("Make the vault").click()
    page.get_by_role("heading", level=1).first.wait_for()
    page.get_by_role("link", name="Logins", exact=True).wait_for()
    page.get_by_text("This vault has not been checked yet").wait_for()
    page.wait_for_load_state("networkidle")
    yield "first hour"
    for path in (
        *("/logins", "/rotate", "/policies", "/reach", "/waivers", "/events", "/report"),
        *("/carry?part=back-up", "/carry?part=way-back-in", "/carry?part=take-out", "/safeguards"),
        *("/generate", "/logins/bin", "/measure"),
    ):
        walk.go(path)
        yield f"empty {path}"


IN_THE_DEMO: tuple[Journey, ...] = (
    *(views, frame, worklist, reuse_map, logins, login, generate, measure, addresses),
    *(policies, rotations, carry, way_back_in, safeguards, passphrase, bin_of_logins, login_form),
    *(locked, server_away),
)
