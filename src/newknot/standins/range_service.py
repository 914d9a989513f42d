"""A list of breached hashes that is asked by the first bits of a hash, always answered in one size.

Held as a text file of `HASH[:count]` lines (SHA-1 hex), which fits in memory.
"""

import json
import secrets
from pathlib import Path

from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import PlainTextResponse, Response
from starlette.routing import Route

HOST = "ranges.localhost"
PREFIX_BITS = 16
LEVELS = 16
_KEPT_BYTES = 8
_STEP = 64


class RangeList:
    """The list by prefix."""

    def __init__(self, path: Path, *, name: str, dated_on: str) -> None:
        self._about = {"name": name, "dated_on": dated_on, "prefix_bits": PREFIX_BITS}
        self._by_prefix: dict[int, list[bytes]] = {}
        count = 0
        for line in path.read_text("ascii").splitlines():
            digits, _, times = line.partition(":")
            digest = bytes.fromhex(digits)
            level = min(LEVELS - 1, max(1, int(times or "1")).bit_length() - 1)
            entry = digest[2 : 2 + _KEPT_BYTES] + bytes([level + 1])
            self._by_prefix.setdefault(int.from_bytes(digest[:2], "big"), []).append(entry)
            count += 1
        self._about |= {"unique_count": count}
        largest = max(map(len, self._by_prefix.values()), default=0)
        self._padded_to = _STEP * max(1, -(-largest // _STEP))

    def app(self) -> Starlette:
        """Its two addresses."""
        return Starlette(
            routes=[Route("/about", self.about), Route("/ranges/{prefix}", self.range)]
        )

    async def about(self, request: Request) -> Response:
        """What the list is."""
        return Response(json.dumps(self._about), media_type="application/json")

    async def range(self, request: Request) -> Response:
        """All entries of a prefix, padded to one size with what looks the same but counts 0."""
        try:
            prefix = int(request.path_params["prefix"], 16)
        except ValueError:
            return PlainTextResponse("The prefix is not hex.", 400)
        entries = list(self._by_prefix.get(prefix, ()))
        while len(entries) < self._padded_to:
            entries.append(secrets.token_bytes(_KEPT_BYTES) + b"\0")
        return Response(b"".join(sorted(entries)), media_type="application/octet-stream")
