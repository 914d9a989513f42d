"""A restore: as it was then, and every secret that was ever used or handed out is still there."""

from itertools import count
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.merging.merge import Contents
from newknot.core.merging.restoring import plain, restored

NOW = "2026-11-25T12:00:00+00:00"
THEN = "2026-11-20T12:00:00+00:00"
LATER = "2026-12-24T12:00:00+00:00"
ORIGIN = {"kind": "own", "entropy_bits": None}
TEXT = st.sampled_from(["rope", "plank", "truss", "bolt", "chain", "hook"])


def login(secret: str, earlier: list[str], *, binned: bool = False) -> dict[str, Any]:
    entries = [[f"id {t}", t, ORIGIN, THEN, THEN, True, ""] for t in sorted(set(earlier))]
    card = {"title": "x", "created_at": THEN, "secret_since_at": THEN, "address": "x.example"}
    card["deleted_at"] = THEN if binned else None  # type: ignore[assignment]
    secrets = {"secret": secret, "origin": ORIGIN, "secret_id": f"id {secret}", "fields": []}
    return {"1": card, "2": secrets, "3": {"earlier": entries}}


def rotation(login_id: str, staged: str, handed_out: bool) -> dict[str, Any]:
    steps = [["stage", THEN], *([["hand_out", THEN]] if handed_out else [])]
    held = {"secret": staged, "origin": ORIGIN, "since_at": THEN, "secret_id": f"id {staged}"}
    return {
        "1": {"login_id": login_id, "state": "staged", "steps": steps},
        "2": {"staged": held, "former": None},
    }


@st.composite
def contents(draw: st.DrawFn) -> Contents:
    ids = draw(st.sets(st.sampled_from("abc")))
    logins = {
        i: login(draw(TEXT), draw(st.lists(TEXT)), binned=draw(st.booleans())) for i in sorted(ids)
    }
    rotations = {
        f"r{i}": rotation(i, draw(TEXT), draw(st.booleans()))
        for i in sorted(draw(st.sets(st.sampled_from("abc"))))
    }
    ends = {
        f"e{t}": {"1": {"address": ""}, "2": {"secret": t, "origin": ORIGIN}}
        for t in draw(st.sets(TEXT, max_size=2))
    }
    unread = draw(st.sets(st.sampled_from("abc"))) - ids
    records = {"LOGIN": logins, "ROTATION": rotations, "LOOSE_END": ends}
    return Contents(records, unread=unread)


def after(ours: Contents, then: Contents) -> Contents:
    numbers = count()
    found = restored(ours, then, now=NOW, new_id=lambda: f"new {next(numbers)}")
    labels = ours.records.keys() | found.written.keys()
    records = {i: {**ours.records.get(i, {}), **found.written.get(i, {})} for i in labels}
    for label, record_id in found.removed:
        del records[label][record_id]
    return Contents(records)


def used(found: Contents) -> set[str]:
    texts: set[str] = set()
    for one in found.records["LOGIN"].values():
        texts |= {one["2"]["secret"], *(entry[1] for entry in one["3"]["earlier"])}
    for one in found.records["LOOSE_END"].values():
        texts.add(one["2"]["secret"])
    for one in found.records["ROTATION"].values():
        if ["hand_out", THEN] in one["1"]["steps"]:
            texts.add(one["2"]["staged"]["secret"])
    return texts


@given(contents(), contents())
def test_it_is_as_it_was_then_and_no_secret_is_lost(ours: Contents, then: Contents) -> None:
    made = after(ours, then)
    assert used(ours) | used(then) <= used(made)
    for login_id, parts in then.records["LOGIN"].items():
        now = made.records["LOGIN"][login_id]
        assert [plain(now)[p] for p in "12"] == [plain(parts)[p] for p in "12"]
    for login_id in ours.records["LOGIN"].keys() - then.records["LOGIN"].keys():
        before, now = ours.records["LOGIN"][login_id], made.records["LOGIN"][login_id]
        assert before["2"] == now["2"]
        assert (before == now) if login_id in then.unread else now["1"]["deleted_at"]
    assert ours.records["LOOSE_END"].keys() <= made.records["LOOSE_END"].keys()
    again = restored(made, then, now=NOW, new_id=lambda: "never")
    assert again.changes == [] and again.removed == []


def test_texts_changed_since_are_kept_beside_those_of_then() -> None:
    then = Contents({"LOGIN": {"a": login("old", [])}})
    since = login("old", [])
    since["1"] |= {"title": "y", "notes": "by the rope", "fields": [["Rider", "no strobe"]]}
    since["1"] |= {"edition": 2, "stamps": {"title": [2, "t"]}}
    since["3"]["texts"] = [
        ["notes:1.u", "notes", "an older note", "kept"],
        ["title:1.v", "title", "z", "apart"],
        ["title:0.", "title", None, "left"],
    ]
    made = after(Contents({"LOGIN": {"a": since}}), then).records["LOGIN"]["a"]
    assert made["1"]["title"] == "x"
    assert {tuple(entry[1:]) for entry in made["3"]["texts"]} == {
        ("title", "y", "kept"),
        ("title", "z", "kept"),
        ("title", None, "left"),
        ("notes", "by the rope", "kept"),
        ("notes", "an older note", "kept"),
        ("fields/Rider", "no strobe", "kept"),
    }


def test_of_own_details_there_is_one_record_whatever_it_was_called() -> None:
    ours, then = ({"OWN_DETAILS": {i: {"1": {"lines": [i]}}}} for i in ("a", "b"))
    found = restored(Contents(ours), Contents(then), now=NOW, new_id=lambda: "never")
    assert found.written == {"OWN_DETAILS": {"a": {"1": {"lines": ["b"]}}}}
    assert found.removed == []


def test_a_loose_end_is_made_of_what_neither_its_login_nor_its_rotation_knows() -> None:
    now = {"LOGIN": {"a": login("old", [])}, "ROTATION": {"r": rotation("a", "rope", True)}}
    held = rotation("a", "rope", True)
    held["1"]["state"] = "refused"
    for known, then, made in (
        (["rope"], rotation("a", "plank", True), 0),
        ([], held, 0),
        ([], rotation("a", "rope", False), 1),
        ([], rotation("a", "plank", True), 1),
    ):
        records = {"LOGIN": {"a": login("old", known)}, "ROTATION": {"r": then}}
        found = after(Contents(now), Contents(records)).records.get("LOOSE_END", {})
        assert [one["2"]["secret"] for one in found.values()] == ["rope"] * made
    now["ROTATION"] = {"r": rotation("a", "rope", False)}
    assert "LOOSE_END" not in after(Contents(now), Contents({"LOGIN": now["LOGIN"]})).records


def test_a_newer_secret_is_kept_as_one_that_served_until_the_restore() -> None:
    then = Contents({"LOGIN": {"a": login("old", [])}})
    # A clock that ran ahead: what served since is not said to have ended before it began.
    for since, until in ((THEN, NOW), (LATER, LATER)):
        newer = login("newer", ["middle"])
        newer["1"]["secret_since_at"] = since
        made = after(Contents({"LOGIN": {"a": newer}}), then).records["LOGIN"]["a"]
        assert made["2"]["secret"] == "old"
        assert made["3"]["earlier"] == [
            ["id middle", "middle", ORIGIN, THEN, THEN, True, ""],
            ["id newer", "newer", ORIGIN, since, until, True, ""],
        ]
