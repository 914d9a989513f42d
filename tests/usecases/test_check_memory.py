"""A check that asks anew only for what was written since finds what one finds that asks for all."""

import sqlite3
from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta

from newknot.core.audit.order import in_order
from newknot.core.login import Importance, Origin
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.store.logins import get_card, put_card, remove_login
from newknot.store.vault import Vault
from newknot.usecases.check.checks import CheckMemory, run_check
from newknot.usecases.check.worklist import WorklistMemory
from newknot.usecases.logins.logins import (
    LoginDraft,
    NewSecret,
    add_login,
    delete_login,
    edit_login,
)
from newknot.usecases.policies import save_policy
from newknot.usecases.progress import Progress
from tests.store.samples import AT

FOLDS = SitePolicy.from_dict(
    {"min_length": 4, "max_length": 9, "keeps_first": 8, "folds_case": True}
)
TEXTS = ("Lantern-4", "lantern-44", "copper77", "Winter2019", "x9Kf-77-Qp", "mitten", "LANTERN-4")


def test_after_each_act_it_finds_what_a_check_without_memory_finds(vault: Vault) -> None:
    held, rows, now = CheckMemory(), WorklistMemory(), AT
    drafts = [
        LoginDraft(title=f"Site {n}", user_name=f"u{n}@s0.example", address=f"https://s{n}.example")
        for n in range(7)
    ]
    ids = [
        add_login(vault, draft, NewSecret(Secret(text), Origin("own")), now=now).login_id
        for draft, text in zip(drafts, TEXTS, strict=True)
    ]
    with sqlite3.connect(vault.path) as raw:
        damaged = "UPDATE records SET sealed = zeroblob(90) WHERE part = 2 AND record_id = ?"
        raw.execute(damaged, (bytes.fromhex(ids[5]),))

    def card(n: int, **changed: object) -> None:
        with vault.transaction() as tx:
            put_card(tx, replace(get_card(vault, ids[n]), **changed))  # type: ignore[arg-type]

    def remove() -> None:
        with vault.transaction() as tx:
            remove_login(tx, ids[0])

    def policy() -> None:
        known = {"policy_id": None, "name": "s0", "domains": ("s0.example",), "source": "user"}
        save_policy(vault, policy=FOLDS, now=now, **known)  # type: ignore[arg-type]

    new = NewSecret(Secret("Copper-88"), Origin("own"))
    acts: list[Callable[[], object]] = [
        lambda: edit_login(vault, ids[2], drafts[2], new, now=now),
        lambda: card(3, importance=Importance.CRITICAL),
        lambda: card(1, resets_by=ids[6]),
        policy,
        lambda: delete_login(vault, ids[4], now=now),
        lambda: card(6, parted_at=AT),
        remove,
    ]
    for act in (lambda: None, *acts):
        now += timedelta(minutes=1)
        act()
        one = run_check(vault, lists=(), progress=Progress(), now=now, memory=held)
        here, other = rows.as_now(vault, now=now), WorklistMemory().as_now(vault, now=now)
        assert here.worklist == other.worklist
        assert list(here.standing.to_do) == in_order(here.standing.to_do)
        fresh = run_check(vault, lists=(), progress=Progress(), now=now)
        assert (one.findings, one.groups, one.unread) == (fresh.findings, fresh.groups, (ids[5],))
        assert one.guess_numbers == fresh.guess_numbers
    assert ids[1] in held.audit.seen and ids[0] not in held.audit.seen
