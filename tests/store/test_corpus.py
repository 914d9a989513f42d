"""Corpus files built from lists."""

from datetime import date
from hashlib import sha1
from pathlib import Path

import pytest

from newknot.core.breach import CorpusInvalid
from newknot.store.corpus import Corpus, HashListRefused, build_corpus

DAY = date(2026, 5, 1)


def digest(text: str) -> bytes:
    return sha1(text.encode(), usedforsecurity=False).digest()


def test_case_line_ends_order_and_a_mark_do_not_change_the_file(tmp_path: Path) -> None:
    lines = [f"{digest(str(i)).hex()}:{i + 1}" for i in range(300)]
    plain, odd = tmp_path / "plain.txt", tmp_path / "odd.txt"
    plain.write_text("\n".join(lines) + "\n")
    odd.write_bytes(b"\xef\xbb\xbf" + "\r\n".join(x.upper() for x in lines[::-1]).encode())
    for source in (plain, odd):
        build_corpus([source], source.with_suffix(".corpus"), name="list", dated_on=DAY)
    assert (tmp_path / "plain.corpus").read_bytes() == (tmp_path / "odd.corpus").read_bytes()
    corpus = Corpus.open(tmp_path / "plain.corpus")
    assert corpus.title.unique_count == 300
    assert corpus.occurrences_many([digest("7"), digest("no")]) == [8, 0]


def test_a_list_of_something_else_is_refused_and_leaves_no_file(tmp_path: Path) -> None:
    source = tmp_path / "notes.txt"
    source.write_text("not a hash\n" * 20)
    with pytest.raises(HashListRefused) as caught:
        build_corpus([source], tmp_path / "x.corpus", name="list", dated_on=DAY)
    assert caught.value.data["lines"] == list(range(1, 12))
    assert sorted(p.name for p in tmp_path.iterdir()) == ["notes.txt"]


def test_a_missing_or_strange_file_is_no_corpus(tmp_path: Path) -> None:
    (tmp_path / "x").write_text("hello")
    for path in (tmp_path / "x", tmp_path / "none", tmp_path):
        with pytest.raises(CorpusInvalid):
            Corpus.open(path)
