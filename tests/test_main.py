"""The program's own answers: one clear sentence and an exit that is not zero."""

import os
import socket
import subprocess
import sys
from pathlib import Path

import httpx
import pytest

from newknot.store.vault import Label
from tests.conftest import PASSPHRASE, new_vault, reopened, wait_until
from tests.support.running import ROOT, demo, free_port, serving


def run(*arguments: str) -> tuple[int, str]:
    """Exit code and what was said."""
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
    done = subprocess.run(
        [sys.executable, "-m", "newknot", *arguments],
        capture_output=True, text=True, env=environment, cwd=ROOT, timeout=60,
    )  # fmt: skip
    return done.returncode, (done.stdout + done.stderr).strip()


@pytest.mark.parametrize("command", ["serve", "demo"])
def test_a_port_in_use_is_said(tmp_path: Path, command: str) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = str(taken.getsockname()[1])
        place = (
            ["--vault", str(tmp_path / "v")] if command == "serve" else ["--folder", str(tmp_path)]
        )
        code, said = run(command, "--port", port, *place)
    assert code != 0
    assert said == f"Port {port} is in use: stop what holds it, or choose another by --port."


def names_of(vault: Path, how: str) -> Path:
    """Another path to the same vault, there or not there yet."""
    other = vault.parent.parent / f"other-{how}"
    if how == "its own":
        return vault
    if how == "folder link":
        other.symlink_to(vault.parent)
        return other / vault.name
    if how == "dots":
        return vault.parent / ".." / vault.parent.name / vault.name
    if how == "link":
        other.symlink_to(vault)
    else:
        other.hardlink_to(vault)
    return other


@pytest.mark.parametrize(
    ("made", "ways"),
    [
        (False, ("link", "folder link", "dots")),
        (True, ("its own", "link", "hard link", "folder link")),
    ],
)
def test_no_second_server_comes_through_another_name(
    tmp_path: Path, made: bool, ways: tuple[str, ...]
) -> None:
    folder = tmp_path / "vault"
    folder.mkdir()
    if made:
        new_vault(folder).close()
    with serving(folder) as served:
        for how in ways:
            other = names_of(folder / "own.vault", how)
            code, said = run("serve", "--vault", str(other), "--port", str(free_port()))
            assert code != 0
            assert said == f"This vault is open already: {served.url}", how
    if made:
        reopened(folder).close()


@pytest.mark.parametrize("what", ["folder", "pipe"])
def test_what_is_no_file_in_the_vaults_place_is_said(tmp_path: Path, what: str) -> None:
    vault = tmp_path / "own.vault"
    vault.mkdir() if what == "folder" else os.mkfifo(vault)
    code, said = run("serve", "--vault", str(vault), "--port", str(free_port()))
    assert code != 0
    assert "The vault's folder cannot be used" in said and "not a file" in said


def test_a_folder_that_cannot_be_used_is_said(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("")
    vault = str(tmp_path / "file" / "own.vault")
    code, said = run("serve", "--vault", vault, "--port", str(free_port()))
    assert code != 0
    assert said == "The vault's folder cannot be used: File exists."


def test_a_corpus_is_built_from_the_command_line(tmp_path: Path) -> None:
    (tmp_path / "list.txt").write_text("0" * 40 + ":3\n")
    into = ["--into", str(tmp_path / "list.corpus"), "--name", "list", "--date", "2026-05-01"]
    code, said = run("corpus", "build", str(tmp_path / "list.txt"), *into)
    assert (code, said.endswith("list of 2026-05-01, 1 secrets")) == (0, True)
    assert run("corpus", "verify", str(tmp_path / "list.corpus"))[1].endswith("list.corpus: whole")
    code, said = run("corpus", "build", str(tmp_path / "none.txt"), *into)
    assert code != 0
    assert (
        said == "hash list refused list: none.txt, reason: No such file or directory, offsets: []"
    )


def test_the_practice_sites_end_with_the_demo(tmp_path: Path) -> None:
    for how in ("terminate", "kill"):
        with demo(tmp_path) as served:
            getattr(served.process, how)()
            served.process.wait(10)
            wait_until(lambda: not listens(served.sites_port), within_s=10)


def test_a_service_that_is_ended_locks_first(tmp_path: Path) -> None:
    """Whatever is open is closed whole: no log is left that a next start would have to read."""
    new_vault(tmp_path).close()
    with serving(tmp_path) as served:
        origin = served.url.rstrip("/")
        with httpx.Client(base_url=served.url, headers={"origin": origin}) as page:
            token = page.post("api/vault/unlock", json={"passphrase": PASSPHRASE}).json()["token"]
            page.headers["knot-session"] = token
            body = {"title": "Gantry", "secret": {"own": "rope-and-plank"}}
            assert page.post("api/logins", json=body).status_code == 201
        assert (tmp_path / "own.vault-wal").exists()
        served.process.terminate()
        assert served.process.wait(20) == 0
        assert not (tmp_path / "own.vault-wal").exists()
    vault = reopened(tmp_path)
    assert len(vault.ids(Label.LOGIN)) == 1 and not vault.damaged
    vault.close()


def listens(port: int) -> bool:
    with socket.socket() as probe:
        return probe.connect_ex(("127.0.0.1", port)) == 0
