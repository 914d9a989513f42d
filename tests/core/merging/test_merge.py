"""The laws of merging, over copies of a vault that went any separate ways."""

from copy import deepcopy
from itertools import permutations
from typing import Any

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from newknot.core.merging.merge import CARD, HISTORY, PARTED, SECRETS, Contents, gone_of, merged
from newknot.core.merging.stamps import STAMPS, Document, stamped, unstamped
from newknot.core.merging.texts import apart, left_behind

IDS = ("a" * 32, "b" * 32)
ROTATION = "c" * 32
WORDS = st.sampled_from(["rope", "plank", "lamp", "truss"])
OWN = {"kind": "own", "entropy_bits": None}

Step = tuple[str, str, str, int]
"""What a user does to one copy: act, login, word, and the wall clock of that machine."""


def login() -> dict[str, Any]:
    """A login as it lies in a vault, cut down to what merging looks at."""
    return {
        CARD: {
            "title": "T", "notes": "", "folder": "", "secret_field_names": ["PIN"],
            "secret_since_at": "2026-01-01", "has_secret": True, "deleted_at": None,
            "created_at": "2026-01-01", "tags": [], "parted_at": None, "texts_apart": [],
        },
        SECRETS: {
            "secret": "first", "origin": OWN, "secret_id": "id of first",
            "fields": [["PIN", "4417", "id of 4417"]], "code_key": "",
        },
    }  # fmt: skip


