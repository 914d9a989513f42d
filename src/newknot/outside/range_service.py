"""A corpus held elsewhere, asked by the first bits of a hash.

`GET /about` answers JSON: name, dated_on, unique_count, prefix_bits (12 to 20). `GET /ranges/HEX`
answers entries of 9 bytes: the 8 bytes of the hash that follow its first two, and 0 for padding or
1 + the level of its count; always as many, so that the size tells nothing. The prefix itself, how
often it is asked and when are seen by the service: that is not anonymous, and is not called so.
"""

import json
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import date

from newknot.core.breach import CorpusTitle
from newknot.core.breach.times import LEVELS
from newknot.outside.reaching import OutsideFailed, fetch, outside_client

ENTRY_BYTES = 9
_KEPT_BYTES = 8
ANSWER_MOST = 1 << 20
ABOUT_MOST = 10_000
SIDE_BY_SIDE = 4
TRIES = 3
FAILURES_MOST = 8
"""After so many prefixes that failed in a row of tries, the rest is not asked."""


@dataclass(frozen=True, slots=True)
class About:
    """What the service says of its list, and how many bits of a hash it asks for."""

    title: CorpusTitle
    prefix_bits: int


class RangeService:
    """The client. `asked` counts the prefixes that left this machine. may_go_on: asked in every
    wait.
    """

    def __init__(self, address: str, *, may_go_on: Callable[[], bool] = lambda: True) -> None:
        self._address = address
        self._may_go_on = may_go_on
        self._client = outside_client()
        self._about: About | None = None
        self.asked = 0
        self.reason = ""

    def close(self) -> None:
        """Ends its connections."""
        self._client.close()

    @property
    def title(self) -> CorpusTitle:
        """Name, date and size as the service states them. Raises `OutsideFailed`."""
        return self.about().title

    def about(self) -> About:
        """What the service says of itself, asked once. Raises `OutsideFailed`."""
        if self._about is None:
            self._about = _about(self._fetched("about", ABOUT_MOST))
        return self._about

    def occurrences_many(self, digests: Sequence[bytes], /) -> list[int | None]:
        """A lower bound of each digest's count, 0 where absent; None where it was not checked.

        Each prefix is asked once. `reason` says why some were not checked.
        """
        bits = self.about().prefix_bits
        prefixes = sorted({_prefix(digest, bits) for digest in digests})
        failures = 0
        answers: dict[int, dict[bytes, int]] = {}

        def ask(prefix: int) -> None:
            nonlocal failures
            if failures >= FAILURES_MOST or not self._may_go_on():
                return
            try:
                answers[prefix] = self._range(prefix, bits)
            except OutsideFailed as error:
                failures += 1
                self.reason = str(error.data["reason"])

        with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
            list(pool.map(ask, prefixes))
        found: list[int | None] = []
        for digest in digests:
            answer = answers.get(_prefix(digest, bits))
            found.append(None if answer is None else answer.get(digest[2 : 2 + _KEPT_BYTES], 0))
        return found

    def _range(self, prefix: int, bits: int) -> dict[bytes, int]:
        """The hashes of a prefix with their counts. Tried again where it failed for now."""
        for left in reversed(range(TRIES)):
            self.asked += 1
            try:
                place = f"ranges/{prefix:0{-(-bits // 4)}x}"
                return _entries(self._fetched(place, ANSWER_MOST))
            except OutsideFailed:
                if not left or not self._may_go_on():
                    raise
        raise AssertionError

    def _fetched(self, place: str, most_bytes: int) -> bytes:
        address = f"{self._address}/{place}"
        return fetch(self._client, address, most_bytes=most_bytes, may_go_on=self._may_go_on)


def _prefix(digest: bytes, bits: int) -> int:
    return int.from_bytes(digest[:4], "big") >> (32 - bits)


def _entries(body: bytes) -> dict[bytes, int]:
    if len(body) % ENTRY_BYTES:
        raise OutsideFailed(reason="sent an answer that is cut")
    found: dict[bytes, int] = {}
    for at in range(0, len(body), ENTRY_BYTES):
        level = body[at + _KEPT_BYTES]
        if level > LEVELS:
            raise OutsideFailed(reason="sent an answer that cannot be read")
        if level:
            found[body[at : at + _KEPT_BYTES]] = 1 << (level - 1)
    return found


def _about(body: bytes) -> About:
    try:
        document = json.loads(body)
        name, count, bits = document["name"], document["unique_count"], document["prefix_bits"]
        dated_on = date.fromisoformat(document["dated_on"])
        if not isinstance(name, str) or type(count) is not int or type(bits) is not int:
            raise TypeError
        if not 12 <= bits <= 20 or count < 0:
            raise ValueError
    except (ValueError, TypeError, KeyError, RecursionError):
        raise OutsideFailed(reason="does not say what it is") from None
    printable = "".join(c for c in name if c.isprintable())[:80]
    return About(CorpusTitle(printable, dated_on, count, 0), bits)
