"""Look-up of SHA-1 digests in a corpus that is read in pieces."""

from collections.abc import Callable, Sequence
from datetime import date
from typing import Protocol

import numpy as np
import numpy.typing as npt

from newknot.core.breach.six_bytes import (
    CHUNK_BYTES,
    DIGEST_BYTES,
    GROUP,
    HEADER,
    MAGIC,
    RECORD_BYTES,
    VERSION,
    CorpusInvalid,
    CorpusTitle,
    Sections,
    bucket_bits,
    buckets_of,
    chunk_digest,
    heads_of,
    keys_of,
    root_digest,
)

HELD_MOST = 18 << 20
"""Bytes of bucket offsets that are held in memory: those of 140 million hashes. Of larger corpora
they are read at each look-up.
"""


class Pieces(Protocol):
    """The bytes of a corpus, wherever they lie. Each read gives exactly what was asked for, or
    raises `CorpusInvalid`.
    """

    @property
    def size(self) -> int:
        """All bytes."""

    def read_many(self, offsets: Sequence[int], sizes: Sequence[int], /) -> bytes:
        """Pieces in the order asked, joined."""


class InMemory:
    """A corpus in one bytes object."""

    def __init__(self, body: bytes) -> None:
        self._body = body
        self.size = len(body)

    def read_many(self, offsets: Sequence[int], sizes: Sequence[int], /) -> bytes:
        """Pieces in the order asked, joined."""
        return b"".join(self._body[at : at + size] for at, size in zip(offsets, sizes, strict=True))


class CorpusView:
    """A corpus of pieces. Raises `CorpusInvalid` where size, header or root is not that of one.

    The records themselves are checked by `verify` alone, which reads all of them.
    """

    def __init__(self, pieces: Pieces) -> None:
        self._pieces = pieces
        if pieces.size < HEADER.size + DIGEST_BYTES:
            raise CorpusInvalid(reason="too short to be a corpus")
        header = pieces.read_many([0], [HEADER.size])
        magic, version, p, unique, total, day, name = HEADER.unpack(header)
        if magic != MAGIC:
            raise CorpusInvalid(reason="not a corpus file")
        if version != VERSION:
            raise CorpusInvalid(reason=f"a corpus of version {version}, which is not known here")
        if p != bucket_bits(unique) or p > 36:
            raise CorpusInvalid(reason="its header contradicts itself")
        self._at = Sections.of(p, unique)
        if pieces.size != self._at.size:
            raise CorpusInvalid(reason="cut off or grown: its size is not what its header says")
        ends = pieces.read_many([self._at.digests], [self._at.size - self._at.digests])
        self._digests = ends[:-DIGEST_BYTES]
        if root_digest(header, self._digests) != ends[-DIGEST_BYTES:]:
            raise CorpusInvalid(reason="damaged: its checksum does not fit")
        groups = pieces.read_many([self._at.groups], [self._at.offsets - self._at.groups])
        self._groups = np.frombuffer(groups, dtype=">u8").astype(np.int64)
        self._held: npt.NDArray[np.uint16] | None = None
        size = self._at.digests - self._at.offsets
        if size <= HELD_MOST:
            offsets = pieces.read_many([self._at.offsets], [size])
            self._held = np.frombuffer(offsets, dtype=">u2")
        try:
            title, dated_on = name.rstrip(b"\0").decode("utf-8", "replace"), date.fromordinal(day)
        except ValueError:
            raise CorpusInvalid(reason="its date is not a date") from None
        self.title = CorpusTitle(title, dated_on, unique, total)

    def occurrences_many(self, digests: Sequence[bytes]) -> list[int]:
        """For each SHA-1 digest: 0 where absent, else 2^level, a lower bound of its count.

        Raises `CorpusInvalid` where the corpus is no longer what it was.
        """
        if not digests or not self.title.unique_count:
            return [0] * len(digests)
        high, low = heads_of(b"".join(digests))
        order = np.argsort(high)  # so that what is read lies in the order of the file
        high, low = high[order], low[order]
        buckets = buckets_of(high, self._at.p).astype(np.int64)
        offsets = self._offsets_of(buckets)
        start = self._groups[buckets // GROUP] + offsets[:, 0]
        length = self._groups[(buckets + 1) // GROUP] + offsets[:, 1] - start
        if length.min() < 0 or int((start + length).max()) > self.title.unique_count:
            raise CorpusInvalid(reason="damaged: its index leads nowhere")
        records = self._pieces.read_many(
            (self._at.records + RECORD_BYTES * start).tolist(), (RECORD_BYTES * length).tolist()
        )
        rows = np.zeros((int(length.sum()), 8), dtype=np.uint8)
        rows[:, 8 - RECORD_BYTES :] = np.frombuffer(records, dtype=np.uint8).reshape(
            -1, RECORD_BYTES
        )
        found = rows.view(">u8").ravel().astype(np.uint64)
        owners = np.repeat(np.arange(len(digests)), length)
        hits = np.flatnonzero(found >> np.uint64(4) == keys_of(high, low, self._at.p)[owners])
        counts = np.zeros(len(digests), dtype=np.int64)
        counts[order[owners[hits]]] = np.int64(1) << (found[hits] & np.uint64(15)).astype(np.int64)
        return [int(count) for count in counts]

    def _offsets_of(self, buckets: npt.NDArray[np.int64]) -> npt.NDArray[np.int64]:
        """The offsets of each bucket and of the one after it."""
        if self._held is not None:
            return np.stack((self._held[buckets], self._held[buckets + 1]), axis=1).astype(np.int64)
        ends = self._pieces.read_many((self._at.offsets + 2 * buckets).tolist(), [4] * len(buckets))
        return np.frombuffer(ends, dtype=">u2").reshape(-1, 2).astype(np.int64)

    def verify(self, progress: Callable[[int, int], bool] = lambda done, total: True) -> bool:
        """Reads everything against the checksums; False where progress asked to stop.

        Raises `CorpusInvalid` naming the first MiB that is damaged.
        """
        chunks = len(self._digests) // DIGEST_BYTES
        for i in range(chunks):
            if not progress(i, chunks):
                return False
            at = i * CHUNK_BYTES
            chunk = self._pieces.read_many([at], [min(CHUNK_BYTES, self._at.digests - at)])
            if chunk_digest(chunk) != self._digests[DIGEST_BYTES * i : DIGEST_BYTES * (i + 1)]:
                raise CorpusInvalid(reason=f"damaged in its {i + 1:,}th MiB of {chunks:,}")
        return True
