"""What earlier versions wrote opens and loses nothing; a newer file is refused in a sentence."""

import importlib.util
import json
import os
import shutil
import sqlite3
import subprocess
import sys
from pathlib import Path
from types import ModuleType
from typing import Any

import pytest

from newknot.core.merging.merge import MERGED_LABELS
from newknot.store.copies import opened_copy
from newknot.store.database import migrations
from newknot.store.errors import VaultNewer
from newknot.store.logins import get_card, get_history, get_secrets, list_cards
from newknot.store.merging import read_contents
from newknot.store.vault import Label, Vault
from tests.api.conftest import make_api
from tests.api.test_bundles import SEAL
from tests.conftest import PASSPHRASE, HandClock
from tests.support.running import ROOT

VECTORS = Path(__file__).parents[1] / "vectors" / "upgrades"
VERSIONS = sorted(path.name for path in VECTORS.iterdir())
READER = ROOT / "docs" / "read_vault.py"


def reader() -> ModuleType:
    """The stand-alone reader, as a module."""
    spec = importlib.util.spec_from_file_location("read_vault", READER)
    assert spec is not None and spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


@pytest.fixture(params=VERSIONS)
def written(request: pytest.FixtureRequest, tmp_path: Path) -> Path:
    """A copy of what a version wrote."""
    shutil.copytree(VECTORS / request.param, tmp_path, dirs_exist_ok=True)
    return tmp_path


def records(folder: Path) -> dict[str, Any]:
    expected = json.loads((folder / "expected.json").read_text())
    assert expected["faults"] == []
    found: dict[str, Any] = expected["records"]
    return found


def test_the_newest_version_is_among_them_with_every_kind_of_record() -> None:
    assert f"version-{len(migrations())}" in VERSIONS
    assert records(VECTORS / VERSIONS[-1]).keys() == {label.name for label in Label}


@pytest.mark.parametrize("name", ["own.vault", "backup.vault"])
def test_a_vault_and_a_backup_open_and_lose_nothing(written: Path, name: str) -> None:
    expected = records(written)
    vault = Vault.unlock(written / name, passphrase=PASSPHRASE, state_folder=written / "fresh")
    assert not vault.damaged and not vault.is_older_copy
    contents = read_contents(vault).records
    for kind in expected.keys() & MERGED_LABELS:
        for record_id, parts in expected[kind].items():
            held = contents[kind][record_id]
            by_name = dict(zip(("card", "secrets", "history"), ("1", "2", "3"), strict=True))
            for part, document in parts.items():
                assert document.items() <= held[by_name[part]].items(), (kind, part)
    cards, damaged = list_cards(vault)
    assert not damaged and {c.login_id for c in cards} == expected["LOGIN"].keys()
    for card in cards:
        of = expected["LOGIN"][card.login_id]
        assert get_card(vault, card.login_id).title == of["card"]["title"]
        assert get_secrets(vault, card.login_id).secret.reveal() == of["secrets"]["secret"]
        earlier = {e.secret.reveal() for e in get_history(vault, card.login_id)}
        assert earlier == {entry[1] for entry in of.get("history", {"earlier": []})["earlier"]}
    if name == "own.vault":
        copy = opened_copy(vault, written / "backup.vault")
        assert copy is not None and copy.ids(Label.LOGIN) == vault.ids(Label.LOGIN)
        copy.forget()
    vault.close()


def test_it_goes_on_in_the_application_and_its_bundle_comes_into_another_vault(
    written: Path, tmp_path: Path
) -> None:
    expected = records(written)
    api = make_api(written, HandClock())
    api.enter()
    titles = {row["title"] for row in api.ok("GET", "logins")["logins"]}
    assert "Gantry Rentals" in titles and len(titles) == 22
    assert api.ok("GET", "checks/worklist")["findings"]
    assert api.ok("GET", "safeguards")["lock_after_s"] == 900
    api.add("Written by today's program")
    api.keeper.lock()
    other = make_api(tmp_path / "other", HandClock())
    other.enter("create")
    held = other.ok("POST", "bundles", (written / "bundle.jwe").read_bytes())["bundle_id"]
    other.ok("POST", f"bundles/{held}/open", {"passphrase": SEAL})
    other.ok("POST", f"bundles/{held}/merge", {})
    for login_id, parts in expected["LOGIN"].items():
        if parts["card"]["deleted_at"] is None:
            assert other.secret_of(login_id) == parts["secrets"]["secret"]
    other.keeper.lock()


def test_a_file_of_a_later_version_is_refused_and_left_as_it_is(written: Path) -> None:
    path = written / "own.vault"
    connection = sqlite3.connect(path, isolation_level=None)
    connection.execute(f"PRAGMA user_version = {len(migrations()) + 1}")
    connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchall()
    connection.close()
    with pytest.raises(VaultNewer):
        Vault.unlock(path, passphrase=PASSPHRASE, state_folder=written / "fresh")
    api = make_api(written, HandClock())
    assert api.refused("POST", "vault/unlock", {"passphrase": PASSPHRASE}) == "409 vault_newer"


def test_the_stand_alone_reader_prints_a_vault_and_names_what_is_damaged(written: Path) -> None:
    lines = READER.read_text().splitlines()
    assert len(lines) < 150 and not [x for x in lines if "newknot" in x and "import" in x]
    vault = written / "own.vault"

    def printed(passphrase: str) -> "subprocess.CompletedProcess[str]":
        environment = {k: v for k, v in os.environ.items() if k != "PYTHONPATH"}
        command = [sys.executable, "-I", str(READER), str(vault)]
        return subprocess.run(
            command, input=passphrase + "\n", capture_output=True, text=True, env=environment
        )

    done = printed(PASSPHRASE)
    assert json.loads(done.stdout)["records"] == records(written)
    assert printed("something else").stderr.strip() == "That does not open this vault."
    connection = sqlite3.connect(vault, isolation_level=None)
    connection.execute("DELETE FROM slots WHERE slot_copy = 1")
    connection.execute("DELETE FROM records WHERE part = 3")
    connection.close()
    left = json.loads(printed(PASSPHRASE).stdout)
    assert left["faults"] and all("history, is damaged" in fault for fault in left["faults"])
    assert "rope-and-plank" not in str(left) and "truss-and-bolt" in str(left)
