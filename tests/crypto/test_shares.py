"""Shares of the recovery key: any k of n give it, fewer do not, and a wrong one is named."""

import json
import os
from collections.abc import Callable
from itertools import combinations
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shamir_mnemonic import combine_mnemonics

from newknot.core.errors import FieldInvalid
from newknot.crypto.shares import ShareWrong, joined, read_share, split

VECTORS = json.loads((Path(__file__).parents[1] / "vectors" / "slip_0039.json").read_text())


@pytest.mark.parametrize("vector", VECTORS["vectors"], ids=lambda v: v["description"])
def test_the_published_vectors(vector: dict[str, object]) -> None:
    words = str(vector["words"])
    if vector["place"] is None:
        with pytest.raises(ShareWrong):
            read_share(words)
    else:
        facts = read_share(words)
        assert (facts.place, facts.threshold) == (vector["place"], vector["threshold"])


@pytest.mark.parametrize("master", VECTORS["masters"], ids=lambda m: m["master_hex"])
def test_the_published_shares_join_to_the_published_secret(master: dict[str, Any]) -> None:
    """By the library that ours are made with; the passphrase is that of the published vectors."""
    shares = [VECTORS["vectors"][i]["words"] for i in master["of"]]
    passphrase = bytes.fromhex(VECTORS["passphrase_hex"])
    assert combine_mnemonics(shares, passphrase).hex() == master["master_hex"]
    assert joined(shares).hex() != master["master_hex"]


@settings(deadline=None, max_examples=8)
@given(st.integers(2, 4), st.integers(0, 2), st.binary(min_size=16, max_size=16))
def test_any_k_of_n_give_the_key_and_fewer_do_not(k: int, more: int, key: bytes) -> None:
    shares = split(key, threshold=k, count=k + more)
    assert {read_share(s).place for s in shares} == set(range(1, k + more + 1))
    for chosen in combinations(shares, k):
        assert joined(chosen) == joined(shares) == key
    with pytest.raises(ShareWrong):
        joined(shares[: k - 1])


def test_a_wrong_share_says_what_is_wrong_with_it() -> None:
    (sheet,) = split(os.urandom(16), threshold=1, count=1)
    words = sheet.split()
    swapped = " ".join([*words[:1], words[2], words[1], *words[3:]])
    cases = {
        " ".join(words[:19]): "19 words",
        " ".join([*words[:4], "limelight", *words[5:]]): "the 5th",
        swapped: "two in the wrong order",
        "": "0 words",
    }
    assert joined([f"  {sheet.upper()} \n"])
    for text, says in cases.items():
        with pytest.raises(ShareWrong) as wrong:
            read_share(text)
        assert says in str(wrong.value.data["reason"])
    other = split(os.urandom(16), threshold=2, count=3)
    with pytest.raises(ShareWrong) as wrong:
        joined([other[0], split(os.urandom(16), threshold=2, count=3)[1]])
    assert wrong.value.data["reason"] == "are of different sets"
    for threshold, count in ((0, 1), (2, 1), (1, 2), (2, 17)):
        with pytest.raises(FieldInvalid):
            split(bytes(16), threshold=threshold, count=count)


@pytest.mark.parametrize(
    "typed",
    [
        lambda words: "\n".join(f"{n}. {w}" for n, w in enumerate(words, 1)),
        lambda words: ", ".join(w.upper() for w in words),
        lambda words: " ".join(w[:4] for w in words),
        lambda words: "\r\n".join(f"{n}){w.title()};" for n, w in enumerate(words, 1)),
        lambda words: "  ".join(f"{w[:4]} ({n})" for n, w in enumerate(words, 1)) + ".",
    ],
)
def test_words_are_taken_however_they_are_typed_off_paper(
    typed: Callable[[list[str]], str],
) -> None:
    key = bytes(range(16))
    (sheet,) = split(key, threshold=1, count=1)
    assert joined([typed(sheet.split())]) == key
    assert read_share(typed(sheet.split())) == read_share(sheet)
