"""Builds a corpus file from lists that need not fit in memory: whole or not at all.

The lists are read into *runs*, sorted by the first byte of the hash, in a folder beside the
target; then, byte by byte, the runs are merged, each hash once, into the records. What was stopped
goes on at the first run that is missing, and gives the same file.
"""

import json
import os
import shutil
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from hashlib import blake2b
from pathlib import Path
from typing import Any

import numpy as np

from newknot.core.breach import CorpusInvalid, CorpusTitle
from newknot.core.breach.six_bytes import (
    CHUNK_BYTES,
    RECORD_BYTES,
    U32,
    U64,
    Sections,
    bucket_bits,
    buckets_of,
    chunk_digest,
    header_of,
    index_of,
    merged,
    records_of,
    root_digest,
)
from newknot.core.errors import NewKnotError
from newknot.store.corpus import Corpus
from newknot.store.errors import DiskFull
from newknot.store.hash_lists import BAD_LINES_MOST, Block, HashListRefused, read_blocks, too_many

PARTS = 256
RUN_HASHES = 2_000_000
_SPACE_SHARE = 0.6
_SPACE_LEAST = 1 << 20

Progress = Callable[[str, int, int], bool]
"""(what is done, bytes or parts done, of all) -> whether to go on."""


class CorpusBuildStopped(NewKnotError):
    """The build was stopped; what was read is kept, and the same command goes on from there."""


@dataclass(frozen=True, slots=True)
class HashList:
    """A list to read. words: plain words instead of hashes. size: its bytes, where known."""

    path: Path
    words: bool = False
    size: int | None = None


@dataclass(frozen=True, slots=True)
class Built:
    """The corpus that came of it, and the lines that were passed over."""

    title: CorpusTitle
    bad_count: int
    bad: tuple[tuple[str, int], ...]


def build_corpus(
    lists: Sequence[HashList],
    target: Path,
    *,
    name: str,
    dated_on: date,
    progress: Progress = lambda what, done, total: True,
    run_hashes: int = RUN_HASHES,
) -> Built:
    """Writes the corpus at `target`, or leaves what is there as it was.

    Raises `HashListRefused`, `CorpusInvalid`, `DiskFull`, `CorpusBuildStopped`.
    """
    header_of(CorpusTitle(name, dated_on, 0, 0))
    work = target.with_name(target.name + ".work")
    standing = [_standing(one) for one in lists]
    _require_space(target.parent, sum(one[1] for one in standing), work)
    try:
        runs = _Runs(work, lists, standing, run_hashes=run_hashes)
        _read(runs, lists, work, progress)
        title = _merge(runs, target, name=name, dated_on=dated_on, progress=progress)
    except OSError as error:
        if error.errno in (28, 122):  # no space left, quota
            raise DiskFull() from None
        raise CorpusInvalid(reason=error.strerror or "cannot be written") from None
    shutil.rmtree(work)
    return Built(title, runs.bad_count, tuple(runs.bad))


def _read(runs: "_Runs", lists: Sequence[HashList], work: Path, progress: Progress) -> None:
    """Reads the lists to their end. What is refused leaves nothing that the next could meet."""
    try:
        runs.read(progress)
        if not runs.hash_count:
            kind = "word in UTF-8" if lists[0].words else "line of HASH[:count]"
            reason = f"holds no {kind}: it would call every secret unknown"
            raise HashListRefused(list=lists[0].path.name, reason=reason, offsets=[])
    except HashListRefused:
        shutil.rmtree(work, ignore_errors=True)
        raise


def _standing(one: HashList) -> tuple[str, int, int]:
    """(path, bytes, when changed). Raises `HashListRefused`."""
    try:
        found = one.path.stat()
    except OSError as error:
        raise HashListRefused(list=one.path.name, reason=error.strerror, offsets=[]) from None
    if one.size is not None and one.size != found.st_size:
        reason = f"has {found.st_size:,} bytes, not {one.size:,}"
        raise HashListRefused(list=one.path.name, reason=reason, offsets=[])
    return str(one.path.absolute()), found.st_size, found.st_mtime_ns


def _require_space(folder: Path, source_bytes: int, work: Path) -> None:
    held = sum(part.stat().st_size for part in work.glob("*")) if work.exists() else 0
    if shutil.disk_usage(folder).free + held < _SPACE_LEAST + source_bytes * _SPACE_SHARE:
        raise DiskFull()


