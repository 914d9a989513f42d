"""Look-up of SHA-1 digests in a corpus held in a buffer."""

import struct
from collections.abc import Sequence
from datetime import date
from hashlib import blake2b

from newknot.core.breach.six_bytes import (
    DIGEST_BYTES,
    GROUP,
    HEADER,
    KEY_BITS,
    MAGIC,
    RECORD_BYTES,
    VERSION,
    CorpusInvalid,
    CorpusTitle,
    Sections,
    bucket_bits,
    split_digest,
)


class CorpusView:
    """A corpus on a bytes-like buffer. Raises `CorpusInvalid` where it is not a whole one."""

    def __init__(self, buffer: bytes) -> None:
        self._buffer = buffer
        if len(buffer) < HEADER.size + DIGEST_BYTES:
            raise CorpusInvalid(reason="too short to be a corpus")
        magic, version, p, unique, total, day, name = HEADER.unpack_from(buffer)
        if magic != MAGIC:
            raise CorpusInvalid(reason="not a corpus file")
        if version != VERSION:
            raise CorpusInvalid(reason=f"a corpus of version {version}, which is not known here")
        self._at = Sections.of(p, unique)
        if p != bucket_bits(unique) or len(buffer) != self._at.digest + DIGEST_BYTES:
            raise CorpusInvalid(reason="cut off or grown: its size is not what its header says")
        digest = blake2b(memoryview(buffer)[: self._at.digest], digest_size=DIGEST_BYTES).digest()
        if digest != bytes(buffer[self._at.digest :]):
            raise CorpusInvalid(reason="damaged: its checksum does not fit")
        try:
            title, dated_on = name.rstrip(b"\0").decode("utf-8", "replace"), date.fromordinal(day)
        except ValueError:
            raise CorpusInvalid(reason="its date is not a date") from None
        self.title = CorpusTitle(title, dated_on, unique, total)

    def occurrences_many(self, digests: Sequence[bytes]) -> list[int]:
        """For each SHA-1 digest: 0 where absent, else 2^level, a lower bound of its count."""
        return [self._one(digest) for digest in digests]

    def _start(self, bucket: int) -> int:
        (base,) = struct.unpack_from(">Q", self._buffer, self._at.groups + 8 * (bucket // GROUP))
        (offset,) = struct.unpack_from(">H", self._buffer, self._at.offsets + 2 * bucket)
        return int(base) + int(offset)

    def _one(self, digest: bytes) -> int:
        bucket, key = split_digest(digest, self._at.p)
        low, high = self._start(bucket), self._start(bucket + 1)
        while low < high:
            middle = (low + high) // 2
            at = self._at.records + middle * RECORD_BYTES
            record = int.from_bytes(self._buffer[at : at + RECORD_BYTES], "big")
            if record >> 4 < key:
                low = middle + 1
            elif record >> 4 > key:
                high = middle
            else:
                return 1 << (record & 15)
        return 0


assert KEY_BITS + 4 == 8 * RECORD_BYTES
