"""The one way out: bounded requests to https, or to stand-ins on this machine."""

import time
from collections.abc import Callable
from typing import TYPE_CHECKING
from urllib.parse import urlsplit

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid, NewKnotError

if TYPE_CHECKING:
    from newknot.outside.bounded_network import OutsideClient

TIMEOUT_S, CONNECT_S = 5.0, 2.0
ANSWER_S = 10.0
"""Within which a whole answer has come, or is not waited for any longer."""
_LOOPBACK = "127.0.0.1"


class OutsideFailed(NewKnotError):
    """A service outside did not answer as it should. data: reason."""


def checked_service(address: str, *, field: str, own_port: int | None = None) -> str:
    """The address without its last slash. Raises `FieldInvalid` unless https, or loopback."""
    text = address.strip().rstrip("/")
    try:
        site = site_of(text)
    except FieldInvalid as error:
        raise FieldInvalid(field, str(error.data["reason"])) from None
    if site is None:
        raise FieldInvalid(field, "is missing")
    if site.scheme != "https" and not site.is_loopback:
        raise FieldInvalid(field, "is not an https address")
    if site.is_loopback and site.port == own_port:
        raise FieldInvalid(field, "is this application itself")
    return site.address.rstrip("/")


def outside_client() -> "OutsideClient":
    """A client that keeps no cookies, follows no redirects and heeds no proxy settings.

    The library is loaded when something is reached for: a start need not wait for it.
    """
    import httpx

    from newknot.outside.bounded_network import OutsideClient

    return OutsideClient(
        timeout=httpx.Timeout(TIMEOUT_S, connect=CONNECT_S),
        follow_redirects=False,
        headers={"user-agent": "newknot"},
        limits=httpx.Limits(max_connections=4),
    )


def at_loopback(address: str) -> tuple[str, dict[str, str]]:
    """(address to connect to, headers): names under `.localhost` are this machine, asked for at
    127.0.0.1 with the name kept as Host.
    """
    parts = urlsplit(address)
    host = parts.hostname or ""
    if host != "localhost" and not host.endswith(".localhost"):
        return address, {}
    port = f":{parts.port}" if parts.port else ""
    return parts._replace(netloc=_LOOPBACK + port).geturl(), {"host": parts.netloc}


def fetch(
    client: "OutsideClient",
    address: str,
    *,
    most_bytes: int,
    may_go_on: Callable[[], bool] = lambda: True,
) -> bytes:
    """The body of an answer of status 200, within one time for the whole of it; given up as soon as
    may_go_on answers False. Raises `OutsideFailed`.
    """
    import httpx

    target, headers = at_loopback(address)
    until = time.monotonic() + ANSWER_S

    def look() -> None:
        if not may_go_on():
            raise OutsideFailed(reason="was left because you stopped it")
        if time.monotonic() > until:
            raise OutsideFailed(reason="did not answer in time")

    try:
        with client.looking(look), client.stream("GET", target, headers=headers) as answer:
            if answer.status_code != 200:
                raise OutsideFailed(reason=f"answered with status {answer.status_code}")
            body = bytearray()
            for piece in answer.iter_bytes():
                body += piece
                if len(body) > most_bytes:
                    raise OutsideFailed(reason=f"sent more than {most_bytes:,} bytes")
            return bytes(body)
    except httpx.TimeoutException:
        raise OutsideFailed(reason="did not answer in time") from None
    except (httpx.HTTPError, httpx.InvalidURL):
        raise OutsideFailed(reason="could not be reached") from None
