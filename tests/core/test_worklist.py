"""Rows by login: what is one row, what stands first, what is counted."""

from collections.abc import Mapping

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.order import placed
from newknot.core.audit.reach import CordKind, Group
from newknot.core.audit.worklist import Need, RowKind, Worklist, worklist_of
from newknot.core.login import Importance

K = FindingKind
NORMAL, CRITICAL = Importance.NORMAL, Importance.CRITICAL


def made(
    kinds: Mapping[str, list[FindingKind]],
    groups: list[Group] | None = None,
    *,
    critical: str = "",
    reach: Mapping[str, int] | None = None,
    loose: str = "",
) -> Worklist:
    importance = {one: CRITICAL if one in critical.split() else NORMAL for one in kinds}
    to_do = [
        placed(
            Finding(kind, one, f"{kind.value} of {one}"),
            importance[one],
            guess="",
            reach=(reach or {}).get(one, 0),
        )
        for one, every in kinds.items()
        for kind in every
    ]
    return worklist_of(to_do, groups or [], importance=importance, loose_ends=loose.split())


def ids(found: Worklist) -> list[str]:
    return [row.row_id for row in found.rows]


def test_all_findings_of_a_login_are_one_row_gravest_first() -> None:
    found = made({"a": [K.SIMILAR, K.NO_SECOND_FACTOR, K.WEAK], "b": [K.PLAIN_HTTP]})
    assert ids(found) == ["a", "b"]
    assert [f.kind for f in found.rows[0].findings] == [K.WEAK, K.SIMILAR, K.NO_SECOND_FACTOR]
    assert found.rows[0].needs == (Need.NEW_SECRET, Need.SECOND_FACTOR)
    assert found.rows[1].needs == (Need.ADDRESS,)
    counts = found.counts
    assert (counts.logins, counts.rotations, counts.settled_by_rotations) == (2, 1, 2)
    assert counts.by_need == {Need.NEW_SECRET: 1, Need.SECOND_FACTOR: 1, Need.ADDRESS: 1}
    assert counts.by_kind[K.WEAK] == 1 and K.BREACHED not in counts.by_kind


def test_first_are_those_above_the_line_and_no_other() -> None:
    kinds = {
        "breached": [K.BREACHED],
        "notice": [K.NOTICE],
        "changed": [K.UNEXPLAINED_CHANGE],
        "phrase": [K.LIKE_PASSPHRASE],
        "weak-critical": [K.WEAK],
        "reused-critical": [K.REUSED],
        "similar-critical": [K.SIMILAR],
        "weak": [K.WEAK],
        "unfinished": [K.UNFINISHED],
    }
    found = made(kinds, critical="weak-critical reused-critical similar-critical")
    first = {row.row_id for row in found.rows if row.is_first}
    assert first == {*list(kinds)[:6]} and found.counts.first == 6
    assert [row.is_first for row in found.rows] == [True] * 6 + [False] * 3


def test_a_large_group_is_one_row_and_a_graver_member_has_its_own() -> None:
    members = [f"m{n}" for n in range(6)]
    kinds = {one: [K.REUSED] for one in members}
    kinds["m2"] = [K.REUSED, K.NOTICE]
    kinds["m4"] = [K.REUSED, K.NO_SECOND_FACTOR]
    found = made(kinds, [Group(CordKind.SAME, tuple(members))], critical="m5")
    assert ids(found) == ["m2", "same-m0"] or ids(found) == ["same-m0", "m2"]
    group = next(row for row in found.rows if row.kind is RowKind.GROUP)
    assert group.login_ids[0] == "m5" and set(group.login_ids) == {*members} - {"m2"}
    assert (group.size, group.elsewhere) == (6, ("m2",))
    assert [f.kind for f in group.findings] == [K.REUSED]
    assert group.needs == (Need.NEW_SECRET, Need.SECOND_FACTOR)
    assert found.counts.logins == 6 and found.counts.by_kind[K.REUSED] == 6
    # Few of a group have it: they are shown, not the group.
    assert [row.row_id for row in found.with_facet(Need.SECOND_FACTOR)] == ["m4"]
    assert len(found.with_facet(K.REUSED)) == 2
    assert [row.row_id for row in found.with_facet(K.NOTICE)] == ["m2"]


