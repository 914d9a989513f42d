"""Corpora built from lists: the same file however it came about, whole or not at all."""

import random
import shutil
import signal
import subprocess
import sys
import time
from collections import Counter
from datetime import date
from hashlib import sha1
from pathlib import Path

import pytest

from newknot.core.breach import encode_corpus
from newknot.store import corpus_build
from newknot.store.corpus import Corpus
from newknot.store.corpus_build import CorpusBuildStopped, HashList, build_corpus
from newknot.store.errors import DiskFull
from newknot.store.hash_lists import HashListRefused

DAY = date(2026, 5, 1)
REPOSITORY = Path(__file__).parents[2]


def hexed(i: int) -> str:
    return sha1(str(i).encode(), usedforsecurity=False).hexdigest()


def write_list(path: Path, size: int, *, seed: int = 1) -> Counter[str]:
    """Hashes in no order, a third of them twice or more."""
    draw = random.Random(seed)
    counts: Counter[str] = Counter()
    with open(path, "w") as lines:
        for _ in range(size):
            one, count = hexed(draw.randrange(size * 2)), draw.randrange(1, 3000)
            counts[one] += count
            lines.write(f"{one}:{count}\n")
    return counts


def built(source: Path, target: Path, **more: object) -> bytes:
    build_corpus([HashList(source)], target, name="list", dated_on=DAY, **more)  # type: ignore[arg-type]
    return target.read_bytes()


def test_the_file_is_the_one_that_memory_makes(tmp_path: Path) -> None:
    counts = write_list(tmp_path / "list.txt", 20_000)
    expected = encode_corpus(
        ((bytes.fromhex(h), n) for h, n in counts.items()), name="list", dated_on=DAY
    )
    for run_hashes in (100, 7_000, 10**9):
        assert built(tmp_path / "list.txt", tmp_path / "c", run_hashes=run_hashes) == expected
    assert sorted(p.name for p in tmp_path.iterdir()) == ["c", "list.txt"]
    assert Corpus.open(tmp_path / "c").verify()


def test_case_line_ends_order_marks_and_files_do_not_change_it(tmp_path: Path) -> None:
    lines = [f"{hexed(i)}:{i + 1}" for i in range(3000)]
    (tmp_path / "plain").write_text("\n".join(lines) + "\n")
    odd = b"\xef\xbb\xbf" + "\r\n".join(x.upper() for x in lines[::-1]).encode() + b"\r\n"
    (tmp_path / "odd").write_bytes(odd)
    whole = built(tmp_path / "plain", tmp_path / "c")
    assert built(tmp_path / "odd", tmp_path / "d") == whole
    for at, part in enumerate((lines[:1700], lines[1700:])):
        (tmp_path / f"part{at}").write_text("\n".join(part) + "\n")
    parts = [HashList(tmp_path / "part1"), HashList(tmp_path / "part0")]
    build_corpus(parts, tmp_path / "e", name="list", dated_on=DAY)
    assert (tmp_path / "e").read_bytes() == whole


def test_equal_lines_that_make_the_buckets_fewer_are_found_out(tmp_path: Path) -> None:
    (tmp_path / "list").write_text("".join(f"{hexed(i % 1000)}\n" for i in range(40_000)))
    built(tmp_path / "list", tmp_path / "c")
    corpus = Corpus.open(tmp_path / "c")
    assert (corpus.title.unique_count, corpus.title.count_sum) == (1000, 40_000)
    assert corpus.occurrences_many([bytes.fromhex(hexed(i)) for i in range(1001)]) == [
        32
    ] * 1000 + [0]


def test_plain_words_are_taken_too(tmp_path: Path) -> None:
    (tmp_path / "words").write_text("limelight\r\ngantry\n\nLimelight\ngantry\n", newline="")
    lists = [HashList(tmp_path / "words", words=True)]
    build_corpus(lists, tmp_path / "c", name="words", dated_on=DAY)
    found = Corpus.open(tmp_path / "c").occurrences_many(
        [sha1(w.encode(), usedforsecurity=False).digest() for w in ("limelight", "gantry", "lamp")]
    )
    assert found == [1, 2, 0]


