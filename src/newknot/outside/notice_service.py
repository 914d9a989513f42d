"""A feed of breach notices, fetched when switched on."""

from newknot.outside.reaching import fetch, outside_client

FEED_MOST = 4 << 20


def fetch_feed(address: str) -> bytes:
    """The feed as it came. Raises `OutsideFailed`."""
    with outside_client() as client:
        return fetch(client, address, most_bytes=FEED_MOST)
