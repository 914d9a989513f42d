"""Import, backup and check over the API."""

import shutil
from datetime import date, timedelta
from hashlib import sha1
from pathlib import Path
from typing import Any

import pytest

from newknot.core.login import LoginSecrets
from newknot.core.strength import Measure
from newknot.core.strength.measure import measured
from newknot.core.strength.reading import Reading
from newknot.exchange.portable_login import FURTHER_COLLECTION
from newknot.store.corpus import Corpus
from newknot.store.corpus_build import HashList, build_corpus
from newknot.store.import_undo import get_brought_in
from newknot.store.logins import get_secrets, list_cards
from newknot.store.vault import Vault
from newknot.usecases.import_export import judging
from newknot.usecases.logins.logins import add_login
from tests.api.conftest import Api, make_api
from tests.conftest import HandClock

ROWS = (
    "Site,Login,Password,Link\n"
    "Gantry,ilse,aaa,https://gantry.example\n"
    "Lumen,ilse,bbb,lumen.example\n"
    "Lumen,ilse,ccc,lumen.example\n"
    "Lumen,ilse,bbb,lumen.example\n"
    "broken\n"
    ",,ddd,\n"
    "Odd,x,eee,ftp://x\n"
)


def read(api: Api, text: str = ROWS) -> dict[str, object]:
    table: dict[str, object] = api.ok("POST", "imports", text.encode())
    return table


def test_rows_are_judged_before_anything_is_written(api: Api) -> None:
    api.add("Gantry", address="gantry.example", user_name="ilse", secret={"own": "aaa"})
    table = read(api)
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    rows = api.ok("POST", f"{path}/preview", body)["rows"]
    assert [(r["line"], r["status"]) for r in rows] == [
        (2, "same"), (3, "new"), (4, "new"), (5, "twice"), (6, "bad"), (7, "bad"), (8, "bad"),
    ]  # fmt: skip
    assert all(r["reason"] for r in rows if r["status"] == "bad")
    assert len(api.ok("GET", "logins")["logins"]) == 1
    done = api.ok("POST", f"{path}/apply", body | {"also_lines": [2, 5], "not_lines": [4]})
    assert (done["added_count"], done["taken_count"]) == (2, 0)
    assert [(r["line"], r["reason"]) for r in done["left_out"]] == [
        (4, "was not chosen"),
        *((r["line"], r["reason"]) for r in rows[4:]),
    ]
    assert api.refused("POST", f"{path}/apply", body) == "404 import_unknown"
    secrets = sorted(api.secret_of(r["login_id"]) for r in api.ok("GET", "logins")["logins"])
    assert secrets == ["aaa", "bbb", "bbb"]


