"""The corpus layout: sorted SHA-1 hashes in six bytes each, false match at most 2^-40 a look-up.

With n unique hashes, p = max(0, ceil(log2 n) - 4). The first p bits name a bucket of about 16
entries; a record is 6 big-endian bytes: the next 44 bits and a 4-bit level, floor(log2(count)).
File: header, records, index (a 64-bit start for every 256 buckets, a 16-bit offset for each
bucket), BLAKE2b-256 of each MiB of all that, and BLAKE2b-256 of header and digests, the root.
"""

import struct
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from hashlib import blake2b
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from newknot.core.breach.times import LEVELS
from newknot.core.errors import NewKnotError

MAGIC = b"NKCORPUS"
VERSION = 2
HEADER = struct.Struct(">8sHHQQI80s")
"""magic, version, p, unique count, sum of counts, day (proleptic ordinal), name (UTF-8, NULs)."""
RECORD_BYTES = 6
KEY_BITS = 44
GROUP = 256
DIGEST_BYTES = 32
CHUNK_BYTES = 1 << 20
COUNT_MOST = 2**32 - 1

U64 = npt.NDArray[np.uint64]
U32 = npt.NDArray[np.uint32]


class CorpusInvalid(NewKnotError):
    """A file that is not a whole corpus of a known version. data: reason."""


class CorpusTitle(NamedTuple):
    """What a corpus says of itself. unique_count: hashes; count_sum: occurrences of all, 0 where it
    gives each count itself and not a power of two below it.
    """

    name: str
    dated_on: date
    unique_count: int
    count_sum: int

    @property
    def has_counts(self) -> bool:
        """Whether it was made of lists that say how often each secret was found."""
        return self.count_sum != self.unique_count


