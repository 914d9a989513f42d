"""The recovery key as words on paper: shares by SLIP-0039, k of n; one sheet is one of one."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from shamir_mnemonic import MnemonicError, Share, combine_mnemonics, generate_mnemonics
from shamir_mnemonic.wordlist import WORD_INDEX_MAP, WORDLIST

from newknot.core.errors import FieldInvalid, NewKnotError

RECOVERY_KEY_BYTES = 16
"""128 random bits: 20 words a share."""
WORDS_LEAST, WORDS_MOST = 20, 33
SHARES_MOST = 16
_BY_START = {word[:4]: word for word in WORDLIST}


class ShareWrong(NewKnotError):
    """Words that are no share, or not one of this set. data: reason."""


@dataclass(frozen=True, slots=True)
class ShareFacts:
    """What a share says of itself: its set, its place in it (from 1), how many open the key."""

    set_id: int
    place: int
    threshold: int


def split(key: bytes, *, threshold: int, count: int) -> list[str]:
    """Shares of a key, any `threshold` of which give it back, and fewer say nothing of it.

    Its randomness is the operating system's. Raises `FieldInvalid`.
    """
    if not 1 <= threshold <= count <= SHARES_MOST or (threshold == 1 and count > 1):
        raise FieldInvalid("threshold", f"is not 1 of 1, or 2 to {SHARES_MOST} of as many or more")
    (shares,) = generate_mnemonics(1, [(threshold, count)], key)
    return list(shares)


def read_share(text: str) -> ShareFacts:
    """The facts of one share, alone. Raises `ShareWrong` saying which word or that one is."""
    share = _share(text)
    return ShareFacts(share.identifier, share.index + 1, share.member_threshold)


def joined(texts: Sequence[str]) -> bytes:
    """The key that these shares give. Raises `ShareWrong` where they are too few or do not fit."""
    shares = {(s.identifier, s.index): s for s in map(_share, texts)}
    if len({s.group_parameters() for s in shares.values()}) != 1:
        raise ShareWrong(reason="are of different sets")
    needed = next(iter(shares.values())).member_threshold
    if len(shares) < needed:
        raise ShareWrong(reason=f"are {len(shares)} of the {needed} that are needed")
    chosen = list(shares.values())[:needed]
    try:
        return bytes(combine_mnemonics([share.mnemonic() for share in chosen]))
    except MnemonicError:
        raise ShareWrong(
            reason="do not give a key together: one of them is of another key"
        ) from None


def words_of(text: str) -> list[str]:
    """The words of a share however they were typed off paper: with numbers, commas, capitals and
    line breaks between them, or by their first four letters, which no two words of the list share.
    """
    found = re.findall(r"[^\W\d_]+", text.casefold())
    return [_BY_START.get(word, word) for word in found]


def _share(text: str) -> Share:
    words = words_of(text)
    for place, word in enumerate(words[:WORDS_MOST], 1):
        if word not in WORD_INDEX_MAP:
            raise ShareWrong(reason=f"has a word that no share has: the {_nth(place)}")
    if not WORDS_LEAST <= len(words) <= WORDS_MOST:
        raise ShareWrong(reason=f"has {len(words)} words: a share has {WORDS_LEAST}")
    try:
        return Share.from_mnemonic(" ".join(words))
    except MnemonicError:
        raise ShareWrong(reason="has a wrong word, or two in the wrong order") from None


def _nth(place: int) -> str:
    ending = "th" if 10 <= place % 100 <= 20 else {1: "st", 2: "nd", 3: "rd"}.get(place % 10, "th")
    return f"{place}{ending}"
