"""The last check comes back as it was put, and there is one."""

from datetime import date

from newknot.core.audit.check_result import CheckResult, CheckSummary, ListAsked
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store import checks
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, ODD


def test_a_result_replaces_the_one_before(vault: Vault) -> None:
    assert checks.get_check(vault) is None
    finding = Finding(FindingKind.REUSED, new_id(), ODD, (new_id(), new_id()), 9.5, 3, 2.5, ODD)
    result = CheckResult(
        AT, 3, (new_id(),), (ListAsked("list", date(2026, 5, 1), 9, 2, ODD, 4),), (finding,),
        {new_id(): 4.5},
        (Group(CordKind.SAME, (new_id(), new_id())),), frozenset({(FindingKind.WEAK, new_id())}),
        (CheckSummary(AT, {"weak": 2}),), {new_id(): AT}, titles={new_id(): ODD},
    )  # fmt: skip
    for _ in range(2):
        with vault.transaction() as tx:
            checks.put_check(tx, vault, result)
    assert checks.get_check(vault) == result
    assert len(vault.ids(Label.CHECK)) == 1


def test_the_form_of_earlier_programs_is_read_with_when_each_was_found(vault: Vault) -> None:
    head: dict[str, object] = {"checked_at": iso(AT), "checked_count": 2, "unread": [], "asked": []}
    document = {
        **head, "earlier": [[iso(AT), {"weak": 2}]], "logins": ["a", "b"], "texts": ["Same", "Why"],
        "sets": [[], [1]], "findings": [["reused", 0, 0, 1, 9.5, 3, 2.5, 1]],
        "guess_numbers": [[1, 4.5]], "former": [["weak", 1]], "groups": [["same", [0, 1]]],
        "first_found": [[0, iso(AT)]],
    }  # fmt: skip
    with vault.transaction() as tx:
        tx.put(Label.CHECK, new_id(), packed(document))
    finding = Finding(FindingKind.REUSED, "a", "Same", ("b",), 9.5, 3, 2.5, "Why")
    assert checks.get_check(vault) == CheckResult(
        AT, 2, (), (), (finding,), {"b": 4.5}, (Group(CordKind.SAME, ("a", "b")),),
        frozenset({(FindingKind.WEAK, "b")}), (CheckSummary(AT, {"weak": 2}),), {"a": AT},
    )  # fmt: skip
