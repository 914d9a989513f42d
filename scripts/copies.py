"""Random acts over copies of a vault that part and meet: no secret that was put in is lost, nothing
fails, and once all have met they say the same.

`./run copies [--first SEED] [--walks N] [--acts N] [--copies N]` ends with 1 at the first
fault, and says the acts before it.
"""

import argparse
import base64
import json
import random
import sys
import tempfile
import warnings
from collections.abc import Callable
from itertools import product
from pathlib import Path
from typing import Any

from tests.api.conftest import make_api
from tests.conftest import HandClock

from newknot.store.manifest import Label
from newknot.store.rotations import list_rotations
from newknot.store.vault import Vault

SEAL = "orchard velvet lantern quarry"
HOLDING = (Label.LOGIN, Label.ROTATION, Label.LOOSE_END)
"""Kinds of record that hold secrets for their user."""
EVENTS = ("accept", "refuse", "doubt", "withdraw", "verify", "give_up")
LISTS = ("logins", "logins/bin", "rotations", "loose-ends", "campaigns", "waivers", "policies")
TOLD_OF_A_FAULT = 14
OFTEN = ("edit", "edit", "hand_out", "event", "event", "merge", "merge", "earlier")
"""What is done more often than the rest."""


class Fault(Exception):
    """What went wrong, and after which acts."""


class Copy:
    """One copy of the vault: what was put into it, and the backups and the import it had."""

    def __init__(self, folder: Path) -> None:
        self.api = make_api(folder, HandClock())
        self.api.enter("create")
        rules = {**self.api.safeguards(), "lock_after_s": 28_800}
        self.api.ok("PUT", "safeguards", rules, **self.api.proof())
        self.put_in: set[str] = set()
        self.backups: list[str] = []
        self.brought_in: set[str] = set()

    @property
    def vault(self) -> Vault:
        """It is open throughout."""
        vault = self.api.keeper._vault
        assert vault is not None
        return vault

    def texts(self, ids: set[str] | None = None) -> str:
        """All that records say in which secrets are, or these alone."""
        vault = self.vault
        return "\n".join(
            vault.get(entry.label, record_id.hex(), part).decode()
            for (record_id, part), entry in vault.entries().items()
            if entry.label in HOLDING and (ids is None or record_id.hex() in ids)
        )


