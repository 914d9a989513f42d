"""Feeds of breach notices: what is read, and what is passed over by its place."""

import json

import pytest

from newknot.exchange.notice_feed import FeedRefused, read_feed
from tests.support.vectors import examples

GOOD = {
    "id": "1",
    "title": "Harbour\x00 Dye \u202e Works " + "x" * 900,
    "_notice": {"site": "shop.harbourdye.example", "breached_on": "2026-05-01", "taken": ["Names"]},
}
BAD = examples("wrong_notices.json")


def body(*items: object, version: str = "https://jsonfeed.org/version/1.1") -> bytes:
    return json.dumps({"version": version, "title": "t", "items": items}).encode()


def test_what_is_wrong_is_passed_over_and_named_and_titles_are_tamed() -> None:
    feed = read_feed(body(*(item for item, _ in BAD), GOOD))
    assert list(feed.unread) == [(f"items.{i}", reason) for i, (_, reason) in enumerate(BAD)]
    (notice,) = feed.notices
    assert (notice.site, notice.taken) == ("harbourdye.example", ("names",))
    assert notice.title.startswith("Harbour Dye Works xxx") and len(notice.title) == 200


@pytest.mark.parametrize(
    "given",
    [
        *(b"", b"\xff", b"[]", b"{" * 100_000, b'{"version": "1"}', body(version="x")),
        body(*[1] * 20_001),
    ],
)
def test_what_is_no_feed_is_refused(given: bytes) -> None:
    with pytest.raises(FeedRefused):
        read_feed(given)
