"""What users wait for at 10,000 logins: over HTTP and in the browser, served as `run serve` does.

A crowded vault: three logins in ten share a secret, in groups of up to 120, one in ten has
one that is like another's, one in twenty stands in the corpus, and one mailbox resets 3,000.

    python -m benchmarks.served [LOGINS]
"""

import itertools
import os
import random
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import httpx
from playwright.sync_api import Page, sync_playwright
from tests.support.running import Served, launch, serving

from benchmarks.table import ms, row, timed
from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.crypto import KdfParameters
from newknot.edge import MEMORY_SETTINGS
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login

PASSPHRASE = "seven lamps over wet gravel"  # noqa: S105
LOGINS = 10_000
TYPED_AFTER_S = 3.0
QUICK = KdfParameters(memory_kib=64, passes=1, lanes=1)
WORDS = ("lantern", "gantry", "kettle", "harbour", "copper", "ledger", "winter", "thimble")
MADE_OF = "abcdefghijkmnopqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789!#-_"


def fill(folder: Path, logins: int) -> None:
    """The crowded vault, and the corpus of what of it was breached."""
    path, state = folder / "own.vault", folder / "state"
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=QUICK, state_folder=state)
    draw = random.Random(1)  # noqa: S311 - made up
    now = datetime.now(UTC)
    breached: list[str] = []
    mailbox = ""
    sizes = itertools.cycle((2, 3, 5, 12, 40, 120))
    shared, left = "", 0
    with vault.transaction():
        for i in range(logins):
            text = "".join(draw.choice(MADE_OF) for _ in range(20))
            origin = Origin("drawn", 118.0)
            if i % 10 < 3:
                if left == 0:
                    shared, left = f"{draw.choice(WORDS)}{i:05}{text[:3]}", next(sizes)
                text, origin, left = shared, Origin("own"), left - 1
            elif i % 10 == 3:
                text, origin = f"{draw.choice(WORDS)}-{i // 40:04}{i % 40:02}", Origin("own")
            elif i % 20 == 4:
                text, origin = f"{draw.choice(WORDS)}{i:05}", Origin("own")
                breached.append(text)
            elif i % 10 == 5:
                text, origin = text[: draw.randrange(7, 13)].lower(), Origin("own")
            draft = LoginDraft(
                title=f"Site {i:05}",
                user_name=f"ilse{i % 300}@tallowpost.example",
                address=f"https://site{i}.example",
                resets_by=mailbox if 0 < i <= logins * 3 // 10 else None,
            )
            at = now - timedelta(days=i % 900)
            card = add_login(vault, draft, NewSecret(Secret(text), origin), now=at)
            mailbox = mailbox or card.login_id
    vault.close()
    words = folder / "breached.txt"
    words.write_text("\n".join(breached) + "\n")
    command = [sys.executable, "-m", "newknot", "corpus", "build", str(words), "--words"]
    command += ["--name", "bench", "--date", "2026-05-01"]
    command += ["--into", str(folder / "bench.nkc")]
    subprocess.run(command, check=True, capture_output=True)


class Client:
    """One session over HTTP."""

    def __init__(self, served: Served) -> None:
        origin = served.url.rstrip("/")
        self.http = httpx.Client(base_url=origin, timeout=120, headers={"origin": origin})

    def post(self, path: str, body: object = None) -> Any:
        """The answer's document."""
        answer = self.http.post(f"/api/{path}", json=body)
        answer.raise_for_status()
        return answer.json() if answer.content else None

    def unlock(self) -> None:
        """A session from here on."""
        self.http.headers["knot-session"] = self.post("vault/unlock", {"passphrase": PASSPHRASE})[
            "token"
        ]

    def size(self, method: str, path: str, body: object = None) -> int:
        """Bytes of an answer."""
        return len(self.http.request(method, f"/api/{path}", json=body).content)


@contextmanager
def served_as_users_do(folder: Path) -> Iterator[Served]:
    """The server with the memory settings of `run serve`."""
    before = {name: os.environ.get(name) for name in MEMORY_SETTINGS}
    os.environ.update(MEMORY_SETTINGS)
    try:
        with serving(folder, "--corpus", str(folder / "bench.nkc")) as served:
            yield served
    finally:
        for name, value in before.items():
            os.environ.pop(name) if value is None else os.environ.update({name: value})


def peak_mib(served: Served) -> float:
    """The most memory that the server's process took."""
    status = Path(f"/proc/{served.process.pid}/status").read_text()
    line = next(line for line in status.splitlines() if line.startswith("VmHWM"))
    return int(line.split()[1]) / 1024


