"""The worklist: one row a login, its findings within it; a large group of one secret is one row.

People do not work off findings, they work off logins: one new secret settles several.
"""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from itertools import chain

from newknot.core.audit.finding import (
    KINDS,
    Finding,
    FindingKind,
    wants_field,
    wants_secret,
)
from newknot.core.audit.order import urgency
from newknot.core.audit.reach import CordKind, Group
from newknot.core.login import Importance

GROUP_LEAST = 4
"""Members of a group that is one row."""
_KINDS = list(FindingKind)
_GRAVITY = {kind: at for at, kind in enumerate(_KINDS)}
_NO_KINDS = frozenset[FindingKind]()
_FIRST = frozenset(
    (
        FindingKind.BREACHED,
        FindingKind.NOTICE,
        FindingKind.UNEXPLAINED_CHANGE,
        FindingKind.LIKE_PASSPHRASE,
    )
)
_FIRST_IF_CRITICAL = frozenset((FindingKind.WEAK, FindingKind.REUSED))
_OF_SECRET = frozenset((FindingKind.BREACHED, FindingKind.WEAK, FindingKind.LIKE_PASSPHRASE))
"""What is found of a secret is found of all who share it, whatever else each knows of itself."""
_OF_GROUP = {CordKind.SAME: FindingKind.REUSED, CordKind.SIMILAR: FindingKind.SIMILAR}


class Need(StrEnum):
    """What is to be done for a login, in the order in which it is done."""

    NEW_SECRET = "new_secret"  # noqa: S105
    FIELD = "field"
    SECOND_FACTOR = "second_factor"
    ADDRESS = "address"
    FINISH = "finish"


_NEEDS = {
    FindingKind.UNEXPLAINED_CHANGE: Need.FINISH,
    FindingKind.UNFINISHED: Need.FINISH,
    FindingKind.NO_SECOND_FACTOR: Need.SECOND_FACTOR,
    FindingKind.PLAIN_HTTP: Need.ADDRESS,
}


class RowKind(StrEnum):
    """What a row stands for."""

    LOGIN = "login"
    GROUP = "group"
    LOOSE_END = "loose_end"


@dataclass(frozen=True, slots=True)
class Row:
    """row_id: of the login or the loose end, or of the group, which is the same as long as its
    first member by id is. login_ids: the logins it counts for, the ones that matter most first.
    elsewhere: members of the group that have a row of their own. size: members of the group in all.
    findings: of the login, gravest first; of a group those of its secret, or of every login of the
    row. is_first: above the line.
    """

    row_id: str
    kind: RowKind
    login_ids: tuple[str, ...]
    elsewhere: tuple[str, ...]
    size: int
    findings: tuple[Finding, ...]
    kinds: frozenset[FindingKind]
    needs: tuple[Need, ...]
    is_first: bool
    urgency: float
    cord: CordKind | None = None


@dataclass(frozen=True, slots=True)
class Counts:
    """In logins. rotations settle so many findings whole; rotations_by: how many of them are of
    logins with such a finding.
    """

    logins: int
    first: int
    by_need: Mapping[Need, int]
    by_kind: Mapping[FindingKind, int]
    rotations: int
    rotations_by: Mapping[FindingKind, int]
    settled_by_rotations: int


@dataclass(frozen=True, slots=True)
class Worklist:
    """All rows in order, their counts, and the findings of each login."""

    rows: tuple[Row, ...]
    counts: Counts
    findings: Mapping[str, tuple[Finding, ...]]
    importance: Mapping[str, Importance]

    def with_facet(self, facet: Need | FindingKind | None) -> list[Row]:
        """The rows of the logins that need this, or have a finding of this kind; of a group in
        which others have not, these have rows of their own.
        """
        if facet is None:
            return list(self.rows)
        found: list[Row] = []
        for row in self.rows:
            if facet not in row.needs and facet not in row.kinds:
                continue
            fitting = [one for one in row.login_ids if has_facet(self.findings[one], facet)]
            is_whole = row.kind is not RowKind.GROUP or len(fitting) == len(row.login_ids)
            found += (row,) if is_whole else map(self._alone, fitting)
        # In order already, as far as they are rows of the whole.
        return sorted(found, key=_place)

    def _alone(self, login_id: str) -> Row:
        findings = self.findings[login_id]
        kinds = frozenset(finding.kind for finding in findings)
        needs = needs_of(findings)
        return _single(login_id, findings, kinds, needs, self.importance, is_loose=False)


