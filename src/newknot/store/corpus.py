"""Corpus files, opened read-only and read in pieces; several may be in use at once."""

import os
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from time import perf_counter

from newknot.core.breach import CorpusInvalid, CorpusTitle, CorpusView

SUFFIX = ".corpus"
_TRIED = 32
_GAP, _SPAN_MOST = 4 << 10, 1 << 20
"""What lies no farther from the piece before it is read with it, up to so many bytes."""
_COLD_S = 20e-6
"""A read that takes longer comes from the disk, and the next ones are better asked for ahead."""


class _FilePieces:
    """A file read by position: what is cut or changed underneath is an error, never a crash."""

    def __init__(self, path: Path) -> None:
        self._file = open(path, "rb", buffering=0)  # noqa: SIM115 - held for life
        self._fd = self._file.fileno()
        self._standing = self._now()
        self.size = self._standing[0]
        found = os.fstat(self._fd)
        self.identity = (found.st_dev, found.st_ino, found.st_size, found.st_mtime_ns)
        os.posix_fadvise(self._fd, 0, 0, os.POSIX_FADV_RANDOM)

    def _now(self) -> tuple[int, int]:
        found = os.fstat(self._fd)
        return found.st_size, found.st_mtime_ns

    def read_many(self, offsets: Sequence[int], sizes: Sequence[int], /) -> bytes:
        """Pieces in the order asked, joined."""
        try:
            begun = perf_counter()
            wanted = list(zip(offsets, sizes, strict=True))
            spans = _together(wanted)
            read = [os.pread(self._fd, n, at) for at, n in spans[:_TRIED]]
            rest = spans[_TRIED:]
            if rest and perf_counter() - begun > _TRIED * _COLD_S:
                for at, n in rest:
                    os.posix_fadvise(self._fd, at, n, os.POSIX_FADV_WILLNEED)
            read += [os.pread(self._fd, n, at) for at, n in rest]
            changed = self._now() != self._standing
        except OSError as error:
            raise CorpusInvalid(reason=error.strerror or "cannot be read") from None
        found = b"".join(read if len(spans) == len(wanted) else _apart(wanted, spans, read))
        if changed or len(found) != sum(sizes):
            raise CorpusInvalid(reason="it was changed while in use")
        return found


def _together(wanted: Sequence[tuple[int, int]]) -> list[tuple[int, int]]:
    """Pieces (offset, size) that follow closely on each other, as one each. Of a large corpus
    hardly any do, and all are left as they are.
    """
    if not wanted or wanted[-1][0] - wanted[0][0] > _GAP * len(wanted):
        return list(wanted)
    spans: list[tuple[int, int]] = []
    first = last = 0
    for at, n in wanted:
        if spans and first <= at <= last + _GAP and at + n - first <= _SPAN_MOST:
            last = max(last, at + n)
            spans[-1] = (first, last - first)
        else:
            first, last = at, at + n
            spans.append((at, n))
    return spans


def _apart(
    wanted: Sequence[tuple[int, int]], spans: Sequence[tuple[int, int]], read: Sequence[bytes]
) -> Iterator[bytes]:
    """Each piece again, of the spans that hold them in their order."""
    which = 0
    for at, n in wanted:
        while not spans[which][0] <= at <= at + n <= sum(spans[which]):
            which += 1
        start = at - spans[which][0]
        yield read[which][start : start + n]


class Corpus:
    """A corpus file of a known version. Its records are checked by `verify` alone."""

    def __init__(self, path: Path, pieces: _FilePieces) -> None:
        self.path = path
        self._identity = pieces.identity
        self._view = CorpusView(pieces)

    @staticmethod
    def open(path: Path | str) -> "Corpus":
        """Opens a corpus file. Raises `CorpusInvalid` with the reason."""
        try:
            return Corpus(Path(path), _FilePieces(Path(path)))
        except OSError as error:
            raise CorpusInvalid(reason=error.strerror or "cannot be read") from None

    @property
    def title(self) -> CorpusTitle:
        """Name, date and size."""
        return self._view.title

    @property
    def is_current(self) -> bool:
        """Whether what lies at its path is the file that was opened, and as it was."""
        try:
            found = self.path.stat()
        except OSError:
            return False
        return (found.st_dev, found.st_ino, found.st_size, found.st_mtime_ns) == self._identity

    def occurrences_many(self, digests: Sequence[bytes]) -> list[int]:
        """For each SHA-1 digest of 20 bytes: 0 where absent, else a lower bound of its count.

        Raises `CorpusInvalid` where the file was changed while in use.
        """
        return self._view.occurrences_many(digests)

    def verify(self, progress: Callable[[int, int], bool] = lambda done, total: True) -> bool:
        """Reads everything against the checksums; False where stopped. Raises `CorpusInvalid`."""
        return self._view.verify(progress)


def open_corpora(folder: Path) -> tuple[list[Corpus], list[tuple[str, str]]]:
    """(all corpora of a folder by name, (file name, reason) of those that cannot be used)."""
    return opened_again([], sorted(folder.glob("*" + SUFFIX)))


def opened_again(
    held: Sequence[Corpus], paths: Sequence[Path]
) -> tuple[list[Corpus], list[tuple[str, str]]]:
    """The corpora at these paths, those that are held and are still what they were not opened anew;
    and those that cannot be used, as `open_corpora` answers.
    """
    current = {one.path: one for one in held if one.is_current}
    opened: list[Corpus] = []
    refused: list[tuple[str, str]] = []
    for path in paths:
        if path in current:
            opened.append(current[path])
            continue
        try:
            opened.append(Corpus.open(path))
        except CorpusInvalid as error:
            refused.append((path.name, str(error.data["reason"])))
    return opened, refused
