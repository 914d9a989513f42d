"""Shapes of breach notices."""

from datetime import date, datetime

from newknot.api.schemas.base import Shape


class FetchIn(Shape):
    """at_once: also where the notices at hand are fresh."""

    at_once: bool = False


class NoticeOut(Shape):
    """One notice. taken: empty where it does not say."""

    title: str
    site: str
    breached_on: date
    taken: list[str]


class NoticesOut(Shape):
    """All notices at hand, and how many items of the feed could not be read."""

    fetched_at: datetime
    unread_count: int
    notices: list[NoticeOut]
