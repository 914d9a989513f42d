"""From an empty vault to a renewed secret, and then no trace of it anywhere."""

import os
import re
from datetime import date
from hashlib import sha1
from pathlib import Path

import pytest
from playwright.sync_api import BrowserContext, Page, Playwright, expect

from newknot.standins.sites import LETTERS_DIGITS
from newknot.store.corpus_build import HashList, build_corpus
from tests.conftest import PASSPHRASE
from tests.e2e.conftest import BUSY_MS
from tests.support.memory import memory_holds
from tests.support.running import BROWSER_ARGUMENTS, CHROMIUM, Served, practice_sites, serving

USER = "ilse.quist77"
OLD = "limelight7gaffer"
TITLES = ["Gantry Hire of Reddle", "Papertape of Reddle", "Lumen Fellows of Reddle"]
SYMBOLS = "!#$%&*+-./:;=?@_"


def paste(page: Page, label: str) -> None:
    """What is on the clipboard, into a field, as a person does it."""
    page.get_by_label(label, exact=True).focus()
    page.keyboard.press("Control+v")


def go(page: Page, key: str, heading: str | re.Pattern[str]) -> None:
    """To a view by its key."""
    page.keyboard.press(key)
    page.get_by_role("heading", level=1, name=heading).wait_for()


def clipboard(page: Page) -> str:
    return str(page.evaluate("navigator.clipboard.readText()"))


def wait_for_copy(page: Page, what: str) -> None:
    said = re.compile(f"^{what}.* put on the clipboard [01] s ago")
    expect(page.get_by_text(said).first).to_be_visible()


def sign_in(site: Page, base: str) -> None:
    """With the password that is on the clipboard."""
    site.bring_to_front()
    site.goto(base + "sign-in")
    site.get_by_label("User name").fill(USER)
    paste(site, "Password")
    site.get_by_role("button", name="Sign in").click()
    expect(site.get_by_text(f"Signed in as {USER}")).to_be_visible()


def sign_up(site: Page, base: str) -> None:
    site.bring_to_front()
    site.goto(base + "sign-up")
    site.get_by_label("User name").fill(USER)
    paste(site, "New password")
    paste(site, "New password again")
    site.get_by_role("button", name="Sign up").click()
    expect(site.get_by_text(f"Signed in as {USER}")).to_be_visible()


def create(page: Page, served: Served) -> None:
    page.goto(served.url)
    page.get_by_label("Vault passphrase").fill("Sunday2019")
    expect(page.get_by_text("Too weak to guard a vault")).to_be_visible()
    expect(page.get_by_role("button", name="Make the vault")).to_be_disabled()
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.get_by_label("The same again").fill(PASSPHRASE + "x")
    page.get_by_role("button", name="Make the vault").click()
    expect(page.get_by_text("The two differ")).to_be_visible()
    page.get_by_label("The same again").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    expect(page.get_by_text("This vault has not been checked yet")).to_be_visible()
    first_hour = page.get_by_role("region", name="First hour")
    expect(first_hour.get_by_role("link", name="make one, on paper")).to_be_visible()


