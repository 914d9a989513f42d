"""The corpus layout: sorted SHA-1 hashes in six bytes each, false match at most 2^-40 a look-up.

With n unique hashes, p = max(0, ceil(log2 n) - 4). The first p bits name a bucket of about 16
entries; a record is 6 big-endian bytes: the next 44 bits and a 4-bit level, floor(log2(count)).
File: header, records, 8 bytes of padding, index (a 64-bit start for every 256 buckets, a 16-bit
offset for each bucket), BLAKE2b-256 of all that precedes.
"""

import struct
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from hashlib import blake2b

from newknot.core.breach.times import level_of
from newknot.core.errors import NewKnotError

MAGIC = b"NKCORPUS"
VERSION = 1
HEADER = struct.Struct(">8sHHQQI80s")
"""magic, version, p, unique count, sum of counts, day (proleptic ordinal), name (UTF-8, NULs)."""
RECORD_BYTES = 6
KEY_BITS = 44
GROUP = 256
DIGEST_BYTES = 32
_PADDING = 8


class CorpusInvalid(NewKnotError):
    """A file that is not a whole corpus of a known version. data: reason."""


@dataclass(frozen=True, slots=True)
class CorpusTitle:
    """What a corpus says of itself. unique_count: hashes; count_sum: occurrences of all."""

    name: str
    dated_on: date
    unique_count: int
    count_sum: int


def bucket_bits(unique_count: int) -> int:
    """p for so many unique hashes."""
    return max(0, (max(1, unique_count) - 1).bit_length() - 4)


def split_digest(digest: bytes, p: int) -> tuple[int, int]:
    """(bucket, 44-bit key) of a SHA-1 digest of 20 bytes."""
    head = int.from_bytes(digest[:10], "big")
    return head >> (80 - p), (head >> (80 - p - KEY_BITS)) & ((1 << KEY_BITS) - 1)


def encode_corpus(counts: Iterable[tuple[bytes, int]], *, name: str, dated_on: date) -> bytes:
    """The corpus file of (SHA-1 digest, count) pairs in any order; counts of equals are added."""
    sums: dict[bytes, int] = {}
    for digest, count in counts:
        if len(digest) != 20 or count < 1:
            raise CorpusInvalid(reason="a hash that is not 20 bytes, or a count below 1")
        sums[digest] = min(sums.get(digest, 0) + count, 2**32 - 1)
    p = bucket_bits(len(sums))
    records = bytearray()
    starts = [0] * ((1 << p) + 1)
    for digest in sorted(sums):
        bucket, key = split_digest(digest, p)
        starts[bucket + 1] += 1
        records += ((key << 4) | level_of(sums[digest])).to_bytes(RECORD_BYTES, "big")
    for i in range(1, len(starts)):
        starts[i] += starts[i - 1]
    groups, offsets = bytearray(), bytearray()
    for bucket, start in enumerate(starts):
        if bucket % GROUP == 0:
            base = start
            groups += struct.pack(">Q", base)
        offsets += struct.pack(">H", start - base)
    title = name.encode("utf-8")[:80]
    header = HEADER.pack(
        MAGIC,
        VERSION,
        p,
        len(sums),
        min(sum(sums.values()), 2**64 - 1),
        dated_on.toordinal(),
        title,
    )
    body = header + bytes(records) + bytes(_PADDING) + bytes(groups) + bytes(offsets)
    return body + blake2b(body, digest_size=DIGEST_BYTES).digest()


@dataclass(frozen=True, slots=True)
class Sections:
    """Byte offsets of a corpus file's parts, derived from its header."""

    p: int
    records: int
    groups: int
    offsets: int
    digest: int

    @staticmethod
    def of(p: int, unique_count: int) -> "Sections":
        records = HEADER.size
        groups = records + unique_count * RECORD_BYTES + _PADDING
        buckets = (1 << p) + 1
        offsets = groups + 8 * (-(-buckets // GROUP))
        return Sections(p, records, groups, offsets, offsets + 2 * buckets)
