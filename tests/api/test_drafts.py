"""Half-typed forms: there after a lock, gone when saved, after a week, and in no copy of ours."""

from datetime import timedelta
from typing import Any

import pytest

from tests.api.conftest import Api
from tests.api.test_bundles import merged, taken_out

CONTENT = {"title": "Gantry", "own": "half-typed-orchard"}


def test_a_draft_is_there_after_a_lock_and_goes_when_it_is_discarded(api: Api) -> None:
    api.ok("PUT", "drafts/login-new", {"content": CONTENT})
    before = api.safeguards()
    api.keeper.lock()
    api.enter()
    assert api.ok("GET", "drafts/login-new")["content"] == CONTENT
    assert api.safeguards() == before
    api.ok("PUT", "drafts/login-new", {"content": {**CONTENT, "title": "Lumen"}})
    assert api.ok("GET", "drafts/login-new")["content"]["title"] == "Lumen"
    api.ok("DELETE", "drafts/login-new")
    assert api.ok("GET", "drafts/login-new") is None
    api.ok("DELETE", "drafts/login-new")


def test_it_is_kept_for_seven_days_at_most(api: Api) -> None:
    api.ok("PUT", "drafts/own-details", {"content": "a line"})
    for days, there in ((6.9, True), (0.2, False)):
        api.keeper.lock()
        api.clock.pass_s(days * 86_400)
        api.enter()
        assert (api.ok("GET", "drafts/own-details") is not None) is there


def test_it_lies_sealed_and_in_no_bundle_and_no_list(api: Api, other: Api) -> None:
    api.ok("PUT", "drafts/login-new", {"content": CONTENT})
    merged(other, taken_out(api))
    assert other.ok("GET", "drafts/login-new") is None
    for path in ("logins", "events", "safeguards", "checks/worklist"):
        assert "half-typed" not in api.call("GET", path).text
    with api.keeper.at_work() as vault:
        seen = vault.changes_of_contents
    api.ok("PUT", "drafts/login-new", {"content": CONTENT})
    with api.keeper.at_work() as vault:
        assert vault.changes_of_contents == seen
    api.keeper.lock()
    files = [path for path in api.keeper.path.parent.rglob("*") if path.is_file()]
    assert files and not any(b"half-typed" in path.read_bytes() for path in files)


@pytest.mark.parametrize(
    ("form", "content", "said"),
    [
        ("Login", "x", "422 field_invalid"),
        ("a" * 81, "x", "422 field_invalid"),
        ("login-new", "x" * 200_001, "422 field_invalid"),
    ],
)
def test_odd_names_and_long_contents_are_refused(
    api: Api, form: str, content: Any, said: str
) -> None:
    assert api.refused("PUT", f"drafts/{form}", {"content": content}) == said


def test_of_many_the_oldest_goes(api: Api) -> None:
    for n in range(23):
        api.clock.pass_s(1)
        api.ok("PUT", f"drafts/form-{n}", {"content": n})
    there = [n for n in range(23) if api.ok("GET", f"drafts/form-{n}")]
    assert there == list(range(3, 23))


def test_where_the_clock_was_set_back_the_last_typed_stays(api: Api) -> None:
    for n in range(20):
        api.ok("PUT", f"drafts/form-{n}", {"content": n + 1})
    api.clock.at -= timedelta(days=30)
    api.ok("PUT", "drafts/login-new", {"content": CONTENT})
    assert api.ok("GET", "drafts/login-new")["content"] == CONTENT
    assert api.ok("GET", "drafts/form-0") is None


def test_a_clock_that_was_ahead_has_dropped_none(api: Api) -> None:
    api.ok("PUT", "drafts/login-new", {"content": CONTENT})
    begun = api.clock.at
    api.clock.at = begun + timedelta(days=30)
    api.ok("PUT", "drafts/policy-new", {"content": "a line"})
    api.clock.at = begun
    assert api.ok("GET", "drafts/login-new")["content"] == CONTENT
