"""What a later check found otherwise is all that is written, and it comes back as it was put."""

from dataclasses import replace
from datetime import timedelta

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store import checks
from newknot.store.check_delta import delta_of, with_delta
from newknot.store.vault import Vault
from tests.store.samples import AT, ODD

FINDINGS = tuple(
    Finding(FindingKind.WEAK, f"{n:032x}", f"says {n}", guess_number_log10=float(n), basis=ODD)
    for n in range(40)
)
CHANGES = st.lists(st.tuples(st.integers(0, 39), st.booleans()), max_size=3)


@settings(deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(CHANGES, max_size=6))
def test_after_changes_it_is_the_last_one_whole_or_by_what_differs(
    vault: Vault, steps: list[list[tuple[int, bool]]]
) -> None:
    found, at = dict(enumerate(FINDINGS)), AT
    for step in [[], *steps]:
        at += timedelta(days=1)
        for n, is_there in step:
            found.pop(n, None)
            if is_there:
                found[n] = replace(FINDINGS[n], evidence=f"found on {at}")
        findings = tuple(found[n] for n in sorted(found))
        ids = tuple(one.login_id for one in findings)
        groups = tuple(Group(CordKind.SAME, ids[n : n + 2]) for n in range(0, 20, 2))
        former = frozenset((FindingKind.REUSED, one) for one in ids[::2]) if step else None
        numbers = {one: float(len(step)) for one in ids[::9]}
        first = dict.fromkeys(ids[::7], at)
        result = CheckResult(
            *(at, len(ids), (), (), findings, numbers, groups, former, (), first, ids[:1]),
            logins_changed_at=dict.fromkeys(ids[::3], at),
            titles={one: f"{ODD} {len(step)}" for one in ids[::5]},
        )
        with vault.transaction() as tx:
            checks.put_check(tx, vault, result)
        assert checks.get_check(vault) == result
    vault.kept.clear()
    assert checks.get_check(vault) == result


def test_what_differs_is_read_as_earlier_programs_wrote_it_too() -> None:
    """They wrote a group in each row, under another name; theirs do not know today's."""
    base = CheckResult(AT, 40, (), (), FINDINGS, {}, (), None, (), {}, ())
    found = replace(FINDINGS[3], others=(FINDINGS[1].login_id, FINDINGS[2].login_id))
    later = replace(base, findings=(*FINDINGS[:3], found, *FINDINGS[4:]))
    delta = delta_of(base, later)
    assert delta is not None and "of" not in delta and with_delta(base, delta) == later
    ((_, row),) = delta["findings"]["come"]
    row[3] = list(delta.pop("sets")[row[3]])
    former = {**delta, "of": delta.pop("from")}
    del former["from"]
    assert with_delta(base, former) == later
    assert with_delta(replace(base, checked_at=AT + timedelta(days=1)), former) is None