def test_what_every_member_has_is_the_groups() -> None:
    members = tuple(f"m{n}" for n in range(5))
    found = made(
        {one: [K.BREACHED, K.WEAK, K.REUSED] for one in members}, [Group(CordKind.SAME, members)]
    )
    (row,) = found.rows
    assert row.is_first and len(row.login_ids) == 5
    assert [f.kind for f in row.findings] == [K.BREACHED, K.WEAK, K.REUSED]
    # One secret is one, though a site's name makes it weaker at its own login.
    kinds = {one: [K.REUSED] for one in members} | {"m3": [K.WEAK, K.REUSED]}
    (row,) = made(kinds, [Group(CordKind.SAME, members)]).rows
    assert [f.kind for f in row.findings] == [K.WEAK, K.REUSED] and row.login_ids[0] == "m3"
    # Similar secrets are several: one that is weak is so by itself.
    kinds = {one: [K.SIMILAR] for one in members} | {"m3": [K.WEAK, K.SIMILAR]}
    assert ids(made(kinds, [Group(CordKind.SIMILAR, members)])) == ["m3", "similar-m0"]


def test_a_small_group_and_one_that_was_mostly_accepted_stay_logins() -> None:
    three = ("a", "b", "c")
    assert ids(made({one: [K.REUSED] for one in three}, [Group(CordKind.SAME, three)])) == [*three]
    five = (*three, "d", "e")
    kinds = {one: [K.REUSED] for one in three} | {"d": [K.OVERDUE], "e": [K.OVERDUE]}
    assert len(made(kinds, [Group(CordKind.SAME, five)]).rows) == 5


def test_size_puts_no_group_before_a_breach() -> None:
    members = tuple(f"m{n:03}" for n in range(120))
    kinds = {one: [K.REUSED] for one in members} | {"z": [K.BREACHED]}
    group = [Group(CordKind.SAME, members)]
    found = made(kinds, group, critical="m007", reach=dict.fromkeys(members, 119))
    assert ids(found) == ["z", "same-m000"]
    # What falls beyond the group counts.
    far = made(kinds, group, critical="m007", reach=dict.fromkeys(members, 119) | {"m007": 3000})
    assert ids(far) == ["same-m000", "z"]


def test_a_loose_end_is_a_row_of_its_own() -> None:
    found = made({"loose": [K.UNFINISHED], "a": [K.UNFINISHED]}, loose="loose")
    assert {row.row_id: row.kind for row in found.rows} == {
        "loose": RowKind.LOOSE_END,
        "a": RowKind.LOGIN,
    }
    assert found.counts.rotations == 0


@given(
    st.dictionaries(
        st.sampled_from([f"l{n}" for n in range(14)]),
        st.lists(st.sampled_from(list(K)), min_size=1, max_size=4, unique=True),
        min_size=1,
    ),
    st.lists(
        st.tuples(
            st.sampled_from((CordKind.SAME, CordKind.SIMILAR)),
            st.lists(st.sampled_from([f"l{n}" for n in range(14)]), min_size=2, unique=True),
        ),
        max_size=3,
    ),
)
def test_each_login_counts_once_and_none_is_lost(
    kinds: dict[str, list[FindingKind]], groups: list[tuple[CordKind, list[str]]]
) -> None:
    found = made(kinds, [Group(kind, tuple(members)) for kind, members in groups])
    listed = [one for row in found.rows for one in row.login_ids]
    assert sorted(listed) == sorted(kinds) and found.counts.logins == len(kinds)
    line = [row.is_first for row in found.rows]
    assert line == sorted(line, reverse=True)
    for facet in (*Need, *K):
        shown = found.with_facet(facet)
        within = [one for row in shown for one in row.login_ids]
        counts = found.counts.by_kind if isinstance(facet, K) else found.counts.by_need
        assert len(within) == len({*within}) == counts.get(facet, 0)
        assert [row.is_first for row in shown] == sorted((r.is_first for r in shown), reverse=True)
    assert sum(found.counts.by_kind.values()) == sum(map(len, kinds.values()))
