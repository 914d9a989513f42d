"""Measuring with all that is known, own details, and the vault's passphrase."""

import sqlite3
from datetime import date
from hashlib import sha1
from pathlib import Path
from typing import Any

import pytest

from newknot.core.audit.like_passphrase import OF_EARLIER, OF_PRESENT
from newknot.core.strength import Measure
from newknot.core.strength.measure import measured
from newknot.core.strength.reading import Reading
from newknot.core.strength.resemblance import forms
from newknot.crypto import WrongPassphrase
from newknot.store.copies import write_copy
from newknot.store.corpus import Corpus
from newknot.store.corpus_build import HashList, build_corpus
from newknot.store.passphrases import get_passphrases
from newknot.store.vault import Vault
from newknot.usecases.check import kept_measures
from newknot.usecases.vault import vault_passphrase
from tests.api.conftest import Api
from tests.conftest import PASSPHRASE

LATER = "gravel oven mitten copper thimble"


@pytest.fixture
def listed(api: Api, tmp_path: Path) -> Api:
    """Beside a corpus that holds one breached secret."""
    source = tmp_path / "list.txt"
    source.write_text(f"{sha1(b'dragonfly', usedforsecurity=False).hexdigest()}:1500\n")
    build_corpus([HashList(source)], tmp_path / "c.corpus", name="list", dated_on=date(2026, 5, 1))
    api.keeper.corpora = [Corpus.open(tmp_path / "c.corpus")]
    return api


def login(api: Api, title: str, secret: str) -> str:
    body = {"title": title, "user_name": "ilse", "secret": {"own": secret}}
    made: str = api.ok("POST", "logins", body)["login_id"]
    return made


def test_a_measure_says_why_what_falls_and_what_would_help(listed: Api) -> None:
    api = listed
    found = api.ok("POST", "strength/measure", {"secret": "Lisbon47!"})
    assert [s["label"] for s in found["segments"]] == ["place name", "digits", "symbol"]
    assert [s["one_in"] for s in found["segments"]] == ["3,200", "100", "4"]
    assert [f["falls"] for f in found["falls"]] == [True, True, True, True]
    assert found["falls"][1]["takes"].endswith(("seconds", "minutes"))
    assert found["advice"][0]["guess_number_log10"] > found["guess_number_log10"] + 1
    assert found["corpus_used"] is True
    assert api.ok("POST", "strength/measure", {"secret": "dragonfly"})["breached"]


def test_own_details_are_context_everywhere_and_unmeasure_what_was_kept(api: Api) -> None:
    login(api, "Tallow Post", "zugspitzenwurm7")
    api.ok("POST", "checks")
    plain = api.ok("POST", "strength/measure", {"secret": "zugspitzenwurm7"})
    details = {"lines": ["Zugspitzenwurm", " ", "14.02.1979"], "rates": {}}
    kept = api.ok("PUT", "strength/own-details", details)
    assert kept["lines"] == ["Zugspitzenwurm", "14.02.1979"]
    known = api.ok("POST", "strength/measure", {"secret": "zugspitzenwurm7"})
    assert known["guess_number_log10"] < plain["guess_number_log10"] - 3
    api.ok("POST", "checks")
    row = api.ok("GET", "logins")["logins"][0]
    assert row["guess_number_log10"] == pytest.approx(known["guess_number_log10"], abs=0.5)


def test_own_details_are_bounded_and_rates_named(api: Api) -> None:
    for body, field in (
        ({"lines": ["x"] * 57}, "lines"),
        ({"lines": ["x" * 201]}, "lines"),
        ({"rates": {"stolen_slow": 0}}, "rates.stolen_slow"),
        ({"rates": {"uncle": 5}}, "rates"),
    ):
        answer = api.call("PUT", "strength/own-details", body)
        assert (answer.status_code, answer.json()["data"]["field"]) == (422, field)
    api.ok("PUT", "strength/own-details", {"rates": {"stolen_slow": 10}})
    slow = api.ok("GET", "strength/budgets")[1]
    assert (slow["rate_per_s"], slow["is_own_rate"]) == (10, True)
    api.http.headers.pop("knot-session")
    assert not api.ok("GET", "strength/budgets")[1]["is_own_rate"]


