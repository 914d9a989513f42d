"""The breach corpus against a SQLite table of the same hashes, in the same run."""

import os
import resource
import secrets
import sqlite3
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path

import numpy as np

from benchmarks.table import ms, row, timed
from newknot.store.corpus import Corpus
from newknot.store.corpus_build import HashList, build_corpus

BATCH = 10_000
_CHUNK = 200_000
_CREATE = "CREATE TABLE hashes (digest BLOB PRIMARY KEY, count INTEGER) WITHOUT ROWID"
_INSERT = "INSERT INTO hashes VALUES (?, ?)"
_SELECT = "SELECT count FROM hashes WHERE digest = ?"


def bench_corpus(folder: Path, *, lines: int) -> None:
    """In a process of its own, so that its memory is its own."""
    print(f"\nA breach corpus of {lines:,} lines", flush=True)
    command = [sys.executable, "-m", "benchmarks.corpus", str(folder), str(lines)]
    subprocess.run(command, check=True)


def main(folder: Path, lines: int) -> None:
    """A list of so many lines: built, looked up warm and cold."""
    source, target = folder / "list.txt", folder / "list.corpus"
    asked = _write_list(source, lines)
    begun, whole = time.process_time(), time.perf_counter()
    built = build_corpus([HashList(source)], target, name="bench", dated_on=date(2026, 5, 1))
    cpu, whole = time.process_time() - begun, time.perf_counter() - whole
    per_10m = cpu * 1e7 / lines
    row("  text to file, CPU for 10 M lines", f"{per_10m:.1f} s", "8 s")
    row("  text to file, lines a second of wall time", f"{lines / whole:,.0f}")
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    row("  most memory of the process", f"{peak:.0f} MiB", "350 MB")
    size = target.stat().st_size
    row("  bytes an entry", f"{size / built.title.unique_count:.3f}", "6.25")
    before = _anonymous_mib()
    corpus = Corpus.open(target)
    warm = _batches(corpus, asked)
    row("  10,000 look-ups, warm", ms(warm), "10 ms")
    each = statistics.median(timed(corpus.occurrences_many, [one]) for one in asked[:2000])
    row("  one look-up, warm", f"{each * 1e6:.1f} µs", "10 µs")
    row("  memory it holds (anonymous)", f"{max(0.0, _anonymous_mib() - before):.1f} MiB", "20 MB")
    row("  10,000 look-ups, cold", ms(_cold(target, lambda: Corpus.open(target), asked)), "400 ms")
    row("  verifying every byte", ms(timed(corpus.verify)))
    if lines <= 5_000_000:
        _against_sqlite(folder, source, asked, ours=(size, cpu, warm))
    source.unlink()
    target.unlink()


def _write_list(source: Path, lines: int) -> list[bytes]:
    """Random hashes with counts; answers a batch to ask for, half of it in the list."""
    taken: list[bytes] = []
    with open(source, "wb", buffering=1 << 22) as file:
        for begun in range(0, lines, _CHUNK):
            size = min(_CHUNK, lines - begun)
            raw = os.urandom(20 * size)
            text = np.frombuffer(raw.hex().encode(), dtype=np.uint8).reshape(size, 40)
            digits = np.random.default_rng(begun).integers(48, 58, (size, 3), dtype=np.uint8)
            digits[:, 0] = np.maximum(digits[:, 0], 49)
            colon, end = np.full((size, 1), 58, np.uint8), np.full((size, 1), 10, np.uint8)
            file.write(np.hstack([text, colon, digits, end]).tobytes())
            wanted = max(1, BATCH // 2 * size // lines + 1)
            step = max(1, size // wanted)
            taken += [raw[20 * i : 20 * i + 20] for i in range(0, size, step)][:wanted]
    held = taken[: BATCH // 2]
    return held + [secrets.token_bytes(20) for _ in range(BATCH - len(held))]


def _batches(corpus: Corpus, asked: list[bytes]) -> float:
    found = corpus.occurrences_many(asked)
    assert all(found[: BATCH // 2]) and not any(found[BATCH // 2 :])
    return statistics.median(timed(corpus.occurrences_many, asked) for _ in range(9))


def _cold(path: Path, opened: Callable[[], Corpus], asked: list[bytes]) -> float:
    """With the file's pages dropped from memory before."""
    times = []
    for _ in range(3):
        fd = os.open(path, os.O_RDONLY)
        os.fsync(fd)
        os.posix_fadvise(fd, 0, 0, os.POSIX_FADV_DONTNEED)
        os.close(fd)
        corpus = opened()
        times.append(timed(corpus.occurrences_many, asked))
    return statistics.median(times)


def _anonymous_mib() -> float:
    for line in Path("/proc/self/status").read_text().splitlines():
        if line.startswith("RssAnon"):
            return int(line.split()[1]) / 1024
    return 0.0


def _against_sqlite(
    folder: Path, source: Path, asked: list[bytes], *, ours: tuple[int, float, float]
) -> None:
    """The usual table: the digest as key, no row id, filled in order as is best for it."""
    path = folder / "table.sqlite"
    begun = time.process_time()
    connection = sqlite3.connect(path)
    connection.execute(_CREATE)
    with connection, open(source, "rb") as lines:
        pairs = sorted((bytes.fromhex(x[:40].decode()), int(x[41:])) for x in lines)
        connection.executemany(_INSERT, pairs)
    cpu = time.process_time() - begun
    del pairs
    look = connection.execute

    def batch() -> list[object]:
        return [look(_SELECT, (one,)).fetchone() for one in sorted(asked)]

    batch()
    warm = statistics.median(timed(batch) for _ in range(5))
    connection.close()
    size, our_cpu, our_warm = ours
    row("  SQLite's table, times as large", f"{path.stat().st_size / size:.1f}", "4.5")
    row("  SQLite's table, times the CPU to build", f"{cpu / our_cpu:.1f}", "5")
    row("  SQLite's table, times as long for 10,000 look-ups", f"{warm / our_warm:.1f}", "8")
    path.unlink()


if __name__ == "__main__":
    main(Path(sys.argv[1]), int(sys.argv[2]))
