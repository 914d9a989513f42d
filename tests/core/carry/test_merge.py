"""The laws of merging, over copies of a vault that went any separate ways."""

from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.carry.merge import CARD, HISTORY, SECRETS, Contents, merged
from newknot.core.carry.stamps import STAMPS, stamped

IDS = ("a" * 32, "b" * 32)
WORDS = st.sampled_from(["rope", "plank", "lamp", "truss"])


def login() -> dict[str, Any]:
    """A login as it lies in a vault, cut down to what merging looks at."""
    return {
        CARD: {
            "title": "T", "notes": "", "secret_field_names": [], "secret_since_at": "2026-01-01",
            "has_secret": True, "deleted_at": None,
        },
        SECRETS: {"secret": "rope", "origin": {"kind": "own"}, "fields": [], "code_key": ""},
    }  # fmt: skip


def put(contents: Contents, label: str, record_id: str, part: str, document: Any) -> None:
    parts = contents.records.setdefault(label, {}).setdefault(record_id, {})
    parts[part] = stamped(parts.get(part), {k: v for k, v in document.items() if k != STAMPS})


def change(contents: Contents, step: tuple[str, str, str, int], who: int) -> None:
    """One thing that a user does to one copy; `moment` is the wall clock of that machine."""
    what, login_id, word, moment = step
    at = f"2026-01-{moment:02}"
    parts = contents.records.get("LOGIN", {}).get(login_id)
    if what == "waiver":
        put(contents, "WAIVER", "d" * 32, CARD, {"reason": word})
    elif parts is None:
        return
    elif what in ("title", "notes"):
        put(contents, "LOGIN", login_id, CARD, {**parts[CARD], what: word})
    elif what == "bin":
        put(contents, "LOGIN", login_id, CARD, {**parts[CARD], "deleted_at": at})
    elif what == "secret" and parts[SECRETS]["secret"] != f"{word}{moment}{who}":
        old, card = parts[SECRETS], parts[CARD]
        entry = [f"{old['secret']}/{moment}", old["secret"], old["origin"], at, at, True, ""]
        history = parts.get(HISTORY, {"earlier": []})
        if all(e[0] != entry[0] for e in history["earlier"]):
            fresh = {**history, "earlier": [*history["earlier"], entry]}
            put(contents, "LOGIN", login_id, HISTORY, fresh)
        put(contents, "LOGIN", login_id, SECRETS, {**old, "secret": f"{word}{moment}{who}"})
        put(contents, "LOGIN", login_id, CARD, {**card, "secret_since_at": at})
    elif what == "remove":
        contents.removed[login_id] = sum(d.get("edition", 0) for d in parts.values())
        del contents.records["LOGIN"][login_id]


KEEPING = ["title", "notes", "secret", "secret", "bin", "waiver"]


def steps(kinds: list[str]) -> st.SearchStrategy[list[tuple[str, str, str, int]]]:
    step = st.tuples(st.sampled_from(kinds), st.sampled_from(IDS), WORDS, st.integers(1, 28))
    return st.lists(step, max_size=6)


STEPS, KEEPING_STEPS = steps([*KEEPING, "remove"]), steps(KEEPING)


def copies(*ways: list[tuple[str, str, str, int]]) -> list[Contents]:
    """Copies of one vault, each after its own steps."""
    found = []
    for who, steps in enumerate(ways):
        copy = Contents({"LOGIN": {i: deepcopy(login()) for i in IDS}})
        for step in steps:
            change(copy, step, who)
        found.append(copy)
    return found


def together(*all_of_them: Contents) -> Contents:
    first, *others = all_of_them
    for other in others:
        first = merged(first, other).contents
    return first


def secrets_of(contents: Contents, login_id: str) -> set[str]:
    parts = contents.records["LOGIN"][login_id]
    return {
        parts[SECRETS]["secret"],
        *(e[1] for e in parts.get(HISTORY, {"earlier": []})["earlier"]),
    }