def test_a_list_of_something_else_is_refused_and_leaves_no_file(tmp_path: Path) -> None:
    (tmp_path / "notes.txt").write_text("not a hash\n" * 20)
    with pytest.raises(HashListRefused) as caught:
        built(tmp_path / "notes.txt", tmp_path / "c")
    assert caught.value.data["offsets"] == [11 * i for i in range(11)]
    assert sorted(p.name for p in tmp_path.iterdir()) == ["notes.txt"]


def test_a_few_bad_lines_are_passed_over_and_named(tmp_path: Path) -> None:
    (tmp_path / "list").write_text(f"# a heading\n{hexed(1)}\nrest\n")
    found = build_corpus([HashList(tmp_path / "list")], tmp_path / "c", name="x", dated_on=DAY)
    assert (found.title.unique_count, found.bad_count) == (1, 2)
    assert found.bad == (("list", 0), ("list", 53))


@pytest.mark.parametrize("stop_at", [1, 3, 9, 60, 300])
def test_what_was_stopped_goes_on_and_gives_the_same_file(tmp_path: Path, stop_at: int) -> None:
    write_list(tmp_path / "list", 4_000)
    whole = built(tmp_path / "list", tmp_path / "whole", run_hashes=500)
    calls: list[str] = []

    def progress(what: str, done: int, total: int) -> bool:
        calls.append(what)
        return len(calls) != stop_at

    try:
        built(tmp_path / "list", tmp_path / "c", run_hashes=500, progress=progress)
    except CorpusBuildStopped:
        assert not (tmp_path / "c").exists()
    assert built(tmp_path / "list", tmp_path / "c", run_hashes=500) == whole


def test_a_run_that_was_damaged_is_read_again_and_a_changed_list_refused(tmp_path: Path) -> None:
    write_list(tmp_path / "list", 4_000)
    whole = built(tmp_path / "list", tmp_path / "whole")
    with pytest.raises(CorpusBuildStopped):
        built(tmp_path / "list", tmp_path / "c", progress=lambda what, *_: what != "merging")
    with pytest.raises(HashListRefused):
        words = HashList(tmp_path / "list", words=True)
        build_corpus([words], tmp_path / "c", name="list", dated_on=DAY)
    kept = tmp_path / "c.work" / "00000.run"
    kept.write_bytes(kept.read_bytes()[:-1] + b"?")
    shutil.copytree(tmp_path / "c.work", tmp_path / "d.work")
    assert built(tmp_path / "list", tmp_path / "c") == whole
    with open(tmp_path / "list", "a") as lines:
        lines.write(hexed(1) + "\n")
    with pytest.raises(HashListRefused, match="hash_list_refused"):
        built(tmp_path / "list", tmp_path / "d")


def test_what_goes_on_names_the_bad_lines_of_before_and_counts_what_it_holds_as_room(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "list").write_text("rest\n" + "".join(f"{hexed(n)}\n" for n in range(4_000)))
    with pytest.raises(CorpusBuildStopped):
        built(tmp_path / "list", tmp_path / "c", progress=lambda what, *_: what != "merging")
    held = sum(part.stat().st_size for part in (tmp_path / "c.work").glob("*"))
    needed = (1 << 20) + int(0.6 * (tmp_path / "list").stat().st_size) + 1
    usage = shutil.disk_usage(tmp_path)
    monkeypatch.setattr(shutil, "disk_usage", lambda path: usage._replace(free=needed - held))
    found = build_corpus([HashList(tmp_path / "list")], tmp_path / "c", name="x", dated_on=DAY)
    assert (found.bad, found.bad_count) == ((("list", 0),), 1)


@pytest.mark.parametrize("number", [28, 122])
def test_no_room_while_writing_is_said_as_such(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, number: int
) -> None:
    def full(*given: object, **more: object) -> None:
        raise OSError(number, "no room")

    write_list(tmp_path / "list", 50)
    monkeypatch.setattr(corpus_build, "read_blocks", full)
    with pytest.raises(DiskFull):
        built(tmp_path / "list", tmp_path / "c")