class Copy:
    """One copy of the vault, changed as the product changes it."""

    def __init__(self, who: str) -> None:
        self.who, self.changes = who, 0
        self.made: set[str] = set()
        self.purged: set[str] = set()
        self.contents = Contents({"LOGIN": {i: deepcopy(login()) for i in IDS}})

    def put(self, label: str, record_id: str, part: str, document: Document) -> None:
        parts = self.contents.records.setdefault(label, {}).setdefault(record_id, {})
        self.changes += 1
        fresh = unstamped(document) or {}
        parts[part] = stamped(parts.get(part), fresh, tag=f"{self.who}{self.changes}")

    def card(self, login_id: str, parts: Any, **values: Any) -> None:
        fresh = {**parts[CARD], **values}
        history = parts.get(HISTORY, {"earlier": []})
        texts = left_behind(parts[CARD], fresh, history.get("texts", []))
        if texts is not None:
            self.put("LOGIN", login_id, HISTORY, {**history, "texts": texts})
            fresh["texts_apart"] = apart(texts, fresh)
        self.put("LOGIN", login_id, CARD, fresh)

    def archive(self, login_id: str, entry: list[Any], *, settles: bool) -> None:
        parts = self.contents.records["LOGIN"][login_id]
        earlier = [e for e in parts.get(HISTORY, {"earlier": []})["earlier"] if e[0] != entry[0]]
        if settles:
            earlier = [e[:7] for e in earlier]
        earlier = sorted([*earlier, entry], key=lambda e: (e[4], e[0]))
        self.put("LOGIN", login_id, HISTORY, {**parts.get(HISTORY, {}), "earlier": earlier})

    def new_secret(self, login_id: str, at: str, held: dict[str, Any]) -> None:
        parts = self.contents.records["LOGIN"][login_id]
        old = parts[SECRETS]
        since = parts[CARD]["secret_since_at"]
        entry = [old["secret_id"], old["secret"], old["origin"], since, at, True, ""]
        self.archive(login_id, entry, settles=True)
        parts = self.contents.records["LOGIN"][login_id]
        fresh = {name: held[name] for name in ("secret", "origin", "secret_id")}
        self.put("LOGIN", login_id, SECRETS, {**old, **fresh})
        self.card(login_id, parts, secret_since_at=at, parted_at=None)

    def change(self, step: Step) -> None:
        what, login_id, word, moment = step
        at = f"2026-01-{moment:02}"
        parts = self.contents.records.get("LOGIN", {}).get(login_id)
        name = f"{word} {self.who}{self.changes}"
        fresh = {"secret": name, "origin": OWN, "secret_id": f"id of {name}", "since_at": at}
        rotation = self.contents.records.get("ROTATION", {}).get(ROTATION)
        if what == "waiver":
            self.put("WAIVER", "d" * 32, CARD, {"reason": word})
        elif what == "details":
            # Each copy may have made this record of its own.
            (known,) = self.contents.records.get("OWN_DETAILS", {}).items() or [
                (self.who * 32, {CARD: {"lines": [], "rates": {}}})
            ]
            lines = sorted({*known[1][CARD]["lines"], word})
            self.put("OWN_DETAILS", known[0], CARD, {**known[1][CARD], "lines": lines})
        elif what == "policy":
            place = ("name", "source")[moment % 2]
            start = {"name": "P", "domains": [], "source": "typed"}
            policy = self.contents.records.get("POLICY", {}).get("e" * 32, {CARD: start})
            self.put("POLICY", "e" * 32, CARD, {**policy[CARD], place: word})
        elif parts is None:
            return
        elif what in ("title", "notes", "folder"):
            self.card(login_id, parts, **{what: word})
        elif what == "tag":
            self.card(login_id, parts, tags=sorted({*parts[CARD]["tags"], word}))
        elif what == "untag":
            self.card(login_id, parts, tags=[one for one in parts[CARD]["tags"] if one != word])
        elif what == "bin":
            self.card(login_id, parts, deleted_at=at)
        elif what == "secret":
            self.made |= {name} if login_id == IDS[1] else set()
            self.new_secret(login_id, at, fresh)
        elif what == "back" and any(not e[6] for e in parts.get(HISTORY, {}).get("earlier", [])):
            # As a restore does it: what is current again is no earlier one any more.
            entry = [e for e in parts[HISTORY]["earlier"] if not e[6]][-1]
            held = {"secret": entry[1], "origin": entry[2], "secret_id": entry[0]}
            self.new_secret(login_id, at, held)
            history = self.contents.records["LOGIN"][login_id][HISTORY]
            left = [e for e in history["earlier"] if e[0] != entry[0]]
            self.put("LOGIN", login_id, HISTORY, {**history, "earlier": left})
        elif what == "field":
            old = parts[SECRETS]["fields"][0]
            entry = [old[2], old[1], OWN, "2026-01-01", at, True, "PIN"]
            self.archive(login_id, entry, settles=False)
            fields = [["PIN", name, f"id of {name}"]]
            self.put("LOGIN", login_id, SECRETS, {**parts[SECRETS], "fields": fields})
            self.card(login_id, self.contents.records["LOGIN"][login_id], changed_at=at)
        elif what == "purge" and parts.get(HISTORY, {}).get("earlier"):
            gone, kept = parts[HISTORY]["earlier"][:1], parts[HISTORY]["earlier"][1:]
            self.purged |= {entry[1] for entry in gone}
            self.put("LOGIN", login_id, HISTORY, {**parts[HISTORY], "earlier": kept})
        elif what == "stage" and login_id == IDS[0]:
            staged = rotation and rotation[SECRETS]["staged"]
            if staged:
                entry = [staged["secret_id"], staged["secret"], OWN, at, at, False, ""]
                self.archive(login_id, entry, settles=False)
            self.put("ROTATION", ROTATION, CARD, {"login_id": login_id, "n": name})
            self.put("ROTATION", ROTATION, SECRETS, {"staged": fresh, "former": None})
        elif what == "accept" and rotation is not None and rotation[SECRETS]["staged"]:
            if IDS[0] in self.contents.records["LOGIN"]:
                self.new_secret(IDS[0], at, rotation[SECRETS]["staged"])
                self.put("ROTATION", ROTATION, CARD, {"login_id": IDS[0], "n": name})
                self.put("ROTATION", ROTATION, SECRETS, {"staged": None, "former": None})
        elif what == "remove":
            self.contents.removed[login_id] = gone_of(login_id, parts)
            del self.contents.records["LOGIN"][login_id]
            if rotation is not None and login_id == IDS[0]:
                self.contents.removed[ROTATION] = gone_of(ROTATION, rotation, login=parts)
                del self.contents.records["ROTATION"]


KEEPING = ["details", "policy", "title", "notes", "folder", "tag", "untag"]
KEEPING += ["secret", "secret", "back", "field", "bin", "waiver"]
ROTATING = [*KEEPING, "purge", "stage", "accept"]


def steps(kinds: list[str]) -> st.SearchStrategy[list[Step]]:
    step = st.tuples(st.sampled_from(kinds), st.sampled_from(IDS), WORDS, st.integers(1, 28))
    return st.lists(step, max_size=6)


STEPS, KEEPING_STEPS = steps([*ROTATING, "remove"]), steps(ROTATING)
UNPURGED_STEPS = steps([*KEEPING, "stage", "accept", "remove"])