def test_an_unchanged_secret_is_not_measured_again(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    for k in range(3):
        login(api, f"Desk {k}", f"zugspitze{k}")
    api.ok("POST", "checks")
    taken: list[str] = []

    def counted(reading: Reading, *others: Any) -> Measure:
        taken.append(reading.text)
        return measured(reading, *others)

    monkeypatch.setattr("newknot.core.strength.same_texts.measured", counted)
    api.ok("POST", "checks")
    assert taken == []
    login(api, "Desk 3", "zugspitze3")
    api.ok("POST", "checks")
    assert taken == ["zugspitze3"]


def test_what_is_like_the_passphrase_is_told_over_a_lock_without_being_read_again(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    login(api, "Desk", f"{PASSPHRASE} 7")
    for k in range(kept_measures.NEW_LEAST):
        login(api, f"Desk {k}", f"zugspitze{k}")

    def found() -> list[str]:
        api.ok("POST", "checks")
        rows = api.ok("GET", "checks/worklist")["findings"]
        return [row["evidence"] for row in rows if row["kind"] == "like_passphrase"]

    (said,) = found()
    api.keeper.lock()
    api.enter()
    read: list[str] = []

    def noted(text: str) -> frozenset[str]:
        read.append(text)
        return forms(text)

    monkeypatch.setattr(vault_passphrase, "forms", noted)
    assert found() == [said] and not read
    # Another passphrase of the vault: each is to be looked at anew.
    api.ok("PUT", "vault/passphrase", {"current": api.passphrase, "passphrase": LATER})
    read.clear()
    (later,) = found()
    assert len(read) == kept_measures.NEW_LEAST + 1
    assert later == f"{OF_EARLIER}{said.removeprefix(OF_PRESENT)}"


def test_two_secrets_are_compared(api: Api) -> None:
    texts = {"first": "Gantry7!", "second": "velvet orchard lantern drum"}
    found = api.ok("POST", "strength/compare", texts)
    assert found["better"] == "second"
    assert len(found["reasons"]) >= 3


def test_a_passphrase_is_judged_before_it_is_taken(listed: Api) -> None:
    api = listed
    login(api, "Fernbank", "velvet orchard lantern drum")
    assert api.ok("GET", "vault/passphrase")["secrets_count"] == 1

    def judged(text: str) -> dict[str, Any]:
        found: dict[str, Any] = api.ok("POST", "vault/passphrase/judge", {"passphrase": text})
        return found

    assert judged("dragonfly")["measure"]["breached"]
    assert judged("velvet orchard lantern oven")["resembles_logins"] == ["Fernbank"]
    assert judged(PASSPHRASE + " 2")["resembles_earlier"] is True
    assert judged("kettle marble fig")["verdict"] in ("refused", "warned")
    assert judged(LATER)["verdict"] == "good"
    for text, code in (
        ("dragonfly", "passphrase_breached"),
        ("Lampshade31", "passphrase_too_weak"),
        ("velvet orchard lantern oven", "passphrase_resembles"),
        (PASSPHRASE + " 2", "passphrase_resembles"),
    ):
        body = {"current": PASSPHRASE, "passphrase": text}
        assert api.refused("PUT", "vault/passphrase", body) == f"422 {code}"
    wrong = {"current": "seven lamps", "passphrase": LATER}
    assert api.refused("PUT", "vault/passphrase", wrong) == "403 wrong_passphrase"


def test_earlier_secrets_and_secret_fields_are_compared_too(api: Api) -> None:
    body = {
        "title": "earlier",
        "secret": {"own": "velvet orchard lantern drum"},
        "secret_fields": [{"name": "answer", "value": "nine copper kettles singing"}],
    }
    made = api.ok("POST", "logins", body)["login_id"]
    api.ok("PUT", f"logins/{made}", {"title": "earlier", "secret": {"own": "kq8Wz!pL2m"}})
    for text in ("velvet orchard lantern oven", "nine copper kettles sung"):
        found = api.ok("POST", "vault/passphrase/judge", {"passphrase": text})
        assert found["resembles_logins"] == ["earlier"], text
        assert not found["resembles_earlier"]


def test_a_new_passphrase_opens_the_vault_and_the_former_one_does_not(api: Api) -> None:
    login_id = login(api, "Fernbank", "kq8Wz!pL2m")
    path = api.keeper.path
    slots = "SELECT sealed_key FROM slots"
    with sqlite3.connect(path) as connection:
        former = connection.execute(slots).fetchone()[0]
    api.ok("PUT", "vault/passphrase", {"current": PASSPHRASE, "passphrase": LATER})
    files = [path, *path.parent.glob(path.name + "-*")]
    assert not any(former in file.read_bytes() for file in files)
    api.ok("POST", "vault/lock")
    assert api.refused("POST", "vault/unlock", {"passphrase": PASSPHRASE}) == "403 wrong_passphrase"
    api.passphrase = LATER
    api.enter()
    assert api.ok("GET", "logins")["logins"][0]["login_id"] == login_id
    assert api.ok("GET", "vault/passphrase")["passphrases_count"] == 2
    body = {"current": LATER, "passphrase": PASSPHRASE + "7"}
    assert api.refused("PUT", "vault/passphrase", body) == "422 passphrase_resembles"


def test_a_change_that_fails_leaves_the_former_passphrase(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(*_: object) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr("newknot.usecases.vault.vault_passphrase.put_passphrases", full)
    body = {"current": PASSPHRASE, "passphrase": LATER}
    assert not api.call("PUT", "vault/passphrase", body).is_success
    assert api.keeper._vault is not None
    assert api.keeper._vault.proves(PASSPHRASE)
    assert not api.keeper._vault.proves(LATER)


def test_no_passphrase_is_kept_as_text(api: Api, tmp_path: Path) -> None:
    api.ok("PUT", "vault/passphrase", {"current": PASSPHRASE, "passphrase": LATER})
    vault = api.keeper._vault
    assert vault is not None
    known = get_passphrases(vault)
    assert {len(p) for one in known for p in one.fingerprints} == {16}
    copy = tmp_path / "copy.knot"
    write_copy(vault, copy)
    with pytest.raises(WrongPassphrase):
        Vault.unlock(copy, passphrase=PASSPHRASE, state_folder=tmp_path)
    Vault.unlock(copy, passphrase=LATER, state_folder=tmp_path).close()
