"""Breach notices from a feed (JSON Feed 1.1), each item with an extension of ours:

"_notice": {"site": "name.example", "breached_on": "2026-05-01", "taken": ["passwords"]}
"""

import json
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, Field, ValidationError

from newknot.core.address import domain_of
from newknot.core.audit.notice import Notice
from newknot.core.errors import NewKnotError

NOT_A_FEED = "is not a JSON Feed of version 1.1"
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


def _tamed(value: object) -> str:
    """One line without control characters, cut to a length that can be shown."""
    text = "".join(c if c.isprintable() else " " for c in str(value or "")[: 4 * TEXT_MOST])
    return " ".join(text.split())[:TEXT_MOST]


def _day(value: object) -> date:
    return date.fromisoformat(str(value))


def _site(value: object) -> str:
    site = domain_of(str(value))
    if not site:
        raise ValueError("names no site")
    return site


Text = Annotated[str, BeforeValidator(_tamed)]


class _About(BaseModel):
    site: Annotated[str, BeforeValidator(_site)]
    breached_on: Annotated[date, BeforeValidator(_day)]
    taken: Annotated[list[Text], Field(max_length=TAKEN_MOST)] = []


class _Item(BaseModel):
    about: _About = Field(alias="_notice")
    id: Annotated[str | int, Field(union_mode="left_to_right")]
    title: Text = ""


class _Feed(BaseModel):
    version: Literal["https://jsonfeed.org/version/1.1", "https://jsonfeed.org/version/1"]
    title: Text = ""
    items: list[Any]


_WRONG = {
    ("_notice",): "has no _notice",
    ("id",): "has no id",
    ("_notice", "site"): "names no site",
    ("_notice", "breached_on"): "breached_on is not a day (YYYY-MM-DD)",
    ("_notice", "taken"): f"taken is not a list of at most {TAKEN_MOST}",
}


def read_feed(body: bytes) -> NoticeFeed:
    """The notices. An item that is wrong is passed over and named. Raises `FeedRefused`."""
    try:
        document = json.loads(body.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise FeedRefused(reason="is not JSON in UTF-8") from None
    try:
        feed = _Feed.model_validate(document)
    except ValidationError as error:
        wrong = error.errors(include_input=False)[0]["loc"]
        is_list = wrong == ("items",)
        reason = f"has no list of at most {ITEMS_MOST:,} items" if is_list else NOT_A_FEED
        raise FeedRefused(reason=reason) from None
    if len(feed.items) > ITEMS_MOST:
        raise FeedRefused(reason=f"has no list of at most {ITEMS_MOST:,} items")
    notices: dict[str, Notice] = {}
    unread: list[tuple[str, str]] = []
    for i, given in enumerate(feed.items):
        try:
            item = _Item.model_validate(given)
        except ValidationError as error:
            unread.append((f"items.{i}", _reason(error)))
            continue
        if not str(item.id):
            unread.append((f"items.{i}", _WRONG["id",]))
            continue
        taken = tuple(one.lower() for one in item.about.taken if one)
        found = Notice(
            str(item.id)[:TEXT_MOST], item.title, item.about.site, item.about.breached_on, taken
        )
        notices[found.notice_id] = found
    return NoticeFeed(feed.title, tuple(notices.values()), tuple(unread))


def _reason(error: ValidationError) -> str:
    places = [one["loc"][:2] for one in error.errors(include_input=False)]
    known = [says for place, says in _WRONG.items() if place in [p[: len(place)] for p in places]]
    exact = [says for place, says in _WRONG.items() if place in places]
    return (exact or known or [_WRONG["_notice",]])[0]