def test_a_fault_in_the_middle_imports_nothing(api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    table = read(api, "title,password\n" + "".join(f"T{i},p{i}\n" for i in range(50)))
    real, calls = add_login, []

    def failing(*args: object, **more: object) -> object:
        calls.append(1)
        if len(calls) == 30:
            raise OSError("the disk went away")
        return real(*args, **more)  # type: ignore[arg-type]

    monkeypatch.setattr("newknot.usecases.import_export.imports.add_login", failing)
    body = {"mapping": table["mapping"]}
    assert api.refused("POST", f"imports/{table['import_id']}/apply", body) == "500 unexpected"
    assert api.ok("GET", "logins")["logins"] == []


@pytest.mark.parametrize(
    ("body", "refusal"),
    [
        (b"", "422 csv_refused"),
        (b'a,b\n"x', "422 csv_refused"),
        (b"x" * (22 << 20), "413 body_too_large"),
    ],
)
def test_what_is_no_csv_is_refused(api: Api, body: bytes, refusal: str) -> None:
    assert api.refused("POST", "imports", body) == refusal


def test_a_backup_opens_by_the_passphrase_in_another_place(api: Api, tmp_path: Path) -> None:
    login = api.add()
    assert api.refused("POST", "backups") == "403 proof_needed"
    made = api.ok("POST", "backups", **api.proof())
    assert api.ok("GET", "safeguards")["last_backup_at"]
    body = api.call("GET", f"backups/{made['name']}").content
    for name in ("..%2Fown.vault", "own.vault", "newknot-1.vault"):
        assert api.refused("GET", f"backups/{name}").startswith("404")
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    (elsewhere / "own.vault").write_bytes(body)
    copy = make_api(elsewhere, api.clock)
    copy.enter()
    assert copy.secret_of(login["login_id"]) == "cue-to-cue-19"
    copy.keeper.lock()


def test_the_check_finds_again_what_it_found_and_drops_what_was_renewed(
    tmp_path: Path, clock: HandClock
) -> None:
    digest = sha1(b"limelight7", usedforsecurity=False).hexdigest()
    source = tmp_path / "list.txt"
    source.write_text(f"{digest}:1500\n")
    build_corpus([HashList(source)], tmp_path / "c.corpus", name="list", dated_on=date(2026, 5, 1))
    api = make_api(tmp_path, clock, Corpus.open(tmp_path / "c.corpus"))
    api.enter("create")
    assert api.ok("GET", "checks/worklist")["checked_at"] is None
    listed = api.add("Fernbank", secret={"own": "limelight7"}, importance="critical")
    api.add("Tallow", secret={"own": "FollowSpot!1979x"})
    api.add("Cable", secret={"own": "FollowSpot!1979x"})
    api.add("Slate", expires_on=str(clock.at.date() - timedelta(days=1)))
    first = api.ok("POST", "checks")
    kinds = [(f["kind"], f["title"]) for f in first["findings"]]
    assert kinds[0] == ("breached", "Fernbank")
    assert {("reused", "Tallow"), ("reused", "Cable"), ("overdue", "Slate")} <= set(kinds)
    assert [one["unique_count"] for one in first["asked"]] == [1]
    api.clock.pass_s(5)
    second = api.ok("POST", "checks")
    assert second["findings"] == first["findings"] and len(second["earlier"]) == 1
    api.clock.pass_s(5)
    body = {"title": "Fernbank", "secret": {"own": "kV!8q-Lz3#Rw0pXt_2mB"}}
    api.ok("PUT", f"logins/{listed['login_id']}", body)
    after = api.ok("GET", "checks/worklist")
    assert all(f["title"] != "Fernbank" for f in after["findings"]) and after["renewed_count"] == 1
    row = next(r for r in api.ok("GET", "logins")["logins"] if r["title"] == "Fernbank")
    assert row["guess_number_log10"] is None
    assert api.ok("GET", "checks/progress") == {"running": False, "done": 3, "total": 4}
    api.keeper.lock()


def test_a_file_in_the_clear_is_the_owners_alone_and_watched_until_it_is_gone(api: Api) -> None:
    api.add("Gantry", secret={"own": "rope-and-plank"})
    assert api.refused("POST", "exports/files", {"kind": "csv"}) == "403 proof_needed"
    paths = []
    for kind in ("csv", "cxf"):
        path = Path(api.ok("POST", "exports/files", {"kind": kind}, **api.proof())["path"])
        assert path.stat().st_mode & 0o777 == 0o600 and b"rope-and-plank" in path.read_bytes()
        paths.append(path)
    assert [one["path"] for one in api.ok("GET", "exports/files")] == list(map(str, paths))
    paths[0].unlink()
    assert [one["path"] for one in api.ok("GET", "exports/files")] == [str(paths[1])]
    # What lies there later was not written here, and is not for New Knot to delete.
    paths[0].write_text("another's")
    assert [one["path"] for one in api.ok("GET", "exports/files")] == [str(paths[1])]
    api.keeper.lock()
    api.enter("unlock")
    beside = paths[1].with_name("other.txt")
    beside.write_text("not ours")
    for wrong in (str(beside), str(api.keeper.path), "/etc/hostname"):
        assert api.refused("POST", "exports/files/delete", {"path": wrong}) == "404 nothing_held"
    same = paths[1].with_name("same-bytes")
    same.hardlink_to(paths[1])
    api.ok("POST", "exports/files/delete", {"path": str(paths[1])})
    assert not any(same.read_bytes())
    assert api.ok("GET", "exports/files") == [] and not paths[1].exists() and beside.exists()
    answer = api.call("POST", "exports/csv", **api.proof())
    assert "rope-and-plank" in answer.text
    history = api.call("POST", "exports/history", **api.proof())
    assert "Gantry" in history.text and "rope" not in history.text


def test_bringing_in_can_be_stopped_and_then_nothing_came_in(api: Api) -> None:
    rows = "".join(f"Site {i},ilse,secret-{i}\n" for i in range(50))
    table = api.ok("POST", "imports", f"title,user,password\n{rows}".encode())
    step, seen = api.keeper.progress.step, []

    def stops(done: int, total: int) -> bool:
        seen.append((done, total))
        if done == 20:
            api.ok("POST", "checks/stop")
        return step(done, total)

    api.keeper.progress.step = stops  # type: ignore[method-assign]
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    assert api.refused("POST", f"{path}/apply", body) == "409 import_stopped"
    assert seen[-1] == (20, 50) and api.ok("GET", "logins")["logins"] == []
    api.keeper.progress.step = step  # type: ignore[method-assign]
    assert api.ok("POST", f"{path}/apply", body) == {
        "added_count": 50, "taken_count": 0, "left_out": [],
    }  # fmt: skip
    api.ok("POST", "vault/lock")
    api.enter()
    ids = [row["login_id"] for row in api.ok("GET", "logins")["logins"]]
    api.ok("PUT", f"logins/{ids[0]}/backup-codes", {"text": "aaaa-1111"})
    api.ok("POST", "rotations", {"login_id": ids[1]})
    api.ok("PUT", f"logins/{ids[2]}", {"title": "Touched"})
    assert api.ok("POST", "imports/undo") == {
        "gone_count": 47, "binned_count": 3, "put_back_count": 0,
    }  # fmt: skip
    assert {row["login_id"] for row in api.ok("GET", "logins/bin")} == set(ids[:3])
    assert set(api.ok("POST", "imports/undo").values()) == {0}


def test_a_login_takes_the_secret_of_a_row_and_has_its_own_again_when_undone(api: Api) -> None:
    known = [
        api.add(title, address=f"{title.lower()}.example", secret={"own": f"old-{title}"})
        for title in ("Gantry", "Lumen", "Fernbank", "Truss")
    ]
    ids = [login["login_id"] for login in known]
    api.add("Twice", address="twice.example", secret={"own": "old-one"})
    api.add("Twice", address="twice.example", secret={"own": "old-two"})
    api.ok("POST", "rotations", {"login_id": ids[3]})
    rows = "".join(
        f"{t},{t.lower()}.example,new-{t},2025-01-02\n"
        for t in ("Gantry", "Lumen", "Fernbank", "Truss", "Twice")
    )
    table = read(api, f"title,website,password,secret since\n{rows}")
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    judged = api.ok("POST", f"{path}/preview", body)["rows"]
    assert [(r["status"], r["can_take"]) for r in judged] == [
        ("differing", True), ("differing", True), ("differing", True),
        ("differing", False), ("differing", False),
    ]  # fmt: skip
    done = api.ok("POST", f"{path}/apply", {**body, "take_lines": list(range(2, 7))})
    assert (done["added_count"], done["taken_count"]) == (0, 3)
    assert [row["line"] for row in done["left_out"]] == [5, 6]
    assert [api.secret_of(i) for i in ids] == [
        "new-Gantry",
        "new-Lumen",
        "new-Fernbank",
        "old-Truss",
    ]
    (entry,) = api.ok("GET", f"logins/{ids[0]}")["history"]
    assert entry["used"]
    assert api.ok("GET", f"logins/{ids[0]}")["secret_since_at"].startswith("2025-01-02")
    api.ok("PUT", f"logins/{ids[1]}", {"title": "Lumen", "secret": {"own": "newest"}})
    # One whose rotation was begun since keeps what it took: the rotation may need it.
    open_now = api.ok("POST", "rotations", {"login_id": ids[2]})["rotation_id"]
    assert api.ok("POST", "imports/undo") == {
        "gone_count": 0, "binned_count": 0, "put_back_count": 1,
    }  # fmt: skip
    assert [api.secret_of(i) for i in ids] == ["old-Gantry", "newest", "new-Fernbank", "old-Truss"]
    assert api.ok("GET", f"rotations/{open_now}")["state"] == "staged"
    (entry,) = api.ok("GET", f"logins/{ids[0]}")["history"]
    assert not entry["used"]
    shown = f"logins/{ids[0]}/history/{entry['earlier_id']}/secret"
    assert api.ok("POST", shown, {"purpose": "copy"})["secret"] == "new-Gantry"


def undone(api: Api) -> dict[str, int]:
    counts: dict[str, int] = api.ok("POST", "imports/undo")
    return counts


def test_an_import_is_undone_once(api: Api) -> None:
    table = read(api, "title,website,password\nGantry,gantry.example,rope-and-plank\n")
    api.ok("POST", f"imports/{table['import_id']}/apply", {"mapping": table["mapping"]})
    (login,) = api.ok("GET", "logins")["logins"]
    api.ok("PUT", f"logins/{login['login_id']}", {"title": "Gantry, the hall"})
    assert undone(api) == {"gone_count": 0, "binned_count": 1, "put_back_count": 0}
    api.ok("POST", f"logins/{login['login_id']}/restore")
    assert undone(api) == {"gone_count": 0, "binned_count": 0, "put_back_count": 0}
    assert len(api.ok("GET", "logins")["logins"]) == 1


def test_a_row_with_the_same_secret_that_holds_more_is_taken_field_by_field(api: Api) -> None:
    body = {"address": "gantry.example", "user_name": "ilse", "notes": "by the day"}
    fields = {"secret_fields": [{"name": "PIN", "value": "4417"}], "tags": ["hire"]}
    login = api.add("Gantry", secret={"own": "rope-and-plank"}, **body, **fields)["login_id"]
    api.ok("PUT", f"logins/{login}/backup-codes", {"text": "aaaa-1111"})
    before = api.ok("GET", f"logins/{login}")
    columns = "title,user,password,website,notes,totp,folder,tags,secret field: PIN,field: Yard,"
    columns += "backup codes"
    row = "Gantry,ilse,rope-and-plank,https://gantry.example/enter,by the week,"
    row += "JBSWY3DPEHPK3PXP,Work,truss,4418,North,bbbb-2222"
    table = read(api, f"{columns}\n{row}\n")
    path, mapping = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    (judged,) = api.ok("POST", f"{path}/preview", mapping)["rows"]
    assert (judged["status"], judged["can_take"], judged["can_take_fields"]) == (
        "differing", False, True,
    )  # fmt: skip
    names = [one["field"] for one in judged["differs"]]
    assert names == [
        "address", "folder", "notes", "tags", "field: Yard", "secret field: PIN", "code_key",
        "backup_codes",
    ]  # fmt: skip
    assert all(not d["there"] for d in judged["differs"] if d["field"].startswith("secret"))
    wanted = [name for name in names if name != "folder"]
    take = {**mapping, "take_fields": [{"line": 2, "fields": [*wanted, "secret", "colour"]}]}
    done = api.ok("POST", f"{path}/apply", take)
    assert (done["added_count"], done["taken_count"]) == (0, 1)
    assert [one["reason"].rpartition(": ")[2] for one in done["left_out"]] == ["folder"]
    sheet = api.ok("GET", f"logins/{login}")
    assert sheet["notes"] == "by the day\n\nby the week" and sheet["tags"] == ["hire", "truss"]
    assert (sheet["address"], sheet["folder"]) == ("https://gantry.example/enter", "")
    assert sheet["second_factor"] == "here" and sheet["fields"] == [
        {"name": "Yard", "value": "North"}
    ]
    pin = {"purpose": "copy", "name": "PIN"}
    assert api.ok("POST", f"logins/{login}/secret-field", pin) == {"secret": "4418"}
    api.ok("POST", "vault/lock")
    api.enter()
    assert undone(api) == {"gone_count": 0, "binned_count": 0, "put_back_count": 1}
    after = api.ok("GET", f"logins/{login}")
    for name in ("notes", "tags", "address", "fields", "second_factor", "secret_field_names"):
        assert after[name] == before[name], name
    assert api.ok("POST", f"logins/{login}/secret-field", pin) == {"secret": "4417"}
    assert "4418" in api.earlier_secrets(login)
    codes = api.ok("POST", f"logins/{login}/backup-codes", {"purpose": "copy"})
    assert [one["code"] for one in codes] == ["aaaa-1111"]
    # What is current again is no longer among the earlier ones, and is not put back twice.
    assert "aaaa-1111" not in api.earlier_secrets(login)
    assert undone(api) == {"gone_count": 0, "binned_count": 0, "put_back_count": 0}


def test_what_applying_would_refuse_is_named_and_holds_no_other_row_up(api: Api) -> None:
    long = "x" * 1_001
    rows = [
        f"Gantry,ilse,aaa,{long},,", f"Lumen,{long},bbb,,,", "Fernbank,ilse,ccc,,not a key,",
        "Truss,ilse,ddd,,,2999-01-01", "Keylight,ilse,eee,,,2017-03-04",
    ]  # fmt: skip
    table = read(api, "title,user,password,folder,totp,password changed\n" + "\n".join(rows))
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    judged = api.ok("POST", f"{path}/preview", body)["rows"]
    assert [(r["status"], bool(r["reason"] or r["left"])) for r in judged] == [
        ("bad", True), ("bad", True), ("new", True), ("new", True), ("new", False),
    ]  # fmt: skip
    done = api.ok("POST", f"{path}/apply", body)
    assert done["added_count"] == 3
    assert [r["line"] for r in done["left_out"]] == [2, 3]
    found = {r["title"]: r for r in api.ok("GET", "logins")["logins"]}
    assert found["Keylight"]["secret_since_at"].startswith("2017-03-04")
    assert api.refused("POST", "imports/left-out/file") == "403 proof_needed"
    made = api.ok("POST", "imports/left-out/file", **api.proof())
    text = Path(made["path"]).read_text()
    assert text.splitlines()[0] == "title,user,password,folder,totp,password changed"
    assert "Gantry" in text and "Lumen" in text and "Fernbank" not in text
    assert [one["path"] for one in api.ok("GET", "exports/files")] == [made["path"]]


@pytest.mark.parametrize("kind", ["csv", "cxf"])
def test_what_is_taken_out_comes_back_whole_in_an_empty_vault(
    api: Api, tmp_path: Path, clock: HandClock, kind: str
) -> None:
    own = {"address": "gantry.example", "user_name": "ilse", "driven": True, "importance": "high"}
    more = {"tags": ["stage, left", "hire"], "folder": "Work", "notes": "'by\nthe day"}
    key = {"second_factor": "elsewhere", "expires_on": "2030-01-02"}
    first = api.add("=Gantry", secret={"own": "=1+2"}, **own, **more, **key)["login_id"]
    fields = [{"name": n, "value": v} for n, v in (("Seat", "4"), (FURTHER_COLLECTION, "Hire"))]
    api.add("Gantry", secret={"own": "@second"}, fields=fields if kind == "cxf" else [], **own)
    api.ok("PUT", f"logins/{first}/backup-codes", {"text": "aaaa-1111\nbbbb-2222"})
    api.ok("POST", f"logins/{first}/backup-codes/0", {"used": True})
    clock.pass_s(86_400 * 900)
    api.enter()
    body = api.call("POST", f"exports/{kind}", **api.proof()).content
    assert (b'"Hire"' in body) == (kind == "cxf") and b'"title":"4"' not in body.replace(b" ", b"")
    other = make_api(tmp_path / "other", clock)
    other.enter("create")
    table = other.ok("POST", "imports", body)
    mapping = {"mapping": table["mapping"]}
    done = other.ok("POST", f"imports/{table['import_id']}/apply", mapping)
    assert (done["added_count"], done["left_out"]) == (2, [])

    def known(one: Api) -> list[dict[str, object]]:
        sheets = [
            one.ok("GET", f"logins/{row['login_id']}") for row in one.ok("GET", "logins")["logins"]
        ]
        for sheet in sheets:
            sheet["secret"] = one.secret_of(sheet["login_id"])
            path = f"logins/{sheet['login_id']}/backup-codes"
            sheet["codes"] = one.ok("POST", path, {"purpose": "copy"})
            del sheet["made"]  # from elsewhere, as it is said to be
            del sheet["login_id"], sheet["revision"]
        return sheets

    for theirs, ours in zip(known(other), known(api), strict=True):
        assert {name for name in ours if ours[name] != theirs[name]} == set()


def test_what_no_open_format_carries_is_counted_and_what_is_damaged_is_named(api: Api) -> None:
    first = api.add("Gantry", user_name="ilse", secret={"own": "=rope"})["login_id"]
    second = api.add("Lumen", resets_by=first)["login_id"]
    api.ok("PUT", f"logins/{first}", {"title": "Gantry", "secret": {"own": "+plank"}})
    binned = api.add("Truss")["login_id"]
    api.ok("DELETE", f"logins/{binned}", **api.proof())
    api.add("Pier")
    api.ok("POST", "rotations", {"login_id": second})
    found = api.ok("GET", "exports/losses")
    assert {name: n for name, n in found.items() if n} == {
        "histories": 1, "resets": 1, "in_bin": 1, "open_rotations": 1, "formula_secrets": 1,
    }  # fmt: skip
    with api.keeper.at_work() as vault:
        vault.connection.execute(
            "UPDATE records SET sealed = zeroblob(length(sealed)) WHERE record_id = ? AND part = 2",
            (bytes.fromhex(second),),
        )
    assert api.ok("GET", "exports/losses")["damaged"] == ["Lumen"]
    # A row is not held against what cannot be read.
    table = read(api, "title,user,password\nLumen,,rope\n")
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    assert [row["status"] for row in api.ok("POST", f"{path}/preview", body)["rows"]] == ["new"]


def test_of_the_dates_in_a_file_those_that_are_still_to_come_alone_are_left_out(api: Api) -> None:
    row = "Gantry,rope-and-plank,2024-03-01T12:00:00Z,2099-01-01T12:00:00Z"
    table = read(api, f"title,password,created at,changed at\n{row}\n")
    path, body = f"imports/{table['import_id']}", {"mapping": table["mapping"]}
    api.ok("POST", f"{path}/apply", body)
    with api.keeper.at_work() as vault:
        (card,) = list_cards(vault)[0]
    assert (card.created_at.year, card.changed_at) == (2024, api.clock.now())


def test_many_of_one_place_are_judged_by_opening_each_once(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    rows = "".join(f"Gantry {n},ilse,secret-{n % 40},gantry.example\n" for n in range(400))
    text = f"title,user,password,website\n{rows}"
    table = read(api, text)
    mapping = {"mapping": table["mapping"]}
    path = f"imports/{table['import_id']}"
    assert api.ok("POST", f"{path}/apply", mapping)["added_count"] == 400
    opened: list[str] = []

    def counted(vault: Vault, login_id: str) -> LoginSecrets:
        opened.append(login_id)
        return get_secrets(vault, login_id)

    monkeypatch.setattr(judging, "get_secrets", counted)
    again = read(api, text + "Gantry 7,ilse,secret-7,gantry.example,\n"[:-2] + "\n")
    found = api.ok("POST", f"imports/{again['import_id']}/preview", mapping)["rows"]
    assert {row["status"] for row in found} == {"same", "twice"}
    assert len(opened) == 400


@pytest.mark.parametrize("way", ["of its history", "with its login"])
def test_what_is_let_go_for_good_is_not_kept_for_an_undo(api: Api, way: str) -> None:
    login = api.add("Gantry", address="gantry.example", secret={"own": "rope-and-plank"})
    path = f"logins/{login['login_id']}"
    table = read(api, "title,website,password\nGantry,gantry.example,newer\n")
    body = {"mapping": table["mapping"], "take_lines": [2]}
    api.ok("POST", f"imports/{table['import_id']}/apply", body)
    with api.keeper.at_work() as vault:
        assert "rope-and-plank" in str(get_brought_in(vault))
    if way == "of its history":
        (entry,) = api.ok("GET", path)["history"]
        api.ok("DELETE", f"{path}/history/{entry['earlier_id']}", **api.proof())
    else:
        api.ok("DELETE", path, **api.proof())
        api.ok("DELETE", "logins/bin", **api.proof())
    with api.keeper.at_work() as vault:
        assert "rope-and-plank" not in str(get_brought_in(vault))
    assert set(api.ok("POST", "imports/undo").values()) == {0}


ANY = [{"name": "any", "characters": "".join(map(chr, range(0x20, 0x7F)))}]


def test_the_check_goes_by_what_sites_keep_and_looks_into_further_fields(api: Api) -> None:
    rules = {"min_length": 4, "max_length": 40, "keeps_first": 8, "classes": ANY}
    site = {"name": "Cut", "domains": ["cut.example"], "source": "typed", "policy": rules}
    api.ok("POST", "policies", site)
    at = {"address": "https://cut.example"}
    one = api.add("Gantry", **at, user_name="a", secret={"own": "Kv7-rope and more"})["login_id"]
    api.add("Lumen", **at, user_name="b", secret={"own": "Kv7-rope!else"})
    pin = {"name": "PIN", "value": "Kv7-rope!else"}
    held = api.add("Slate", secret={"own": "quite-another-9"}, secret_fields=[pin])["login_id"]
    api.ok("POST", "checks")
    found = api.ok("GET", "checks/worklist")["findings"]
    said = {(f["kind"], f["login_id"]): f["evidence"] for f in found}
    assert "since its site keeps only the first 8 of 17 characters" in said["reused", one]
    assert said["reused", held].startswith("“PIN”: same as Lumen")
    assert "Kv7" not in str(found)


def test_a_policy_that_came_since_the_last_check_is_held_against_passwords_alone(api: Api) -> None:
    fields = [{"name": "PIN", "value": "4417"}]
    login = api.add(address="gantry.example", secret_fields=fields)["login_id"]
    path = f"rotations/{api.ok('POST', 'rotations', {'login_id': login})['rotation_id']}/events"
    api.ok("POST", path, {"event": "give_up"})
    api.ok("POST", "checks")
    classes = [{"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}]
    policy = {"min_length": 40, "max_length": 64, "classes": classes}
    named = {"name": "Gantry", "domains": ["gantry.example"], "policy": policy}
    api.ok("POST", "policies", named)
    api.ok("POST", "checks")
    found = api.ok("GET", "checks/worklist")["findings"]
    (off,) = (one["evidence"] for one in found if one["kind"] == "off_policy")
    assert "PIN" not in off
    api.clock.pass_s(90 * 86_400)
    api.enter()
    api.ok("POST", "checks")
    found = api.ok("GET", "checks/worklist")["findings"]
    assert "unfinished" not in [one["kind"] for one in found]
    # What went for good since is not remembered.
    api.ok("DELETE", f"logins/{login}", **api.proof())
    api.ok("DELETE", "logins/bin", **api.proof())
    assert api.ok("POST", "checks")["checked_count"] == 0


def test_a_stopped_check_goes_on_from_what_it_measured_over_a_lock_too(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    for n in range(60):
        api.add(f"Login {n}", secret={"own": f"lantern-and-plank-{n}"})
    texts: list[str] = []

    def counted(reading: Reading, *others: Any) -> Measure:
        texts.append(reading.text)
        if len(texts) == 50:
            api.keeper.progress.stop()
        return measured(reading, *others)

    monkeypatch.setattr("newknot.core.strength.same_texts.measured", counted)
    assert api.refused("POST", "checks") == "409 audit_stopped"
    assert len(texts) == 50
    api.keeper.lock()
    api.enter()
    api.ok("POST", "checks")
    assert len(texts) == len(set(texts)) == 60


def test_a_check_at_work_counts_as_use_for_ten_minutes(api: Api) -> None:
    held = api.safeguards()
    api.ok("PUT", "safeguards", {**held, "lock_after_s": 60}, **api.proof())
    with api.keeper.progress.of_one_act():
        api.clock.pass_s(500)
        api.keeper.lock_if_idle()
        assert api.keeper.is_unlocked
        api.clock.pass_s(101)
        api.keeper.lock_if_idle()
        assert not api.keeper.is_unlocked


def test_a_corpus_that_was_replaced_or_taken_away_is_seen_at_the_next_check(
    tmp_path: Path, clock: HandClock
) -> None:
    lists = {word: built(tmp_path, word) for word in ("plank-and-rope", "truss-and-bolt")}
    place = tmp_path / "used.corpus"
    shutil.copy(lists["plank-and-rope"], place)
    api = make_api(tmp_path, clock, Corpus.open(place))
    api.enter("create")
    for word in lists:
        api.add(word.title(), secret={"own": word})

    def breached() -> list[str]:
        found = api.ok("POST", "checks")
        return [f["title"] for f in found["findings"] if f["kind"] == "breached"]

    assert breached() == ["Plank-And-Rope"]
    Path(shutil.copy(lists["truss-and-bolt"], tmp_path / "other")).replace(place)
    assert breached() == ["Truss-And-Bolt"]
    place.unlink()
    assert breached() == []
    (one,) = api.ok("GET", "safeguards")["corpora"]
    assert one["reason"]
    shutil.copy(lists["plank-and-rope"], place)
    assert breached() == ["Plank-And-Rope"]
    api.keeper.lock()


def built(folder: Path, word: str) -> Path:
    """A corpus of one word."""
    plain = folder / f"{word}.txt"
    plain.write_text(f"{word}\n")
    build_corpus(
        [HashList(plain, words=True)],
        folder / f"{word}.corpus",
        name="small",
        dated_on=date(2026, 5, 1),
    )
    return folder / f"{word}.corpus"


def test_what_was_accepted_is_not_listed_as_due(api: Api) -> None:
    login = api.add("Gantry", expires_on="2026-11-01", secret={"own": "Kv7-rope and more"})
    api.ok("POST", "checks")
    (row,) = api.ok("GET", "logins")["logins"]
    assert row["due"] == "overdue"
    key = {"kind": "overdue", "login_id": login["login_id"]}
    api.ok("POST", "waivers", {"findings": [key], "reason": "covered", "note": ""})
    (row,) = api.ok("GET", "logins")["logins"]
    assert row["due"] is None and row["due_on"] == "2026-11-01"
    body = {"title": "Gantry", "expires_on": "2026-11-20"}
    api.ok("PUT", f"logins/{login['login_id']}", body)
    (row,) = api.ok("GET", "logins")["logins"]
    assert row["due"] == "overdue"
