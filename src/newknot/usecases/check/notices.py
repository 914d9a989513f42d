"""Breach notices: fetched from the feed that the user switched on, kept until the next time."""

from dataclasses import replace
from datetime import datetime, timedelta

from newknot.exchange.notice_feed import read_feed
from newknot.outside.notice_service import fetch_feed
from newknot.store.notices import HeldNotices, get_notices, put_notices
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.errors import ServiceOff

__all__ = ["fetch_notices", "get_notices"]

FETCHED_AT_LEAST = timedelta(minutes=15)


def fetch_notices(vault: Vault, *, now: datetime, at_once: bool) -> HeldNotices:
    """The notices as the feed has them now; those at hand where they are fresh enough.

    What was fetched before stays where this fails. Raises `ServiceOff`, `OutsideFailed`,
    `FeedRefused`.
    """
    safeguards = get_safeguards(vault)
    if not safeguards.feed_used:
        raise ServiceOff()
    held = get_notices(vault)
    if held is not None and not at_once and now - held.fetched_at < FETCHED_AT_LEAST:
        return held
    feed = read_feed(fetch_feed(safeguards.feed_address))
    # A notice that tells of a later day than before is another.
    known = {(n.notice_id, n.breached_on): n.seen_at for n in held.notices} if held else {}
    notices = (
        replace(n, seen_at=known.get((n.notice_id, n.breached_on)) or now) for n in feed.notices
    )
    fresh = HeldNotices(now, tuple(notices), len(feed.unread))
    with vault.transaction() as tx:
        put_notices(tx, vault, fresh)
    return fresh