class _Runs:
    """The runs in the work folder: each some millions of hashes, and how far the lists are read."""

    def __init__(
        self,
        folder: Path,
        lists: Sequence[HashList],
        standing: list[tuple[str, int, int]],
        *,
        run_hashes: int,
    ) -> None:
        self.folder = folder
        self._lists = lists
        self._standing = standing
        self._run_hashes = run_hashes
        self._notes: list[dict[str, Any]] = []
        self.bad: list[tuple[str, int]] = []
        self.bad_count = self.line_count = self.hash_like = 0
        folder.mkdir(parents=True, exist_ok=True)
        about = {"lists": [[*one, h.words] for one, h in zip(standing, lists, strict=True)]}
        former = _json(folder / "lists.json")
        if former is not None and former != about:
            reason = "is not what was begun with, or was changed since: remove " + str(folder)
            raise HashListRefused(list=lists[0].path.name, reason=reason, offsets=[])
        if former is None:
            _write_json(folder / "lists.json", about)
        self._resume()

    def _resume(self) -> None:
        while (note := _json(self._path(len(self._notes), "json"))) is not None:
            data = self._path(len(self._notes), "run")
            if not data.exists() or _file_digest(data) != note["digest"]:
                break
            self._notes.append(note)
            self._count(note["list"], note["bad"], note["bad_count"], note["line_count"])

    def _count(self, at: int, bad: Sequence[int], bad_count: int, line_count: int) -> None:
        room = BAD_LINES_MOST + 1 - len(self.bad)
        self.bad += [(self._lists[at].path.name, offset) for offset in bad[:room]]
        self.bad_count += bad_count
        self.line_count += line_count

    def _path(self, number: int, suffix: str) -> Path:
        return self.folder / f"{number:05}.{suffix}"

    @property
    def hash_count(self) -> int:
        """All hashes, equal ones each."""
        return sum(note["starts"][-1] for note in self._notes)

    def read(self, progress: Progress) -> None:
        """Reads what is not read yet."""
        at, offset = 0, 0
        if self._notes:
            at, offset = self._notes[-1]["list"], self._notes[-1]["next_offset"]
        total = sum(size for _, size, _ in self._standing)
        before = sum(size for _, size, _ in self._standing[:at])
        for number in range(at, len(self._lists)):
            one = self._lists[number]
            begun = offset if number == at else 0
            held: list[Block] = []
            for block in read_blocks(
                one.path, offset=begun, words=one.words, is_whole=one.size is not None
            ):
                held.append(block)
                if not progress("reading", before + block.next_offset, total):
                    raise CorpusBuildStopped()
                self._count(number, block.bad, block.bad_count, block.line_count)
                if too_many(self.bad_count, self.line_count):
                    self._refuse(number)
                self.hash_like += block.hash_like
                if 2 * self.hash_like > self.line_count:
                    reason = "holds hashes, not words"
                    raise HashListRefused(list=one.path.name, reason=reason, offsets=[])
                if sum(len(b.high) for b in held) >= self._run_hashes:
                    self._write(number, held)
                    held = []
            if held:
                self._write(number, held)
            if _standing(one) != self._standing[number]:
                reason = "was changed while it was read"
                raise HashListRefused(list=one.path.name, reason=reason, offsets=[])
            before += self._standing[number][1]

    def _refuse(self, number: int) -> None:
        what = "words in UTF-8" if self._lists[number].words else "HASH[:count]"
        raise HashListRefused(
            list=self._lists[number].path.name,
            reason=f"has too many lines that are not {what} ({self.bad_count:,})",
            offsets=[offset for _, offset in self.bad],
        )

    def _write(self, number: int, blocks: list[Block]) -> None:
        high = np.concatenate([b.high for b in blocks])
        order = np.argsort((high >> np.uint64(56)).astype(np.uint8), kind="stable")
        high = high[order]
        low = np.concatenate([b.low for b in blocks])[order]
        counts = np.concatenate([b.counts for b in blocks])[order].astype(np.uint32)
        edges = np.arange(1, PARTS, dtype=np.uint64) << np.uint64(56)
        starts = [0, *np.searchsorted(high >> np.uint64(56) << np.uint64(56), edges).tolist()]
        data = high.tobytes() + low.tobytes() + counts.tobytes()
        path = self._path(len(self._notes), "run")
        with open(path, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        note = {
            "list": number,
            "next_offset": blocks[-1].next_offset,
            "line_count": sum(b.line_count for b in blocks),
            "bad_count": sum(b.bad_count for b in blocks),
            "bad": [at for b in blocks for at in b.bad][: BAD_LINES_MOST + 1],
            "starts": [*starts, len(high)],
            "digest": blake2b(data, digest_size=32).hexdigest(),
        }
        _write_json(self._path(len(self._notes), "json"), note)
        self._notes.append(note)

    def part(self, part: int) -> tuple[U64, U32, U64]:
        """All hashes that begin with this byte, unsorted."""
        high: list[bytes] = []
        low: list[bytes] = []
        counts: list[bytes] = []
        for number, note in enumerate(self._notes):
            start, end, all_of = note["starts"][part], note["starts"][part + 1], note["starts"][-1]
            with open(self._path(number, "run"), "rb", buffering=0) as file:
                for into, width, base in (
                    (high, 8, 0),
                    (low, 4, 8 * all_of),
                    (counts, 4, 12 * all_of),
                ):
                    into.append(
                        os.pread(file.fileno(), width * (end - start), base + width * start)
                    )
        return (
            np.frombuffer(b"".join(high), dtype=np.uint64),
            np.frombuffer(b"".join(low), dtype=np.uint32),
            np.frombuffer(b"".join(counts), dtype=np.uint32).astype(np.uint64),
        )


def _merge(
    runs: _Runs, target: Path, *, name: str, dated_on: date, progress: Progress
) -> CorpusTitle:
    """The file under a temporary name, then in its place. p follows from the unique hashes, which
    are known at the end: where equal ones make it less than supposed, it is done once more.
    """
    p = bucket_bits(runs.hash_count)
    temporary = runs.folder / "corpus"
    while True:
        with open(temporary, "w+b") as file:
            title = _write_corpus(runs, file, p, name=name, dated_on=dated_on, progress=progress)
            if title is not None:
                file.flush()
                os.fsync(file.fileno())
                break
        p -= 1
    Corpus.open(temporary)
    temporary.replace(target)
    _sync_folder(target.parent)
    return title


def _write_corpus(
    runs: _Runs, file: Any, p: int, *, name: str, dated_on: date, progress: Progress
) -> CorpusTitle | None:
    """The title; None where p is not that of so many unique hashes."""
    at = Sections.of(p, 0).records
    file.seek(at)
    in_bucket = np.zeros(1 << p, dtype=np.uint16)
    unique = count_sum = 0
    for part in range(PARTS):
        if not progress("merging", part, PARTS):
            raise CorpusBuildStopped()
        high, low, counts = merged(*runs.part(part))
        if len(high):
            buckets = buckets_of(high, p).astype(np.int64)
            first = int(buckets[0])
            found = np.bincount(buckets - first)
            in_bucket[first : first + len(found)] += found.astype(np.uint16)
            file.write(records_of(high, low, counts, p))
            unique += len(high)
            count_sum += int(counts.sum())
    if bucket_bits(unique) != p:
        return None
    for piece in index_of(in_bucket):
        file.write(piece)
    title = CorpusTitle(name, dated_on, unique, count_sum)
    header = header_of(title)
    file.seek(0)
    file.write(header)
    file.seek(0)
    sections = Sections.of(p, unique)
    digests = b"".join(
        chunk_digest(file.read(min(CHUNK_BYTES, sections.digests - begun)))
        for begun in range(0, sections.digests, CHUNK_BYTES)
    )
    file.write(digests + root_digest(header, digests))
    assert file.tell() == sections.size and sections.groups == at + unique * RECORD_BYTES
    return title


def _json(path: Path) -> dict[str, Any] | None:
    try:
        found: dict[str, Any] = json.loads(path.read_text("utf-8"))
    except (OSError, ValueError):
        return None
    return found


def _write_json(path: Path, document: dict[str, Any]) -> None:
    """Whole or not at all."""
    temporary = path.with_suffix(".new")
    with open(temporary, "w", encoding="utf-8") as file:
        json.dump(document, file)
        file.flush()
        os.fsync(file.fileno())
    temporary.replace(path)


def _file_digest(path: Path) -> str:
    digest = blake2b(digest_size=32)
    with open(path, "rb") as file:
        while chunk := file.read(CHUNK_BYTES):
            digest.update(chunk)
    return digest.hexdigest()


def _sync_folder(folder: Path) -> None:
    fd = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(fd)
    finally:
        os.close(fd)