class Walk:
    """One seed's acts."""

    def __init__(self, seed: int, folder: Path, copies: int) -> None:
        self.chance = random.Random(seed)  # noqa: S311 - acts, not secrets
        self.copies = [Copy(folder / str(i)) for i in range(copies)]
        self.here = self.copies[0]
        self.let_go: set[str] = set()
        self.done: list[str] = []
        self.acts: dict[str, Callable[[], None]] = {
            name.removeprefix("do_"): getattr(self, name)
            for name in sorted(dir(self))
            if name.startswith("do_")
        }

    def go(self, acts: int) -> None:
        """So many acts, then all copies meet."""
        names = [*self.acts, *OFTEN]
        for _ in range(acts):
            self.here = self.chance.choice(self.copies)
            self.here.api.clock.pass_s(self.chance.choice((0.01, 1, 30, 300)))
            name = self.chance.choice(names) if self.logins() else "add"
            self.acts[name]()
            self.nothing_is_lost(name)
        for _ in range(2):
            for one, other in product(self.copies, repeat=2):
                self.here = one
                self.take_in(other)
                self.nothing_is_lost("meeting")
        said = [self.said(one) for one in self.copies]
        if any(one != said[0] for one in said):
            raise Fault("copies that have met differ")

    def nothing_is_lost(self, act: str) -> None:
        text = self.here.texts()
        for secret in self.here.put_in - self.let_go:
            if secret not in text and json.dumps(secret)[1:-1] not in text:
                raise Fault(f"after {act} {secret} is nowhere in copy {self.number()}")

    def said(self, copy: Copy) -> list[Any]:
        api = copy.api
        rows = sorted(api.ok("GET", "logins")["logins"], key=lambda row: str(row["login_id"]))
        sheets = [api.ok("GET", f"logins/{row['login_id']}") for row in rows]
        return [[s["title"], s["notes"], len(s["history"]), s["secret_since_at"]] for s in sheets]

    def call(self, method: str, path: str, body: object = None, *, proven: bool = False) -> Any:
        """What it answers; None where it refuses."""
        proof = self.here.api.proof() if proven else {}
        answer = self.here.api.call(method, path, body, **proof)
        self.done.append(f"{self.number()} {method} {path} {body} -> {answer.status_code}")
        if answer.status_code >= 500:
            raise Fault(f"failed: {answer.text}")
        if not answer.is_success:
            return None
        return answer.json() if answer.content else {}

    def number(self) -> int:
        return self.copies.index(self.here)

    def fresh(self) -> str:
        return f"zq{self.chance.getrandbits(80):020x}"

    def put(self, *secrets: str) -> None:
        self.here.put_in.update(secrets)

    def logins(self) -> list[Any]:
        return list(self.here.api.ok("GET", "logins")["logins"])

    def login(self) -> str:
        return str(self.chance.choice(self.logins())["login_id"])

    def rotation(self) -> str | None:
        found = self.here.api.ok("GET", "rotations")
        return f"rotations/{self.chance.choice(found)['rotation_id']}" if found else None

    def as_it_is(self, login_id: str) -> dict[str, Any]:
        sheet = self.here.api.ok("GET", f"logins/{login_id}")
        kept = [{"name": name, "value": None} for name in sheet["secret_field_names"]]
        return {
            **{name: sheet[name] for name in ("title", "user_name", "notes", "tags")},
            "secret_fields": kept,
        }

    def do_add(self) -> None:
        own, pin = self.fresh(), self.fresh()
        body = {
            "title": self.chance.choice(("Gantry", "Truss", "Lamp")),
            "secret": {"own": own},
            "secret_fields": [{"name": "pin", "value": pin}],
        }
        if self.call("POST", "logins", body):
            self.put(own, pin)

    def do_edit(self) -> None:
        login_id, own, pin = self.login(), self.fresh(), self.fresh()
        body = self.as_it_is(login_id)
        what = self.chance.choice(("secret", "field", "both", "title", "notes"))
        if what in ("secret", "both"):
            body["secret"] = {"own": own}
        if what in ("field", "both"):
            body["secret_fields"] = [{"name": self.chance.choice(("pin", "card")), "value": pin}]
        if what in ("title", "notes"):
            body[what] = self.fresh()
        if self.call("PUT", f"logins/{login_id}", body):
            self.put(*([own] if "secret" in body else []), *([pin] if "name" in what else []))
            self.put(*(f["value"] for f in body["secret_fields"] if f["value"]))

    def do_rotate(self) -> None:
        self.call("POST", "rotations", {"login_id": self.login()})

    def do_stage(self) -> None:
        if path := self.rotation():
            self.call("POST", f"{path}/stage", {"secret": {"own": self.fresh()}})

    def do_hand_out(self) -> None:
        if path := self.rotation():
            found = self.call("POST", f"{path}/hand-out", {"purpose": "copy"})
            self.put(*([found["secret"]] if found else []))

    def do_event(self) -> None:
        if path := self.rotation():
            self.call("POST", f"{path}/events", {"event": self.chance.choice(EVENTS)})

    def do_bin(self) -> None:
        self.call("DELETE", f"logins/{self.login()}", proven=True)

    def do_out_of_bin(self) -> None:
        if held := self.here.api.ok("GET", "logins/bin"):
            self.call("POST", f"logins/{self.chance.choice(held)['login_id']}/restore")

    def do_empty_bin(self) -> None:
        gone = {str(one["login_id"]) for one in self.here.api.ok("GET", "logins/bin")}
        rotations = list_rotations(self.here.vault)
        gone |= {one.rotation_id for one in rotations if one.login_id in gone}
        text = self.here.texts(gone)
        if self.call("DELETE", "logins/bin", proven=True):
            self.deliberately(text)

    def deliberately(self, text: str) -> None:
        """What this says was deleted by its user."""
        for copy in self.copies:
            found = (s for s in copy.put_in if s in text or json.dumps(s)[1:-1] in text)
            self.let_go.update(found)

    def do_keep_draw(self) -> None:
        drawn = self.here.api.ok("POST", "draws", {"length": 24})
        if self.call("POST", f"draws/{drawn['draw_id']}/keep", {}):
            self.put(drawn["secret"])

    def do_place(self) -> None:
        ends, login_id = self.here.api.ok("GET", "loose-ends"), self.login()
        if ends:
            end = {"loose_end_id": self.chance.choice(ends)["loose_end_id"]}
            self.call("PUT", f"logins/{login_id}", {**self.as_it_is(login_id), "secret": end})

    def do_backup(self) -> None:
        if made := self.call("POST", "backups", proven=True):
            self.here.backups.append(made["name"])

    def do_restore(self) -> None:
        if self.here.backups:
            name = self.chance.choice(self.here.backups)
            self.call("POST", f"backups/{name}/restore", proven=True)

    def do_merge(self) -> None:
        self.take_in(self.chance.choice([one for one in self.copies if one is not self.here]))

    def take_in(self, other: Copy) -> None:
        away = other.api.call("POST", "bundles/take-out", {"passphrase": SEAL}, **other.api.proof())
        held = self.here.api.ok("POST", "bundles", away.content)["bundle_id"]
        self.call("POST", f"bundles/{held}/open", {"passphrase": SEAL})
        if self.call("POST", f"bundles/{held}/merge", {"take_out_of_bin": []}) is not None:
            self.put(*other.put_in)

    def do_import(self) -> None:
        own = self.fresh()
        table = self.here.api.ok(
            "POST", "imports", f"title,password\n{self.fresh()},{own}\n".encode()
        )
        mapping = {"mapping": table["mapping"]}
        if self.call("POST", f"imports/{table['import_id']}/apply", mapping):
            self.put(own)
            self.here.brought_in = {own}

    def do_undo_import(self) -> None:
        if self.call("POST", "imports/undo") is not None:
            self.let_go |= self.here.brought_in

    def do_earlier(self) -> None:
        login_id = self.login()
        path = f"logins/{login_id}/history"
        history = self.here.api.ok("GET", f"logins/{login_id}")["history"]
        if not history:
            return
        one = self.chance.choice(history)
        at = f"{path}/{one['earlier_id']}"
        if self.chance.random() < 0.4:
            text = self.here.api.ok("POST", f"{at}/secret", {"purpose": "copy"})["secret"]
            if self.call("DELETE", at, proven=True) is not None:
                self.let_go.add(text)
                self.deliberately(text)
        elif one["field"]:
            self.call("POST", f"{at}/restore")
        else:
            body = {"login_id": login_id, "earlier_id": one["earlier_id"]}
            self.call("POST", "rotations", body)

    def do_code_key(self) -> None:
        shared = base64.b32encode(self.chance.randbytes(20)).decode()
        body = {"code_key": f"otpauth://totp/a:b?secret={shared}"}
        if self.call("POST", f"logins/{self.login()}/second-factor", body):
            self.put(shared)

    def do_backup_codes(self) -> None:
        codes = [f"bc{self.chance.getrandbits(60):015x}" for _ in range(2)]
        path = f"logins/{self.login()}/backup-codes"
        if self.call("PUT", path, {"text": "\n".join(codes)}) is not None:
            self.put(*codes)

    def do_settle_text(self) -> None:
        login_id = self.login()
        texts = self.here.api.ok("GET", f"logins/{login_id}")["other_texts"]
        if texts:
            path = f"logins/{login_id}/texts/{self.chance.choice(texts)['text_id']}/settle"
            self.call("POST", path, {"take": self.chance.random() < 0.5})

    def do_lock(self) -> None:
        self.here.api.ok("POST", "vault/lock")
        self.here.api.enter()

    def do_check(self) -> None:
        self.call("POST", "checks", {"whole": self.chance.random() < 0.5})

    def do_campaign(self) -> None:
        self.call("POST", "campaigns", {"login_ids": [self.login()]})

    def do_look(self) -> None:
        for path in LISTS:
            self.call("GET", path)
        self.call("POST", "checks/worklist/rows", {})
        self.call("POST", "logins/rows", {})


def main() -> None:
    """So many walks, each by a seed of its own."""
    warnings.filterwarnings("ignore")
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--first", type=int, default=1)
    parser.add_argument("--walks", type=int, default=20)
    parser.add_argument("--acts", type=int, default=150)
    parser.add_argument("--copies", type=int, default=2)
    wanted = parser.parse_args()
    for seed in range(wanted.first, wanted.first + wanted.walks):
        with tempfile.TemporaryDirectory() as folder:
            walk = Walk(seed, Path(folder), wanted.copies)
            try:
                walk.go(wanted.acts)
            except Fault as fault:
                print(*walk.done[-TOLD_OF_A_FAULT:], sep="\n")
                sys.exit(f"walk {seed}: {fault}")
            finally:
                for copy in walk.copies:
                    copy.api.keeper.lock()
            print(f"walk {seed}: {len(walk.done)} calls, nothing lost", flush=True)


if __name__ == "__main__":
    main()