def at_a_sign_up_form(page: Page, site: Page, sites: Served) -> str:
    """Generate first, sign up with it, and place it: the secret is kept from the copy on."""
    page.keyboard.press("3")
    expect(page.get_by_text("126.07 bits")).to_be_visible()
    page.get_by_role("switch", name="Symbols").click()
    page.get_by_label("At least so many of digits").fill("2")
    expect(page.get_by_text("digits (at least 2)")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("y")
    wait_for_copy(page, "New secret")
    secret = clipboard(page)
    assert len(secret) == 20 and secret.isalnum() and sum(c.isdigit() for c in secret) >= 2
    sign_up(site, sites.site("gantryrentals"))
    page.bring_to_front()
    page.reload()
    page.get_by_role("button", name="place", exact=True).click()
    page.get_by_role("button", name="A new login").click()
    page.get_by_label("Title", exact=True).fill(TITLES[0])
    page.get_by_label("User name").fill(USER)
    page.get_by_label("Address").fill(sites.site("gantryrentals"))
    page.get_by_role("button", name="Save").click()
    page.get_by_role("heading", level=1, name=TITLES[0]).wait_for()
    page.keyboard.press("y")
    wait_for_copy(page, f"Secret of {TITLES[0]}")
    sign_in(site, sites.site("gantryrentals"))
    page.bring_to_front()
    return secret


def type_policy(page: Page, name: str, host: str, *, longest: str, symbols: str) -> None:
    """What a site takes, as one writes it down."""
    go(page, "5", "Site policies")
    page.get_by_role("button", name="New policy").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill(name)
    dialog.get_by_label("Sites (domains, with commas)").fill(host)
    dialog.get_by_label("Greatest length").fill(longest)
    if symbols:
        dialog.get_by_label("Characters of Symbols").fill(symbols)
    else:
        dialog.get_by_role("checkbox", name="Symbols").uncheck()
    dialog.get_by_role("button", name="Save").click()
    expect(dialog).to_have_count(0)
    expect(page.get_by_text(f"8 to {longest} characters")).to_be_visible()


def vault_first(page: Page, site: Page, sites: Served) -> str:
    """The login first, its secret drawn to a policy that was typed."""
    type_policy(page, "Papertape", "papertape.localhost", longest="32", symbols=SYMBOLS)
    go(page, "2", re.compile("^Logins$"))
    page.keyboard.press("n")
    page.get_by_label("Title", exact=True).fill(TITLES[1])
    page.get_by_label("User name").fill(USER)
    page.get_by_label("Address").fill(sites.site("papertape"))
    expect(page.get_by_text("Papertape: 8 to 32 characters")).to_be_visible()
    page.get_by_label("Length in characters").fill("14")
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=TITLES[1]).wait_for()
    page.keyboard.press("y")
    wait_for_copy(page, f"Secret of {TITLES[1]}")
    secret = clipboard(page)
    assert len(secret) == 14 and set(secret) <= set(LETTERS_DIGITS + SYMBOLS)
    sign_up(site, sites.site("papertape"))
    page.bring_to_front()
    return secret


def an_old_one(page: Page, site: Page, sites: Served) -> None:
    """An own secret that was used for years, typed twice."""
    go(page, "2", re.compile("^Logins$"))
    page.keyboard.press("n")
    page.get_by_label("Title", exact=True).fill(TITLES[2])
    page.get_by_label("User name").fill(USER)
    page.get_by_label("Address").fill(sites.site("lumensociety"))
    page.get_by_text("my own").click()
    page.get_by_label("Own secret").fill(OLD)
    page.get_by_label("The same again").fill("other")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("was typed in two different ways")).to_be_visible()
    page.get_by_label("The same again").fill(OLD)
    page.get_by_role("button", name="Save").click()
    page.get_by_role("heading", level=1, name=TITLES[2]).wait_for()
    page.keyboard.press("y")
    wait_for_copy(page, f"Secret of {TITLES[2]}")
    sign_up(site, sites.site("lumensociety"))
    page.bring_to_front()


def at_the_change_form(page: Page, site: Page, base: str, answer: str) -> str:
    """Current one in, new one twice, and what the site says to that."""
    page.keyboard.press("1")
    wait_for_copy(page, "Current secret of")
    site.bring_to_front()
    site.goto(base + ".well-known/change-password")
    paste(site, "Current password")
    page.bring_to_front()
    page.keyboard.press("3")
    wait_for_copy(page, "New secret of")
    secret = clipboard(page)
    site.bring_to_front()
    paste(site, "New password")
    paste(site, "New password again")
    site.get_by_role("button", name="Change password").click()
    expect(site.get_by_text(answer)).to_be_visible()
    page.bring_to_front()
    return secret


