"""A waiver comes back as it was put; a damaged one hides no other."""

import sqlite3
from dataclasses import replace
from datetime import date
from pathlib import Path

from newknot.core.audit import FindingKind
from newknot.core.audit.waiver import Waiver, WaiverReason
from newknot.store.vault import Vault, new_id
from newknot.store.waivers import list_waivers, put_waiver
from tests.store.samples import AT, ODD

WAIVER = Waiver(
    waiver_id=new_id(),
    login_id=new_id(),
    kind=FindingKind.REUSED,
    reason=WaiverReason.COVERED,
    note=ODD,
    given_at=AT,
    until_on=date(2027, 1, 2),
    evidence=ODD,
    others=frozenset({"a", "b"}),
    lifted_at=AT,
)


def test_a_waiver_is_kept_whole(vault: Vault) -> None:
    with vault.transaction() as tx:
        put_waiver(tx, WAIVER)
    assert list_waivers(vault) == [WAIVER]


def test_a_damaged_one_hides_no_other(vault: Vault, tmp_path: Path) -> None:
    other = replace(WAIVER, waiver_id=new_id(), lifted_at=None, until_on=None)
    with vault.transaction() as tx:
        put_waiver(tx, WAIVER)
        put_waiver(tx, other)
    with sqlite3.connect(tmp_path / "own.vault") as connection:
        connection.execute(
            "UPDATE records SET sealed = zeroblob(length(sealed)) WHERE record_id = ?",
            (bytes.fromhex(WAIVER.waiver_id),),
        )
    assert list_waivers(vault) == [other]