def has_facet(findings: Iterable[Finding], facet: Need | FindingKind) -> bool:
    """Whether one of a login's findings is of this kind, or asks for this."""
    if facet is Need.NEW_SECRET:
        return any(map(wants_secret, findings))
    if isinstance(facet, FindingKind):
        return any(one.kind is facet for one in findings)
    return facet in needs_of(findings)


def needs_of(findings: Iterable[Finding]) -> tuple[Need, ...]:
    """What findings ask for, in the order in which it is done."""
    wanted: set[Need] = set()
    for finding in findings:
        if wants_field(finding):
            wanted.add(Need.FIELD)
        if wants_secret(finding) or finding.kind in _NEEDS:
            wanted.add(_need_of(finding.kind))
    return _in_order(wanted)


def to_set_right(findings: Iterable[Finding]) -> set[tuple[Need, str]]:
    """Which login needs what, but for a new secret, whose day is known by itself, and for what is
    open.
    """
    few = [one for one in findings if one.kind in _NEEDS or one.field_name or one.parts]
    return {
        (need, one.login_id)
        for one in few
        for need in needs_of((one,))
        if need not in (Need.NEW_SECRET, Need.FINISH)
    }


def _need_of(kind: FindingKind) -> Need:
    return _NEEDS.get(kind, Need.NEW_SECRET)


def worklist_of(
    to_do: Sequence[Finding],
    groups: Iterable[Group],
    *,
    importance: Mapping[str, Importance],
    loose_ends: Iterable[str] = (),
) -> Worklist:
    """The rows of all findings that stand. importance: of each login, as it is ordered by."""
    found: dict[str, list[Finding]] = {}
    for finding in to_do:
        found.setdefault(finding.login_id, []).append(finding)
    for one in found.values():
        if len(one) > 1:
            one.sort(key=lambda f: _GRAVITY[f.kind])
    # Many logins have the same kinds: each set of them is made once.
    each = {one: tuple([f.kind for f in every]) for one, every in found.items()}
    sets = {kinds: frozenset(kinds) for kinds in set(each.values())}
    kinds = {one: sets[every] for one, every in each.items()}
    # Few logins have a further secret that is at fault: what they need is not told by kinds alone.
    mixed = {one: found[one] for one in {f.login_id for f in to_do if f.field_name or f.parts}}
    needs = {one: needs_of(every) for one, every in mixed.items()}
    loose = frozenset(loose_ends)
    rows: list[Row] = []
    placed: set[str] = set()
    for kind in (CordKind.SAME, CordKind.SIMILAR):
        for group in groups:
            if group.kind is kind:
                row = _group(group, found, kinds, needs, placed, importance)
                if row is not None:
                    rows.append(row)
                    placed.update(row.login_ids)
    rows += [
        _single(
            one,
            found[one],
            kinds[one],
            needs.get(one) or _needs(kinds[one]),
            importance,
            is_loose=one in loose,
        )
        for one in found
        if one not in placed
    ]
    rows.sort(key=_place)
    return Worklist(
        tuple(rows),
        _counts(rows, each, mixed),
        {one: tuple(every) for one, every in found.items()},
        importance,
    )


def _single(
    login_id: str,
    findings: Sequence[Finding],
    kinds: frozenset[FindingKind],
    needs: tuple[Need, ...],
    importance: Mapping[str, Importance],
    *,
    is_loose: bool,
) -> Row:
    return Row(
        row_id=login_id,
        kind=RowKind.LOOSE_END if is_loose else RowKind.LOGIN,
        login_ids=(login_id,),
        elsewhere=(),
        size=1,
        findings=tuple(findings),
        kinds=kinds,
        needs=needs,
        is_first=_is_first(kinds, importance.get(login_id, Importance.NORMAL)),
        urgency=max(f.urgency for f in findings),
    )