def test_a_full_disk_leaves_what_was_there(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    write_list(tmp_path / "list", 500)
    (tmp_path / "c").write_text("the one before")
    usage = shutil.disk_usage(tmp_path)._replace(free=1000)
    monkeypatch.setattr(shutil, "disk_usage", lambda path: usage)
    with pytest.raises(DiskFull):
        built(tmp_path / "list", tmp_path / "c")
    assert (tmp_path / "c").read_text() == "the one before"


def test_killed_at_any_time_it_goes_on_to_the_same_file(tmp_path: Path) -> None:
    write_list(tmp_path / "list", 60_000)
    whole = built(tmp_path / "list", tmp_path / "whole")
    program = (
        "import sys; sys.path[:0] = ['src', '.']\n"
        "from pathlib import Path\nfrom tests.store.test_corpus_build import built\n"
        "print('begun', flush=True)\n"
        "built(Path(sys.argv[1]), Path(sys.argv[2]), run_hashes=2000)\n"
    )
    killed = 0
    for after_s in (0.0, 0.02, 0.05, 0.1, 0.2, 0.4):
        child = subprocess.Popen(
            [sys.executable, "-c", program, str(tmp_path / "list"), str(tmp_path / "c")],
            cwd=REPOSITORY,
            stdout=subprocess.PIPE,
        )
        assert child.stdout is not None and child.stdout.readline()
        time.sleep(after_s)
        child.send_signal(signal.SIGKILL)
        killed += child.wait() == -signal.SIGKILL
        assert not (tmp_path / "c").exists() or (tmp_path / "c").read_bytes() == whole
        if (tmp_path / "c").exists():
            (tmp_path / "c").unlink()
    assert killed
    assert built(tmp_path / "list", tmp_path / "c") == whole


@pytest.mark.parametrize(
    ("content", "words", "said"),
    [
        (b"", True, "holds no word"),
        (b"", False, "holds no line of HASH"),
        (b"\n\r\n\n", True, "holds no word"),
        ("p\u00e4ssword\n".encode("latin-1"), True, "holds no word in UTF-8"),
        (
            "\n".join(f"w\u00f6rd {n}" for n in range(40)).encode("latin-1") + b"\n",
            True,
            "in UTF-8",
        ),
        (
            "\n".join(f"word {n}" for n in range(40)).encode("utf-16") + b"\n",
            True,
            "words in UTF-8",
        ),
        ("".join(f"{hexed(n)}:3\n" for n in range(5)).encode(), True, "holds hashes, not words"),
        (b"plank\nrope\n", False, "holds no line of HASH"),
        (b"plank\n" * 40, False, "not HASH[:count]"),
    ],
)
def test_an_odd_list_is_refused_with_its_reason_and_blocks_nothing(
    tmp_path: Path, content: bytes, words: bool, said: str
) -> None:
    source, target = tmp_path / "list", tmp_path / "c"
    source.write_bytes(content)
    given = {"name": "odd", "dated_on": date(2026, 5, 1)}
    with pytest.raises(HashListRefused) as refused:
        build_corpus([HashList(source, words=words)], target, **given)  # type: ignore[arg-type]
    assert said in str(refused.value.data["reason"])
    assert sorted(path.name for path in tmp_path.iterdir()) == ["list"]
    source.write_text("plank\nrope\nw\u00f6rd\n")
    right = build_corpus([HashList(source, words=True)], target, **given)  # type: ignore[arg-type]
    assert right.title.unique_count == 3


def test_a_few_words_that_look_like_hashes_are_words(tmp_path: Path) -> None:
    (tmp_path / "list").write_text(f"{hexed(1)}\nplank\nrope\n")
    made = build_corpus(
        [HashList(tmp_path / "list", words=True)],
        tmp_path / "c",
        name="words",
        dated_on=date(2026, 5, 1),
    )
    assert made.title.unique_count == 3
