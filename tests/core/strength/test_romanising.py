"""What another script says, in Latin letters."""

import pytest

from newknot.core.strength.romanising import romanised


@pytest.mark.parametrize(
    ("text", "said"),
    [
        *(
            ("さくら", "sakura"),
            ("きょうと", "kyoto"),
            ("にっぽん", "nippon"),
            ("サクラ7", "sakura7"),
        ),
        *(("사랑해", "saranghae"), ("안녕", "annyeong"), ("ключ", "klyuch"), ("νερό", "nero")),
        *(("lantern", None), ("你好", None), ("さくら木", None)),
    ],
)
def test_what_another_script_says_is_told_by_its_sounds(text: str, said: str | None) -> None:
    assert romanised(text) == said
