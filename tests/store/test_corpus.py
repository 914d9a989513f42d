"""Corpus files in use: several at once, strange ones, and what happens to them underneath."""

import os
from datetime import date
from hashlib import sha1
from pathlib import Path

import pytest

from newknot.core.breach import CorpusInvalid, encode_corpus
from newknot.store.corpus import Corpus, open_corpora

DAY = date(2026, 5, 1)


def digest(text: str) -> bytes:
    return sha1(text.encode(), usedforsecurity=False).digest()


@pytest.fixture
def path(tmp_path: Path) -> Path:
    """A corpus of 3,000 hashes."""
    body = encode_corpus(((digest(str(i)), i + 1) for i in range(3000)), name="list", dated_on=DAY)
    (tmp_path / "list.corpus").write_bytes(body)
    return tmp_path / "list.corpus"


def cut(path: Path) -> None:
    os.truncate(path, path.stat().st_size // 2)


def written_over(path: Path) -> None:
    os.utime(path, ns=(1, 1))
    path.write_bytes(path.read_bytes()[::-1])


@pytest.mark.parametrize("harm", [cut, written_over])
def test_a_file_that_is_harmed_in_use_gives_an_error_and_not_a_clean_answer(path, harm) -> None:  # type: ignore[no-untyped-def]
    corpus = Corpus.open(path)
    asked = [digest(str(i)) for i in range(2000)]
    assert all(corpus.occurrences_many(asked))
    harm(path)
    with pytest.raises(CorpusInvalid, match="corpus_invalid") as caught:
        corpus.occurrences_many(asked)
    assert caught.value.data["reason"] == "it was changed while in use"


def test_a_disk_that_answers_slowly_or_not_at_all(
    path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    corpus = Corpus.open(path)
    asked = [digest(str(i)) for i in range(2000)]
    warm = corpus.occurrences_many(asked)
    told: list[int] = []
    monkeypatch.setattr("newknot.store.corpus._COLD_S", -1.0)
    monkeypatch.setattr("newknot.store.corpus._GAP", -1)
    monkeypatch.setattr(os, "posix_fadvise", lambda fd, at, n, advice: told.append(at))
    assert corpus.occurrences_many(asked) == warm and len(told) > 100

    def fails(*_: object) -> bytes:
        raise OSError(5, "Input/output error")

    monkeypatch.setattr(os, "pread", fails)
    with pytest.raises(CorpusInvalid) as caught:
        corpus.occurrences_many(asked)
    assert caught.value.data["reason"] == "Input/output error"


@pytest.mark.parametrize(("gap", "most"), [(-1, 1 << 20), (50, 200), (4096, 1 << 20)])
def test_pieces_that_lie_close_are_read_as_one_and_answer_the_same(
    path: Path, monkeypatch: pytest.MonkeyPatch, gap: int, most: int
) -> None:
    corpus, read = Corpus.open(path), os.pread
    asked = [digest(str(i)) for i in range(2900, 4000, 3)]
    expected = [1 << (i + 1).bit_length() - 1 if i < 3000 else 0 for i in range(2900, 4000, 3)]
    sizes: list[int] = []
    monkeypatch.setattr("newknot.store.corpus._GAP", gap)
    monkeypatch.setattr("newknot.store.corpus._SPAN_MOST", most)

    def noted(fd: int, n: int, at: int) -> bytes:
        sizes.append(n)
        return read(fd, n, at)

    monkeypatch.setattr(os, "pread", noted)
    assert corpus.occurrences_many(asked) == expected
    assert max(sizes) <= max(most, 300) and (gap >= 0) == (len(sizes) < len(asked))


def test_a_file_that_is_replaced_or_removed_stays_readable_as_it_was(path: Path) -> None:
    corpus = Corpus.open(path)
    (path.parent / "new").write_bytes(b"something else")
    (path.parent / "new").replace(path)
    assert corpus.occurrences_many([digest("6"), digest("no")]) == [4, 0]
    path.unlink()
    assert corpus.occurrences_many([digest("6"), digest("no")]) == [4, 0]


def test_verifying_reads_every_byte(path: Path) -> None:
    body = path.read_bytes()
    assert Corpus.open(path).verify()
    assert not Corpus.open(path).verify(lambda done, total: False)
    for at in range(200, len(body), 997):
        path.write_bytes(body[:at] + bytes([body[at] ^ 64]) + body[at + 1 :])
        with pytest.raises(CorpusInvalid):
            Corpus.open(path).verify()


def test_a_folder_gives_all_that_can_be_used_and_says_why_of_the_others(path: Path) -> None:
    (path.parent / "a.corpus").write_text("hello")
    body = path.read_bytes()
    (path.parent / "b.corpus").write_bytes(body[:9] + b"\x09" + body[10:])
    (path.parent / "c.corpus").mkdir()
    opened, refused = open_corpora(path.parent)
    assert [one.path for one in opened] == [path]
    assert refused == [
        ("a.corpus", "too short to be a corpus"),
        ("b.corpus", "a corpus of version 9, which is not known here"),
        ("c.corpus", "Is a directory"),
    ]
