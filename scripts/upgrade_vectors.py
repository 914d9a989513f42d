"""Writes the files that every later version has to open: a vault, a backup and a bundle of today.

    python -m scripts.upgrade_vectors FOLDER

Run once for a version of the vault's format, and never again over what lies there: what a program
of that day wrote is the point. expected.json is what the stand-alone reader of `docs/` says of it.
"""

import json
import shutil
import sys
from datetime import timedelta
from pathlib import Path
from typing import Any

from tests.api.conftest import Api, make_api
from tests.api.test_bundles import merged, taken_out
from tests.conftest import PASSPHRASE, HandClock

from newknot.core.audit.notice import Notice
from newknot.core.rotation.change_mail import ChangeMail
from newknot.store.mails import HeldMails, put_mails
from newknot.store.notices import HeldNotices, put_notices

CODE_KEY = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"


def fill(api: Api) -> None:
    """Every kind of record, each of its parts, and histories of each kind of secret."""
    gantry = api.add(
        "Gantry Rentals",
        user_name="ilse",
        address="https://gantry.example/enter",
        notes="by the day\nby the week",
        tags=["hire", "truss"],
        folder="work",
        owner="Maud",
        secret={"own": "rope-and-plank"},
        secret_fields=[{"name": "door", "value": "4711"}],
        second_factor="here",
        code_key=CODE_KEY,
    )["login_id"]
    api.clock.pass_s(60)
    body: dict[str, object] = {"title": "Gantry Rentals", "user_name": "ilse"}
    body |= {"second_factor": "here"}
    body |= {"address": "https://gantry.example/enter", "expires_on": "2027-03-01"}
    body |= {"secret_fields": [{"name": "door", "value": "4712"}], "notes": "by the week"}
    api.ok("PUT", f"logins/{gantry}", {**body, "secret": {"own": "truss-and-bolt"}})
    api.ok("PUT", f"logins/{gantry}/backup-codes", {"text": "aa11 bb22\ncc33 dd44"})
    for n in range(21):
        api.add(f"Site {n:02}", address=f"https://site{n}.example", secret={"own": f"lantern{n}"})
    for title in ("Gone for good", "Old Abbey"):
        binned = api.add(title)["login_id"]
        api.ok("DELETE", f"logins/{binned}", **api.proof())
        if title == "Gone for good":
            api.ok("DELETE", "logins/bin", **api.proof())
    classes = [{"name": "lower", "characters": "abcdefghijkmnopqrstuvwxyz"}]
    policy = {"min_length": 8, "max_length": 16, "history_depth": 5, "classes": classes}
    api.ok("POST", "policies", {"name": "Gantry", "domains": ["gantry.example"], "policy": policy})
    api.ok("PUT", "strength/own-details", {"lines": ["Quist", "Harwich"], "rates": {}})
    drawn = api.ok("POST", "draws", {"length": 20})
    api.ok("POST", f"draws/{drawn['draw_id']}/keep", {"address": "https://lumen.example"})
    api.ok("POST", "checks")
    found = api.ok("GET", "checks/worklist")["findings"]
    weak = next(f for f in found if f["kind"] == "weak")
    given = [{"kind": "weak", "login_id": weak["login_id"]}]
    api.ok("POST", "waivers", {"findings": given, "reason": "covered", "note": "over the cable"})
    rotation = api.ok("POST", "rotations", {"login_id": gantry})["rotation_id"]
    api.ok("POST", f"rotations/{rotation}/hand-out", {"purpose": "copy"})
    api.ok("POST", "campaigns", {"login_ids": [gantry, weak["login_id"]]})
    api.ok("POST", "bundles/key")
    api.ok("POST", "exports/files", {"kind": "csv"}, **api.proof())
    row = b"title,user,password,website,notes\nGantry Rentals,ilse,plank,gantry.example,by tram\n"
    table = api.ok("POST", "imports", row)
    takes = [{"line": 2, "fields": ["notes"]}]
    body = {"mapping": table["mapping"], "take_fields": takes}
    api.ok("POST", f"imports/{table['import_id']}/apply", body)
    api.ok("PUT", "safeguards", api.safeguards() | {"lock_after_s": 900}, **api.proof())
    api.ok("POST", "recovery", {"count": 3, "threshold": 2}, **api.proof())
    now = api.clock.now()
    notice = Notice("1", "Lumen: a breach", "lumen.example", now.date(), ("passwords",))
    mail = ChangeMail("1", "gantry.example", "ilse", "Your password was changed", now, "")
    with api.keeper.at_work() as vault, vault.transaction() as tx:
        put_notices(tx, vault, HeldNotices(now, (notice,), 0))
        put_mails(tx, vault, HeldMails(now, (mail,)))


def part(api: Api, folder: Path) -> None:
    """A text that another copy changed as well, merged in."""
    login = api.ok("GET", "logins")["logins"][1]["login_id"]
    other = make_api(folder / "other", api.clock)
    other.enter("create")
    merged(other, taken_out(api))
    for one, notes in ((api, "first"), (other, "second")):
        one.ok("PUT", f"logins/{login}", {"title": "Site 00", "notes": notes})
    merged(api, taken_out(other))
    other.keeper.lock()
    shutil.rmtree(folder / "other")


def write(folder: Path, reader: Any) -> None:
    """The four files. reader: the module `docs/read_vault.py`."""
    api = make_api(folder, HandClock())
    api.enter("create")
    fill(api)
    part(api, folder)
    api.clock.pass_s(timedelta(hours=1).total_seconds())
    api.keeper.lock()
    api.enter()
    (folder / "bundle.jwe").write_bytes(taken_out(api))
    made = api.ok("POST", "backups", **api.proof())
    Path(made["path"]).replace(folder / "backup.vault")
    api.keeper.lock()
    expected = reader.read(folder / "own.vault", PASSPHRASE)
    (folder / "expected.json").write_text(json.dumps(expected, ensure_ascii=False, indent=1))


if __name__ == "__main__":
    from tests.store.test_upgrades import reader as stand_alone

    write(Path(sys.argv[1]), stand_alone())
