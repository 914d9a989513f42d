"""Breach notices from a feed (JSON Feed 1.1), each item with an extension of ours:

"_notice": {"site": "name.example", "breached_on": "2026-05-01", "taken": ["passwords"]}
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from newknot.core.address import domain_of
from newknot.core.audit.notice import Notice
from newknot.core.errors import NewKnotError

VERSIONS = ("https://jsonfeed.org/version/1.1", "https://jsonfeed.org/version/1")
ITEMS_MOST = 20_000
TAKEN_MOST = 20
TEXT_MOST = 200


class FeedRefused(NewKnotError):
    """What came is no feed of notices. data: reason."""


@dataclass(frozen=True, slots=True)
class NoticeFeed:
    """The notices of a feed, and the places of items that could not be read, with the reason."""

    title: str
    notices: tuple[Notice, ...]
    unread: tuple[tuple[str, str], ...]


def read_feed(body: bytes) -> NoticeFeed:
    """The notices. An item that is wrong is passed over and named. Raises `FeedRefused`."""
    try:
        document = json.loads(body.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise FeedRefused(reason="is not JSON in UTF-8") from None
    if not isinstance(document, Mapping) or document.get("version") not in VERSIONS:
        raise FeedRefused(reason="is not a JSON Feed of version 1.1")
    items = document.get("items")
    if not isinstance(items, list) or len(items) > ITEMS_MOST:
        raise FeedRefused(reason=f"has no list of at most {ITEMS_MOST:,} items")
    notices: dict[str, Notice] = {}
    unread: list[tuple[str, str]] = []
    for i, item in enumerate(items):
        try:
            notice = _notice(item)
            notices[notice.notice_id] = notice
        except ValueError as error:
            unread.append((f"items.{i}", str(error)))
    return NoticeFeed(_text(document.get("title")), tuple(notices.values()), tuple(unread))


def _notice(item: object) -> Notice:
    about = item.get("_notice") if isinstance(item, Mapping) else None
    if not isinstance(item, Mapping) or not isinstance(about, Mapping):
        raise ValueError("has no _notice")
    item_id = item.get("id")
    if not isinstance(item_id, str | int) or not str(item_id):
        raise ValueError("has no id")
    site = domain_of(str(about.get("site", "")))
    if not site:
        raise ValueError("names no site")
    try:
        breached_on = date.fromisoformat(str(about.get("breached_on")))
    except ValueError:
        raise ValueError("breached_on is not a day (YYYY-MM-DD)") from None
    taken = about.get("taken", [])
    if not isinstance(taken, list) or len(taken) > TAKEN_MOST:
        raise ValueError(f"taken is not a list of at most {TAKEN_MOST}")
    return Notice(
        str(item_id)[:TEXT_MOST],
        _text(item.get("title")),
        site,
        breached_on,
        tuple(_text(one).lower() for one in taken if _text(one)),
    )


def _text(value: object) -> str:
    """One line without control characters, cut to a length that can be shown."""
    text = "".join(c if c.isprintable() else " " for c in str(value or "")[: 4 * TEXT_MOST])
    return " ".join(text.split())[:TEXT_MOST]