@dataclass(frozen=True, slots=True)
class Sections:
    """Byte offsets of a corpus file's parts, derived from its header."""

    p: int
    records: int
    groups: int
    offsets: int
    digests: int
    root: int

    @staticmethod
    def of(p: int, unique_count: int) -> "Sections":
        records = HEADER.size
        groups = records + unique_count * RECORD_BYTES
        buckets = (1 << p) + 1
        offsets = groups + 8 * (-(-buckets // GROUP))
        digests = offsets + 2 * buckets
        root = digests + DIGEST_BYTES * (-(-digests // CHUNK_BYTES))
        return Sections(p, records, groups, offsets, digests, root)

    @property
    def size(self) -> int:
        """Bytes of the whole file."""
        return self.root + DIGEST_BYTES


def bucket_bits(unique_count: int) -> int:
    """p for so many unique hashes."""
    return max(0, (max(1, unique_count) - 1).bit_length() - 4)


def heads_of(digests: bytes, *, width: int = 20) -> tuple[U64, U32]:
    """The first 8 and the next 4 bytes of each digest of `width` bytes, as numbers."""
    rows = np.frombuffer(digests, dtype=np.uint8).reshape(-1, width)
    high = np.ascontiguousarray(rows[:, :8]).view(">u8").ravel().astype(np.uint64)
    low = np.ascontiguousarray(rows[:, 8:12]).view(">u4").ravel().astype(np.uint32)
    return high, low


def buckets_of(high: U64, p: int) -> U64:
    """The bucket of each hash: its first p bits."""
    return high >> np.uint64(64 - p) if p else np.zeros_like(high)


def keys_of(high: U64, low: U32, p: int) -> U64:
    """The 44 bits that follow the first p of each hash."""
    beyond = p + KEY_BITS - 64
    if beyond <= 0:
        keys = high >> np.uint64(-beyond)
    else:
        keys = (high << np.uint64(beyond)) | (low >> np.uint32(32 - beyond))
    return keys & np.uint64((1 << KEY_BITS) - 1)


def merged(high: U64, low: U32, counts: U64) -> tuple[U64, U32, U64]:
    """The hashes sorted, each once, counts of equals added and held to 32 bits.

    Two hashes are one where their first 96 bits are.
    """
    high, low, counts = _sorted(high, low, counts)
    if not len(high):
        return high, low, counts
    first = np.ones(len(high), dtype=bool)
    first[1:] = (high[1:] != high[:-1]) | (low[1:] != low[:-1])
    at = np.flatnonzero(first)
    sums = np.minimum(np.add.reduceat(counts, at), np.uint64(COUNT_MOST))
    return high[at], low[at], sums


def _sorted(high: U64, low: U32, counts: U64) -> tuple[U64, U32, U64]:
    """By hash. 40 bits and the row in one integer sort several times faster than an index."""
    row_bits = max(1, int(len(high) - 1).bit_length())
    mask = np.uint64((1 << row_bits) - 1)
    packed = ((high << np.uint64(_common_bits(high))) & ~mask) | np.arange(
        len(high), dtype=np.uint64
    )
    packed.sort()
    order = (packed & mask).astype(np.int64)
    high, low, counts = high[order], low[order], counts[order]
    heads = packed & ~mask
    tied = np.zeros(len(high), dtype=bool)
    tied[1:] = heads[1:] == heads[:-1]
    tied[:-1] |= tied[1:]
    at = np.flatnonzero(tied)
    if len(at):
        again = at[np.lexsort((low[at], high[at]))]
        high[at], low[at], counts[at] = high[again], low[again], counts[again]
    return high, low, counts


def _common_bits(high: U64) -> int:
    """How many leading bits all of them share, at most 32."""
    if not len(high):
        return 0
    differing = int(np.bitwise_or.reduce(high ^ high[0]))
    return min(32, 64 - differing.bit_length())


def records_of(high: U64, low: U32, counts: U64, p: int) -> bytes:
    """The records of hashes that are sorted, each once."""
    levels = np.minimum(np.frexp(counts.astype(np.float64))[1] - 1, LEVELS - 1)
    records = (keys_of(high, low, p) << np.uint64(4)) | levels.astype(np.uint64)
    rows = records.astype(">u8").view(np.uint8).reshape(-1, 8)
    return bytes(rows[:, 8 - RECORD_BYTES :].tobytes())


def index_of(bucket_counts: npt.NDArray[np.uint16]) -> tuple[bytes, bytes]:
    """(starts of groups, offsets of buckets) from how many records each bucket has."""
    starts = np.zeros(len(bucket_counts) + 1, dtype=np.uint64)
    np.cumsum(bucket_counts, out=starts[1:])
    bases = starts[::GROUP]
    offsets = starts - np.repeat(bases, GROUP)[: len(starts)]
    return bases.astype(">u8").tobytes(), offsets.astype(">u2").tobytes()


def header_of(title: CorpusTitle) -> bytes:
    """The header. Raises `CorpusInvalid` where the name does not fit."""
    name = title.name.encode("utf-8")
    if len(name) > 80:
        raise CorpusInvalid(reason="its name is longer than 80 bytes")
    p = bucket_bits(title.unique_count)
    day = title.dated_on.toordinal()
    count_sum = min(title.count_sum, 2**64 - 1)
    return HEADER.pack(MAGIC, VERSION, p, title.unique_count, count_sum, day, name)


def chunk_digest(chunk: bytes) -> bytes:
    """BLAKE2b-256 of one MiB of the file."""
    return blake2b(chunk, digest_size=DIGEST_BYTES).digest()


def root_digest(header: bytes, digests: bytes) -> bytes:
    """BLAKE2b-256 over the header and the digests of all chunks."""
    return blake2b(header + digests, digest_size=DIGEST_BYTES, person=b"nk corpus root").digest()


def encode_corpus(counts: Iterable[tuple[bytes, int]], *, name: str, dated_on: date) -> bytes:
    """The corpus file of (SHA-1 digest, count) pairs in any order, where memory holds them all."""
    pairs = list(counts)
    if any(len(digest) != 20 or count < 1 for digest, count in pairs):
        raise CorpusInvalid(reason="a hash that is not 20 bytes, or a count below 1")
    held = np.array([min(count, COUNT_MOST) for _, count in pairs], dtype=np.uint64)
    high, low, sums = merged(*heads_of(b"".join(digest for digest, _ in pairs)), held)
    p = bucket_bits(len(high))
    in_bucket = np.bincount(buckets_of(high, p).astype(np.int64), minlength=1 << p)
    title = CorpusTitle(name, dated_on, len(high), int(sums.sum()))
    header = header_of(title)
    body = header + records_of(high, low, sums, p) + b"".join(index_of(in_bucket.astype(np.uint16)))
    chunks = [body[at : at + CHUNK_BYTES] for at in range(0, len(body), CHUNK_BYTES)]
    digests = b"".join(chunk_digest(chunk) for chunk in chunks)
    return body + digests + root_digest(header, digests)
