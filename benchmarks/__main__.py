"""Measures what the product promises, in one run on this machine.

Times are medians or 95th percentiles as said. Ratios are of two things in the same run.
"""

import gzip
import json
import re
import secrets
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from functools import partial
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright
from tests.support.random_policies import random_policies
from tests.support.running import ROOT, Served, launch, serving

from benchmarks.carry import bench_carry
from benchmarks.check import bench_check
from benchmarks.corpus import bench_corpus
from benchmarks.served import bench_served
from benchmarks.table import ms, row, timed
from newknot.core.audit import audit
from newknot.core.generate import (
    PassphraseShape,
    PassphraseSpace,
    PasswordSpace,
    SentenceShape,
    SentenceSpace,
    conflicts,
)
from newknot.core.login import Origin
from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.crypto import INTERACTIVE, derive_key
from newknot.edge import SystemRandom
from newknot.store.logins import get_secrets, list_cards
from newknot.store.vault import Vault
from newknot.usecases.check.audited import audited
from newknot.usecases.check.checks import run_check
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, list_logins
from newknot.usecases.progress import Progress
from newknot.usecases.vault.vault_passphrase import Likeness, judge

PASSPHRASE = "seven lamps over wet gravel"  # noqa: S105
SIX_WORDS = "gravel oven mitten copper thimble yearbook"
LOGINS = 2_000
CORPUS_LINES = 3_000_000
DICTIONARIES = """
import os, time
from newknot.core.strength.dictionaries import dictionaries
def resident():
    return int(open("/proc/self/statm").read().split()[1]) * os.sysconf("SC_PAGE_SIZE")
before, began = resident(), time.perf_counter()
dictionaries()
print(time.perf_counter() - began, (resident() - before) / 2**20)
"""


def fill(path: Path, state: Path) -> None:
    """A vault of 2,000 logins: three of four drawn, the rest chosen, some shared."""
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=INTERACTIVE, state_folder=state)
    space = PasswordSpace(usual_policies()["four classes, 20"], 20)
    now = datetime.now(UTC)
    with vault.transaction():
        for i in range(LOGINS):
            if i % 4:
                secret = NewSecret(Secret(space.draw(SystemRandom())), Origin("drawn", 126.0))
            else:
                secret = NewSecret(Secret(f"Lantern{1950 + i % 300}"), Origin("own"))
            draft = LoginDraft(
                title=f"Site {i:05}", user_name=f"ilse{i % 7}", address=f"https://site{i}.example"
            )
            add_login(vault, draft, secret, now=now - timedelta(days=i % 900))
    vault.close()


def usual_policies() -> dict[str, SitePolicy]:
    """Policies as sites have them, of classes alone."""

    def made(length: int, symbols: str, **least: int) -> SitePolicy:
        classes = [
            {"name": name, "characters": characters, "minimum": least.get(name, 0)}
            for name, characters in {**STANDARD_CLASSES, "symbol": symbols}.items()
            if characters
        ]
        return SitePolicy.from_dict(
            {"min_length": length, "max_length": length, "classes": classes}
        )

    every = STANDARD_CLASSES["symbol"]
    return {
        "four classes, 20": made(20, every),
        "one of each, 16": made(16, every, lower=1, upper=1, digit=1, symbol=1),
        "3 digits and 2 symbols, 12": made(12, every, digit=3, symbol=2),
        "few symbols, 24": made(24, "-_.@", upper=1, digit=2, symbol=1),
        "letters and digits, 16": made(16, "", digit=1),
    }