def copies(*ways: list[Step]) -> list[Contents]:
    """Copies of one vault, each after its own steps."""
    found = []
    for who, way in zip("xyz", ways, strict=False):
        copy = Copy(who)
        for step in way:
            copy.change(step)
        found.append(copy.contents)
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
        *(field[1] for field in parts[SECRETS]["fields"]),
        *(e[1] for e in parts.get(HISTORY, {"earlier": []})["earlier"]),
    }


def said(parts: Any) -> list[Any]:
    """What no deletion elsewhere may take along unasked."""
    return [parts[CARD]["title"], parts[CARD]["notes"], parts[SECRETS]["secret"]]


@settings(max_examples=120, deadline=None)
@given(STEPS, STEPS)
def test_the_order_does_not_matter_and_twice_changes_nothing(
    one: list[Step], two: list[Step]
) -> None:
    a, b = copies(one, two)
    before = deepcopy((a, b))
    joined = merged(a, b)
    assert joined.contents == merged(b, a).contents
    assert together(joined.contents, b) == together(joined.contents, a) == joined.contents
    assert merged(joined.contents, joined.contents).changed == []
    assert (a, b) == before


@settings(max_examples=120, deadline=None)
@given(STEPS, STEPS, STEPS)
def test_three_copies_come_together_the_same_way_round_or_the_other(
    one: list[Step],
    two: list[Step],
    three: list[Step],
) -> None:
    a, b, c = copies(one, two, three)
    joined = together(together(a, b), c)
    assert joined == together(a, together(b, c)) == together(c, a, b)
    for copy in (a, b, c):
        changed = {i for i, parts in copy.records["LOGIN"].items() if said(parts) != said(login())}
        changed |= {parts[CARD]["login_id"] for parts in copy.records.get("ROTATION", {}).values()}
        assert changed <= joined.records.get("LOGIN", {}).keys()


MEETING = st.tuples(st.integers(0, 2), st.integers(0, 2))


def met(way: list[tuple[int, Any]]) -> list[Copy]:
    """Three copies that were changed, and took one another in, in this order."""
    three = [Copy(who) for who in "xyz"]
    for one, what in way:
        if isinstance(what, int):
            both = merged(three[one].contents, three[what].contents)
            three[one].contents = deepcopy(both.contents)
            continue
        for step in what:
            three[one].change(step)
    return three


RENEWED = ("secret", IDS[0], "rope", 1)
STAGED = ("stage", IDS[0], "rope", 1)
TAKEN_BACK = [RENEWED, ("back", IDS[0], "rope", 1)]


@settings(max_examples=120, deadline=None)
@given(st.lists(st.one_of(MEETING, st.tuples(st.integers(0, 2), KEEPING_STEPS)), max_size=9))
@example([(0, TAKEN_BACK), (1, [("secret", IDS[0], "rope", 2)]), (2, [RENEWED, RENEWED])])
@example([(0, TAKEN_BACK), (1, [RENEWED, ("purge", *RENEWED[1:])]), (2, [RENEWED, RENEWED])])
def test_copies_that_meet_and_part_again_come_to_the_same_in_any_order(
    way: list[tuple[int, Any]],
) -> None:
    three = met(way)
    a, b, c = (copy.contents for copy in three)
    assert together(together(a, b), c) == together(a, together(b, c)) == together(c, b, a)
    known, let_go = (set[str]().union(*(getattr(t, n) for t in three)) for n in ("made", "purged"))
    assert known - let_go <= secrets_of(together(a, b, c), IDS[1])


@settings(max_examples=120, deadline=None)
@given(st.lists(st.one_of(MEETING, st.tuples(st.integers(0, 2), STEPS)), max_size=9))
@example([(0, [STAGED]), (2, 0), (0, [STAGED]), (1, 0), (0, [("remove", *STAGED[1:])])])
def test_with_deletions_too_the_same_records_stay_in_any_order(way: list[tuple[int, Any]]) -> None:
    a, b, c = (copy.contents for copy in met(way))
    orders = (together(together(a, b), c), together(a, together(b, c)), together(c, a, b))
    stay = [{label: set(held) for label, held in one.records.items()} for one in orders]
    assert stay[0] == stay[1] == stay[2]


