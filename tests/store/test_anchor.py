"""What the anchor says of a vault file's age."""

from pathlib import Path

import pytest

from newknot.store.anchor import Anchor, Standing


@pytest.mark.parametrize(
    ("counter", "tag", "standing"),
    [(7, b"a", "current"), (8, b"b", "current"), (6, b"a", "older"), (7, b"x", "older")],
)
def test_an_earlier_or_another_head_is_older(
    tmp_path: Path, counter: int, tag: bytes, standing: str
) -> None:
    anchor = Anchor(tmp_path / "state", bytes(16))
    assert anchor.standing(counter=counter, head_tag=tag) is Standing.CURRENT
    anchor.write(counter=7, head_tag=b"a")
    assert anchor.path.stat().st_mode & 0o777 == 0o600
    assert anchor.standing(counter=counter, head_tag=tag).value == standing


def test_an_unreadable_anchor_says_nothing(tmp_path: Path) -> None:
    anchor = Anchor(tmp_path, bytes(16))
    for text in ("", "[]", '{"counter": "x"}', "\0"):
        anchor.path.write_text(text)
        assert anchor.standing(counter=0, head_tag=b"") is Standing.CURRENT
