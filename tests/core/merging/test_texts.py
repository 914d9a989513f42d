"""Texts over three copies: in whatever order they merge each is there, and what was seen is not."""

from itertools import permutations
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.merging.merge import Contents, Parts, merged
from newknot.core.merging.stamps import stamped
from newknot.core.merging.texts import APART, entries_of, left_behind, seen

AT = "2026-11-25T12:00:00+00:00"
FIRST: Parts = {
    "1": {"title": "Gantry", "notes": "", "fields": [["Yard", "North"]], "created_at": AT,
          "changed_at": AT, "secret_since_at": AT, "has_secret": False, "deleted_at": None},
    "2": {"secret": "", "origin": {"kind": "own", "entropy_bits": None}, "secret_id": "",
          "fields": []},
}  # fmt: skip
NOTES = st.sampled_from(["by the day", "by the week", "by the hour"])


def changed(parts: Parts, tag: str, **texts: Any) -> Parts:
    """A change as the vault writes it."""
    at = f"2026-11-25T12:{tag[1]}{tag[0]}:00+00:00"
    before, after = parts["1"], {**parts["1"], **texts, "changed_at": at}
    entries = left_behind(before, after, entries_of(parts.get("3")))
    plain = {k: v for k, v in after.items() if k not in ("stamps", "edition")}
    out = {**parts, "1": stamped(before, plain, tag=tag)}
    if entries is not None:
        history = parts.get("3")
        fresh: dict[str, Any] = {"earlier": [], "texts": entries}
        out["3"] = stamped(history, fresh, tag=tag) if history else fresh
    return out


def joined(*sides: Parts) -> Parts:
    found = sides[0]
    for side in sides[1:]:
        ours, theirs = ({"LOGIN": {"a": one}} for one in (found, side))
        found = merged(Contents(ours), Contents(theirs)).contents.records["LOGIN"]["a"]
    return found


def seen_texts(parts: Parts) -> set[str]:
    kept = {str(e[2]) for e in seen(entries_of(parts.get("3")), parts["1"]) if e[3] == APART}
    return {parts["1"]["notes"], *kept}


@given(st.lists(st.lists(NOTES, min_size=1, max_size=3), min_size=3, max_size=3))
def test_in_any_order_the_last_text_of_each_copy_is_there(notes: list[list[str]]) -> None:
    copies: list[Parts] = []
    for copy, texts in enumerate(notes):
        parts = FIRST
        for n, text in enumerate(texts):
            parts = changed(parts, f"{copy}{n}", notes=text)
        copies.append(parts)
    results = [joined(*order) for order in permutations(copies)]
    assert all(one == results[0] for one in results)
    assert joined(results[0], copies[1]) == results[0]
    assert seen_texts(results[0]) >= {texts[-1] for texts in notes}


@given(NOTES, NOTES, st.booleans())
def test_a_copy_that_knew_a_text_leaves_it_behind_for_all(a: str, b: str, first: bool) -> None:
    one = changed(FIRST, "01", notes="seen and left")
    later = changed(one, "02", notes=a)
    beside = changed(FIRST, "13", notes=b)
    order = (one, beside, later) if first else (later, one, beside)
    assert "seen and left" not in seen_texts(joined(*order))
    assert joined(one, beside, later) == joined(later, beside, one)
