"""Corpus files: built from lists of hashes, opened read-only."""

import os
from collections.abc import Iterator, Sequence
from datetime import date
from pathlib import Path

from newknot.core.breach import CorpusInvalid, CorpusTitle, CorpusView, encode_corpus
from newknot.core.errors import NewKnotError

_BAD_LINES_MOST = 10


class HashListRefused(NewKnotError):
    """A list with too many unreadable lines. data: lines (numbers of the first ones)."""


class Corpus:
    """A corpus file read whole into memory, its checksum verified."""

    def __init__(self, view: CorpusView, path: Path) -> None:
        self._view = view
        self.path = path

    @staticmethod
    def open(path: Path | str) -> "Corpus":
        """Reads a corpus file. Raises `CorpusInvalid` with the reason."""
        try:
            return Corpus(CorpusView(Path(path).read_bytes()), Path(path))
        except OSError as error:
            raise CorpusInvalid(reason=error.strerror or "cannot be read") from None

    @property
    def title(self) -> CorpusTitle:
        """Name, date and size."""
        return self._view.title

    def occurrences_many(self, digests: Sequence[bytes]) -> list[int]:
        """For each SHA-1 digest of 20 bytes: 0 where absent, else a lower bound of its count."""
        return self._view.occurrences_many(digests)


def build_corpus(lists: Sequence[Path], target: Path, *, name: str, dated_on: date) -> CorpusTitle:
    """A corpus file of `HASH[:count]` lines (SHA-1 hex, any case): whole or not at all.

    The lists have to fit in memory. Raises `HashListRefused` beyond ten unreadable lines,
    `CorpusInvalid`.
    """
    body = encode_corpus(_pairs(lists), name=name, dated_on=dated_on)
    temporary = target.with_name(target.name + ".new")
    with open(temporary, "wb") as file:
        file.write(body)
        file.flush()
        os.fsync(file.fileno())
    temporary.replace(target)
    return Corpus.open(target).title


def _pairs(lists: Sequence[Path]) -> Iterator[tuple[bytes, int]]:
    for path in lists:
        bad: list[int] = []
        with open(path, encoding="utf-8-sig", errors="replace") as lines:
            for number, line in enumerate(lines, 1):
                text = line.strip()
                if not text:
                    continue
                pair = _pair(text)
                if pair is not None:
                    yield pair
                    continue
                bad.append(number)
                if len(bad) > _BAD_LINES_MOST:
                    raise HashListRefused(lines=bad)


def _pair(text: str) -> tuple[bytes, int] | None:
    digits, _, count = text.partition(":")
    try:
        digest, times = bytes.fromhex(digits), int(count or "1")
    except ValueError:
        return None
    return (digest, times) if len(digest) == 20 and times >= 1 else None
