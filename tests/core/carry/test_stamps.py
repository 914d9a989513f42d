"""Stamps: what changed when, by count and not by clock."""

from newknot.core.carry.stamps import put_together, stamped, units


def test_units_are_put_together_as_they_were() -> None:
    document = {
        "secret": "s", "origin": {"kind": "own"}, "fields": [["PIN", "1"]],
        "edition": 2, "stamps": {"secret": 2},
    }  # fmt: skip
    assert put_together(units(document), edition=2, stamps={"secret": 2}) == document
    history = {"earlier": [["i", "s", {}, "1", "2", True, ""]]}
    assert put_together(units(history), edition=0, stamps={}) == history


def test_only_what_changed_is_stamped_and_what_came_first_has_none() -> None:
    first = {"title": "T", "notes": ""}
    assert stamped(None, first) == first == stamped(first, dict(first))
    second = stamped(first, {"title": "T", "notes": "by the day"})
    assert second["edition"] == 1 and second["stamps"] == {"notes": 1}
    third = stamped(second, {"title": "U", "notes": "by the day"})
    assert third["edition"] == 2 and third["stamps"] == {"notes": 1, "title": 2}
    assert stamped(third, dict(second)) == second


def test_a_secret_changes_with_its_origin_and_an_entry_that_goes_leaves_its_stamp() -> None:
    secret = {"secret": "s", "origin": {"kind": "own"}}
    assert stamped(secret, {**secret, "origin": {"kind": "drawn"}})["stamps"] == {"secret": 1}
    history = {"earlier": [["i", "s", {}, "1", "2", True, ""]]}
    gone = stamped(history, {"earlier": []})
    assert gone["stamps"] == {"earlier/i": 1} and units(gone) == {}
