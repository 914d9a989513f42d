"""The program's own answers: one clear sentence and an exit that is not zero."""

import os
import re
import socket
import subprocess
import sys
from datetime import UTC, datetime
from pathlib import Path
from secrets import token_urlsafe

import httpx
import pytest

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.store.vault import Label
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login
from tests.conftest import PASSPHRASE, new_vault, reopened, wait_until
from tests.support.memory import writable_memory
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


@pytest.mark.skipif(os.geteuid() != 0, reason="only root reads the memory of another process")
def test_a_lock_leaves_nothing_in_memory_however_short_it_is(tmp_path: Path) -> None:
    """An allocator that overwrites what is freed may leave its last bytes: all of a short text, or
    a longer one's end.
    """
    texts = [token_urlsafe(20)[: size - 3] + "~^~" for size in (7, 23, 7) * 100]
    vault = new_vault(tmp_path)
    with vault.transaction():
        for title, user_name, secret in zip(texts[::3], texts[1::3], texts[2::3], strict=True):
            draft = LoginDraft(title=title, user_name=user_name, address="")
            add_login(vault, draft, NewSecret(Secret(secret), Origin("own")), now=datetime.now(UTC))
    vault.close()
    with serving(tmp_path) as served:
        origin = served.url.rstrip("/")
        with httpx.Client(base_url=served.url, headers={"origin": origin}) as page:
            token = page.post("api/vault/unlock", json={"passphrase": PASSPHRASE}).json()["token"]
            page.headers["knot-session"] = token
            assert page.post("api/checks", json={"whole": False}, timeout=60).status_code == 200
            assert page.get("api/logins").status_code == 200
            assert page.post("api/vault/lock").status_code == 204
        memory = writable_memory(served.process.pid)
        ends = {end for body in memory for end in re.findall(rb".{4}~\^~", body, re.DOTALL)}
        # What outlives a lock may have been given such bytes and never have written on them.
        assert len(ends & {text[-7:].encode() for text in texts}) <= 5


def listens(port: int) -> bool:
    with socket.socket() as probe:
        return probe.connect_ex(("127.0.0.1", port)) == 0