def _group(
    group: Group,
    found: Mapping[str, Sequence[Finding]],
    kinds: Mapping[str, frozenset[FindingKind]],
    needs: Mapping[str, tuple[Need, ...]],
    placed: set[str],
    importance: Mapping[str, Importance],
) -> Row | None:
    """One row for a group, but for its members that have something graver of their own."""
    tie = _OF_GROUP[group.kind]
    members = [
        one
        for one in group.login_ids
        if one not in placed
        and tie in kinds.get(one, _NO_KINDS)
        # Who shares a further field alone is seen to by itself.
        and (one not in needs or any(f.kind is tie and wants_secret(f) for f in found[one]))
    ]
    if len(members) < GROUP_LEAST:
        return None
    # What all of them have is the group's: a secret that is weak is so at each of its logins.
    shared = frozenset.intersection(*(kinds[one] for one in members))
    if group.kind is CordKind.SAME:
        shared |= _OF_SECRET
    no_graver = shared | {kind for kind in _KINDS if _GRAVITY[kind] > _GRAVITY[tie]}
    inside = [one for one in members if kinds[one] <= no_graver]
    if len(inside) < 2:
        return None

    is_first = any(_is_first(kinds[one], importance[one]) for one in inside)

    def matters(login_id: str) -> float:
        # Among the first ones, how many share a secret puts no group before a breach.
        within = len(group.login_ids) - 1 if is_first else 0
        return max(
            urgency(f.kind, importance[login_id], max(0, f.reach - within)) for f in found[login_id]
        )

    weights = {one: matters(one) for one in inside}
    inside.sort(key=lambda one: (-weights[one], one))
    every = _NO_KINDS.union(*(kinds[one] for one in inside))
    # Each kind as the login that matters most of those that have it.
    wanted = every & shared
    leading: dict[FindingKind, Finding] = {}
    for finding in chain.from_iterable(found[one] for one in inside):
        if finding.kind in wanted:
            leading.setdefault(finding.kind, finding)
            if len(leading) == len(wanted):
                break
    return Row(
        row_id=f"{group.kind.value}-{min(group.login_ids)}",
        kind=RowKind.GROUP,
        login_ids=tuple(inside),
        elsewhere=tuple(one for one in members if one not in weights),
        size=len(group.login_ids),
        findings=tuple(sorted(leading.values(), key=lambda f: _GRAVITY[f.kind])),
        kinds=every,
        needs=_in_order(chain(_needs(every), *(needs.get(one, ()) for one in inside))),
        is_first=is_first,
        urgency=weights[inside[0]],
        cord=group.kind,
    )


@lru_cache(maxsize=1_000)
def _needs(kinds: frozenset[FindingKind]) -> tuple[Need, ...]:
    return _in_order(_need_of(kind) for kind in kinds)


def _in_order(needs: Iterable[Need]) -> tuple[Need, ...]:
    wanted = set(needs)
    return tuple(need for need in Need if need in wanted)


def _is_first(kinds: frozenset[FindingKind], importance: Importance) -> bool:
    if not kinds.isdisjoint(_FIRST):
        return True
    return importance is Importance.CRITICAL and not kinds.isdisjoint(_FIRST_IF_CRITICAL)


def _place(row: Row) -> tuple[bool, float, float, str]:
    known = [f.guess_number_log10 for f in row.findings if f.guess_number_log10 is not None]
    return not row.is_first, -row.urgency, min(known, default=999.0), row.row_id


def _counts(
    rows: Sequence[Row],
    kinds: Mapping[str, tuple[FindingKind, ...]],
    mixed: Mapping[str, Sequence[Finding]],
) -> Counts:
    by_need, by_kind, rotated = Counter[Need](), Counter[FindingKind](), Counter[FindingKind]()
    rotations = settled = 0
    for every, n in Counter(of for one, of in kinds.items() if one not in mixed).items():
        by_secret = [kind for kind in every if KINDS[kind].by_new_secret]
        for kind in set(every):
            by_kind[kind] += n
        for kind in set(by_secret):
            rotated[kind] += n
        for need in _needs(frozenset(every)):
            by_need[need] += n
        rotations += n * bool(by_secret)
        settled += n * len(by_secret)
    for findings in mixed.values():
        by_kind.update({finding.kind for finding in findings})
        by_need.update(needs_of(findings))
        if any(map(wants_secret, findings)):
            rotations += 1
            rotated.update({f.kind for f in findings if KINDS[f.kind].by_new_secret})
        settled += sum(wants_secret(f) and not wants_field(f) for f in findings)
    return Counts(
        logins=len(kinds),
        first=sum(len(row.login_ids) for row in rows if row.is_first),
        by_need={need: by_need[need] for need in Need if by_need[need]},
        by_kind={kind: by_kind[kind] for kind in _KINDS if by_kind[kind]},
        rotations=rotations,
        rotations_by=rotated,
        settled_by_rotations=settled,
    )