@settings(max_examples=120, deadline=None)
@given(UNPURGED_STEPS, UNPURGED_STEPS)
def test_no_secret_and_no_change_of_one_side_alone_is_lost(
    one: list[Step], two: list[Step]
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


def test_a_rotation_goes_though_its_login_cannot_be_read_whole() -> None:
    copy = Copy("x")
    copy.change(STAGED)
    rotation = copy.contents.records["ROTATION"][ROTATION]
    whole = copy.contents.records["LOGIN"][IDS[0]]
    for left in ({}, {SECRETS: whole[SECRETS]}, {CARD: whole[CARD]}):
        gone = gone_of(ROTATION, rotation, login=left)
        assert gone["secrets"] == [rotation[SECRETS]["staged"]["secret_id"]]
    assert "id of first" in gone_of(ROTATION, rotation, login=whole)["secrets"]


def test_two_secrets_of_one_login_are_both_kept_and_it_is_said() -> None:
    a, b = copies([("secret", IDS[0], "lamp", 3)], [("secret", IDS[0], "truss", 2)])
    found = merged(a, b)
    assert found.parted == [IDS[0]]
    assert secrets_of(found.contents, IDS[0]) == {"first", "lamp x0", "truss y0", "4417"}
    assert found.contents.records["LOGIN"][IDS[0]][CARD]["parted_at"] == "2026-01-03"
    again = merged(found.contents, b)
    assert again.parted == [] and again.changed == []


def test_a_secret_in_use_again_outlives_that_another_copy_had_let_it_go() -> None:
    found = merged(*copies(TAKEN_BACK, [RENEWED, ("purge", *RENEWED[1:]), RENEWED, RENEWED]))
    assert found.parted == [IDS[0]] and "first" in secrets_of(found.contents, IDS[0])


def test_a_copy_that_is_only_behind_parts_nothing_and_brings_back_nothing() -> None:
    (behind,) = copies([("secret", IDS[0], "lamp", 3)])
    ahead = Copy("y")
    ahead.contents = deepcopy(behind)
    for what in ("secret", "purge", "purge"):
        ahead.change((what, IDS[0], "truss", 4))
    found = merged(behind, ahead.contents)
    assert found.contents == ahead.contents and found.parted == []
    assert secrets_of(found.contents, IDS[0]) == {"truss y0", "4417"}


def test_a_new_secret_settles_what_a_merge_left_open() -> None:
    a, b = copies([("secret", IDS[0], "lamp", 3)], [("secret", IDS[0], "truss", 2)])
    settled = Copy("x")
    settled.contents, settled.changes = deepcopy(merged(a, b).contents), 9
    settled.change(("secret", IDS[0], "plank", 5))
    for other in (a, b):
        again = merged(settled.contents, other)
        assert again.parted == [] and again.changed == []
        assert again.contents.records["LOGIN"][IDS[0]][CARD]["parted_at"] is None


def test_lists_are_joined_by_their_entries() -> None:
    a, b = copies(
        [("tag", IDS[0], "lamp", 1)], [("tag", IDS[0], "rope", 1), ("field", IDS[0], "lamp", 1)]
    )
    joined = merged(a, b).contents.records["LOGIN"][IDS[0]]
    assert sorted(joined[CARD]["tags"]) == ["lamp", "rope"]
    assert joined[SECRETS]["fields"][0][1] == "lamp y1"


def test_policies_and_own_details_are_joined_by_what_changed_in_them() -> None:
    a, b = copies(
        [
            ("policy", IDS[0], "lamp", 2),
            ("policy", IDS[0], "rope", 2),
            ("details", IDS[0], "rope", 1),
        ],
        [
            ("policy", IDS[0], "lamp", 2),
            ("policy", IDS[0], "plank", 1),
            ("details", IDS[0], "lamp", 1),
        ],
    )
    joined = merged(a, b).contents.records
    (policy,), (details,) = joined["POLICY"].values(), joined["OWN_DETAILS"].values()
    assert (policy[CARD]["name"], policy[CARD]["source"]) == ("rope", "plank")
    assert sorted(details[CARD]["lines"]) == ["lamp", "rope"]


def test_a_field_of_any_name_is_no_sign_of_a_merge() -> None:
    copy = Copy("x")
    copy.archive(IDS[0], ["i", "s", OWN, "2026-01-01", "2026-01-02", True, PARTED], settles=False)
    copy.change(("notes", IDS[0], "lamp", 1))
    (other,) = copies([("title", IDS[0], "rope", 1)])
    for found in (merged(copy.contents, other), merged(other, copy.contents)):
        assert found.parted == []
        assert found.contents.records["LOGIN"][IDS[0]][CARD]["parted_at"] is None


def test_fields_of_both_are_kept_where_both_changed_one() -> None:
    a, b = copies([("field", IDS[0], "lamp", 3)], [("field", IDS[0], "truss", 2)])
    found = merged(a, b)
    assert found.parted == [IDS[0]]
    assert {"4417", "lamp x0", "truss y0"} <= secrets_of(found.contents, IDS[0])


REMOVED = [("remove", IDS[0], "", 1)]
TWICE = [("folder", IDS[0], "lamp", 1), ("folder", IDS[0], "rope", 2)]
TAGGED = [("tag", IDS[0], "rope", 1), ("untag", IDS[0], "rope", 2), ("tag", IDS[0], "lamp", 2)]


@pytest.mark.parametrize(
    ("deleted", "changed", "kept", "asked"),
    [
        ([("remove", IDS[0], "", 1)], [], False, False),
        ([("remove", IDS[0], "", 1)], [("notes", IDS[0], "lamp", 1)], True, True),
        ([("title", IDS[0], "lamp", 1), *REMOVED], [("notes", IDS[0], "lamp", 1)], True, True),
        ([("secret", IDS[0], "lamp", 1), *REMOVED], [("secret", IDS[0], "rope", 1)], True, True),
        ([("notes", IDS[0], "lamp", 1), *REMOVED], [], False, False),
        ([*TWICE, *REMOVED], [("folder", IDS[0], "truss", 1)], True, True),
        ([*TWICE, *REMOVED], TWICE, True, True),
        ([*TAGGED, *REMOVED], [("tag", IDS[0], "rope", 1)], True, True),
        ([("bin", IDS[0], "", 1)], [("notes", IDS[0], "lamp", 1)], True, True),
        ([("bin", IDS[0], "", 1)], [], True, False),
    ],
)
def test_deletions_against_changes_are_asked(
    deleted: list[Step],
    changed: list[Step],
    kept: bool,
    asked: bool,
) -> None:
    a, b = copies(deleted, changed)
    found = merged(a, b)
    assert (IDS[0] in found.contents.records["LOGIN"]) is kept
    assert (found.asked == [IDS[0]]) is asked


@pytest.mark.parametrize("steps", [TWICE, TAGGED, [*TWICE, *TAGGED]])
def test_a_copy_that_is_only_behind_holds_no_deletion_up(steps: list[Step]) -> None:
    here = Copy("x")
    behind = [here.contents]
    for step in steps:
        here.contents = deepcopy(here.contents)
        here.change(step)
        behind.append(here.contents)
    here.contents = deepcopy(here.contents)
    here.change(*REMOVED)
    for copy in behind:
        for found in (merged(here.contents, copy), merged(copy, here.contents)):
            assert IDS[0] not in found.contents.records["LOGIN"] and not found.asked


def test_what_gave_way_in_a_merge_holds_no_deletion_up() -> None:
    here, there = Copy("x"), Copy("y")
    for step in TWICE:
        here.change(step)
    there.change(("folder", IDS[0], "truss", 1))
    here.contents = merged(here.contents, there.contents).contents
    here.change(*REMOVED)
    found = merged(here.contents, there.contents)
    assert IDS[0] not in found.contents.records["LOGIN"] and not found.asked


def test_a_policy_that_another_copy_changed_stays_whoever_changed_it_more_often() -> None:
    steps = [("policy", IDS[0], word, 1) for word in ("rope", "lamp", "plank")]
    a, b = copies(steps, steps[:2])
    policy = "e" * 32
    a.removed[policy] = gone_of(policy, a.records["POLICY"].pop(policy))
    found = merged(a, b)
    assert policy in found.contents.records["POLICY"]
    assert found.contents == merged(b, a).contents


def test_a_rotation_that_went_two_ways_keeps_the_secrets_of_both() -> None:
    stage = ("stage", IDS[0], "lamp", 3)
    a, b = copies([stage], [stage, stage])
    joined = merged(a, b).contents
    assert joined == merged(b, a).contents
    assert joined.records["ROTATION"][ROTATION][SECRETS]["staged"]["secret"] == "lamp y2"
    assert "lamp x0" in secrets_of(joined, IDS[0])


def test_one_deletion_of_which_a_copy_does_not_believe_the_time_is_one() -> None:
    """In either order, and beside another that knew less."""
    known, unknown = ({"1": {"title": [2, time + "6bb18582c550"]}, "secrets": ["s"], "texts": ["*"]}
                      for time in ("01a212b192b0", "000000000000"))  # fmt: skip
    less = {"1": {}, "secrets": [], "texts": ["*"]}
    every = [Contents({}, {IDS[0]: one}) for one in (known, unknown, less)]
    for order in permutations(every):
        assert together(*order).removed == {IDS[0]: known}
