"""The last check comes back as it was put, and there is one."""

from datetime import date

from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store import checks
from newknot.store.manifest import Label
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, ODD


def test_a_result_replaces_the_one_before(vault: Vault) -> None:
    assert checks.get_check(vault) is None
    finding = Finding(FindingKind.REUSED, new_id(), ODD, (new_id(), new_id()), 9.5, 3, 2.5, ODD)
    result = CheckResult(
        AT, 3, (new_id(),), (ListAsked("list", date(2026, 5, 1), 9, 2, ODD, 4),), (finding,),
        {new_id(): 4.5},
        (Group(CordKind.SAME, (new_id(), new_id())),), frozenset({(FindingKind.WEAK, new_id())}),
        (CheckSummary(AT, {"weak": 2}),), {new_id(): AT},
    )  # fmt: skip
    for _ in range(2):
        with vault.transaction() as tx:
            checks.put_check(tx, vault, result)
    assert checks.get_check(vault) == result
    assert len(vault.ids(Label.CHECK)) == 1