def further_policies() -> dict[str, SitePolicy]:
    """Rules that look at neighbours, ends, uses, or what a site keeps."""
    each = usual_policies()["one of each, 16"]
    words = ("ilse", "gantry")
    return {
        "one of each, 2 alike, 2 forbidden texts, 16": replace(
            each, max_identical_run=2, forbidden=words
        ),
        "one of each, 2 alike, sequences of 3, 16": replace(
            each, max_identical_run=2, max_sequence_run=3
        ),
        "one of each, 2 alike, a letter first, 20 forbidden texts, 16": replace(
            each,
            max_identical_run=2,
            first_from=STANDARD_CLASSES["lower"] + STANDARD_CLASSES["upper"],
            forbidden=tuple(f"{a}{b}ntry" for a in "bcdfg" for b in "aeio"),
        ),
        "three of four classes, 8": replace(
            usual_policies()["four classes, 20"], min_length=8, max_length=8, min_classes=3
        ),
        "each character once, case folded, 12": replace(
            each, min_length=12, max_length=12, distinct=True, folds_case=True
        ),
        "each character twice at most, 2 alike, first 8 kept, 16": replace(
            each, max_uses=2, max_identical_run=1, keeps_first=8
        ),
        "each character once, 16": replace(each, distinct=True),
        "each character twice at most, 24": replace(each, min_length=24, max_length=24, max_uses=2),
        "case folded, 16": replace(each, folds_case=True),
        "first 8 kept, 16": replace(each, keeps_first=8),
        "a letter first, a digit last, 16": replace(
            each,
            first_from=STANDARD_CLASSES["lower"] + STANDARD_CLASSES["upper"],
            last_from=STANDARD_CLASSES["digit"],
        ),
        "a letter first, 2 alike, 12": replace(
            each,
            min_length=12,
            max_length=12,
            max_identical_run=2,
            first_from=STANDARD_CLASSES["lower"] + STANDARD_CLASSES["upper"],
        ),
        "few symbols, none twice in a row, 24": replace(
            usual_policies()["few symbols, 24"], max_identical_run=1
        ),
        "two of four classes, 10": replace(
            usual_policies()["four classes, 20"], min_length=10, max_length=10, min_classes=2
        ),
        "letters and digits, 3 forbidden texts, 16": replace(
            usual_policies()["letters and digits, 16"], forbidden=(*words, "cue")
        ),
        "3 digits and 2 symbols, sequences of 4, 12": replace(
            usual_policies()["3 digits and 2 symbols, 12"], max_sequence_run=4
        ),
        "digits alone, none twice in a row, 8": SitePolicy.from_dict(
            {
                "min_length": 8,
                "max_length": 8,
                "max_identical_run": 1,
                "classes": [{"name": "digit", "characters": STANDARD_CLASSES["digit"]}],
            }
        ),
    }


def plain_loop(alphabet: str, length: int) -> str:
    """What a draw costs where nothing is demanded of it."""
    return "".join(secrets.choice(alphabet) for _ in range(length))


def repeat(act: Callable[[], object]) -> None:
    for _ in range(300):
        act()


def bench_draws() -> None:
    print("\nDraws, against a plain loop over secrets.choice")
    for name, policy in {**usual_policies(), **further_policies()}.items():
        length = policy.max_length
        compiling = statistics.median(timed(PasswordSpace, policy, length) for _ in range(9))
        draw = partial(PasswordSpace(policy, length).draw, SystemRandom())
        loop = partial(plain_loop, "".join(c.characters for c in policy.classes), length)
        ours, plain = [], []
        for _ in range(7):
            ours.append(timed(repeat, draw))
            plain.append(timed(repeat, loop))
        ratio = statistics.median(ours) / statistics.median(plain)
        row(f"  {name}: a draw, ratio to the plain loop", f"{ratio:.2f}", "1.3")
        row(f"  {name}: compiling", ms(compiling), "50 ms")
    bench_steps()


def bench_steps() -> None:
    """A slider's steps: each length from what was counted for the one before."""
    for name in (
        "one of each, 2 alike, sequences of 3, 16",
        "one of each, 2 alike, a letter first, 20 forbidden texts, 16",
    ):
        policy = replace(further_policies()[name], min_length=8, max_length=64)
        space, steps = PasswordSpace(policy, 16), []
        for length in range(17, 33):
            began = time.perf_counter()
            space = PasswordSpace(policy, length, beside=space)
            steps.append(time.perf_counter() - began)
        row(f"  {name}: a length more", ms(statistics.median(steps)), "10 ms")


