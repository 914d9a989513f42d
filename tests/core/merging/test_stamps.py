"""Stamps: what changed when, by count and not by clock."""

from typing import Any

from newknot.core.merging.stamps import Document, believed, put_together, stamped, units

HISTORY = {"earlier": [["i", "s", {}, "1", "2", True, ""]]}


def test_units_are_put_together_as_they_were() -> None:
    document = {
        "secret": "s", "origin": {"kind": "own"}, "secret_id": "i", "code_key": "",
        "fields": [["PIN", "1", "j"], ["Alarm", "2", "k"], ["PIN", "3", "l"]], "notes": None,
        "backup_codes": [["b", None], ["a", "2026-01-01"]], "tags": ["truss", "lamp"],
        "domains": ["gantry.example"], "lines": ["Ilse"],
        "edition": 2, "stamps": {"secret": [2, "t"]},
    }  # fmt: skip
    assert put_together(units(document), edition=2, stamps={"secret": [2, "t"]}) == document
    empty: Document = {"fields": [], "tags": [], "backup_codes": [], "earlier": []}
    for bare in (HISTORY, empty, {}):
        assert put_together(units(bare), edition=0, stamps={}) == bare


def test_a_time_that_its_copy_did_not_reach_by_five_minutes_is_not_believed() -> None:
    def changed(at_ms: int) -> Document:
        return {"title": "T", "edition": 1, "stamps": {"title": [1, f"{at_ms:012x}" + "c" * 12]}}

    known: dict[str, Any] = {}
    assert believed(changed(301_000), 1_000, known=known) == changed(301_000)
    assert believed(changed(301_001), 1_000, known=known) == changed(0)
    known = changed(301_001)["stamps"]
    assert believed(changed(301_001), 1_000, known=known) == changed(301_001)
    assert believed(changed(301_001), None, known={}) == changed(301_001)


def test_only_what_changed_is_stamped_and_what_came_first_has_none() -> None:
    first = {"title": "T", "notes": ""}
    assert stamped(None, first, tag="a") == first == stamped(first, dict(first), tag="a")
    second = stamped(first, {"title": "T", "notes": "by the day"}, tag="a")
    assert second["edition"] == 1 and second["stamps"] == {"notes": [1, "a"]}
    third = stamped(second, {"title": "U", "notes": "by the day"}, tag="b")
    assert third["edition"] == 2 and third["stamps"] == {"notes": [1, "a"], "title": [2, "b"]}
    assert stamped(third, {"title": "U", "notes": "by the day"}, tag="c") == third


def test_a_secret_changes_with_its_origin_and_an_entry_that_goes_leaves_its_stamp() -> None:
    secret = {"secret": "s", "origin": {"kind": "own"}}
    changed = stamped(secret, {**secret, "origin": {"kind": "drawn"}}, tag="a")
    assert changed["stamps"] == {"secret": [1, "a"]}
    gone = stamped(HISTORY, {"earlier": []}, tag="a")
    assert gone["stamps"] == {"earlier/i": [1, "a"]}


def test_one_entry_of_a_list_changes_by_itself() -> None:
    fields: dict[str, Any] = {"fields": [["PIN", "1"], ["Door", "2"]], "tags": ["a", "b"]}
    changed = stamped(
        fields, {"fields": [["PIN", "1"], ["Door", "3"]], "tags": ["a", "b"]}, tag="x"
    )
    assert changed["stamps"] == {"fields/Door": [1, "x"]}
    order = stamped(fields, {**fields, "tags": ["b", "a"]}, tag="x")
    assert order["stamps"] == {"tags": [1, "x"]}


def test_a_line_that_goes_does_not_stay_among_the_stamps() -> None:
    gone = stamped({"lines": ["Ilse", "Quist"]}, {"lines": ["Ilse"]}, tag="x")
    assert "Quist" not in str(gone)


def test_an_order_with_entries_that_it_does_not_have_stays_until_it_is_changed() -> None:
    found = {"tags": ["b"], "tags/a": "a", "tags/b": "b"}
    document = put_together(found, edition=1, stamps={})
    assert document["tags"] == ["b", "a"] and units(document) == found
    same = stamped(document, {"tags": ["b", "a"], "title": "T"}, tag="x")
    assert set(same["stamps"]) == {"title"} and units(same)["tags"] == ["b"]
    other = stamped(document, {"tags": ["a", "b"]}, tag="x")
    assert set(other["stamps"]) == {"tags"} and units(other)["tags"] == ["a", "b"]