def check_and_rotate(page: Page, site: Page, sites: Served) -> str:
    """The check finds the old one in the corpus; it is renewed at the site in the other tab."""
    go(page, "1", "Worklist")
    page.keyboard.press("c")
    row = page.get_by_role("row").first
    expect(row).to_contain_text(TITLES[2])
    expect(row).to_contain_text("In the corpus, 1,000 to 2,000 times (list of May 2026)")
    page.keyboard.press("r")
    expect(page.get_by_text("Did the site take it?")).to_be_visible()
    # Nothing is known of this site yet: 20 characters are drawn, and it takes 16.
    at_the_change_form(page, site, sites.site("lumensociety"), "must have 8 to 16 characters")
    page.keyboard.press("n")
    page.get_by_label("Its sentence, pasted").fill("8 to 16 letters and digits")
    page.get_by_role("button", name="Learn it, and draw another").click()
    expect(page.get_by_text("16 characters, 90.3 bits, sealed on disk")).to_be_visible()
    secret = at_the_change_form(page, site, sites.site("lumensociety"), "has been changed.")
    site.get_by_role("button", name="Sign out").click()
    page.bring_to_front()
    page.keyboard.press("y")
    expect(page.get_by_role("button", name="It opens the site")).to_be_visible()
    page.get_by_role("link", name=TITLES[2]).click()
    page.get_by_role("heading", name="History").wait_for()
    page.keyboard.press("y")
    wait_for_copy(page, f"Secret of {TITLES[2]}")
    assert clipboard(page) == secret
    sign_in(site, sites.site("lumensociety"))
    page.bring_to_front()
    page.keyboard.press("r")
    page.get_by_role("button", name="It opens the site").wait_for()
    page.keyboard.press("v")
    expect(page.get_by_text("Done.")).to_be_visible()
    # Of an ended rotation the numbers are those of the views again.
    page.keyboard.press("2")
    page.get_by_role("row", name=re.compile(TITLES[2])).get_by_role("link").click()
    expect(page.get_by_text("never used")).to_be_visible()
    page.get_by_role("button", name=re.compile("show: the secret of")).first.click()
    expect(page.get_by_text(OLD)).to_be_attached()
    page.keyboard.press("1")
    expect(page.get_by_text("1 of 1 renewed since")).to_be_visible()
    return secret


def files_holding(folder: Path, words: list[bytes]) -> list[tuple[str, bytes]]:
    """(file, word) wherever a word stands in a file below a folder."""
    found: list[tuple[str, bytes]] = []
    for path in folder.rglob("*"):
        if path.is_file() and not path.is_symlink():
            body = path.read_bytes()
            found += [(str(path.relative_to(folder)), word) for word in words if word in body]
    return found


def test_from_an_empty_vault_to_a_renewed_secret_without_a_trace(
    tmp_path: Path, chromium: Playwright, monkeypatch: pytest.MonkeyPatch
) -> None:
    own, temporary, profile = (tmp_path / n for n in ("own", "temporary", "profile"))
    temporary.mkdir()
    monkeypatch.setenv("TMPDIR", str(temporary))
    (tmp_path / "list.txt").write_text(
        f"{sha1(OLD.encode(), usedforsecurity=False).hexdigest()}:1500\n"
    )
    corpus = tmp_path / "list.corpus"
    build_corpus([HashList(tmp_path / "list.txt")], corpus, name="list", dated_on=date(2026, 5, 1))
    with (
        practice_sites(tmp_path / "sites") as sites,
        serving(own, "--corpus", str(corpus)) as served,
    ):
        context: BrowserContext = chromium.chromium.launch_persistent_context(
            profile,
            executable_path=CHROMIUM,
            args=BROWSER_ARGUMENTS,
            viewport={"width": 1280, "height": 800},
        )
        context.set_default_timeout(BUSY_MS)
        context.grant_permissions(["clipboard-read", "clipboard-write"], origin=served.url)
        page, site = context.new_page(), context.new_page()
        errors: list[str] = []
        page.on("console", lambda m: errors.append(m.text) if m.type == "error" else None)
        page.bring_to_front()
        create(page, served)
        secrets = [at_a_sign_up_form(page, site, sites), vault_first(page, site, sites)]
        an_old_one(page, site, sites)
        secrets.append(check_and_rotate(page, site, sites))
        page.keyboard.press("l")
        expect(page.get_by_text("The vault is locked")).to_be_visible()
        words = [w.encode() for w in (PASSPHRASE, OLD, *secrets, *TITLES, USER)]
        assert len(set(words)) == 9
        if os.geteuid() == 0:
            assert memory_holds(served.process.pid, words) == set()
        assert files_holding(own, words) == []
        page.goto("about:blank")
        context.close()
        assert errors == []
    assert files_holding(own, words) == files_holding(temporary, words) == []
    typed_at_sites = {USER.encode()}
    kept_by_browser = files_holding(profile, [w for w in words if w not in typed_at_sites])
    assert kept_by_browser == []
