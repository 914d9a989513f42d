"""Lists of `HASH[:count]` lines (SHA-1 hex, any case), or of plain words, read block by block."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from hashlib import sha1
from pathlib import Path
from typing import BinaryIO

import numpy as np
import numpy.typing as npt

from newknot.core.breach.six_bytes import COUNT_MOST, U32, U64, heads_of
from newknot.core.errors import NewKnotError

BLOCK_BYTES = 8 << 20
LINE_MOST = 1 << 20
BAD_LINES_MOST = 10
BAD_SHARE_MOST = 0.001
_HEX = 40
_DIGITS_MOST = 18
_HASH_LINE = re.compile(rb"[0-9A-Fa-f]{40}(?::[0-9]{1,18})?")
_BOM = b"\xef\xbb\xbf"

_NIBBLES = np.full(256, 255, dtype=np.uint8)
for _value, _character in enumerate(b"0123456789abcdef"):
    _NIBBLES[_character] = _value
for _value, _character in enumerate(b"ABCDEF", 10):
    _NIBBLES[_character] = _value


class HashListRefused(NewKnotError):
    """A list that cannot be taken. data: list (file name), reason, offsets (bytes of bad lines)."""


@dataclass(frozen=True, slots=True)
class Block:
    """What one piece of a list holds. next_offset: where the next piece begins.

    bad: byte offsets of lines that are none, the first ones alone; bad_count: all of them.
    hash_like: how many words have the form of a hash.
    """

    high: U64
    low: U32
    counts: U64
    next_offset: int
    line_count: int
    bad: tuple[int, ...]
    bad_count: int
    hash_like: int = 0


def read_blocks(path: Path, *, offset: int, words: bool, is_whole: bool) -> Iterator[Block]:
    """The list from a byte offset on, which is the beginning of a line.

    is_whole: it is known not to be cut, so its last line may lack its end. Raises
    `HashListRefused`.
    """
    with open(path, "rb", buffering=0) as file:
        file.seek(offset)
        if offset == 0 and file.read(len(_BOM)) != _BOM:
            file.seek(0)
        offset = file.tell()
        left = b""
        while True:
            read = _read(file)
            text = left + read
            if not read:
                break
            end = text.rfind(b"\n") + 1
            if not end and len(text) > LINE_MOST:
                raise HashListRefused(list=path.name, reason="is no list of lines", offsets=[])
            left = text[end:]
            if end:
                yield _block(text[:end], offset, words=words)
                offset += end
        if left and not is_whole:
            reason = "ends in the middle of a line: it may be cut. Give its size in bytes"
            raise HashListRefused(list=path.name, reason=reason, offsets=[offset])
        if left:
            yield _block(left + b"\n", offset, words=words)


def too_many(bad_count: int, line_count: int) -> bool:
    """Whether so many bad lines say that this is not such a list."""
    return bad_count > max(BAD_LINES_MOST, BAD_SHARE_MOST * line_count)


def _read(file: BinaryIO) -> bytes:
    return file.read(BLOCK_BYTES)


def _block(text: bytes, offset: int, *, words: bool) -> Block:
    return _words(text, offset) if words else _hashes(text, offset)


def _words(text: bytes, offset: int) -> Block:
    lines = text.split(b"\n")[:-1]
    digests: list[bytes] = []
    bad: list[int] = []
    hash_like, at = 0, offset
    for line in lines:
        word = line.removesuffix(b"\r")
        if word and not _is_text(word):
            bad.append(at)
        elif word:
            hash_like += len(word) >= _HEX and _HASH_LINE.fullmatch(word) is not None
            digests.append(sha1(word, usedforsecurity=False).digest())
        at += len(line) + 1
    high, low = heads_of(b"".join(digests))
    ones = np.ones(len(high), dtype=np.uint64)
    first_bad = tuple(bad[: BAD_LINES_MOST + 1])
    next_offset = offset + len(text)
    return Block(high, low, ones, next_offset, len(lines), first_bad, len(bad), hash_like)


def _is_text(word: bytes) -> bool:
    """Whether it is UTF-8, by which corpora name a secret: words of another encoding never fit."""
    if word.isascii():
        return b"\0" not in word
    try:
        word.decode("utf-8")
    except UnicodeDecodeError:
        return False
    return b"\0" not in word


def _hashes(text: bytes, offset: int) -> Block:
    padded = np.frombuffer(text + bytes(_HEX), dtype=np.uint8)
    ends = np.flatnonzero(padded[: len(text)] == 10)
    starts = np.concatenate(([0], ends[:-1] + 1))
    next_offset, line_count = offset + len(text), len(ends)
    ends = ends - ((ends > starts) & (padded[ends - 1] == 13))
    filled = ends > starts
    starts, ends = starts[filled], ends[filled]
    nibbles = _NIBBLES[np.lib.stride_tricks.sliding_window_view(padded, _HEX)[starts]]
    counts, fits = _counts(padded, starts + _HEX, ends)
    fits &= (ends - starts >= _HEX) & (nibbles < 16).all(axis=1)
    heads = (nibbles[fits, :24:2] << 4) | nibbles[fits, 1:24:2]
    high, low = heads_of(heads.tobytes(), width=12)
    bad = starts[~fits] + offset
    first_bad = tuple(int(at) for at in bad[: BAD_LINES_MOST + 1])
    return Block(high, low, counts[fits], next_offset, line_count, first_bad, len(bad))


def _counts(
    padded: npt.NDArray[np.uint8], at: npt.NDArray[np.int64], ends: npt.NDArray[np.int64]
) -> tuple[U64, npt.NDArray[np.bool_]]:
    """(the count that follows each hash, 1 where none does; whether there is one that is right)."""
    length = ends - at - 1
    counts = np.zeros(len(at), dtype=np.uint64)
    last = len(padded) - 1
    fits = (length == -1) | ((length > 0) & (padded[np.minimum(at, last)] == ord(":")))
    fits &= length <= _DIGITS_MOST
    for place in range(int(length.max(initial=0))):
        if place >= _DIGITS_MOST:
            break
        rows = np.flatnonzero(fits & (length > place))
        digits = padded[at[rows] + 1 + place] - np.uint8(48)
        fits[rows[digits > 9]] = False
        counts[rows] = counts[rows] * np.uint64(10) + digits
    counts[length == -1] = 1
    fits &= counts > 0
    return np.minimum(counts, np.uint64(COUNT_MOST)), fits