def bench_conflicts() -> None:
    print("\nConflicts of 1,000 random policies, to 64 characters and 20 forbidden texts")
    undecided, slowest = 0, 0.0
    for policy in random_policies(7, 1_000):
        began = time.perf_counter()
        found = conflicts(policy)
        slowest = max(slowest, time.perf_counter() - began)
        undecided += found is not None and not found.is_decided
    row("  conflicts of 1,000 random policies: undecided", str(undecided), "1")
    row("  conflicts of 1,000 random policies: the slowest", ms(slowest), "2 s")


def bench_phrases() -> None:
    print("\nWords and sentences")
    site = usual_policies()["one of each, 16"]
    site = replace(site, max_length=64, max_identical_run=2, max_sequence_run=3)
    dressed = PassphraseShape(6, "-", "first", "digit")
    for name, make in (
        ("six words", lambda: PassphraseSpace(PassphraseShape())),
        ("six words to a site with runs and sequences", lambda: PassphraseSpace(dressed, site)),
        ("a sentence", lambda: SentenceSpace(SentenceShape())),
    ):
        compiling = statistics.median(timed(make) for _ in range(5))
        draw = statistics.median(timed(make().draw, SystemRandom()) for _ in range(50))
        row(f"  {name}: compiling", ms(compiling))
        row(f"  {name}: a draw", ms(draw), "5 ms")


