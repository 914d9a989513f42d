"""Real server processes on free ports, and a real Chromium: for journeys, pictures and figures."""

import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Playwright

ROOT = Path(__file__).parents[2]
WEB = ROOT / "web" / "dist"
CHROMIUM = "/usr/bin/chromium"
HEADLESS_SHELL = "/usr/bin/chromium-headless-shell"
"""The same engine without a browser's windows, profiles and services: two thirds of the work."""
BROWSER_ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@dataclass(frozen=True, slots=True)
class Served:
    """A running server: its address, its process, and what it has written to its output."""

    url: str
    process: subprocess.Popen[bytes]
    log: Path
    sites_port: int = 0

    def site(self, name: str) -> str:
        """The address of a practice site."""
        return f"http://{name}.localhost:{self.sites_port}/"


def free_port() -> int:
    """A port that was free just now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
    return port


@contextmanager
def serving(folder: Path, *arguments: str, port: int | None = None) -> Iterator[Served]:
    """`newknot serve` on a vault in the folder."""
    port = port or free_port()
    command = ["serve", "--vault", str(folder / "own.vault"), "--port", str(port)]
    command += ["--state", str(folder / "state"), "--web", str(WEB), *arguments]
    with _process(folder, command, f"http://127.0.0.1:{port}/") as served:
        yield served


@contextmanager
def demo(folder: Path) -> Iterator[Served]:
    """`newknot demo` in the folder, with its practice sites."""
    port, sites_port = free_port(), free_port()
    command = ["demo", "--folder", str(folder), "--port", str(port)]
    command += ["--sites-port", str(sites_port), "--web", str(WEB)]
    with _process(folder, command, f"http://127.0.0.1:{port}/") as served:
        yield Served(served.url, served.process, served.log, sites_port)


@contextmanager
def practice_sites(folder: Path, *arguments: str) -> Iterator[Served]:
    """The stand-ins alone."""
    port = free_port()
    command = [sys.executable, "-m", "newknot.standins", "--port", str(port)]
    command += ["--accounts", str(folder / "practice.sqlite"), *arguments]
    with _started(folder, command, f"http://127.0.0.1:{port}/") as served:
        yield Served(served.url, served.process, served.log, port)


@contextmanager
def _process(folder: Path, command: list[str], url: str) -> Iterator[Served]:
    with _started(folder, [sys.executable, "-m", "newknot", *command], url) as served:
        yield served


@contextmanager
def _started(folder: Path, command: list[str], url: str) -> Iterator[Served]:
    folder.mkdir(parents=True, exist_ok=True)
    log = folder / f"server-{url.rsplit(':', 1)[1].strip('/')}.log"
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
    with open(log, "wb") as output:
        process = subprocess.Popen(
            command, cwd=ROOT, env=environment, stdout=output, stderr=subprocess.STDOUT
        )
    try:
        _wait(process, int(url.rsplit(":", 1)[1].strip("/")), log)
        yield Served(url, process, log)
    finally:
        process.send_signal(signal.SIGTERM)
        try:
            process.wait(timeout=10)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()


def _wait(process: subprocess.Popen[bytes], port: int, log: Path) -> None:
    deadline = time.monotonic() + 180
    while time.monotonic() < deadline:
        if process.poll() is not None:
            raise RuntimeError(f"the server ended: {log.read_text()}")
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return
        time.sleep(0.05)
    raise RuntimeError("the server did not answer in three minutes")


def launch(playwright: Playwright, *, briefly: bool = False, **options: object) -> Browser:
    """Debian's Chromium, headless. briefly: for pages that live some seconds. By the engine alone
    where it is there; code that is compiled for long use costs more than it gives. Not where
    figures or pictures are taken.
    """
    more = ["--js-flags=--no-opt,--no-maglev"] if briefly else []
    alone = briefly and Path(HEADLESS_SHELL).exists()
    return playwright.chromium.launch(
        executable_path=HEADLESS_SHELL if alone else CHROMIUM,
        args=[*BROWSER_ARGUMENTS, *more],
        **options,  # type: ignore[arg-type]
    )


def launch_persistent(playwright: Playwright, profile: Path) -> BrowserContext:
    """The same with a profile that stays on the disk, as a person's own browser has."""
    return playwright.chromium.launch_persistent_context(
        profile, executable_path=CHROMIUM, args=BROWSER_ARGUMENTS
    )
