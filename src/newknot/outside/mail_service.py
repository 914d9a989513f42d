"""The tray of the user's mails, looked into when switched on."""

from newknot.outside.reaching import fetch, outside_client

MAILS_MOST_BYTES = 4 << 20


def fetch_mails(address: str) -> bytes:
    """The mails as they came. Raises `OutsideFailed`."""
    with outside_client() as client:
        return fetch(client, address, most_bytes=MAILS_MOST_BYTES)
