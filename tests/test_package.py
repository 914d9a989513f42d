"""The wheel, installed where neither Node nor the checkout is: it serves, and builds a corpus."""

import os
import re
import shutil
import subprocess
import sys
import sysconfig
import zipfile
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest

from newknot.store.database import migrations
from tests.conftest import wait_until
from tests.support.running import ROOT, WEB, free_port


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Built as `./run package` does."""
    assert (WEB / "index.html").is_file(), "the interface is not built"
    into = tmp_path_factory.mktemp("wheel")
    command = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(into)]
    subprocess.run(command, cwd=ROOT, check=True, capture_output=True)
    (found,) = into.glob("*.whl")
    return found


@pytest.fixture(scope="module")
def installed(wheel: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Path]:
    """The folder of its programs; what it depends on is lent by this environment."""
    place = tmp_path_factory.mktemp("fresh")
    subprocess.run([sys.executable, "-m", "venv", "--without-pip", str(place)], check=True)
    version = f"python{sys.version_info.major}.{sys.version_info.minor}"
    packages = place / "lib" / version / "site-packages"
    pip = [sys.executable, "-m", "pip", "--python", str(place / "bin" / "python"), "install"]
    subprocess.run(
        [*pip, "--no-index", "--no-deps", "-q", str(wheel)], check=True, capture_output=True
    )
    (packages / "lent.pth").write_text(sysconfig.get_paths()["purelib"])
    yield place / "bin"
    shutil.rmtree(place)


def environment(programs: Path, home: Path) -> dict[str, str]:
    """Nothing of this session but its language: no Node, no checkout, an empty home."""
    opened = home / "opened"
    browser = home / "browser"
    browser.write_text(f'#!/bin/sh\nprintf "%s" "$1" > {opened}\n')
    browser.chmod(0o700)
    return {
        "PATH": f"{programs}:/usr/bin:/bin",
        "HOME": str(home),
        "LANG": os.environ.get("LANG", "C.UTF-8"),
        "BROWSER": f"{browser} %s",
    }


def test_what_belongs_to_it_is_inside(wheel: Path) -> None:
    names = zipfile.ZipFile(wheel).namelist()
    for wanted in ("newknot/core/data/words_7776.txt", "newknot/core/data/NOTICE.md"):
        assert wanted in names
    assert len([n for n in names if re.fullmatch(r"newknot/store/migrations/\d+_.*", n)]) == len(
        migrations()
    )
    assert "newknot/web/index.html" in names
    assert any(n.endswith(".woff2") for n in names)
    assert any(n.startswith("newknot/web/licences/") for n in names)
    assert not [n for n in names if n.startswith(("tests", "web/", "scripts"))]


def test_it_serves_a_new_vault_and_opens_the_browser(installed: Path, tmp_path: Path) -> None:
    port = free_port()
    home = tmp_path / "home"
    home.mkdir()
    command = [str(installed / "newknot"), "serve", "--open", "--port", str(port)]
    with subprocess.Popen(
        command, cwd=tmp_path, env=environment(installed, home), stdout=subprocess.PIPE
    ) as process:
        try:
            assert process.stdout is not None
            said = process.stdout.readline().decode()
            assert said == f"New Knot is ready:  http://127.0.0.1:{port}/\n"
            url = f"http://127.0.0.1:{port}/"
            wait_until((home / "opened").exists)
            wait_until(lambda: (home / "opened").read_text() == url)
            page = httpx.get(url).text
            (script,) = re.findall(r'src="(/assets/[^"]+\.js)"', page)
            assert httpx.get(url.rstrip("/") + script).status_code == 200
            state = httpx.get(f"{url}api/vault", headers={"sec-fetch-site": "same-origin"}).json()
            assert state["state"] == "new"
        finally:
            process.terminate()


def test_it_builds_a_corpus(installed: Path, tmp_path: Path) -> None:
    (tmp_path / "list.txt").write_text("0" * 40 + ":3\n")
    command = [str(installed / "newknot"), "corpus", "build", "list.txt", "--name", "list"]
    done = subprocess.run(
        [*command, "--date", "2026-05-01"],
        cwd=tmp_path,
        env=environment(installed, tmp_path),
        capture_output=True,
        text=True,
        check=True,
    )
    assert done.stdout.endswith("list of 2026-05-01, 1 secrets\n")
    assert (tmp_path / ".local/share/newknot/corpora").is_dir()