def bench_vault(folder: Path) -> None:
    print(f"\nA vault of {LOGINS:,} logins")
    path, state = folder / "own.vault", folder / "state"
    row("  filled in one transaction", f"{timed(fill, path, state):.1f} s")
    deriving = statistics.median(
        timed(lambda: derive_key(PASSPHRASE, salt=bytes(16), parameters=INTERACTIVE))
        for _ in range(3)
    )
    row("  Argon2id alone", ms(deriving))

    def open_and_list() -> None:
        vault = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
        list_logins(vault)
        vault.close()

    whole = statistics.median(timed(open_and_list) for _ in range(5))
    row("  unlock to the first list, beyond Argon2id", ms(whole - deriving), "1 s")
    vault = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
    now = datetime.now(UTC)
    measure("warm")
    checks = [
        timed(lambda: run_check(vault, lists=(), progress=Progress(), now=now)) for _ in range(3)
    ]
    row("  the first check", ms(checks[0]), "2 s")
    row("  a check after it, nothing changed", ms(min(checks[1:])))
    logins = [
        audited(card, held)
        for card in list_cards(vault)[0]
        for held in (get_secrets(vault, card.login_id),)
    ]
    row(
        "  the audit alone, with nothing kept",
        ms(timed(lambda: audit(logins, now=now, corpus=None))),
    )
    secrets_of = [one.secret.reveal() for one in logins if one.secret is not None]
    each = sorted(timed(measure, text) for text in secrets_of)
    row("  measuring one secret, median", ms(each[len(each) // 2]), "1 ms")
    row("  measuring one secret, 95th percentile", ms(each[int(len(each) * 0.95)]), "5 ms")
    done = subprocess.run(
        [sys.executable, "-c", DICTIONARIES], capture_output=True, text=True, check=True
    )
    seconds, mib = map(float, done.stdout.split())
    row("  reading the dictionaries, in a process of its own", ms(seconds), "500 ms")
    row("  the memory they take", f"{mib:.0f} MiB", "150 MB")
    likeness = Likeness()
    row("  reading every secret, to compare a passphrase", ms(timed(likeness.look_through, vault)))
    judging = statistics.median(
        timed(lambda: judge(SIX_WORDS, vault=vault, corpora=(), likeness=likeness, drawn=False))
        for _ in range(9)
    )
    row("  judging a passphrase of six words as typed", ms(judging), "50 ms")
    row("  measuring 10,000 characters", ms(timed(measure, "aB3-" * 2500)), "150 ms")
    vault.close()


def bench_browser(browser: Browser, served: Served) -> None:
    print("\nIn the browser")
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(served.url)
    page.get_by_label("Vault passphrase").wait_for()
    paint = page.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime")
    row("  first paint", ms(paint / 1000), "1 s from a cold server")
    page.get_by_label("Vault passphrase").fill(PASSPHRASE)
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name="Worklist").or_(
        page.get_by_role("heading", level=1, name="to see to")
    ).wait_for()
    page.keyboard.press("2")
    page.get_by_text(f"{LOGINS:,} of {LOGINS:,} logins").wait_for()
    began = time.perf_counter()
    page.get_by_label("Find as you type").fill("site 01234")
    page.get_by_text(f"1 of {LOGINS:,} logins").wait_for()
    row(f"  finding one of {LOGINS:,} as typed", ms(time.perf_counter() - began))
    bench_slider(page)
    page.close()


def bench_slider(page: Page) -> None:
    page.keyboard.press("Escape")
    page.keyboard.press("3")
    page.get_by_text("equally likely").wait_for()
    handle = page.get_by_role("slider")
    handle.focus()
    steps: list[float] = page.evaluate(
        """async () => {
          const shown = () => document.querySelector('.drawn .secret.big .visually-hidden');
          const handle = document.querySelector('[role=slider]');
          const times = [];
          for (let i = 0; i < 80; i++) {
            const before = shown().textContent;
            const code = i % 40 < 20 ? 39 : 37;
            const key = code === 39 ? 'ArrowRight' : 'ArrowLeft';
            const changed = new Promise((done) => {
              const watch = new MutationObserver(() => {
                if (shown()?.textContent === before) return;
                watch.disconnect();
                done();
              });
              const deep = {subtree: true, childList: true, characterData: true};
              watch.observe(document.querySelector('.drawn'), deep);
            });
            const began = performance.now();
            handle.dispatchEvent(
              new KeyboardEvent('keydown', {key, keyCode: code, which: code, bubbles: true}));
            await changed;
            times.push(performance.now() - began);
            await new Promise((go) => setTimeout(go, 33));
          }
          return times;
        }"""
    )
    ordered = sorted(steps)
    row("  a slider step to the new secret on screen, median", ms(ordered[40] / 1000))
    row("  the same, 95th percentile", ms(ordered[76] / 1000), "33 ms")


def bench_size(served: Served) -> None:
    print("\nThe front end's first load")
    dist = ROOT / "web" / "dist"
    html = (dist / "index.html").read_text()
    first = set(re.findall(r"/assets/[^\"']+\.(?:js|css)", html))
    size = sum(len(gzip.compress((dist / name.lstrip("/")).read_bytes(), 9)) for name in first)
    row("  scripts and styles of the first page, gzipped", f"{size / 1000:.0f} kB", "350 kB")


def bench_cold(folder: Path) -> None:
    print("\nA cold start")
    began = time.perf_counter()
    with serving(folder / "cold"):
        row("  server started until it answers", ms(time.perf_counter() - began))


def main() -> None:
    print(json.dumps({"measured": datetime.now(UTC).isoformat(timespec="seconds")}))
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        bench_draws()
        bench_conflicts()
        bench_phrases()
        bench_vault(folder)
        bench_check(folder)
        bench_carry(folder)
        bench_corpus(folder, lines=CORPUS_LINES)
        bench_served()
        bench_cold(folder)
        with serving(folder) as served, sync_playwright() as playwright:
            bench_size(served)
            browser = launch(playwright)
            bench_browser(browser, served)
            browser.close()


main()
