"""Lists of hashes, line by line as they come, against a reading of one line at a time."""

import re
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from newknot.store import hash_lists
from newknot.store.hash_lists import HashListRefused, read_blocks

HASHES = ["0" * 40, "f" * 40, "A1" * 20, "0123456789abcdef" * 2 + "89ABCDEF"]
LINES = [
    *HASHES,
    *(f"{one}:{count}" for one in HASHES for count in ("1", "007", "4294967296", "9" * 18)),
    *("", "\r", HASHES[0] + "\r", HASHES[1] + ":5\r"),
    *("x", HASHES[0][:39], HASHES[0] + "0", HASHES[0] + ":", HASHES[0] + ":0", HASHES[0] + ":-1"),
    *(
        "g" * 40,
        HASHES[1] + ";5",
        HASHES[1] + ":5 ",
        HASHES[1] + ":5:5",
        HASHES[2] + ":" + "9" * 19,
    ),
]
RIGHT = re.compile(r"([0-9a-fA-F]{40})(?::(\d{1,18}))?\r?")


@settings(
    max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(st.lists(st.sampled_from(LINES), max_size=30), st.integers(1, 300))
def test_blocks_hold_what_lines_hold(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, lines: list[str], block_bytes: int
) -> None:
    monkeypatch.setattr(hash_lists, "BLOCK_BYTES", block_bytes)
    path = tmp_path / "list.txt"
    path.write_text("".join(line + "\n" for line in lines), newline="")
    good, bad, offset = [], [], 0
    for line in lines:
        match = RIGHT.fullmatch(line)
        count = min(int(match[2] or 1), 2**32 - 1) if match else 0
        if match and count:
            good.append((int(match[1][:16], 16), int(match[1][16:24], 16), count))
        elif line not in ("", "\r"):
            bad.append(offset)
        offset += len(line) + 1
    blocks = list(read_blocks(path, offset=0, words=False, is_whole=False))
    found = [
        tuple(map(int, row)) for b in blocks for row in zip(b.high, b.low, b.counts, strict=True)
    ]
    assert found == good
    assert sum(b.bad_count for b in blocks) == len(bad)
    assert [at for b in blocks for at in b.bad][:11] == bad[:11]
    assert sum(b.line_count for b in blocks) == len(lines)


def test_a_last_line_without_its_end_is_taken_only_where_the_size_is_known(tmp_path: Path) -> None:
    path = tmp_path / "list.txt"
    path.write_bytes(b"\xef\xbb\xbf" + HASHES[0].encode() + b"\n" + HASHES[1].encode())
    with pytest.raises(HashListRefused) as caught:
        list(read_blocks(path, offset=0, words=False, is_whole=False))
    assert caught.value.data["offsets"] == [44]
    whole = list(read_blocks(path, offset=0, words=False, is_whole=True))
    assert sum(len(b.high) for b in whole) == 2


def test_a_file_without_lines_is_no_list(tmp_path: Path) -> None:
    (tmp_path / "big").write_bytes(bytes(hash_lists.BLOCK_BYTES + 1))
    with pytest.raises(HashListRefused, match="hash_list_refused"):
        list(read_blocks(tmp_path / "big", offset=0, words=False, is_whole=False))