def over_http(folder: Path) -> None:
    """What is asked of the server, one after another."""
    with served_as_users_do(folder) as served:
        client = Client(served)
        client.unlock()
        row("  first check", ms(timed(client.post, "checks", {"whole": False})), "8 s")
        rows = client.post("checks/worklist/rows", {})
        changes: list[float] = []
        for one in rows["rows"][:9]:
            login_id = one["login_id"]
            sheet = client.http.get(f"/api/logins/{login_id}").json()
            body = {name: sheet[name] for name in ("title", "user_name", "address", "resets_by")}
            body["secret"] = {"own": f"x9{login_id[:12]}Q!"}
            answer = client.http.put(f"/api/logins/{login_id}", json=body)
            answer.raise_for_status()
            began = time.perf_counter()
            client.post("checks", {"whole": False})
            client.post("checks/worklist/rows", {})
            changes.append(time.perf_counter() - began)
        row("  after one change, with its rows, median", ms(statistics.median(changes)), "300 ms")
        rows_of = ("POST", "checks/worklist/rows", {"limit": 60})
        row("  worklist's first rows", f"{client.size(*rows_of) / 1000:.0f} kB", "150 kB")
        row("  worklist's first rows, asked again", ms(_median(client, *rows_of)), "100 ms")
        lines_of = ("POST", "logins/rows", {"limit": 60})
        row("  the list of logins, first part", f"{client.size(*lines_of) / 1000:.0f} kB")
        row("  the same, time", ms(_median(client, *lines_of)), "100 ms")
        found = [timed(client.post, "logins/rows", {"search": f"site 0{n}"}) for n in range(9)]
        row("  the first rows after a letter", ms(statistics.median(found)), "50 ms")
        row("  the reuse map's answer", ms(_median(client, "GET", "checks/reach")))
        row("  most memory of the server", f"{peak_mib(served):.0f} MiB", "280 MB")
    with served_as_users_do(folder) as served:
        client = Client(served)
        row(
            "  unlock as soon as it answers, the key derivation being quick",
            ms(timed(client.unlock)),
        )
    with served_as_users_do(folder) as served:
        client = Client(served)
        # Nobody has typed a passphrase before; what is made ready beside is ready then.
        time.sleep(TYPED_AFTER_S)
        row("  the same, three seconds later", ms(timed(client.unlock)), "800 ms")
        first = timed(client.post, "checks/worklist/rows", {})
        row("  the worklist after it", ms(first), "200 ms")
        row("  check after a restart", ms(timed(client.post, "checks", {"whole": False})), "3 s")


def _median(client: Client, method: str, path: str, body: object = None) -> float:
    times = []
    for _ in range(7):
        began = time.perf_counter()
        client.http.request(method, f"/api/{path}", json=body).raise_for_status()
        times.append(time.perf_counter() - began)
    return statistics.median(times)


def in_the_browser(folder: Path) -> None:
    """What the page itself takes, by its own clock."""
    with served_as_users_do(folder) as served, sync_playwright() as playwright:
        browser = launch(playwright)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(served.url)
        page.get_by_label("Vault passphrase").fill(PASSPHRASE)
        page.keyboard.press("Enter")
        page.get_by_role("heading", name="to see to").wait_for()
        page.wait_for_load_state("networkidle")
        row("  the page's CPU for one arrow key", ms(_cpu_of_keys(page, "ArrowDown", 40)), "8 ms")
        page.keyboard.press("2")
        page.get_by_role("heading", level=1, name="Logins", exact=True).wait_for()
        page.wait_for_load_state("networkidle")
        row("  the same in the logins", ms(_cpu_of_keys(page, "ArrowDown", 40)), "8 ms")
        page.keyboard.press("f")
        row("  the page's CPU for one letter typed", ms(_cpu_of_keys(page, "0", 6)), "16 ms")
        page.keyboard.press("Escape")
        began = time.perf_counter()
        page.keyboard.press("m")
        page.get_by_role("heading", level=1, name="Reuse map").wait_for()
        page.locator(".reuse-map svg, svg .knot").first.wait_for()
        row("  the reuse map on screen", ms(time.perf_counter() - began), "1 s")
        row("  a rotation by keys, there and back", ms(_rotated_by_keys(page)))
        row("  accepted by keys, and the rows anew", ms(_accepted_by_keys(page)))
        browser.close()


def _rotated_by_keys(page: Page) -> float:
    """From the first row of the worklist to a finished rotation, and back, where it is settled."""
    page.keyboard.press("1")
    page.get_by_role("heading", name="to see to").wait_for()
    page.wait_for_load_state("networkidle")
    settled = page.get_by_text("settled today")
    before = int(settled.inner_text().split()[0]) if settled.count() else 0
    began = time.perf_counter()
    page.keyboard.press("Home")
    page.keyboard.press("r")
    page.get_by_role("button", name="Copy new").wait_for()
    page.keyboard.press("3")
    page.get_by_role("button", name="Yes, it is changed").wait_for()
    page.keyboard.press("y")
    page.get_by_role("button", name="It opens the site").wait_for()
    page.keyboard.press("v")
    page.get_by_role("link", name="Next on the worklist").click()
    page.get_by_text(f"{before + 1} settled today").wait_for()
    return time.perf_counter() - began


def _accepted_by_keys(page: Page) -> float:
    """One finding of the row that is current now is accepted; the rows say so."""
    began = time.perf_counter()
    page.keyboard.press("w")
    dialog = page.get_by_role("dialog")
    dialog.get_by_text("Not mine: someone else decides").click()
    dialog.get_by_role("button", name="Accept it").click()
    page.get_by_role("link", name="1 finding accepted").wait_for()
    return time.perf_counter() - began


def _cpu_of_keys(page: Page, key: str, times: int) -> float:
    """Seconds that the page's main thread was at work for each, by Chromium's own count: of the
    processor, not of the clock, which goes on while a shared machine does other things.
    """
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable", {"timeDomain": "threadTicks"})

    def task_s() -> float:
        metrics = session.send("Performance.getMetrics")["metrics"]
        return float(next(m["value"] for m in metrics if m["name"] == "TaskDuration"))

    page.wait_for_timeout(500)
    idle = task_s()
    page.wait_for_timeout(50 * times)
    before = task_s()
    for _ in range(times):
        page.keyboard.press(key)
        page.wait_for_timeout(50)
    # What the page does by itself in that time is no key's.
    return max(0.0, task_s() - before - (before - idle)) / times


def bench_served(logins: int = LOGINS) -> None:
    """Fills a vault, and asks."""
    print(f"\nServed, {logins:,} logins of a crowded vault", flush=True)
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        fill(folder, logins)
        over_http(folder)
        in_the_browser(folder)


if __name__ == "__main__":
    bench_served(int(sys.argv[1]) if len(sys.argv) > 1 else LOGINS)