@settings(max_examples=300, deadline=None)
@given(STEPS, STEPS)
def test_the_order_does_not_matter_and_twice_changes_nothing(
    one: list[tuple[str, str, str, int]], two: list[tuple[str, str, str, int]]
) -> None:
    a, b = copies(one, two)
    before = deepcopy((a, b))
    joined = merged(a, b)
    assert joined.contents == merged(b, a).contents
    assert together(joined.contents, b) == together(joined.contents, a) == joined.contents
    assert merged(joined.contents, joined.contents).changed == []
    assert (a, b) == before


@settings(max_examples=300, deadline=None)
@given(KEEPING_STEPS, KEEPING_STEPS, KEEPING_STEPS)
def test_three_copies_come_together_the_same_way_round_or_the_other(
    one: list[tuple[str, str, str, int]],
    two: list[tuple[str, str, str, int]],
    three: list[tuple[str, str, str, int]],
) -> None:
    a, b, c = copies(one, two, three)
    assert together(together(a, b), c) == together(a, together(b, c)) == together(c, a, b)


@settings(max_examples=300, deadline=None)
@given(STEPS, STEPS)
def test_no_secret_and_no_change_of_one_side_alone_is_lost(
    one: list[tuple[str, str, str, int]], two: list[tuple[str, str, str, int]]
) -> None:
    a, b = copies(one, two)
    joined = merged(a, b).contents
    for login_id in IDS:
        sides = [c.records["LOGIN"][login_id] for c in (a, b) if login_id in c.records["LOGIN"]]
        if login_id not in joined.records.get("LOGIN", {}):
            continue
        kept = secrets_of(joined, login_id)
        for side in (a, b):
            if login_id in side.records["LOGIN"]:
                assert secrets_of(side, login_id) <= kept
        card = joined.records["LOGIN"][login_id][CARD]
        for name in ("title", "notes", "deleted_at"):
            values = {side[CARD][name] for side in sides if side[CARD].get(STAMPS, {}).get(name)}
            if len(sides) == 2 and len(values) == 1:
                assert card[name] in values


def test_two_secrets_of_one_login_are_both_kept_and_it_is_said() -> None:
    a, b = copies([("secret", IDS[0], "lamp", 3)], [("secret", IDS[0], "truss", 2)])
    found = merged(a, b)
    assert found.parted == [IDS[0]]
    assert secrets_of(found.contents, IDS[0]) == {"rope", "lamp30", "truss21"}
    assert found.contents.records["LOGIN"][IDS[0]][CARD]["parted_at"] == "2026-01-03"
    again = merged(found.contents, b)
    assert again.parted == [] and again.changed == []


@pytest.mark.parametrize(
    ("deleted", "changed", "kept", "asked"),
    [
        ([("remove", IDS[0], "", 1)], [], False, False),
        ([("remove", IDS[0], "", 1)], [("notes", IDS[0], "lamp", 1)], True, True),
        ([("bin", IDS[0], "", 1)], [("notes", IDS[0], "lamp", 1)], True, True),
        ([("bin", IDS[0], "", 1)], [], True, False),
    ],
)
def test_deletions_against_changes_are_asked(
    deleted: list[tuple[str, str, str, int]],
    changed: list[tuple[str, str, str, int]],
    kept: bool,
    asked: bool,
) -> None:
    a, b = copies(deleted, changed)
    found = merged(a, b)
    assert (IDS[0] in found.contents.records["LOGIN"]) is kept
    assert (found.asked == [IDS[0]]) is asked


def test_a_rotation_that_went_two_ways_keeps_the_secrets_of_both() -> None:
    a, b = copies([], [])
    for copy, secret, times in ((a, "staged-here", 1), (b, "staged-there", 2)):
        for _ in range(times):
            put(copy, "ROTATION", "c" * 32, CARD, {"login_id": IDS[0], "n": secret, "t": times})
            held = {"secret": secret, "origin": {}, "since_at": f"2026-02-0{times}"}
            put(copy, "ROTATION", "c" * 32, SECRETS, {"staged": held, "former": None, "n": secret})
            put(copy, "ROTATION", "c" * 32, CARD, {"login_id": IDS[0], "n": secret, "t": -times})
    one, other = merged(a, b).contents, merged(b, a).contents
    assert one == other
    assert "staged-here" in secrets_of(one, IDS[0])
    assert one.records["ROTATION"]["c" * 32][SECRETS]["staged"]["secret"] == "staged-there"
