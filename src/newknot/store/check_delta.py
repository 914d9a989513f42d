"""A check's result as what differs from an earlier one, so that after one change little is written.

What did not change is the same object in both results: the audit remembers its findings.
"""

from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import datetime
from functools import partial
from itertools import takewhile
from operator import eq
from typing import Any, TypeVar

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import CordKind, Group
from newknot.store.record_json import iso

_T = TypeVar("_T")
_V = TypeVar("_V")
Document = dict[str, Any]

_NOTHING: Document = {"gone": (), "come": ()}
"""As earlier programs differ, which write none of it."""
SHARE_MOST = 8
"""What differs in more than one of so many findings is written whole."""


def delta_of(base: CheckResult, result: CheckResult) -> Document | None:
    """What of a result differs from the base; None where that is too much, or in another order."""
    sets: dict[tuple[str, ...], int] = {}
    most = len(result.findings) // SHARE_MOST
    findings = _lists(base.findings, result.findings, id, partial(_finding_row, sets), most)
    if findings is None:
        return None
    groups = _lists(base.groups, result.groups, lambda one: one, _group_row, len(result.groups))
    if groups is None:
        return None
    former, before = result.former or frozenset(), base.former or frozenset()
    return {
        # Not as `of`: by that earlier programs know a form that they read, with sets in each row.
        "from": iso(base.checked_at),
        "findings": findings,
        "sets": list(sets),
        "groups": groups,
        "guess_numbers": _maps(base.guess_numbers, result.guess_numbers, lambda one: one),
        "first_found": _maps(base.first_found, result.first_found, iso),
        "secrets_since": _maps(base.secrets_since, result.secrets_since, iso),
        "logins_changed_at": _maps(base.logins_changed_at, result.logins_changed_at, iso),
        "titles": _maps(base.titles, result.titles, lambda one: one),
        "former": None
        if result.former is None
        else {"gone": sorted(before - former), "come": sorted(former - before)},
    }


def with_delta(base: CheckResult, delta: Document) -> CheckResult | None:
    """The base with its differences; None where they are those of another base."""
    if delta.get("from", delta.get("of")) != iso(base.checked_at):
        return None
    former, sets = delta["former"], [tuple(one) for one in delta.get("sets", ())]
    return replace(
        base,
        findings=_listed(base.findings, delta["findings"], partial(_finding_of, sets)),
        groups=_listed(base.groups, delta["groups"], _group_of),
        guess_numbers=_mapped(base.guess_numbers, delta["guess_numbers"], lambda one: one),
        first_found=_mapped(base.first_found, delta["first_found"], datetime.fromisoformat),
        secrets_since=_mapped(
            base.secrets_since, delta.get("secrets_since", _NOTHING), datetime.fromisoformat
        ),
        logins_changed_at=_mapped(
            base.logins_changed_at,
            delta.get("logins_changed_at", _NOTHING),
            datetime.fromisoformat,
        ),
        titles=_mapped(base.titles, delta.get("titles", _NOTHING), lambda one: one),
        former=None
        if former is None
        else (base.former or frozenset()) - _pairs(former["gone"]) | _pairs(former["come"]),
    )


def _lists(
    base: Sequence[_T],
    fresh: Sequence[_T],
    key: Callable[[_T], Hashable],
    row: Callable[[_T], list[Any]],
    most: int,
) -> Document | None:
    """gone: places in the base; come: places in the other, and what is there. None where either is
    more than that.
    """
    # Mostly both begin and end alike.
    first = _alike(map(eq, map(key, base), map(key, fresh)))
    last = _alike(map(eq, map(key, reversed(base[first:])), map(key, reversed(fresh[first:]))))
    of_base = list(map(key, base[first : len(base) - last]))
    of_fresh = list(map(key, fresh[first : len(fresh) - last]))
    before, after = set(of_base), set(of_fresh)
    stayed = [one for one in of_base if one in after]
    if len(before) < len(of_base) or stayed != [one for one in of_fresh if one in before]:
        return None
    gone = [i for i, one in enumerate(of_base, first) if one not in after]
    come = [i for i, one in enumerate(of_fresh, first) if one not in before]
    if max(len(gone), len(come)) > most:
        return None
    return {"gone": gone, "come": [[i, row(fresh[i])] for i in come]}


def _alike(pairs: Iterable[bool]) -> int:
    """How many are true before the first that is not."""
    return sum(1 for _ in takewhile(bool, pairs))


def _listed(base: Sequence[_T], delta: Document, of: Callable[[list[Any]], _T]) -> tuple[_T, ...]:
    gone = set(delta["gone"])
    found = [one for i, one in enumerate(base) if i not in gone]
    for place, row in delta["come"]:
        found.insert(place, of(row))
    return tuple(found)


def _maps(
    base: Mapping[str, _V], fresh: Mapping[str, _V], written: Callable[[_V], Any]
) -> Document:
    return {
        "gone": sorted(base.keys() - fresh.keys()),
        "come": [[k, written(v)] for k, v in fresh.items() if base.get(k) != v],
    }


def _mapped(base: Mapping[str, _V], delta: Document, of: Callable[[Any], _V]) -> dict[str, _V]:
    gone = set(delta["gone"])
    found = {k: v for k, v in base.items() if k not in gone}
    return found | {k: of(v) for k, v in delta["come"]}


def _pairs(rows: Sequence[Sequence[str]]) -> frozenset[tuple[FindingKind, str]]:
    return frozenset((FindingKind(kind), login_id) for kind, login_id in rows)


def _finding_row(sets: dict[tuple[str, ...], int], f: Finding) -> list[Any]:
    """A group of logins, which stands with each of its members, by its place among all such."""
    said = (f.kind, f.login_id, f.evidence, sets.setdefault(f.others, len(sets)))
    return [*said, f.guess_number_log10, f.reach, f.urgency, f.why, f.basis]


def _finding_of(sets: Sequence[tuple[str, ...]], row: list[Any]) -> Finding:
    kind, login_id, evidence, others, *rest = row
    named = sets[others] if isinstance(others, int) else tuple(others)
    return Finding(FindingKind(kind), login_id, evidence, named, *rest)


def _group_row(group: Group) -> list[Any]:
    return [group.kind, group.login_ids]


def _group_of(row: list[Any]) -> Group:
    return Group(CordKind(row[0]), tuple(row[1]))
