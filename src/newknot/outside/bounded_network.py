"""Sockets that look, in every wait and every read, whether there is still time and leave.

A library's time-out counts from byte to byte: a site that drips one a second never meets it.
"""

import time
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from functools import cache
from ssl import SSLContext
from threading import local
from typing import Any

import httpcore
import httpx

SLICE_S = 0.2
"""So often is looked, at the least."""
Look = Callable[[], None]
"""Raises where the answer is not waited for any longer."""


@cache
def _trusted() -> SSLContext:
    """The authorities that are trusted, read once: there is a client for each visit of a site."""
    return httpx.create_ssl_context(trust_env=False)


class OutsideClient(httpx.Client):
    """A client whose waits and reads are bounded by what `looking` is given."""

    def __init__(self, **settings: Any) -> None:
        self._held = local()
        transport = httpx.HTTPTransport(
            verify=_trusted(), trust_env=False, limits=settings.pop("limits")
        )
        # The library takes a network of one's own (httpcore, network backends), its shell does not
        # hand it on.
        transport._pool._network_backend = _Backend(self.look)
        super().__init__(transport=transport, trust_env=False, **settings)

    def look(self) -> None:
        """Raises what the call of this thread is to end with, if anything."""
        look: Look | None = getattr(self._held, "look", None)
        if look is not None:
            look()

    @contextmanager
    def looking(self, look: Look) -> Iterator[None]:
        """For the calls of this thread within the block."""
        self._held.look = look
        try:
            yield
        finally:
            self._held.look = None


class _Backend(httpcore.SyncBackend):
    def __init__(self, look: Look) -> None:
        self._look = look

    def connect_tcp(
        self,
        host: str,
        port: int,
        timeout: float | None = None,
        local_address: str | None = None,
        socket_options: Iterable[Any] | None = None,
    ) -> httpcore.NetworkStream:
        self._look()
        stream = super().connect_tcp(host, port, timeout, local_address, socket_options)
        return _Stream(stream, self._look)


class _Stream(httpcore.NetworkStream):
    def __init__(self, stream: httpcore.NetworkStream, look: Look) -> None:
        self._stream = stream
        self._look = look

    def read(self, max_bytes: int, timeout: float | None = None) -> bytes:
        until = None if timeout is None else time.monotonic() + timeout
        while True:
            self._look()
            try:
                return self._stream.read(max_bytes, SLICE_S)
            except httpcore.ReadTimeout:
                if until is not None and time.monotonic() >= until:
                    raise

    def write(self, buffer: bytes, timeout: float | None = None) -> None:
        self._look()
        self._stream.write(buffer, timeout)

    def close(self) -> None:
        self._stream.close()

    def start_tls(
        self,
        ssl_context: SSLContext,
        server_hostname: str | None = None,
        timeout: float | None = None,
    ) -> httpcore.NetworkStream:
        self._look()
        return _Stream(self._stream.start_tls(ssl_context, server_hostname, timeout), self._look)

    def get_extra_info(self, info: str) -> Any:
        return self._stream.get_extra_info(info)
